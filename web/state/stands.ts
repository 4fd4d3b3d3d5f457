import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { StepId } from '@decurio/core';

/** A unit on one of the stands that one person works side by side. */
export interface OnStand {
  readonly unitId: string;
  readonly serial: string;
  readonly mapId: string;
  /** Who works on it, and where: others at this device have stands of their own. */
  readonly owner: string;
  readonly step: StepId;
  /** Where its power cycle stands, and when the wait of that act ends, in ms since 1970; null while nothing is waited for. */
  readonly restart: { readonly round: number; readonly at: number; readonly until: number | null } | null;
}

export interface StandsState {
  readonly units: readonly OnStand[];
}

/** One person weaves no more. */
export const MOST_STANDS = 4;
const KEPT_AT = 'decurio.stands';

export const stands = createSlice({
  name: 'stands',
  initialState: restored,
  reducers: {
    /** Worked on just now: it takes its place, or one of its own; the one that was left longest makes room. */
    worked: (state, { payload }: PayloadAction<Omit<OnStand, 'restart'>>) => {
      const known = state.units.find(({ unitId }) => unitId === payload.unitId);
      if (known)
        return { units: state.units.map((unit) => (unit.unitId === payload.unitId ? { ...unit, ...payload } : unit)) };
      return { units: [...state.units, { ...payload, restart: null }].slice(-MOST_STANDS) };
    },
    left: (state, { payload }: PayloadAction<string>) => ({
      units: state.units.filter(({ unitId }) => unitId !== payload),
    }),
    restarting: (
      state,
      {
        payload: { unitId, restart },
      }: PayloadAction<{ readonly unitId: string; readonly restart: OnStand['restart'] }>,
    ) => ({
      units: state.units.map((unit) => (unit.unitId === unitId ? { ...unit, restart } : unit)),
    }),
  },
});

/** Keeps the stands on this device: a wait goes on while the page is away. */
export const keepStands = (state: StandsState): void => localStorage.setItem(KEPT_AT, JSON.stringify(state));

function restored(): StandsState {
  try {
    const kept = JSON.parse(localStorage.getItem(KEPT_AT) ?? 'null') as StandsState | null;
    return Array.isArray(kept?.units) ? kept : { units: [] };
  } catch {
    return { units: [] };
  }
}

/** Whether it still waits at this moment. */
export const isWaiting = ({ restart }: OnStand, now: number): boolean =>
  restart?.until !== null && restart?.until !== undefined && restart.until > now;

/** The next unit in turn after `current` that can be worked on now, or undefined where every other one waits. */
export function nextInTurn(units: readonly OnStand[], current: string, now: number): OnStand | undefined {
  const here = units.findIndex(({ unitId }) => unitId === current);
  const turn = [...units.slice(here + 1), ...units.slice(0, Math.max(here, 0))];
  return turn.find((unit) => !isWaiting(unit, now));
}
