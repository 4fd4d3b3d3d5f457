import { Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
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
    <NumberInput
      {...named(field)}
      value={typeof value === 'number' ? value : ''}
      onChange={(next) => field.form.put(field.place, typeof next === 'number' ? next : undefined)}
      {...(usual === undefined ? {} : { placeholder: String(usual) })}
      hideControls
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
