import { Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { AmountInput } from '../../../ui/amount-input.js';
import type { Place, WrittenForm } from './written-form.js';

interface FieldProps {
  readonly form: WrittenForm;
  readonly place: Place;
  readonly label: string;
  readonly hint?: string;
  /** The label is for the ear alone, as in a table under its heading. */
  readonly isBare?: boolean;
}

const named = ({ form, place, label, hint, isBare = false }: FieldProps) => ({
  ...(isBare ? { 'aria-label': label } : { label }),
  ...(hint === undefined ? {} : { description: hint }),
  error: form.problem(...place),
});

/** Words; nothing where they are wiped out, which stands for `usual`. */
export function TextAt({ most, usual, ...field }: FieldProps & { readonly most: number; readonly usual?: string }) {
  const value = field.form.at(...field.place);
  return (
    <TextInput
      {...named(field)}
      value={typeof value === 'string' ? value : ''}
      onChange={({ target }) => field.form.put(field.place, target.value === '' ? undefined : target.value)}
      maxLength={most}
      {...(usual === undefined ? {} : { placeholder: usual })}
      autoComplete="off"
      data-scan-guard="words"
    />
  );
}

/** A number; nothing where it is wiped out, which stands for `usual`. */
export function NumberAt({ usual, ...field }: FieldProps & { readonly usual?: number }) {
  const value = field.form.at(...field.place);
  return (
    <AmountInput
      {...named(field)}
      value={typeof value === 'number' ? value : null}
      onChange={(next) => field.form.put(field.place, next ?? undefined)}
      {...(usual === undefined ? {} : { placeholder: String(usual) })}
    />
  );
}

interface SecondsProps {
  readonly label: string;
  readonly isBare?: boolean;
  /** Null where nothing is written, which stands for `usualMs`. */
  readonly ms: number | null;
  readonly usualMs?: number;
  readonly error?: string | null;
  readonly onMs: (ms: number | null) => void;
}

/** A time in seconds, as one counts it; it is kept in milliseconds. */
export const Seconds = ({ label, isBare = false, ms, usualMs, error = null, onMs }: SecondsProps) => (
  <AmountInput
    {...(isBare ? { 'aria-label': label } : { label })}
    value={ms === null ? null : ms / 1000}
    onChange={(next) => onMs(next === null ? null : Math.round(next * 1000))}
    {...(usualMs === undefined ? {} : { placeholder: `${usualMs / 1000} s` })}
    error={error}
    allowNegative={false}
    decimalScale={2}
    step={0.5}
    suffix=" s"
  />
);

/** A time of the map. */
export function SecondsAt({ usualMs, ...field }: FieldProps & { readonly usualMs?: number }) {
  const ms = field.form.at(...field.place);
  return (
    <Seconds
      label={field.label}
      ms={typeof ms === 'number' ? ms : null}
      {...(usualMs === undefined ? {} : { usualMs })}
      error={field.form.problem(...field.place)}
      onMs={(next) => field.form.put(field.place, next ?? undefined)}
    />
  );
}

/** Several digits, separated by blanks; taken when the field is left, once all of them are digits. */
export function DigitsAt({ needs = 'none', ...field }: FieldProps & { readonly needs?: 'none' | 'some' }) {
  const value = field.form.at(...field.place);
  const shown = Array.isArray(value) ? value.join(' ') : '';
  return (
    <TextInput
      {...named(field)}
      key={shown}
      defaultValue={shown}
      onBlur={({ target }) => {
        const next = target.value
          .split(/[\s,]+/)
          .filter((each) => each !== '')
          .map(Number);
        if (!next.every(Number.isFinite) || (next.length === 0 && needs === 'some')) return;
        field.form.put(field.place, next.length > 0 ? next : undefined);
      }}
      autoComplete="off"
      data-scan-guard="words"
    />
  );
}

export interface ChoiceOption {
  readonly value: string;
  readonly label: string;
}

/** One of a few; the first is what stands there where nothing is written. */
export function ChoiceAt({ options, ...field }: FieldProps & { readonly options: readonly ChoiceOption[] }) {
  const value = field.form.at(...field.place);
  const [usual] = options;
  return (
    <NativeSelect
      {...named(field)}
      data={[...options]}
      value={typeof value === 'string' ? value : (usual?.value ?? '')}
      onChange={({ target }) =>
        field.form.put(field.place, target.value === usual?.value || target.value === '' ? undefined : target.value)
      }
    />
  );
}

/** Yes or nothing. */
export function YesAt(field: FieldProps) {
  return (
    <Checkbox
      label={field.label}
      checked={field.form.at(...field.place) === true}
      onChange={({ target }) => field.form.put(field.place, target.checked ? true : undefined)}
      error={field.form.problem(...field.place)}
    />
  );
}
