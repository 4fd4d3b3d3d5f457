import type { ReactNode } from 'react';
import { ActButton } from '../ui/act-button.js';
import classes from './library-form.module.css';

export interface RowsFieldProps {
  readonly title: string;
  /** What its button says. */
  readonly add: string;
  /** What the button at each entry says. */
  readonly takeOut?: string;
  /** Fields of a few letters each, which stand side by side. */
  readonly dense?: boolean;
  readonly rows: readonly unknown[];
  readonly onAdd: () => void;
  readonly onRemove: (index: number) => void;
  readonly children: (index: number) => ReactNode;
}

/** A list whose entries have several fields each; nothing but its button where it is empty. */
export function RowsField({
  title,
  add,
  takeOut = 'Take it out',
  dense = false,
  rows,
  onAdd,
  onRemove,
  children,
}: RowsFieldProps) {
  return (
    <fieldset className={classes['rows']} aria-label={title}>
      {rows.length > 0 && <legend>{title}</legend>}
      {rows.map((_, i) => (
        <div key={i} className={classes['row']} data-dense={dense || undefined}>
          {children(i)}
          <div className={classes['takeOut']}>
            <ActButton look="care" onAct={() => onRemove(i)}>
              {takeOut}
            </ActButton>
          </div>
        </div>
      ))}
      <div>
        <ActButton onAct={onAdd}>{add}</ActButton>
      </div>
    </fieldset>
  );
}
