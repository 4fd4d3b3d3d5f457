import { RowsField } from '../../rows-field.js';
import { GestureAt } from './gesture-field.js';
import type { KeysOf } from './keys-field.js';
import { ChoiceAt, SecondsAt, TextAt } from './written-fields.js';
import { listAt, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

interface RestartAndDangersProps {
  readonly form: WrittenForm;
  readonly keys: readonly KeysOf[];
}

/** What a hand must not do by accident, and how the unit is switched off and on once codes are keyed. */
export function RestartAndDangers({ form, keys }: RestartAndDangersProps) {
  const dangers = listAt(form, 'dangers');
  const acts = listAt(form, 'restart');
  return (
    <section className={classes['part']} aria-label="Dangers and restart">
      <h2>Dangers and restart</h2>
      <p className="soft">
        What starts the motor, by accident too, is said before hands go on; a plan never passes through it unsaid.
      </p>
      <RowsField
        title="Starts the motor"
        add="A gesture starts the motor"
        rows={dangers}
        onAdd={() => form.put(['dangers', dangers.length], { gesture: `${keys.at(-1)?.id ?? ''} 2 s`, caution: '' })}
        onRemove={(i) => form.put(['dangers'], dangers.length === 1 ? undefined : dangers.filter((_, n) => n !== i))}
      >
        {(i) => (
          <>
            <div className={classes['whole']}>
              <TextAt form={form} place={['dangers', i, 'caution']} label="What to beware of" most={160} />
            </div>
            <GestureAt form={form} place={['dangers', i, 'gesture']} label="By" keys={keys} />
          </>
        )}
      </RowsField>
      <RowsField
        title="Restart, act by act"
        add="Another act of the restart"
        rows={acts}
        onAdd={() => form.put(['restart', acts.length], { act: '', waitMs: 0 })}
        onRemove={(i) => form.put(['restart'], acts.length === 1 ? undefined : acts.filter((_, n) => n !== i))}
      >
        {(i) => (
          <>
            <div className={classes['whole']}>
              <TextAt form={form} place={['restart', i, 'act']} label="What is done" most={160} />
            </div>
            <SecondsAt form={form} place={['restart', i, 'waitMs']} label="and then waited" />
            <ChoiceAt
              form={form}
              place={['restart', i, 'does']}
              label="By it"
              options={[
                { value: '', label: 'nothing else' },
                { value: 'leavesMenu', label: 'the menu is left' },
                { value: 'unplugsDisplay', label: 'the display is off its plug' },
              ]}
            />
          </>
        )}
      </RowsField>
    </section>
  );
}
