import { Select } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { functionsCalled, functionTitle } from '@decurio/core';
import { AmountInput } from '../../../ui/amount-input.js';
import { ActButton } from '../../../ui/act-button.js';
import { EntryDetails } from './entry-details.js';
import { NumberAt, TextAt } from './written-fields.js';
import type { KeysOf } from './keys-field.js';
import { withFunction } from './written-entry.js';
import { listAt, rangeIn, rangeOut, type WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

const optionsCalled = (text: string) =>
  functionsCalled(text).map((name) => ({ value: name, label: functionTitle(name) }));
const SETS = optionsCalled('');

/** Every entry of the menu in a line of its own, typed one after another; what else there is of one stands beneath. */
export function EntryTable({ form, keys }: { readonly form: WrittenForm; readonly keys: readonly KeysOf[] }) {
  const codes = listAt(form, 'codes');
  const [open, setOpen] = useState<number | null>(null);
  const table = useRef<HTMLTableElement>(null);
  const isAdding = useRef(false);
  useEffect(() => {
    if (!isAdding.current) return;
    isAdding.current = false;
    table.current?.querySelector<HTMLInputElement>('tbody:last-of-type input')?.focus();
  }, [codes.length]);
  const add = () => {
    isAdding.current = true;
    form.put(['codes', codes.length], { label: '', function: 'unknown', factory: 0 });
  };
  const move = (i: number, by: -1 | 1) => {
    const next = [...codes];
    [next[i], next[i + by]] = [next[i + by], next[i]];
    form.put(['codes'], next);
    setOpen(null);
  };
  return (
    <section className={classes['part']} aria-label="Its entries">
      <h2>Its entries, in the order of the menu</h2>
      <div className={classes['scroll']} tabIndex={0} role="region" aria-label="Entries, line by line">
        <table ref={table} className={classes['entries']}>
          <thead>
            <tr className="cap">
              {['Shows', 'Sets', 'Lowest', 'Highest', 'Step', 'Delivered', 'More'].map((title) => (
                <th key={title} scope="col">
                  {title}
                </th>
              ))}
            </tr>
          </thead>
          {codes.map((_, i) => (
            <tbody key={i} data-open={open === i || undefined}>
              <EntryLine form={form} at={i} isLast={i === codes.length - 1} onAdd={add}>
                <ActButton expanded={open === i} onAct={() => setOpen(open === i ? null : i)}>
                  {open === i ? 'Less' : 'More'}
                </ActButton>
              </EntryLine>
              {form.problem('codes', i) !== null && (
                <tr>
                  <td colSpan={7} role="alert" className={classes['slip']}>
                    {form.problem('codes', i)}
                  </td>
                </tr>
              )}
              {open === i && (
                <tr>
                  <td colSpan={7}>
                    <EntryDetails form={form} at={i} keys={keys} />
                    <div className={classes['acts']}>
                      {i > 0 && <ActButton onAct={() => move(i, -1)}>One up</ActButton>}
                      {i < codes.length - 1 && <ActButton onAct={() => move(i, 1)}>One down</ActButton>}
                      <ActButton
                        look="care"
                        onAct={() => {
                          form.put(['codes', i], undefined);
                          setOpen(null);
                        }}
                      >
                        Take it out
                      </ActButton>
                    </div>
                  </td>
                </tr>
              )}
            </tbody>
          ))}
        </table>
      </div>
      <div>
        <ActButton onAct={add}>Another entry</ActButton>
      </div>
    </section>
  );
}

interface EntryLineProps {
  readonly form: WrittenForm;
  readonly at: number;
  readonly isLast: boolean;
  readonly onAdd: () => void;
  readonly children: React.ReactNode;
}

function EntryLine({ form, at, isLast, onAdd, children }: EntryLineProps) {
  const what = form.at('codes', at, 'function');
  const words = listAt(form, 'codes', at, 'words');
  const name = (column: string) => `${column} of entry ${at + 1}`;
  return (
    <tr
      onKeyDown={(event) => {
        // Enter in the last line goes on to the next entry, as one types a list.
        if (
          event.key === 'Enter' &&
          isLast &&
          event.target instanceof HTMLInputElement &&
          event.target.type === 'text' &&
          event.target.getAttribute('aria-expanded') !== 'true'
        ) {
          event.preventDefault();
          onAdd();
        }
      }}
    >
      <td>
        <TextAt form={form} place={['codes', at, 'label']} label={name('Label')} most={12} isBare />
      </td>
      <td>
        <Select
          aria-label={name('What it sets')}
          data={SETS}
          value={typeof what === 'string' ? what : null}
          onChange={(next) => next !== null && form.change((written) => withFunction(written, at, next))}
          searchable
          filter={({ search }) => optionsCalled(search)}
          selectFirstOptionOnChange
          nothingFoundMessage="Nothing by that name: take Meaning unknown."
          error={form.problem('codes', at, 'function') !== null}
        />
      </td>
      {words.length > 0 ? (
        <td colSpan={3} className={classes['words']}>
          {words
            .map((word) => (Array.isArray(word) ? `${String(word[0])} ${String(word[2] ?? word[1])}` : ''))
            .join(', ')}
        </td>
      ) : (
        [0, 1, 2].map((which) => (
          <td key={which}>
            <RangeInput form={form} at={at} which={which} label={name(RANGE[which] ?? '')} />
          </td>
        ))
      )}
      <td>
        <NumberAt form={form} place={['codes', at, 'factory']} label={name('Delivered value')} isBare />
      </td>
      <td>{children}</td>
    </tr>
  );
}

const RANGE = ['Lowest value', 'Highest value', 'Step'] as const;

function RangeInput({
  form,
  at,
  which,
  label,
}: {
  readonly form: WrittenForm;
  readonly at: number;
  readonly which: number;
  readonly label: string;
}) {
  const range = rangeIn(form.at('codes', at, 'range'));
  return (
    <AmountInput
      aria-label={label}
      value={range[which] ?? null}
      onChange={(next) =>
        form.put(['codes', at, 'range'], rangeOut(range.map((own, i) => (i === which ? (next ?? undefined) : own))))
      }
      error={which === 0 && form.problem('codes', at, 'range') !== null}
      {...(which === 2 ? { placeholder: '1' } : {})}
    />
  );
}
