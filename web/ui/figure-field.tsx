import { TextInput } from '@mantine/core';
import { useMergedRef } from '@mantine/hooks';
import { useEffect, useRef, useState, type Ref } from 'react';
import { figureIn } from './figure-in.js';
import classes from './figure-field.module.css';

export interface FigureFieldProps {
  readonly label: string;
  /** Stands behind the figure, such as `V`. */
  readonly unit?: string;
  readonly value: number | '';
  /** What was typed as a figure; empty while it is none. */
  readonly onChange: (value: number | '') => void;
  readonly hint?: string | undefined;
  readonly error?: string | null | undefined;
  /** Odd, and may be meant: said beside it, and not refused. */
  readonly care?: string | null;
  readonly required?: boolean;
  readonly autoFocus?: boolean;
  /** Counts alone: turns, pieces. */
  readonly whole?: boolean;
  readonly inputRef?: Ref<HTMLInputElement>;
  readonly className?: string | undefined;
}

/**
 * A figure that is read off something and is never negative. What is typed stays as it was typed: where it is no figure
 * the field says so, and its form is not sent.
 */
export function FigureField({
  label,
  unit,
  value,
  onChange,
  hint,
  error,
  care = null,
  required = false,
  autoFocus = false,
  whole = false,
  inputRef,
  className,
}: FigureFieldProps) {
  const [text, setText] = useState(String(value));
  // Put there by something else than this field's keys, such as a reading taken over.
  const shown = figureIn(text, whole).value === value ? text : String(value);
  const { slip } = figureIn(shown, whole);
  const own = useRef<HTMLInputElement>(null);
  useEffect(() => own.current?.setCustomValidity(slip ?? ''), [slip]);
  return (
    <TextInput
      ref={useMergedRef(own, inputRef ?? null)}
      label={label}
      value={shown}
      onChange={(event) => {
        setText(event.target.value);
        onChange(figureIn(event.target.value, whole).value);
      }}
      description={
        care === null ? (
          hint
        ) : (
          <>
            {hint} <strong className={classes['care']}>{care}</strong>
          </>
        )
      }
      error={slip ?? error ?? undefined}
      required={required}
      autoFocus={autoFocus}
      data-autofocus={autoFocus || undefined}
      maxLength={12}
      inputMode="decimal"
      autoComplete="off"
      data-scan-guard
      className={className ?? ''}
      {...(unit === undefined
        ? {}
        : {
            rightSection: <span className={classes['unit']}>{unit}</span>,
            rightSectionPointerEvents: 'none' as const,
          })}
    />
  );
}
