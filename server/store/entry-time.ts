import { instantOf, receivedAtOf, type Evidence } from '@decurio/core';
import { HttpProblem } from '../problems.js';

/** Clocks that agree to within this are taken as one. */
const AGREE_MS = 60_000;
/** A visit is begun with the server at hand: what comes later than this was not said by a clock that goes right. */
const OPENING_LATE_MS = 24 * 3_600_000;

/**
 * Refuses what a stand's clock cannot have said: a time that has not come yet, or one before the visit began.
 * Entries may come late, from a device that was without network for hours.
 * @param opening the visit's first entry; null for that itself
 */
export function guardTime(at: string, opening: Evidence | null, nowMs: number): void {
  const ms = instantOf(at);
  if (ms === null) throw new HttpProblem('badFields', { fields: { at: 'There is no such time.' } });
  if (ms > nowMs + AGREE_MS) throw new HttpProblem('clockAhead');
  if (ms < (beganMs(opening) ?? nowMs - OPENING_LATE_MS) - AGREE_MS) throw new HttpProblem('clockBehind');
}

function beganMs(first: Evidence | null): number | null {
  if (!first) return null;
  const known = [first.at, receivedAtOf(first)].flatMap((text) => instantOf(text) ?? []);
  return known.length === 0 ? null : Math.min(...known);
}
