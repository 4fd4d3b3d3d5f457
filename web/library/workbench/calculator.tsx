import { NumberInput, Select } from '@mantine/core';
import type { ReactNode } from 'react';
import type { Chemistry } from '@decurio/core';
import { CHEMISTRY_TITLES } from '../types/type-words.js';
import classes from './workbench.module.css';

/** One calculator: what is known at the left, what follows under it. */
export const Calculator = ({
  title,
  asks,
  children,
  follows,
}: {
  readonly title: string;
  readonly asks: string;
  readonly children: ReactNode;
  readonly follows: ReactNode;
}) => (
  <section className={classes['calculator']} aria-label={title}>
    <h2>{title}</h2>
    <p className="soft">{asks}</p>
    <div className={classes['inputs']}>{children}</div>
    <div className={classes['follows']} role="status">
      {follows}
    </div>
  </section>
);

export interface FigureProps {
  readonly label: string;
  readonly value: number | '';
  readonly onChange: (value: number | '') => void;
}

export const Figure = ({ label, value, onChange }: FigureProps) => (
  <NumberInput
    label={label}
    value={value}
    onChange={(next) => onChange(next === '' ? '' : Number(next))}
    hideControls
    allowNegative={false}
    decimalSeparator="."
    allowedDecimalSeparators={['.', ',']}
    data-scan-guard
    className={classes['figure'] ?? ''}
  />
);

export const ChemistryField = ({
  value,
  onChange,
}: {
  readonly value: Chemistry;
  readonly onChange: (value: Chemistry) => void;
}) => (
  <Select
    label="Cells"
    value={value}
    onChange={(next) => next && onChange(next as Chemistry)}
    allowDeselect={false}
    data={Object.entries(CHEMISTRY_TITLES).map(([id, title]) => ({ value: id, label: title }))}
    className={classes['choice'] ?? ''}
  />
);

/** Undefined while any is missing, so that nothing is worked out from a half. */
export const known = <T extends readonly (number | '')[]>(...values: T): { [K in keyof T]: number } | undefined =>
  values.every((value) => value !== '' && value > 0) ? ([...values] as { [K in keyof T]: number }) : undefined;
