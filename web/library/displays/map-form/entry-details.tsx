import { RowsField } from '../../rows-field.js';
import { EntryMeaning } from './entry-words.js';
import { EDIT_KEYS } from './menu-fields.js';
import { GestureAt } from './gesture-field.js';
import { ChoiceAt, DigitsAt, NumberAt, TextAt, type ChoiceOption } from './written-fields.js';
import type { KeysOf } from './keys-field.js';
import { listAt, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

interface EntryDetailsProps {
  readonly form: WrittenForm;
  readonly at: number;
  readonly keys: readonly KeysOf[];
}

interface EntryChoice {
  readonly at: readonly string[];
  readonly label: string;
  /** The first is what stands there where nothing is written. */
  readonly options: readonly ChoiceOption[];
}

/** What is chosen of an entry, four to a row. */
const CHOICES: readonly (readonly EntryChoice[])[] = [
  [
    {
      at: ['access'],
      label: 'Keys move it',
      options: [
        { value: 'open', label: 'freely' },
        { value: 'pin', label: 'after the PIN' },
        { value: 'locked', label: 'not: it shows' },
        { value: 'never', label: 'and nobody should' },
        { value: 'tool', label: "not: the maker's tool does" },
        { value: 'absent', label: 'not: it is in the paper alone' },
      ],
    },
    {
      at: ['actsAfter'],
      label: 'It acts',
      options: [
        { value: 'once', label: 'at once' },
        { value: 'restart', label: 'after a restart' },
      ],
    },
    {
      at: ['effect'],
      label: 'On the road',
      options: [
        { value: 'acts', label: 'it acts' },
        { value: 'displayOnly', label: 'it scales what is shown' },
        { value: 'unverified', label: 'nobody has seen that it acts' },
      ],
    },
    {
      at: ['source'],
      label: 'Known from',
      options: [
        { value: 'makersPaper', label: "the maker's paper" },
        { value: 'measured', label: 'a unit, measured' },
        { value: 'hearsay', label: 'hearsay: never a target' },
      ],
    },
  ],
  [
    {
      at: ['values'],
      label: 'Past its end',
      options: [
        { value: '', label: 'as the menu does' },
        { value: 'wrap', label: 'it goes round' },
        { value: 'stop', label: 'it stops' },
      ],
    },
    {
      at: ['more'],
      label: 'More of it is',
      options: [
        { value: '', label: 'not said' },
        { value: 'quicker', label: 'quicker' },
        { value: 'slower', label: 'slower' },
        { value: 'stronger', label: 'stronger' },
        { value: 'weaker', label: 'weaker' },
      ],
    },
    {
      at: ['keptIn'],
      label: 'It is kept',
      options: [
        { value: '', label: 'in the controller' },
        { value: 'display', label: 'in the display' },
        { value: 'displayWhileAttached', label: 'in the display while attached' },
        { value: 'untilPackOut', label: 'until the pack comes out' },
        { value: 'profile', label: 'in each pack profile' },
      ],
    },
    {
      at: ['edit', 'style'],
      label: 'It is changed',
      options: [
        { value: '', label: 'as the others are' },
        { value: 'live', label: 'at once' },
        { value: 'focus', label: 'once a key went to the value' },
        { value: 'enter', label: 'once an edit was begun' },
        { value: 'digits', label: 'digit by digit' },
      ],
    },
  ],
];

/** What else there is of an entry: its words, how it moves and acts, and what is not sure of it. */
export function EntryDetails({ form, at, keys }: EntryDetailsProps) {
  const place = (...rest: readonly (string | number)[]) => ['codes', at, ...rest];
  const style = form.at(...place('edit', 'style'));
  return (
    <div className={classes['details']}>
      <EntryMeaning form={form} at={at} />
      <div className={classes['row']}>
        <TextAt form={form} place={place('shownAs')} label="Shown as" most={12} hint="where that is not its label" />
        <NumberAt form={form} place={place('decimals')} label="Decimals" usual={0} />
        <DigitsAt form={form} place={place('skips')} label="Passes over" hint="digits that the keys skip" />
      </div>
      {CHOICES.map((row) => (
        <div key={row[0]?.label} className={classes['row']}>
          {row.map(({ at: name, label, options }) => (
            <ChoiceAt key={label} form={form} place={place(...name)} label={label} options={options} />
          ))}
        </div>
      ))}
      {typeof style === 'string' && style in EDIT_KEYS && (
        <div className={classes['row']}>
          {EDIT_KEYS[style as keyof typeof EDIT_KEYS].map(([name, label, isOptional]) => (
            <GestureAt
              key={name}
              form={form}
              place={place('edit', name)}
              label={label}
              keys={keys}
              isOptional={isOptional}
            />
          ))}
        </div>
      )}
      <div className={classes['row']}>
        <ConditionField form={form} at={at} name="shownIf" label="Shown only while entry" />
        <ConditionField form={form} at={at} name="deadIf" label="Does nothing while entry" />
      </div>
      <DoubtsField form={form} at={at} />
      <TextAt form={form} place={place('note')} label="Note" most={400} />
    </div>
  );
}

/** While another entry has one of these values. */
function ConditionField({
  form,
  at,
  name,
  label,
}: Pick<EntryDetailsProps, 'form' | 'at'> & { readonly name: 'shownIf' | 'deadIf'; readonly label: string }) {
  const place = ['codes', at, name];
  const labels = listAt(form, 'codes').flatMap((code, i) => {
    const own = (code as Readonly<Record<string, unknown>> | null)?.['label'];
    return i !== at && typeof own === 'string' && own !== '' ? [own] : [];
  });
  const raws = listAt(form, ...place, 'in');
  const chosen = form.at(...place, 'code');
  return (
    <>
      <ChoiceAt
        form={{
          ...form,
          put: (_, code) =>
            form.put(place, code === undefined ? undefined : { code, in: raws.length > 0 ? raws : [0] }),
        }}
        place={[...place, 'code']}
        label={label}
        options={[{ value: '', label: 'always as it is' }, ...labels.map((own) => ({ value: own, label: own }))]}
      />
      {typeof chosen === 'string' && (
        <DigitsAt
          form={form}
          place={[...place, 'in']}
          label="stands at"
          hint="digits, separated by blanks"
          needs="some"
        />
      )}
    </>
  );
}

/** What nobody is sure of: the entry, or some of its values, which are then never a target. */
function DoubtsField({ form, at }: Pick<EntryDetailsProps, 'form' | 'at'>) {
  const doubts = listAt(form, 'codes', at, 'doubts');
  return (
    <RowsField
      title="Not sure"
      add="Something is not sure here"
      rows={doubts}
      onAdd={() => form.put(['codes', at, 'doubts', doubts.length], { says: '' })}
      onRemove={(i) =>
        form.put(['codes', at, 'doubts'], doubts.length === 1 ? undefined : doubts.filter((_, n) => n !== i))
      }
    >
      {(i) => (
        <>
          <DigitsAt
            form={form}
            place={['codes', at, 'doubts', i, 'raws']}
            label="Of which digits"
            hint="empty: of the whole entry"
          />
          <TextAt form={form} place={['codes', at, 'doubts', i, 'says']} label="Why" most={200} />
        </>
      )}
    </RowsField>
  );
}
