import type { DisplayMap } from '../../display/map/display-map.js';
import type { KnownRatio, UnitFacts } from '../../setup/inputs/setup-inputs.js';
import type { VisitState } from '../visit-state.js';
import { provedOvershoots } from '../proving/proving-of.js';
import { calibrationOf } from './calibration-of.js';

/** What a visit knows of its unit: what the setup is worked out anew by. */
export function unitFactsOf(state: VisitState, map: DisplayMap): Omit<UnitFacts, 'override'> {
  const { calibration, checkedIn, values: known, witnessed } = state;
  const own = state.wheelFamily === 1 ? state.opened.bench?.calibrate?.own : undefined;
  const stands = Object.entries(state.accepted).flatMap(([label, one]) =>
    one.raw === null ? [] : [[label, { ...one, raw: one.raw }] as const],
  );
  return {
    asFound: {
      ...Object.fromEntries(witnessed.map((label) => [label, known[label] ?? 0])),
      ...Object.fromEntries(stands.map(([label, { raw }]) => [label, raw])),
    },
    ...(stands.length > 0
      ? { letStand: Object.fromEntries(stands.map(([label, { words, by, on }]) => [label, { words, by, on }])) }
      : {}),
    packV: checkedIn?.packV ?? null,
    ratio: ratioOf(state),
    rolled: calibration.wheel
      ? { mm: calibration.wheel.mm, fromMm: calibration.wheel.fromMm, toMm: calibration.wheel.toMm }
      : (own?.rolled ?? null),
    overshootKmh: measuredOvershoot(state, map) ?? own?.overshootKmh ?? null,
    familyOvershootKmh: state.opened.bench?.calibrate?.overshootKmh ?? null,
  };
}

/** How far beyond its cap drive was seen to act where it was watched to end, km/h as shown; null where it was not. */
function measuredOvershoot(state: VisitState, map: DisplayMap): number | null {
  const isMeasured = state.calibration.driveEnds.length > 0 || state.proving.overshoots.length > 0;
  return isMeasured ? (calibrationOf(state, map)?.overshoot.kmh ?? null) : null;
}

/** What the next units of this type and display reckon with: the same, and what its tests showed; null where neither did. */
export function overshootForFamily(state: VisitState, map: DisplayMap): number | null {
  const seen = [measuredOvershoot(state, map), ...provedOvershoots(state).map(({ kmh }) => kmh)].filter(
    (kmh) => kmh !== null,
  );
  return seen.length === 0 ? null : Math.max(0, ...seen);
}

/** By what was chosen at the stand, else on an earlier visit, else by what its family was learnt to be: all of the wheel it came with. */
function ratioOf({ calibration: { fitted }, opened, wheelFamily }: VisitState): KnownRatio | null {
  if (fitted) {
    const { wheelRaw, pulsesRaw, count, by } = fitted;
    return {
      k: fitted.ratio.k,
      low: fitted.ratio.low,
      atWheelRaw: fitted.atWheelRaw,
      atPulsesRaw: fitted.atPulsesRaw,
      taken: { wheelRaw, pulsesRaw, count, by },
    };
  }
  if (wheelFamily > 1) return null;
  const { family, own } = opened.bench?.calibrate ?? {};
  return own?.ratio ?? (family ? familyRatioKnown(family) : null);
}

/** The ratio of a family as a setup counts with it. */
export const familyRatioKnown = ({
  k,
  low,
  wheelRaw,
  pulsesRaw,
  count,
}: NonNullable<NonNullable<NonNullable<VisitState['opened']['bench']>['calibrate']>['family']>): KnownRatio => ({
  k,
  low,
  atWheelRaw: wheelRaw,
  atPulsesRaw: pulsesRaw,
  learntFrom: count,
});
