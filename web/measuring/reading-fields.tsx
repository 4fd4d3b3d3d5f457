import { Checkbox } from '@mantine/core';
import { FigureField, type FigureFieldProps } from '../ui/figure-field.js';
import classes from './measuring.module.css';

/** A figure that is typed as it is read, large enough to be read back at arm's length. */
export const FigureInput = (props: FigureFieldProps) => <FigureField {...props} className={classes['figure']} />;

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
