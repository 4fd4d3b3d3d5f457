import { IconDatabaseX } from '@tabler/icons-react';
import { waitingOf } from '../outbox/outbox.js';
import { useOutbox } from '../outbox/use-outbox.js';
import { useReach } from '../state/reach.js';
import classes from './out-of-reach.module.css';

/** What is entered on a device that keeps nothing lasts as long as the page, and whoever works there is told at once. */
export function KeepsNothing() {
  const state = useOutbox();
  const isAway = useReach().awaySince !== null;
  if (!state.keepsNothing) return null;
  const waiting = waitingOf(state).length;
  return (
    <div role="alert" className={classes['band']} data-band>
      <IconDatabaseX size={20} aria-hidden="true" />
      <p>
        <strong>This device keeps nothing (a private window, or no room).</strong>{' '}
        {waiting === 0
          ? 'Entries go straight to the server.'
          : `${waiting === 1 ? 'One entry is' : `${waiting} entries are`} in this page alone${isAway ? ', and the server does not answer' : ''}.`}{' '}
        Leave the page open while entries wait.
      </p>
    </div>
  );
}
