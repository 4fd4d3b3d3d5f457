import type { Gesture } from '../map/gesture.js';

/** How long a person takes for a tap, over and above a hold, and for looking at a new item, ms. */
export interface Pace {
  readonly tapMs: number;
  readonly holdExtraMs: number;
  readonly lookMs: number;
}

export const DEFAULT_PACE: Pace = { tapMs: 350, holdExtraMs: 250, lookMs: 700 };

/** How exactly a person ends a hold, ms to either side. */
export const HOLD_TOLERANCE_MS = 100;

/** A press with no look at a new item after it. */
export function gestureMs(pace: Pace, gesture: Gesture): number {
  switch (gesture.kind) {
    case 'tap':
      // The display waits whether another tap comes: so long nothing else may be pressed.
      return Math.max(pace.tapMs, gesture.aloneMs ?? 0);
    case 'double':
      return 2 * pace.tapMs;
    case 'hold':
      return gesture.ms + pace.holdExtraMs;
  }
}
