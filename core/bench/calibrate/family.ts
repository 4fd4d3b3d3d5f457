import type { Code, DisplayMap } from '../../display/map/display-map.js';
import type { Choices } from '../../setup/inputs/house-rules.js';
import type { SpeedTerms } from '../../setup/setup.js';
import { chooseWheelCodes } from '../../speed/choose/choose-wheel-codes.js';
import type { EvidenceData } from '../evidence.js';
import { expectedOf, outOfFamily } from '../../speed/fleet/out-of-family.js';
import type { FamilyRun } from '../../speed/fleet/family-ratio.js';
import { FEWEST_RUNS } from '../../speed/fleet/fewest-runs.js';
import { FULL_AFTER_SURPRISE, samplingAdvice, type SamplingAdvice } from '../../speed/fleet/sampling-advice.js';
import { overshootOf } from '../../speed/overshoot.js';
import { circumferenceMm } from '../../speed/wheel-code.js';
import type { CalibrateTerms } from '../bench-terms.js';
import { pulsesOf, questionFor, speedGlass, wheelCodes } from './wheel-question.js';

/** A unit of a family that was run, with the codes it was run under. */
export interface UnitRun extends FamilyRun {
  readonly wheelRaw: number | null;
  readonly pulsesRaw: number | null;
  /** Relative error that the run shares with others on the same reference. */
  readonly uCommon: number;
}

/** A family as it stands: units of one type, display revision and tyre. */
export interface Family {
  readonly map: DisplayMap;
  /** What is promised of the next unit. */
  readonly terms: SpeedTerms;
  /** Oldest first. */
  readonly runs: readonly UnitRun[];
  /** Units since the newest run that were keyed by what was learnt alone. */
  readonly learntSince: number;
  readonly rule: Choices['runs'];
  /** The farthest that drive was seen to act beyond its cap on a unit of this type and display, km/h as shown. */
  readonly overshootKmh?: number | null;
}

const ONE_IN = 5;

/** Every run as if it had been ridden with the codes of the newest one, so that they compare. */
export function comparable({ map, terms, runs }: Pick<Family, 'map' | 'terms' | 'runs'>): readonly FamilyRun[] {
  const newest = runs.at(-1);
  if (!newest) return [];
  const counts = ({ wheelRaw, pulsesRaw }: UnitRun) => {
    const { wheel, pulses } = wheelCodes({}, map, terms);
    return (
      ((wheel && wheelRaw !== null ? circumferenceMm(wheel, wheelRaw) : undefined) ?? 1) /
      (pulsesOf(pulses, pulsesRaw) ?? terms.pulses)
    );
  };
  return runs.map((run) => {
    const { visitId, serial, at, leftOut, k, u } = run;
    const by = counts(newest) / counts(run);
    return { visitId, serial, at, leftOut, k: k * by, u: u * by };
  });
}

/** What a family tells of its next unit. */
export function familyAdvice(family: Family): SamplingAdvice {
  const { map, terms, runs } = family;
  const newest = runs.at(-1);
  const known = knownBy(family, newest);
  const codes = wheelCodes(known, map, terms);
  const beyond = overshootOf({
    measuredKmh: null,
    familyKmh: family.overshootKmh ?? null,
    mappedKmh: map.speed?.overshootKmh ?? null,
    stepKmh: speedGlass(known, map).resolutionKmh,
  });
  const best = (ratio: { readonly k: number; readonly low: number; readonly high: number }) =>
    chooseWheelCodes(questionFor(codes, terms, beyond.kmh, ratio))[0];
  return samplingAdvice({
    runs: comparable(family),
    uCommon: Math.max(0, ...runs.map(({ uCommon }) => uCommon)),
    capHolds: (low) => terms.limit === null || best({ k: low, low, high: low })?.cap !== null,
    shownHolds: ({ low, high }) => best({ k: (low + high) / 2, low, high })?.readsFarOver !== true,
    oneIn: ONE_IN,
  });
}

/** Whether the next unit of a family is run, and what its first key-in counts with. */
export function calibrateTermsFor(family: Family): CalibrateTerms {
  const advice = familyAdvice(family);
  const newest = family.runs.at(-1);
  const { family: ratio } = advice;
  const isLearnt =
    ratio !== null && advice.inFamily >= FEWEST_RUNS && advice.why !== 'surprise' && newest !== undefined;
  const learnt = isLearnt
    ? {
        k: ratio.mean,
        u: ratio.spread,
        low: ratio.capLow,
        high: ratio.tolerance.high,
        count: ratio.count,
        wheelRaw: newest.wheelRaw,
        pulsesRaw: newest.pulsesRaw,
        nextLow: ratio.next.low,
        nextHigh: ratio.next.high,
      }
    : null;
  const isItsTurn = advice.next === 'sample' && (family.rule === 'every' || family.learntSince >= ONE_IN - 1);
  return {
    runs: advice.next === 'sample' && !isItsTurn ? 'sample' : 'full',
    why: whyWords(advice, family),
    family: learnt,
    ...(typeof family.overshootKmh === 'number' ? { overshootKmh: family.overshootKmh } : {}),
  };
}

function whyWords({ why, outsider, odd, inFamily }: SamplingAdvice, { runs, rule, learntSince }: Family): string {
  const count = runs.filter(({ leftOut }) => leftOut === null).length;
  switch (why) {
    case 'tooFew':
      if (count === 0) return `None of this type, display and tyre was run yet: the first ${FEWEST_RUNS} are.`;
      if (odd.length > 0)
        return `${inFamily} of this type, display and tyre read alike, and ${FEWEST_RUNS} must: ${odd.map(({ run }) => run.serial).join(', ')} read otherwise.`;
      return `${count} of this type, display and tyre ${count === 1 ? 'was' : 'were'} run; the first ${FEWEST_RUNS} are.`;
    case 'surprise':
      return `${outsider} read otherwise than those before it: the next ${FULL_AFTER_SURPRISE} are run.`;
    case 'capNotSure':
      return `The ${count} that were run spread too far for a cap that surely holds: this one is run.`;
    case 'showsUnder':
      return `The ${count} that were run spread too far for one wheel value: this one is run.`;
    case 'learnt':
      if (rule === 'every') return 'House rules run every unit.';
      return learntSince >= ONE_IN - 1
        ? `One in ${ONE_IN} is run, and it is this one's turn.`
        : `${count} of this type, display and tyre were run and read alike: this one need not be.`;
  }
}

const knownBy = ({ map, terms }: Family, run: UnitRun | undefined): Readonly<Record<string, number>> => {
  const { wheel, pulses } = wheelCodes({}, map, terms);
  return {
    ...rawOf(wheel, run?.wheelRaw ?? null),
    ...rawOf(pulses, run?.pulsesRaw ?? null),
  };
};

const rawOf = (code: Code | null, raw: number | null): Readonly<Record<string, number>> =>
  code && raw !== null ? { [code.label]: raw } : {};

/** What is said of a unit that was run and does not read as those of its family before it; null where it does. */
export function oddInFamily(
  family: Pick<Family, 'map' | 'terms' | 'runs'>,
  visitId: string,
): EvidenceData['outOfFamily'] | null {
  const runs = comparable(family);
  const odd = outOfFamily(runs).find(({ run }) => run.visitId === visitId);
  if (!odd) return null;
  const others = runs.filter((run) => run.visitId !== visitId && run.leftOut === null);
  const expected = expectedOf(others, odd.run.u);
  return expected && { k: odd.run.k, count: expected.count, low: expected.low, high: expected.high };
}
