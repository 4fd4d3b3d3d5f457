import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { ChoiceAt, NumberAt, TextAt } from './written-fields.js';
import { GestureAt } from './gesture-field.js';
import { listAt, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

export interface KeysOf {
  readonly id: string;
  readonly label: string;
}

/** Keys as they are written: a name alone is printed as it is. */
export function keysIn(form: WrittenForm): readonly KeysOf[] {
  return listAt(form, 'keys').flatMap((key) => {
    if (typeof key === 'string') return [{ id: key, label: key }];
    const { id, label } = (key ?? {}) as Partial<KeysOf>;
    return typeof id === 'string' ? [{ id, label: label ?? id }] : [];
  });
}

/** Name, what tells it from others, its keys, power and levels. */
export function DisplayFields({ form, isNew }: { readonly form: WrittenForm; readonly isNew: boolean }) {
  const keys = keysIn(form);
  return (
    <>
      <section className={classes['part']} aria-label="The display">
        <h2>The display</h2>
        <div className={classes['row']}>
          <TextAt form={form} place={['name']} label="Name" most={60} />
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
        <TextAt form={form} place={['tellBy']} label="What one tells it by" most={300} />
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

/** Keys by what is printed on them, separated by blanks; what was named stays named. */
function KeysField({ form, keys }: { readonly form: WrittenForm; readonly keys: readonly KeysOf[] }) {
  const printed = keys.map(({ label }) => label).join(' ');
  const [typed, setTyped] = useState(printed);
  const shown = typed.trim().split(/\s+/).join(' ') === printed ? typed : printed;
  return (
    <TextInput
      label="Keys, as printed on them"
      description="separated by blanks, such as SET + −"
      value={shown}
      onChange={({ target }) => {
        setTyped(target.value);
        const labels = [...new Set(target.value.split(/\s+/).filter((label) => label !== ''))];
        form.put(
          ['keys'],
          labels.map((label, i) => keyOf(keys.find((key) => key.label === label) ?? { id: idOf(label, i), label })),
        );
      }}
      error={form.problem('keys')}
      autoComplete="off"
      data-scan-guard="words"
    />
  );
}

const keyOf = ({ id, label }: KeysOf): unknown => (id === label ? id : { id, label });

/** What a gesture in a word can name it by. */
const idOf = (label: string, i: number): string => (/^[A-Za-z0-9]+$/.test(label) ? label : `k${i + 1}`);
