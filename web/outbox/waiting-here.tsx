import { IconCloudOff, IconCloudUp } from '@tabler/icons-react';
import { useReach } from '../state/reach.js';
import { useSession } from '../state/session.js';
import { waitingOf } from './outbox.js';
import { useOutbox } from './use-outbox.js';
import classes from './waiting-here.module.css';

/** On the strap: how many entries wait on this device, and what they wait for. Nothing while none do. */
export function WaitingHere() {
  const state = useOutbox();
  const { who } = useSession();
  const waiting = waitingOf(state);
  const refused = state.entries.filter(({ status }) => status === 'refused').length;
  const others = waiting.filter(({ userId, station }) => userId !== who?.userId || station !== who.station);
  // Said beside it then, once.
  const isSaid = useReach().awaySince !== null && refused + others.length === 0;
  const isAway = state.away !== null || others.length > 0 || refused > 0;
  if (isSaid || waiting.length + refused === 0 || (!isAway && waiting.length < 3))
    return <span role="status" className={classes['none']} />;
  const [other] = others;
  const says = [
    waiting.length > 0 ? `${waiting.length} ${waiting.length === 1 ? 'entry waits' : 'entries wait'} here` : '',
    refused > 0 ? `${refused} not taken` : '',
    other ? `for ${other.name} at ${other.station}` : '',
  ]
    .filter((part) => part !== '')
    .join(', ');
  return (
    <span
      role="status"
      className={classes['waiting']}
      data-away={isAway}
      title={state.away?.message ?? 'Kept on this device until the server has them.'}
    >
      {isAway ? <IconCloudOff size={18} aria-hidden="true" /> : <IconCloudUp size={18} aria-hidden="true" />} {says}
    </span>
  );
}
