import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import type { VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { whenClock } from '../../ui/when.js';
import type { Visit } from '../use-visit.js';
import panel from '../panel.module.css';

/** It is charging, or being watched: hands are free for another, and it says when it is worth a look. */
export function StandsAside({
  bench,
  state,
  visit,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}) {
  const navigate = useNavigate();
  const { wait } = state.proving;
  const now = useMinute();
  const back = () => void visit.act('waitEnded', {});
  useHotkeys({ Space: back, L: () => void navigate(`/line/${bench.orderId}`) });
  if (!wait) return null;
  const dueMs = wait.dueAt === null ? null : Date.parse(wait.dueAt);
  const leftMin = dueMs === null ? null : Math.ceil((dueMs - now) / 60_000);
  return (
    <div className={panel['panel']}>
      <p className="cap">Prove · stands aside</p>
      <h2 className={panel['title']}>{wait.words}</h2>
      <p className={panel['lead']} role="status">
        Since {whenClock(wait.since)}, by {wait.by}.{' '}
        {leftMin === null
          ? 'Nobody said until when.'
          : leftMin > 0
            ? `Worth a look at ${whenClock(wait.dueAt ?? '')}, in ${leftMin} min.`
            : `Due since ${whenClock(wait.dueAt ?? '')}.`}
      </p>
      <p>
        Take another meanwhile; Line shows that this one waits. Its cautions are asked again when hands are back on it.
      </p>
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={back}>
          Hands on it again
        </ActButton>
        <ActButton hotkey="L" onAct={() => void navigate(`/line/${bench.orderId}`)}>
          To Line
        </ActButton>
      </div>
    </div>
  );
}

/** The time now, anew every half minute. */
function useMinute(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 30_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}
