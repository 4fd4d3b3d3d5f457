import { familyRatio, type FamilyRatio, type FamilyRun } from './family-ratio.js';
import { FEWEST_RUNS } from './fewest-runs.js';
import { outOfFamily, type OutOfFamily } from './out-of-family.js';

/** Why the next unit is to be run, or need not be. */
export interface SamplingAdvice {
  readonly next: 'full' | 'sample';
  readonly why: 'tooFew' | 'surprise' | 'showsUnder' | 'capNotSure' | 'learnt';
  /** One in so many is run; 1 where all are. */
  readonly oneIn: number;
  /** Of all that no lead left out, odd ones among them: what reads otherwise makes the family less sure until it is explained. */
  readonly family: FamilyRatio | null;
  /** Units that read as their family does. */
  readonly inFamily: number;
  /** Units that do not, and that no lead left out. */
  readonly odd: readonly OutOfFamily[];
  /** The newest of them, where that is why. */
  readonly outsider: string | null;
}

/** So many units in full after one that surprised. */
export const FULL_AFTER_SURPRISE = 3;

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
 * Whether the next unit of a family is run in full or may be keyed with the learnt codes, one in `oneIn` being run. It is
 * learnt from eight that read alike. A unit outside what the ones before it led to expect puts the next three back to full.
 */
export function samplingAdvice({ runs, uCommon, capHolds, shownHolds, oneIn }: SamplingQuestion): SamplingAdvice {
  const counted = runs.filter(({ leftOut }) => leftOut === null);
  const odd = outOfFamily(runs);
  const known = { family: familyRatio(counted, uCommon), inFamily: counted.length - odd.length, odd };
  const full = (why: SamplingAdvice['why'], outsider: string | null = null): SamplingAdvice => ({
    next: 'full',
    why,
    oneIn: 1,
    ...known,
    outsider,
  });
  const surprise = odd.findLast(
    ({ index, seen }) => seen === 'atOnce' && runs.length - 1 - index < FULL_AFTER_SURPRISE,
  );
  if (surprise) return full('surprise', surprise.run.serial);
  if (known.family === null || known.inFamily < FEWEST_RUNS) return full('tooFew');
  if (!capHolds(known.family.capLow)) return full('capNotSure');
  if (!shownHolds(known.family.tolerance)) return full('showsUnder');
  return { next: 'sample', why: 'learnt', oneIn, ...known, outsider: null };
}
