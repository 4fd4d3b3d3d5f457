import { useState } from 'react';
import { hashOf, type RulePack, type VehicleClass } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { ChoiceField, NumberField, SpeedFormField, TextField, YesNoField } from '../../ui/fields.js';
import { FormFoot } from '../form-foot.js';
import { LinesField } from '../lines-field.js';
import { useDocumentForm } from '../use-document-form.js';
import { NEW_CLASS } from './new-pack.js';
import { BASIS_TITLES, KIND_TITLES, LIVE_TITLES, REGIME_TITLES, THROTTLE_TITLES } from './class-words.js';
import classes from '../library-form.module.css';

const options = (titles: Readonly<Record<string, string>>) =>
  Object.entries(titles).map(([value, label]) => ({ value, label }));

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

function ClassFields({
  form,
  at,
  each,
}: {
  readonly form: ReturnType<typeof useDocumentForm<'rulePack'>>['form'];
  readonly at: string;
  readonly each: VehicleClass;
}) {
  const unit = each.limit?.unit ?? 'km/h';
  return (
    <>
      <div className={classes['row']}>
        <TextField form={form} path={`${at}.title`} label="As read on papers" most={80} />
        <TextField form={form} path={`${at}.id`} label="Id in order files" most={60} />
        <ChoiceField form={form} path={`${at}.kind`} label="For" options={options(KIND_TITLES)} />
        <ChoiceField form={form} path={`${at}.regime`} label="What may be done" options={options(REGIME_TITLES)} />
        <SpeedFormField
          form={form}
          path={`${at}.limit`}
          label="Assist ends at"
          unit={unit}
          hint="in the statute's own unit"
        />
        <NumberField form={form} path={`${at}.ratedPowerW`} label="Power limit" unit="W" orUnknown="none named" />
        <ChoiceField form={form} path={`${at}.powerBasis`} label="Power counts as" options={options(BASIS_TITLES)} />
        <ChoiceField form={form} path={`${at}.throttle`} label="Throttle" options={options(THROTTLE_TITLES)} />
        {each.throttle === 'toSpeed' && (
          <SpeedFormField form={form} path={`${at}.throttleTo`} label="Throttle ends at" unit={unit} />
        )}
        <SpeedFormField form={form} path={`${at}.startAid`} label="Start-up aid to" unit="km/h" />
        {each.throttle !== 'none' && (
          <ChoiceField
            form={form}
            path={`${at}.liveStart`}
            label="Drive from standstill"
            options={options(LIVE_TITLES)}
          />
        )}
        <ChoiceField
          form={form}
          path={`${at}.walk`}
          label="Walk assist"
          options={options({ allowed: 'allowed', forbidden: 'forbidden' })}
        />
        {each.walk === 'allowed' && (
          <SpeedFormField form={form} path={`${at}.walkTo`} label="Walk assist to" unit={unit} />
        )}
        <SpeedFormField form={form} path={`${at}.walkingMode`} label="Slow mode wanted, to" unit="km/h" />
        <NumberField
          form={form}
          path={`${at}.tolerance`}
          label="Tolerance the rule states"
          hint="as a share: 0.1 for ten per cent"
        />
        <TextField form={form} path={`${at}.ageNote`} label="Age" most={120} />
        <YesNoField form={form} path={`${at}.settingsOutOfReach`} label="Settings out of reach" />
        <YesNoField form={form} path={`${at}.needsSpeedometer`} label="Speedometer" />
        <YesNoField form={form} path={`${at}.endSpeedMeasured`} label="End speed is measured" />
      </div>
      <LinesField
        label="What the label on the vehicle says, one a line"
        value={each.labelFields}
        onChange={(lines) => form.setFieldValue(`${at}.labelFields`, lines as never)}
        most={60}
      />
      <TextField form={form} path={`${at}.note`} label="Note" most={800} rows={2} />
      <TextField form={form} path={`${at}.source`} label="Source of these values" most={400} rows={2} />
    </>
  );
}
