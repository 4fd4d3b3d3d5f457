import { NumberInput, type NumberInputProps } from '@mantine/core';
import { useState } from 'react';
import { amountIn } from './amount-in.js';

export interface AmountInputProps extends Omit<NumberInputProps, 'value' | 'onChange'> {
  /** Null where the field is empty. */
  readonly value: number | null;
  readonly onChange: (value: number | null) => void;
}

/** A number that is typed. What stands there on the way to it, such as `0.` or `-`, stays as it was typed. */
export function AmountInput({ value, onChange, ...props }: AmountInputProps) {
  const [typed, setTyped] = useState<number | string>(value ?? '');
  return (
    <NumberInput
      decimalSeparator="."
      allowedDecimalSeparators={['.', ',']}
      hideControls
      data-scan-guard
      {...props}
      value={amountIn(typed) === value ? typed : (value ?? '')}
      onChange={(next) => {
        setTyped(next);
        onChange(amountIn(next));
      }}
    />
  );
}
