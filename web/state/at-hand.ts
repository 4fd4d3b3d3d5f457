import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { StepId } from '@decurio/core';

/** A unit on one of the stands that one person works side by side. */
export interface UnitAtHand {
  readonly unitId: string;
  readonly serial: string;
  readonly mapId: string;
  /** Who works on it, and where: others at this device have stands of their own. */
  readonly owner: string;
  readonly step: StepId;
  /** Where its power cycle stands, and when the wait of that act ends, in ms since 1970; null while nothing is waited for. */
  readonly restart: { readonly round: number; readonly at: number; readonly until: number | null } | null;
}

export interface AtHandState {
  readonly units: readonly UnitAtHand[];
}

/** One person weaves no more. */
export const MOST_AT_HAND = 4;
const KEPT_AT = 'decurio.stands';

export const atHand = createSlice({
  name: 'stands',
  initialState: restored,
  reducers: {
    /** Worked on just now: it takes its place, or one of its own; the one that was left longest makes room. */
    worked: (state, { payload }: PayloadAction<Omit<UnitAtHand, 'restart'>>) => {
      const known = state.units.find(({ unitId }) => unitId === payload.unitId);
      if (known)
        return { units: state.units.map((unit) => (unit.unitId === payload.unitId ? { ...unit, ...payload } : unit)) };
      return { units: [...state.units, { ...payload, restart: null }].slice(-MOST_AT_HAND) };
    },
    left: (state, { payload }: PayloadAction<string>) => ({
      units: state.units.filter(({ unitId }) => unitId !== payload),
    }),
    restarting: (
      state,
      {
        payload: { unitId, restart },
      }: PayloadAction<{ readonly unitId: string; readonly restart: UnitAtHand['restart'] }>,
    ) => ({
      units: state.units.map((unit) => (unit.unitId === unitId ? { ...unit, restart } : unit)),
    }),
  },
});

/** Keeps the stands on this device: a wait goes on while the page is away. Where it keeps nothing they last as long as the page. */
export function keepAtHand(state: AtHandState): void {
  try {
    localStorage.setItem(KEPT_AT, JSON.stringify(state));
  } catch {
    // What else it does not keep is said on the strap.
  }
}

function restored(): AtHandState {
  try {
    const kept = JSON.parse(localStorage.getItem(KEPT_AT) ?? 'null') as AtHandState | null;
    return Array.isArray(kept?.units) ? kept : { units: [] };
  } catch {
    return { units: [] };
  }
}

/** Whether it still waits at this moment. */
export const isWaiting = ({ restart }: UnitAtHand, now: number): boolean =>
  restart?.until !== null && restart?.until !== undefined && restart.until > now;

/** The next unit in turn after `current` that can be worked on now, or undefined where every other one waits. */
export function nextInTurn(units: readonly UnitAtHand[], current: string, now: number): UnitAtHand | undefined {
  const here = units.findIndex(({ unitId }) => unitId === current);
  const turn = [...units.slice(here + 1), ...units.slice(0, Math.max(here, 0))];
  return turn.find((unit) => !isWaiting(unit, now));
}
