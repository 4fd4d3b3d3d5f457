import { Checkbox, Input, NumberInput, Select, TextInput, Textarea } from '@mantine/core';
import type { UseFormReturnType } from '@mantine/form';
import { useId } from 'react';
import type { Speed, SpeedUnit } from '@decurio/core';
import classes from './fields.module.css';

/** A form whose fields are named by path, such as `pack.cellsInSeries`. */
type Form<T> = UseFormReturnType<T>;

export interface FieldProps<T> {
  readonly form: Form<T>;
  readonly path: string;
  readonly label: string;
  readonly hint?: string;
}

export function TextField<T>({
  form,
  path,
  label,
  hint,
  most,
  rows,
}: FieldProps<T> & { readonly most: number; readonly rows?: number }) {
  const props = {
    ...form.getInputProps(path),
    label,
    maxLength: most,
    ...(hint === undefined ? {} : { description: hint }),
  };
  return rows === undefined ? <TextInput {...props} /> : <Textarea {...props} rows={rows} />;
}

/** A number with its unit. With `orUnknown` an empty field means that nobody knows, or what it says. */
export function NumberField<T>({
  form,
  path,
  label,
  hint,
  unit,
  orUnknown = false,
  step,
}: FieldProps<T> & { readonly unit?: string; readonly orUnknown?: boolean | string; readonly step?: number }) {
  const { value, onChange, ...props } = form.getInputProps(path) as {
    value: number | null | '';
    onChange: (value: number | null | '') => void;
  };
  return (
    <NumberInput
      {...props}
      data-scan-guard
      label={unit === undefined ? label : `${label}, ${unit}`}
      value={value ?? ''}
      onChange={(next) =>
        onChange(next === '' ? (orUnknown === false ? '' : null) : typeof next === 'number' ? next : Number(next))
      }
      hideControls
      decimalSeparator="."
      allowedDecimalSeparators={['.', ',']}
      {...(step === undefined ? {} : { step })}
      {...(orUnknown === false ? {} : { placeholder: orUnknown === true ? 'not known' : orUnknown })}
      {...(hint === undefined ? {} : { description: hint })}
    />
  );
}

export interface Option {
  readonly value: string;
  readonly label: string;
}

export function ChoiceField<T>({
  form,
  path,
  label,
  hint,
  options,
}: FieldProps<T> & { readonly options: readonly Option[] }) {
  return (
    <Select
      {...form.getInputProps(path)}
      label={label}
      data={[...options]}
      allowDeselect={false}
      {...(hint === undefined ? {} : { description: hint })}
    />
  );
}

export function YesNoField<T>({ form, path, label }: FieldProps<T>) {
  return (
    <Checkbox {...form.getInputProps(path, { type: 'checkbox' })} label={label} className={classes['yesNo'] ?? ''} />
  );
}

export interface SpeedFieldProps {
  readonly label: string;
  readonly value: Speed | null;
  readonly onChange: (value: Speed | null) => void;
  /** The unit a new figure is taken in. */
  readonly unit: SpeedUnit;
  readonly error?: string | undefined;
  readonly hint?: string;
}

/** A speed in the unit it was laid down in; empty for none. */
export function SpeedField({ label, value, onChange, unit, error, hint }: SpeedFieldProps) {
  const id = useId();
  const at = value?.unit ?? unit;
  return (
    <Input.Wrapper id={id} label={label} error={error} {...(hint === undefined ? {} : { description: hint })}>
      <div className={classes['speed']} data-hint={hint !== undefined || error !== undefined || undefined}>
        <NumberInput
          id={id}
          data-scan-guard
          value={value?.value ?? ''}
          onChange={(next) => onChange(next === '' ? null : { value: Number(next), unit: at })}
          hideControls
          decimalSeparator="."
          allowedDecimalSeparators={['.', ',']}
          placeholder="none"
          error={error !== undefined}
          aria-describedby={error !== undefined ? `${id}-error` : hint !== undefined ? `${id}-description` : undefined}
        />
        <Select
          aria-label={`Unit of ${label.toLowerCase()}`}
          data={['km/h', 'mph']}
          value={at}
          allowDeselect={false}
          disabled={value === null}
          onChange={(next) => value && next && onChange({ ...value, unit: next as SpeedUnit })}
        />
      </div>
    </Input.Wrapper>
  );
}

/** The same for a field of a form. */
export function SpeedFormField<T>({ form, path, label, hint, unit }: FieldProps<T> & { readonly unit: SpeedUnit }) {
  const { value, onChange, error } = form.getInputProps(path) as {
    value: Speed | null;
    onChange: (value: Speed | null) => void;
    error?: string;
  };
  const inside = form.errors[`${path}.value`];
  return (
    <SpeedField
      label={label}
      value={value}
      onChange={onChange}
      unit={unit}
      error={error ?? (typeof inside === 'string' ? inside : undefined)}
      {...(hint === undefined ? {} : { hint })}
    />
  );
}
