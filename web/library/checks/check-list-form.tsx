import { Select } from '@mantine/core';
import type { Check, CheckAsks, CheckList } from '@decurio/core';
import { ChoiceField, NumberField, TextField } from '../../ui/fields.js';
import { Begun } from '../../drafts/begun.js';
import { FormFoot } from '../form-foot.js';
import { RowsField } from '../rows-field.js';
import { useDocumentForm, type DocumentForm } from '../use-document-form.js';
import { ASKS_TITLES, NEW_ASKS, OF_TITLES, STEP_TITLES } from './check-words.js';
import classes from '../library-form.module.css';

const NEW_CHECK: Check = { id: '', title: '', how: '', step: 'checkIn', of: 'every', asks: { kind: 'look' } };

export const NEW_LIST: CheckList = {
  format: 'decurio-check-list/1',
  id: '',
  name: '',
  kind: 'any',
  checks: [NEW_CHECK],
};

const options = (titles: Readonly<Record<string, string>>) =>
  Object.entries(titles).map(([value, label]) => ({ value, label }));

/** A list of checks being written. */
export function CheckListForm({ start, isNew }: { readonly start: CheckList; readonly isNew: boolean }) {
  const { form, ...foot } = useDocumentForm('checkList', start);
  const list = form.values;
  return (
    <>
      <h1>{isNew ? 'New list of checks' : `${start.name}, edited`}</h1>
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
          {isNew && (
            <TextField form={form} path="id" label="Id in files" most={60} hint="lower-case letters, digits, hyphens" />
          )}
          <ChoiceField
            form={form}
            path="kind"
            label="For"
            options={options({ bike: 'bikes', scooter: 'scooters', any: 'bikes and scooters' })}
          />
        </div>
        <RowsField
          title="Checks, in the order they are made"
          add="Another check"
          rows={list.checks}
          onAdd={() => form.insertListItem('checks', NEW_CHECK)}
          onRemove={(i) => form.removeListItem('checks', i)}
        >
          {(i) => <CheckFields form={form} at={`checks.${i}`} asks={list.checks[i]?.asks ?? NEW_ASKS.look} />}
        </RowsField>
        <FormFoot
          {...foot}
          isNew={isNew}
          back={`/library/checkList/${isNew ? '' : start.id}`}
          says="Units begun before keep the list they were begun with."
        />
      </form>
    </>
  );
}

interface CheckFieldsProps {
  readonly form: DocumentForm<'checkList'>['form'];
  readonly at: string;
  readonly asks: CheckAsks;
}

function CheckFields({ form, at, asks }: CheckFieldsProps) {
  return (
    <>
      <TextField form={form} path={`${at}.title`} label="What" most={60} />
      <TextField form={form} path={`${at}.id`} label="Id" most={60} />
      <div className={classes['how']}>
        <TextField form={form} path={`${at}.how`} label="How, in a sentence" most={240} />
      </div>
      <Select
        label="Asks for"
        data={options(ASKS_TITLES)}
        value={asks.kind}
        allowDeselect={false}
        onChange={(kind) => kind && form.setFieldValue(`${at}.asks`, NEW_ASKS[kind as CheckAsks['kind']] as never)}
      />
      {asks.kind === 'torque' && (
        <>
          <NumberField form={form} path={`${at}.asks.fromNm`} label="From" unit="Nm" />
          <NumberField form={form} path={`${at}.asks.toNm`} label="To" unit="Nm" />
        </>
      )}
      {asks.kind === 'stops' && <NumberField form={form} path={`${at}.asks.least`} label="At least" unit="stops" />}
      <ChoiceField form={form} path={`${at}.step`} label="When" options={options(STEP_TITLES)} />
      <ChoiceField form={form} path={`${at}.of`} label="On" options={options(OF_TITLES)} />
    </>
  );
}
