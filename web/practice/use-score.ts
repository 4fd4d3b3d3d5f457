import { useEffect, useMemo } from 'react';
import {
  DEFAULT_PACE,
  displayAtRest,
  learnPace,
  pressCount,
  type DisplayMap,
  type Exercise,
  type KeyPlan,
  type TakenPress,
  type TimedPress,
} from '@decurio/core';
import { api } from '../state/api.js';

import { usePlan, type PlanJob } from '../workers/planner.js';

export interface Score {
  readonly presses: number;
  readonly seconds: number;
  readonly bestPresses: number;
  readonly bestSeconds: number;
}

/** The cheapest way through an exercise at one's own pace; null while it is being planned. */
export function useBest(map: DisplayMap, exercise: Exercise): KeyPlan | null {
  const pace = api.usePaceQuery(null).data?.pace ?? DEFAULT_PACE;
  const job = useMemo((): PlanJob => {
    const start = { values: displayAtRest(map, exercise.values).stored, at: null };
    return exercise.kind === 'set'
      ? { kind: 'keys', map, targets: exercise.targets, start, pace }
      : { kind: 'readout', map, start, pace };
    // The yardstick of an exercise stays the one it began with.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [map, exercise]);
  return usePlan(job);
}

/** What was pressed against the best there is. */
export function scoreOf(taken: readonly TakenPress[], best: KeyPlan, endMs: number): Score {
  const [first] = taken;
  const began = first ? first.atMs - (first.gesture.kind === 'hold' ? first.gesture.ms : 0) : endMs;
  return {
    presses: taken.length,
    seconds: (endMs - began) / 1000,
    bestPresses: pressCount(best),
    bestSeconds: best.estimatedMs / 1000,
  };
}

/** Learns the pace of an exercise that is through, once, and keeps it for the person. */
export function useLearntPace(taken: readonly TakenPress[], isThrough: boolean): void {
  const known = api.usePaceQuery(null);
  const [keep] = api.useKeepPaceMutation();
  const isKnown = known.data !== undefined;
  useEffect(() => {
    if (!isThrough || !isKnown) return;
    const before = known.data?.pace ?? DEFAULT_PACE;
    const pace = learnPace(timed(taken), before);
    if (pace.tapMs !== before.tapMs || pace.lookMs !== before.lookMs || pace.holdExtraMs !== before.holdExtraMs)
      void keep(pace);
    // Once an exercise: what is learnt changes what is known.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isThrough, isKnown]);
}

/** Presses with the time since the one before, and whether another item had come meanwhile. */
export function timed(taken: readonly TakenPress[]): readonly TimedPress[] {
  return taken.slice(1).map((press, i) => {
    const before = taken[i] as TakenPress;
    return {
      gesture: press.gesture,
      sinceLastMs: press.atMs - before.atMs,
      isAfterLook: placeOf(before.before) !== placeOf(before.after),
    };
  });
}

const placeOf = (glass: TakenPress['before']): string =>
  glass.kind === 'menu' ? glass.label : glass.kind === 'entry' ? glass.shows : glass.kind;
