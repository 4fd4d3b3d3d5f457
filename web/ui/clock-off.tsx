import { IconClockExclamation } from '@tabler/icons-react';
import { useLayoutEffect, useRef } from 'react';
import { useClock } from '../state/clock.js';
import classes from './clock-off.module.css';

const TOLD_MS = 3 * 60_000;

/** Under the strap where this device's clock is off: how far, what that means, and what to do. Nothing while it is right. */
export function ClockOff() {
  const { addMs } = useClock();
  const isOff = Math.abs(addMs) >= TOLD_MS;
  const band = useRef<HTMLParagraphElement>(null);
  // Places that fill the window give up the height of the band.
  useLayoutEffect(() => {
    const { style } = document.documentElement;
    if (isOff) style.setProperty('--band', `${band.current?.offsetHeight ?? 0}px`);
    else style.removeProperty('--band');
  }, [isOff]);
  if (!isOff) return null;
  return (
    <p ref={band} role="status" className={classes['off']}>
      <IconClockExclamation size={20} aria-hidden="true" />
      <span>
        This device's clock is <b>{spanOf(Math.abs(addMs))}</b> {addMs < 0 ? 'ahead' : 'behind'}. Entries carry the house's time, and the record notes it. Set the clock right.
      </span>
    </p>
  );
}

function spanOf(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  return minutes < 120 ? `${minutes} min` : minutes < 48 * 60 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / 1440)} days`;
}
