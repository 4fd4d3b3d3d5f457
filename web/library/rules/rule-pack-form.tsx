import { useState } from 'react';
import { hashOf, type RulePack } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { TextField } from '../../ui/fields.js';
import { Begun } from '../../drafts/begun.js';
import { FormFoot } from '../form-foot.js';
import { useDocumentForm } from '../use-document-form.js';
import { NEW_CLASS } from './new-pack.js';
import { ClassFields } from './class-fields.js';
import { ParentField } from './parent-field.js';
import classes from '../library-form.module.css';

/** A rule pack being written. A class that says something new is not checked until a lead confirms it again. */
export function RulePackForm({ start, isNew }: { readonly start: RulePack; readonly isNew: boolean }) {
  const uncheckChanged = (pack: RulePack): RulePack => ({
    ...pack,
    classes: pack.classes.map((each) =>
      start.classes.some((before) => hashOf(before) === hashOf(each)) ? each : { ...each, checked: null },
    ),
  });
  const { form, ...foot } = useDocumentForm('rulePack', start, uncheckChanged);
  const pack = form.values;
  const [open, setOpen] = useState(0);
  const withSlips = new Set(Object.keys(form.errors).flatMap((path) => /^classes\.(\d+)/.exec(path)?.[1] ?? []));
  return (
    <>
      <h1>{isNew ? 'New rule pack' : `${start.name}, edited`}</h1>
      <Begun draft={foot.draft} />
      <form
        className={classes['groups']}
        onSubmit={(event) => {
          event.preventDefault();
          foot.submit();
        }}
      >
        <div className={classes['row']}>
          <TextField form={form} path="name" label="Name" most={60} />
          <TextField form={form} path="place" label="Place of use" most={60} hint="as order files name it" />
          {isNew && (
            <TextField form={form} path="id" label="Id in files" most={60} hint="lower-case letters, digits, hyphens" />
          )}
          {isNew && <ParentField form={form} />}
        </div>
        {pack.classes.map((each, i) => (
          <section key={i} className={classes['group']} aria-label={each.title === '' ? `Class ${i + 1}` : each.title}>
            <div className={classes['classHead']}>
              <h2>
                {each.title === '' ? `Class ${i + 1}` : each.title}
                {withSlips.has(String(i)) && ' · needs another look'}
              </h2>
              <div className={classes['acts']}>
                {open !== i && <ActButton onAct={() => setOpen(i)}>Edit this class</ActButton>}
                {pack.classes.length > 1 && (
                  <ActButton
                    look="care"
                    onAct={() => {
                      form.removeListItem('classes', i);
                      setOpen(0);
                    }}
                  >
                    Take it out
                  </ActButton>
                )}
              </div>
            </div>
            {open === i && <ClassFields form={form} at={`classes.${i}`} each={each} />}
          </section>
        ))}
        <div className={classes['acts']}>
          <ActButton
            onAct={() => {
              form.insertListItem('classes', NEW_CLASS);
              setOpen(pack.classes.length);
            }}
          >
            Another class
          </ActButton>
        </div>
        <FormFoot
          {...foot}
          isNew={isNew}
          back={`/library/rulePack/${isNew ? '' : start.id}`}
          says="A class you changed is not checked any more until a lead confirms it."
        />
      </form>
    </>
  );
}
