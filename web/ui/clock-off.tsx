import { IconClockExclamation } from '@tabler/icons-react';
import { useClock } from '../state/clock.js';
import classes from './clock-off.module.css';

const TOLD_MS = 3 * 60_000;

/** On the strap where this device's clock is off: how far, and what to do. Nothing while it is right. */
export function ClockOff() {
  const { addMs } = useClock();
  if (Math.abs(addMs) < TOLD_MS) return null;
  return (
    <span
      role="status"
      className={classes['off']}
      title="Entries carry the time of the house meanwhile, and the record notes it."
    >
      <IconClockExclamation size={18} aria-hidden="true" />
      This device's clock is {spanOf(Math.abs(addMs))} {addMs < 0 ? 'ahead' : 'behind'}: set it right
    </span>
  );
}

function spanOf(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  return minutes < 120
    ? `${minutes} min`
    : minutes < 48 * 60
      ? `${Math.round(minutes / 60)} h`
      : `${Math.round(minutes / 1440)} days`;
}
