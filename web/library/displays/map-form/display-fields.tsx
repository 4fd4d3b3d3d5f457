import { idFrom } from '@decurio/core';
import { ChoiceAt, NumberAt, TextAt } from './written-fields.js';
import { GestureAt } from './gesture-field.js';
import { KeysField, keysIn } from './keys-field.js';
import { withValue, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

/** Name, what tells it from others, its keys, power and levels. */
export function DisplayFields({ form, isNew }: { readonly form: WrittenForm; readonly isNew: boolean }) {
  const keys = keysIn(form);
  return (
    <>
      <section className={classes['part']} aria-label="The display">
        <h2>The display</h2>
        <div className={classes['row']}>
          <TextAt form={isNew ? withIdOfName(form) : form} place={['name']} label="Name" most={60} />
          <TextAt form={form} place={['revision']} label="Revision" most={20} />
          {isNew && (
            <TextAt
              form={form}
              place={['id']}
              label="Id in files"
              most={60}
              hint="lower-case letters, digits, hyphens"
            />
          )}
          <TextAt form={form} place={['family']} label="Family" most={60} hint="where others look alike" />
        </div>
        <TextAt
          form={form}
          place={['tellBy']}
          label="What one tells it by"
          most={300}
          usual="Grey case, round left key."
        />
        <KeysField form={form} keys={keys} />
      </section>
      <section className={classes['part']} aria-label="Power">
        <h2>Power</h2>
        <TextAt
          form={form}
          place={['power', 'first']}
          label="First"
          most={120}
          usual="Switch the pack on."
          hint="what comes before the key"
        />
        <div className={classes['row']}>
          <GestureAt form={form} place={['power', 'on']} label="Switches on" keys={keys} isOptional />
          <GestureAt form={form} place={['power', 'off']} label="Switches off" keys={keys} isOptional />
        </div>
        <div className={classes['row']}>
          <ChoiceAt
            form={form}
            place={['speed', 'rounding']}
            label="Speed is rounded"
            options={[
              { value: '', label: 'not said' },
              { value: 'nearest', label: 'to the nearest' },
              { value: 'truncated', label: 'cut off' },
              { value: 'unknown', label: 'nobody knows' },
            ]}
          />
          {form.at('speed') !== undefined && (
            <>
              <NumberAt form={form} place={['speed', 'decimals']} label="Decimals of speed" />
              <NumberAt form={form} place={['speed', 'overshootKmh']} label="Drive goes on beyond the cap, km/h" />
            </>
          )}
        </div>
      </section>
    </>
  );
}

/** As long as nobody gave it another, a new display is called in files as it is called by people. */
const withIdOfName = (form: WrittenForm): WrittenForm => ({
  ...form,
  put: (place, name) =>
    form.change((written) => {
      const named = withValue(written, place, name);
      const isOwn = form.at('id') !== idFrom(String(form.at('name') ?? ''));
      return isOwn ? named : withValue(named, ['id'], idFrom(String(name ?? '')));
    }),
});
