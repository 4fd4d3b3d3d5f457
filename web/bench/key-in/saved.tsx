import { useMemo } from 'react';
import { naiveWalk, pressCount, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import type { KeyRun } from './use-key-run.js';
import classes from './key-in.module.css';

/** What is left at one's pace, and what working through every code in turn would have taken. */
export function Saved({
  bench,
  state,
  run,
  isOwnPace,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly run: KeyRun;
  readonly isOwnPace: boolean;
}) {
  const walk = useMemo(() => {
    const targets = Object.fromEntries(
      state.opened.setup.targets.flatMap((t) => (t.raw === null || t.locked ? [] : [[t.label, t.raw]])),
    );
    return naiveWalk(bench.map, targets, state.atRoundStart);
  }, [bench.map, state.opened.setup, state.atRoundStart]);
  const leftMs = run.plan.steps.slice(run.index).reduce((sum, step) => sum + step.ms, 0);
  const presses = pressCount(run.plan);
  return (
    <p className={classes['saved']}>
      {Math.round(leftMs / 1000)} s left at {isOwnPace ? 'your' : 'a usual'} pace
      {walk && walk.presses > presses
        ? `; ${presses} presses, where every code in turn would take ${walk.presses}`
        : ''}
    </p>
  );
}
