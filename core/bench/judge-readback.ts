import type { Setup } from '../setup/setup.js';

/**
 * `agrees`: shows its target. `differs`: read twice, and does not. `locked`: differs, and keys cannot change it. `notShown`: the display has no such code. `notRead`: no final reading yet. `accepted`: differs, and a lead lets it stand in writing. `asFound`: no target, recorded.
 */
export type Verdict = 'agrees' | 'differs' | 'locked' | 'notShown' | 'notRead' | 'accepted' | 'asFound';

/** A value that a lead lets stand though it is not the target. */
export interface Accepted {
  readonly raw: number | null;
  readonly words: string;
  readonly by: string;
  /** Day in UTC, as 2026-11-24. */
  readonly on: string;
}

export interface CodeVerdict {
  readonly label: string;
  readonly verdict: Verdict;
  readonly target: number | null;
  /** Blind readings in the order they were made; null where the code was not shown. */
  readonly readings: readonly (number | null)[];
}

/** Readings after which a code's verdict stands: one that agrees, or a second one. */
const MOST_READINGS = 2;

/** Whether no further reading of a code that is listed is asked for. */
function isFinal(target: number | null, readings: readonly (number | null)[]): boolean {
  if (readings.length === 0) return false;
  return target === null || readings.at(-1) === target || readings.length >= MOST_READINGS;
}

/** Holds blind readings against the targets, code by code in menu order. */
export function judgeReadback(
  setup: Setup,
  readings: Readonly<Record<string, readonly (number | null)[]>>,
  stuck: readonly string[] = [],
  accepted: Readonly<Record<string, Accepted>> = {},
): readonly CodeVerdict[] {
  return setup.targets.map(({ label, raw: target, locked, shownIf }) => {
    const own = readings[label] ?? [];
    const isHidden = shownIf !== undefined && !shownIf.in.includes(lastOf(setup, readings, shownIf.code));
    const verdict = verdictOf(target, own, locked || stuck.includes(label), isHidden);
    // Once a lead let it stand it may be left as found, and still says so.
    const stands =
      (AGAINST.has(verdict) || verdict === 'asFound') &&
      accepted[label] !== undefined &&
      accepted[label].raw === (own.at(-1) ?? null);
    return { label, target, readings: own, verdict: stands ? 'accepted' : verdict };
  });
}

/** What a code was read to show last; its target where it was not read. */
const lastOf = (setup: Setup, readings: Readonly<Record<string, readonly (number | null)[]>>, label: string): number =>
  readings[label]?.at(-1) ?? setup.targets.find((target) => target.label === label)?.raw ?? Number.NaN;

/** What is not listed as things stand is not shown, and nobody misses it. */
function verdictOf(
  target: number | null,
  readings: readonly (number | null)[],
  cannotChange: boolean,
  isHidden: boolean,
): Verdict {
  const last = readings.at(-1) ?? null;
  if (isHidden && readings.length > 0 && last === null) return 'asFound';
  if (!isFinal(target, readings)) return 'notRead';
  if (last === null) return 'notShown';
  if (target === null) return 'asFound';
  if (last === target) return 'agrees';
  return cannotChange ? 'locked' : 'differs';
}

const AGAINST: ReadonlySet<Verdict> = new Set<Verdict>(['differs', 'locked', 'notShown']);

/** Verdicts that keep a unit from being signed off: it does not show what it must. */
export const isAgainst = ({ verdict, target }: CodeVerdict): boolean =>
  verdict === 'differs' || verdict === 'locked' || (verdict === 'notShown' && target !== null);
