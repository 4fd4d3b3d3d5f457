import { IconCloudOff } from '@tabler/icons-react';
import { waitingOf } from '../outbox/outbox.js';
import { useOutbox } from '../outbox/use-outbox.js';
import { useReach } from '../state/reach.js';
import { whenClock } from './when.js';
import classes from './out-of-reach.module.css';

const clock = (ms: number): string => whenClock(new Date(ms).toISOString());

/**
 * On the strap while the server does not answer: since when, what waits here, how old that is which is shown. It takes no
 * room of the page: nothing under a hand moves when a network goes.
 */
export function OutOfReach() {
  const { awaySince, shownAsOf } = useReach();
  const waiting = waitingOf(useOutbox()).length;
  if (awaySince === null) return <span role="status" className={classes['none']} />;
  const waits = waiting === 0 ? null : `${waiting} ${waiting === 1 ? 'entry waits' : 'entries wait'} here`;
  const asOf = shownAsOf === null ? null : `What you see is as of ${clock(shownAsOf)}.`;
  const goesOn = 'Units that were open here go on; what you enter is kept here and sent when it answers.';
  return (
    <span role="status" className={classes['away']} title={[goesOn, asOf].filter(Boolean).join(' ')}>
      <IconCloudOff size={22} aria-hidden="true" />
      <span className={classes['words']}>
        <b>No server since {clock(awaySince)}</b>
        <span>{waits ?? 'entries are kept here'}</span>
      </span>
      <span className="hidden-words">
        {goesOn} {asOf}
      </span>
    </span>
  );
}
