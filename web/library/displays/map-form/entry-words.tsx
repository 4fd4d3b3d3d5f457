import { Autocomplete, TextInput } from '@mantine/core';
import { vocabularyOf } from '@decurio/core';
import { RowsField } from '../../rows-field.js';
import { AmountInput } from '../../../ui/amount-input.js';
import { ActButton } from '../../../ui/act-button.js';
import { ChoiceAt, NumberAt, TextAt } from './written-fields.js';
import { glassWord, withGlassWord, withGlassWordMoved, withLine, withWords } from './written-entry.js';
import { listAt, rangeIn, withValue, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

interface OfEntry {
  readonly form: WrittenForm;
  readonly at: number;
}

/** What the digits of an entry mean: words, or an amount with digits among it that mean something else. */
export function EntryMeaning({ form, at }: OfEntry) {
  const kind = form.at('codes', at, 'encoding', 'kind');
  if (kind !== undefined && kind !== 'line')
    return <p className="soft">What its digits mean is more than a list of words: it stands in the text.</p>;
  return listAt(form, 'codes', at, 'words').length > 0 ? (
    <Words form={form} at={at} />
  ) : (
    <Amount form={form} at={at} isBare={kind === undefined} />
  );
}

/** Digits that stand for words, in the order in which the keys step through them. */
function Words({ form, at }: OfEntry) {
  const words = listAt(form, 'codes', at, 'words');
  const known = knownOf(form, at);
  const word = (i: number): readonly unknown[] => (Array.isArray(words[i]) ? words[i] : []);
  const put = (i: number, [raw, meaning, title]: readonly unknown[]) =>
    form.change((written) =>
      withValue(
        i < words.length ? withGlassWordMoved(written, at, word(i)[0], raw) : written,
        ['codes', at, 'words', i],
        title === undefined || title === '' || title === meaning ? [raw, meaning] : [raw, meaning, title],
      ),
    );
  return (
    <RowsField
      title="Digits and what they mean"
      add="Another word"
      dense
      rows={words}
      onAdd={() => put(words.length, [words.length, known[words.length] ?? ''])}
      onRemove={(i) =>
        form.change((written) =>
          withValue(
            withGlassWord(written, at, word(i)[0], ''),
            ['codes', at, 'words'],
            words.length === 1 ? undefined : words.filter((_, n) => n !== i),
          ),
        )
      }
    >
      {(i) => (
        <>
          <AmountInput
            label="Digits"
            value={typeof word(i)[0] === 'number' ? (word(i)[0] as number) : null}
            onChange={(raw) => put(i, [raw, word(i)[1], word(i)[2]])}
          />
          <GlassWord form={form} at={at} raw={word(i)[0]} />
          <Autocomplete
            label="Means"
            data={[...known]}
            value={typeof word(i)[1] === 'string' ? (word(i)[1] as string) : ''}
            onChange={(meaning) => put(i, [word(i)[0], meaning, word(i)[2]])}
            error={form.problem('codes', at, 'words', i)}
            {...(known.length > 0 && !known.includes(String(word(i)[1]))
              ? { description: `A setup understands ${known.join(', ')}.` }
              : {})}
            maxLength={40}
          />
          <TextInput
            label="A person reads"
            value={typeof word(i)[2] === 'string' ? (word(i)[2] as string) : ''}
            placeholder={typeof word(i)[1] === 'string' ? (word(i)[1] as string) : ''}
            onChange={({ target }) => put(i, [word(i)[0], word(i)[1], target.value])}
            maxLength={80}
            data-scan-guard="words"
          />
        </>
      )}
    </RowsField>
  );
}

/** An amount in a unit, and which of its digits are none. `isBare`: written without an encoding of its own. */
function Amount({ form, at, isBare }: OfEntry & { readonly isBare: boolean }) {
  const own = ['codes', at, ...(isBare ? [] : ['encoding'])];
  const special = listAt(form, 'codes', at, 'encoding', 'sentinels');
  const [, greatest = 0] = rangeIn(form.at('codes', at, 'range'));
  const inUnits = listAt(form, 'codes').flatMap((_, i) => {
    const label = form.at('codes', i, 'label');
    return i !== at && form.at('codes', i, 'function') === 'units' && typeof label === 'string' ? [label] : [];
  });
  const putInLine = (name: string, value: unknown) =>
    form.change((written) => withLine(written, at, (line) => withValue(line, [name], value) as object));
  return (
    <>
      <div className={classes['row']}>
        <TextAt form={form} place={[...own, 'unit']} label="Unit" most={12} hint="where it is not the usual one" />
        <NumberAt form={form} place={[...own, 'scale']} label="One step is" usual={1} />
        <NumberAt
          form={{ ...form, put: (_, value) => putInLine('doubtfulFrom', value) }}
          place={['codes', at, 'encoding', 'doubtfulFrom']}
          label="No longer sure from"
          hint="such as a cap that may be none"
        />
        {inUnits.length > 0 && (
          <ChoiceAt
            form={{ ...form, put: (_, value) => putInLine('follows', value) }}
            place={['codes', at, 'encoding', 'follows']}
            label="Its unit"
            options={[
              { value: '', label: 'stands, whatever else is in miles' },
              ...inUnits.map((label) => ({ value: label, label: `changes with entry ${label}` })),
            ]}
          />
        )}
      </div>
      <RowsField
        title="Digits that mean something else"
        add="Some digits mean something else"
        dense
        rows={special}
        onAdd={() => putInLine('sentinels', [...special, { raw: greatest, means: 'noCap', title: 'no cap' }])}
        onRemove={(i) =>
          form.change((written) =>
            withValue(
              withGlassWord(written, at, form.at('codes', at, 'encoding', 'sentinels', i, 'raw'), ''),
              ['codes', at, 'encoding', 'sentinels', i],
              undefined,
            ),
          )
        }
      >
        {(i) => <SpecialDigits form={form} at={at} which={i} />}
      </RowsField>
      {special.length === 0 && (
        <div>
          <ActButton onAct={() => form.change((written) => withWords(written, at, knownOf(form, at)))}>
            Its digits stand for words
          </ActButton>
        </div>
      )}
    </>
  );
}

function SpecialDigits({ form, at, which }: OfEntry & { readonly which: number }) {
  const place = ['codes', at, 'encoding', 'sentinels', which] as const;
  const raw = form.at(...place, 'raw');
  const putRaw: WrittenForm['put'] = (to, next) =>
    form.change((written) => withValue(withGlassWordMoved(written, at, raw, next), to, next));
  return (
    <>
      <NumberAt form={{ ...form, put: putRaw }} place={[...place, 'raw']} label="Digits" />
      <GlassWord form={form} at={at} raw={raw} />
      <ChoiceAt
        form={{ ...form, put: (to, value) => form.put(to, value ?? 'noCap') }}
        place={[...place, 'means']}
        label="Mean"
        options={[
          { value: 'noCap', label: 'no cap' },
          { value: 'off', label: 'off' },
          { value: 'auto', label: 'by itself' },
        ]}
      />
      <TextAt form={form} place={[...place, 'title']} label="A person reads" most={80} />
    </>
  );
}

/** What stands on the glass in place of these digits. */
function GlassWord({ form, at, raw }: OfEntry & { readonly raw: unknown }) {
  return (
    <TextInput
      label="On the glass"
      value={glassWord(form.written, at, raw)}
      placeholder={typeof raw === 'number' ? String(raw) : ''}
      onChange={({ target }) => form.change((written) => withGlassWord(written, at, raw, target.value))}
      maxLength={12}
      autoComplete="off"
      data-scan-guard="words"
    />
  );
}

function knownOf(form: WrittenForm, at: number): readonly string[] {
  const what = form.at('codes', at, 'function');
  return vocabularyOf(typeof what === 'string' ? what : '');
}
