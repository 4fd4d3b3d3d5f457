import { useEffect, type ReactNode } from 'react';
import { keyLabel, keysOf, targetOf, type PlanStep, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { speak } from '../../ui/speak.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { pressWords } from './press-words.js';
import { isCounted, useHoldCount } from './use-hold-count.js';
import type { KeyRun } from './use-key-run.js';
import panel from '../panel.module.css';
import classes from './key-in.module.css';

export interface DuePressProps {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly run: KeyRun;
  readonly due: PlanStep;
  /** Presses pass by themselves at one's pace, while it goes. */
  readonly paced: boolean;
  readonly goes: boolean;
  /** Between the order and the acts. */
  readonly children: ReactNode;
  /** Beside the main act. */
  readonly acts: ReactNode;
}

/** The big key with its order. A long hold counts down once Space is pressed with it; a message is waited out by itself. */
export function DuePress({ bench, state, run, due, paced, goes, children, acts }: DuePressProps) {
  const { map } = bench;
  const words = pressWords(map, run.plan, run.index);
  const { gesture, serves, purpose } = due;
  const holdMs = gesture.kind === 'hold' && isCounted(due) ? gesture.ms : null;
  const hold = useHoldCount(holdMs ?? 0, run.done);
  const waitMs = gesture.kind === 'wait' && due.before.kind === 'message' ? gesture.ms : paced && goes ? due.ms : null;
  const { done } = run;
  useEffect(() => {
    speak(`${words.order}. ${words.effect}`);
    if (waitMs === null) return;
    const timer = setTimeout(done, waitMs);
    return () => clearTimeout(timer);
    // The wait begins once, with its step.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [waitMs]);
  const begins = holdMs !== null && hold.leftMs === null;
  useHotkeys({ Space: paced ? undefined : begins ? hold.begin : done }, { shown: run.index });
  return (
    <>
      <div className={classes['order']}>
        <span
          className={classes['key']}
          data-wide={gesture.kind === 'hold' && gesture.keys.length > 1}
          aria-hidden="true"
        >
          {hold.leftMs !== null ? (
            <b data-count="true">{(hold.leftMs / 1000).toFixed(1)}</b>
          ) : gesture.kind === 'wait' ? (
            <b data-wait="true">…</b>
          ) : (
            keysOf(gesture).map((key) => <b key={key}>{keyLabel(map, key)}</b>)
          )}
        </span>
        <div>
          <h2>{words.order}</h2>
          <p>
            {hold.leftMs !== null
              ? 'Keep holding. It passes by itself; Space if the glass is there already.'
              : words.effect}
          </p>
          {serves !== null && (purpose === 'change' || purpose === 'store' || purpose === 'move') && (
            <p className={classes['why']}>{targetOf(state.opened.setup, serves)?.because ?? ''}</p>
          )}
        </div>
      </div>
      {children}
      <div className={panel['acts']}>
        {!paced && (
          <ActButton look="main" hotkey="Space" onAct={begins ? hold.begin : done}>
            {begins ? 'Holding now, count' : 'Done, next press'}
          </ActButton>
        )}
        {acts}
      </div>
    </>
  );
}
