import { IconCheck } from '@tabler/icons-react';
import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { restartActs, seenAfterRestart, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import type { AppDispatch } from '../state/store.js';
import { ActButton } from '../ui/act-button.js';
import { Said } from '../ui/said.js';
import { speak } from '../ui/speak.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { atHand } from '../state/at-hand.js';
import { useHabit } from './gone-through.js';
import { useNow, useAtHand } from '../state/use-at-hand.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

/** Step 5: the acts of this display's power cycle, one by one. A wait goes on while another unit is worked on. */
export function Restart({
  bench,
  state,
  visit,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}) {
  const dispatch = useDispatch<AppDispatch>();
  const unitId = bench.unit.id;
  const { round } = state;
  const unplugged = state.opened.bench?.unplugCheck === true;
  const acts = restartActs(bench.map, unplugged);
  const units = useAtHand();
  const now = useNow(units);
  const kept = units.find((unit) => unit.unitId === unitId)?.restart;
  const mine = kept?.round === round ? kept : { round, at: 0, until: null };
  const isOver = mine.until !== null && mine.until <= now;
  const at = isOver ? mine.at + 1 : mine.at;
  const leftMs = mine.until === null || isOver ? null : mine.until - now;
  const { isTogether, keep: keepHabit } = useHabit(
    'restart',
    state.opened.versions.type.id,
    acts.map((each) => each.act),
  );
  const act = acts[at];
  // Acts that whoever does them knows are said with the one that waits, or with the last.
  const until = isTogether ? acts.findIndex(({ waitMs }, i) => i >= at && waitMs > 0) : at;
  const to = until < 0 ? acts.length - 1 : until;
  const waitMs = act === undefined ? 0 : (acts[to]?.waitMs ?? 0);
  const isLast = act === undefined || to === acts.length - 1;
  const due = acts.slice(at, to + 1).map((each) => each.act);
  const spoken = [
    ...(isOver ? ['The wait is over.'] : []),
    ...(due.length > 0 ? due : [acts.length === 0 ? 'No restart is needed' : 'Restarted']),
  ].join(' ');
  useEffect(() => speak(spoken), [spoken]);

  const keep = (next: { at: number; until: number | null }) =>
    dispatch(atHand.actions.restarting({ unitId, restart: { round, ...next } }));
  const next = () => {
    if (leftMs !== null) return;
    if (waitMs > 0) keep({ at: to, until: msFromNow(waitMs) });
    else if (!isLast) keep({ at: to + 1, until: null });
    else {
      if (!isTogether) keepHabit(acts.map((each) => each.act));
      dispatch(atHand.actions.restarting({ unitId, restart: null }));
      void visit.act('restarted', {
        acts: acts.map((each) => each.act),
        ...(unplugged ? { unplugged } : {}),
        ...(isTogether ? { together: true } : {}),
      });
    }
  };
  useHotkeys({ Space: next }, { shown: at });

  return (
    <div className={classes['panel']}>
      <Said words={leftMs !== null ? `Wait ${waitMs / 1000} seconds` : spoken} />
      <p className="cap">
        {acts.length === 0 ? 'Restart · none is needed' : 'Restart · codes that act only after it, act from now on'}
      </p>
      {acts.length === 0 && (
        <p className={classes['lead']}>What was keyed acts at once on this display: no power cycle is needed.</p>
      )}
      <ol className={classes['acts-list']} aria-label="Power cycle">
        {acts.map((step, i) => (
          <li
            key={step.act}
            data-mark={i < at ? 'done' : i <= to ? 'now' : 'todo'}
            aria-current={i === at ? 'step' : undefined}
          >
            <span aria-hidden="true">{i < at ? <IconCheck size={17} stroke={2.6} /> : i + 1}</span>
            <p>
              {step.act}
              {step.waitMs > 0 && i === to && (
                <small role="timer" aria-live="off">
                  {leftMs === null
                    ? `Then wait ${step.waitMs / 1000} s; the countdown starts with your key.`
                    : `Waiting: ${Math.ceil(leftMs / 1000)} s`}
                </small>
              )}
            </p>
          </li>
        ))}
      </ol>
      {isLast && waitMs === 0 && acts.length > 0 && (
        <p className={classes['lead']}>{seenAfterRestart(bench.map)} If anything else is seen, hold the unit.</p>
      )}
      <div className={classes['acts']}>
        <ActButton look="main" hotkey="Space" disabled={leftMs !== null} onAct={next}>
          {leftMs !== null
            ? 'Waiting'
            : waitMs > 0
              ? 'Done, start the wait'
              : isLast
                ? acts.length === 0
                  ? 'On to read back'
                  : 'Restarted, to read back'
                : 'Done, next'}
        </ActButton>
      </div>
    </div>
  );
}

const msFromNow = (ms: number): number => Date.now() + ms;
