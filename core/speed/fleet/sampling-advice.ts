import { oneSidedFactor, twoSidedFactor } from '../../statistics/tolerance.js';
import { studentQuantile } from '../../statistics/quantiles.js';

/** What one unit of a family was measured to: shown over true speed, brought to one wheel code and pulse count. */
export interface FamilyRun {
  readonly serial: string;
  readonly k: number;
  /** ISO 8601. */
  readonly at: string;
}

/** What the units measured so far say of the next ones of their type, display revision and tyre. */
export interface FamilyRatio {
  readonly count: number;
  readonly mean: number;
  /** Sample standard deviation; 0 while there is one. */
  readonly spread: number;
  /** Two-sided 95/95 tolerance interval of a unit's ratio. */
  readonly tolerance: { readonly low: number; readonly high: number };
  /** Above this lie 99 % of units, at 95 % confidence: what a cap has to hold for. */
  readonly capLow: number;
  /** Where the next unit's ratio falls with 95 %. */
  readonly next: { readonly low: number; readonly high: number };
}

/** Why the next unit is to be run, or need not be. */
export interface SamplingAdvice {
  readonly next: 'full' | 'sample';
  readonly why: 'tooFew' | 'surprise' | 'showsUnder' | 'capNotSure' | 'learnt';
  /** One in so many is run; 1 where all are. */
  readonly oneIn: number;
  readonly family: FamilyRatio | null;
  /** The unit that fell out of its family, where that is why. */
  readonly outsider: string | null;
}

/** Nothing is learnt from fewer. */
export const FEWEST_RUNS = 8;
/** So many units in full after one that surprised. */
export const FULL_AFTER_SURPRISE = 3;

/** What a family's runs say of its next unit. `uCommon`: relative error that all of them share. Null for fewer than two. */
export function familyRatio(runs: readonly FamilyRun[], uCommon: number): FamilyRatio | null {
  const n = runs.length;
  if (n < 2) return null;
  const mean = runs.reduce((sum, { k }) => sum + k, 0) / n;
  const spread = Math.sqrt(runs.reduce((sum, { k }) => sum + (k - mean) ** 2, 0) / (n - 1));
  const shared = 1.96 * uCommon * mean;
  const reach = twoSidedFactor(n) * spread + shared;
  const ahead = studentQuantile(0.975, n - 1) * spread * Math.sqrt(1 + 1 / n);
  return {
    count: n,
    mean,
    spread,
    tolerance: { low: mean - reach, high: mean + reach },
    capLow: mean - oneSidedFactor(n) * spread - 1.645 * uCommon * mean,
    next: { low: mean - ahead, high: mean + ahead },
  };
}

export interface SamplingQuestion {
  /** Runs of this type, display revision and tyre, oldest first. */
  readonly runs: readonly FamilyRun[];
  readonly uCommon: number;
  /** Whether units that were keyed with the learnt codes stay within their limit down to this ratio. */
  readonly capHolds: (lowestRatio: number) => boolean;
  /** Whether they stay within what the house rule wants of the shown speed. */
  readonly shownHolds: (ratio: { readonly low: number; readonly high: number }) => boolean;
  /** The house's own: one in so many. */
  readonly oneIn: number;
}

/**
 * Whether the next unit of a family is run in full or may be keyed with the learnt codes, one in `oneIn` being run. Its
 * first eight are run. A unit outside what the ones before it led to expect puts the next three back to full.
 */
export function samplingAdvice({ runs, uCommon, capHolds, shownHolds, oneIn }: SamplingQuestion): SamplingAdvice {
  const family = familyRatio(runs, uCommon);
  const full = (why: SamplingAdvice['why'], outsider: string | null = null): SamplingAdvice => ({
    next: 'full',
    why,
    oneIn: 1,
    family,
    outsider,
  });
  if (family === null || runs.length < FEWEST_RUNS) return full('tooFew');
  const outsider = outsiders(runs, uCommon).find(({ index }) => runs.length - 1 - index < FULL_AFTER_SURPRISE);
  if (outsider) return full('surprise', outsider.run.serial);
  if (!capHolds(family.capLow)) return full('capNotSure');
  if (!shownHolds(family.tolerance)) return full('showsUnder');
  return { next: 'sample', why: 'learnt', oneIn, family, outsider: null };
}

/** Below the eighth, prediction is too wide to call anything a surprise; from then on 99.7 of 100 fall within. */
const SURPRISE = 0.9985;

/** Units that fell outside what those before them led to expect. */
export function outsiders(
  runs: readonly FamilyRun[],
  uCommon: number,
): readonly { readonly index: number; readonly run: FamilyRun }[] {
  return runs.flatMap((run, index) => {
    const before = familyRatio(runs.slice(0, index), uCommon);
    if (!before || before.count < FEWEST_RUNS) return [];
    const ahead =
      studentQuantile(SURPRISE, before.count - 1) *
      Math.max(before.spread, LEAST_SPREAD * before.mean) *
      Math.sqrt(1 + 1 / before.count);
    return Math.abs(run.k - before.mean) > ahead ? [{ index, run }] : [];
  });
}

/** What a careful measurement itself scatters by: less than this is no surprise, as a share. */
const LEAST_SPREAD = 0.003;
