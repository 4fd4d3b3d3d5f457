import { Checkbox, NumberInput } from '@mantine/core';
import type { RefObject } from 'react';
import classes from '../calibrate.module.css';

export interface SpeedInputProps {
  readonly label: string;
  readonly value: number | '';
  readonly onChange: (value: number | '') => void;
  readonly inputRef?: RefObject<HTMLInputElement | null>;
  readonly error?: string | null;
  readonly hint?: string;
  readonly autoFocus?: boolean;
  readonly decimals?: number;
}

/** A figure that is typed as it is read, large enough to be read back at arm's length. */
export function FigureInput({
  label,
  value,
  onChange,
  inputRef,
  error,
  hint,
  autoFocus,
  decimals = 2,
}: SpeedInputProps) {
  return (
    <NumberInput
      ref={inputRef}
      label={label}
      value={value}
      onChange={(next) => onChange(next === '' ? '' : Number(next))}
      hideControls
      decimalScale={decimals}
      decimalSeparator="."
      allowedDecimalSeparators={['.', ',']}
      allowNegative={false}
      data-scan-guard
      inputMode="decimal"
      error={error ?? undefined}
      description={hint}
      autoFocus={autoFocus}
      className={classes['figure']}
    />
  );
}

/** The wheel turns in the air: it says what the display counts, and nothing of the road. */
export const OffGround = ({
  checked,
  onChange,
}: {
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
}) => (
  <Checkbox
    label="Off the ground: kept, not counted"
    checked={checked}
    onChange={(e) => onChange(e.currentTarget.checked)}
  />
);
