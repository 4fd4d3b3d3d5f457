import type { OpenSession } from '@decurio/contract';
import { ActButton } from '../ui/act-button.js';
import { whenClock } from '../ui/when.js';
import classes from './sessions-page.module.css';

interface PlaceProps {
  readonly session: OpenSession;
  readonly busy: boolean;
  readonly onEnd: () => void;
}

/** A place where somebody is signed in, and its end. */
export function Place({ session: { station, openedAt, seenAt, isThis }, busy, onEnd }: PlaceProps) {
  return (
    <li>
      <div>
        <strong>{station === '' ? 'no bay named' : station}</strong>
        <span>
          since <span className="num">{whenClock(openedAt)}</span>, last heard from{' '}
          <span className="num">{whenClock(seenAt)}</span>
        </span>
      </div>
      {isThis ? (
        <span className={classes['here']}>this one</span>
      ) : (
        <ActButton
          look="care"
          busy={busy}
          onAct={onEnd}
        >{`End it at ${station === '' ? 'that device' : station}`}</ActButton>
      )}
    </li>
  );
}
