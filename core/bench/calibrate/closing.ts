import { CHECK_READINGS } from '../../speed/choose/check-readings.js';
import type { DisplayMap } from '../../display/map/display-map.js';
import { endSpeed, ratioWith, type EndSpeed, type WheelCandidate } from '../../speed/choose/choose-wheel-codes.js';
import { circumferenceMm } from '../../speed/wheel-code.js';
import { kmhWords } from '../../speed/speed.js';
import type { Calibrated, RatioFound, WheelFitted } from '../evidence.js';
import type { VisitState } from '../visit-state.js';
import { beyondCap, shareEnds, type CalibrationOf } from './calibration-of.js';
import { pulsesOf, wheelCodes, type WheelCodes } from './wheel-question.js';

const WITHIN = 1 + 1e-9;

/** Whether drive may run beyond what is allowed with the codes that are keyed now, km/h over it; 0 where it does not. */
export function overLimitKmh({ endsNow, question }: CalibrationOf): number {
  const limit = question?.limitKmh ?? null;
  if (limit === null || endsNow === null || question === null) return 0;
  const { tolerance } = question;
  const over =
    tolerance > 0 ? Math.max(endsNow.kmh - limit, endsNow.worst - limit * (1 + tolerance)) : endsNow.worst - limit;
  return over > limit * (WITHIN - 1) ? over : 0;
}

/** Whether wheel and cap as keyed now are the ones to leave it with: what was read says so, and nothing asks for others. */
export function isAsChosen({ codes, candidates, check }: CalibrationOf): boolean {
  if (check !== null) return true;
  const [pick] = candidates;
  return pick !== undefined && showsAlready(pick, codes);
}

/** Whether the unit shows a candidate's codes already. */
export const showsAlready = (
  { wheel, pulses, cap }: WheelCandidate,
  { wheelRaw, pulsesSet, capRaw }: WheelCodes,
): boolean =>
  (wheelRaw === null || wheel.raw === wheelRaw) &&
  pulses === pulsesSet &&
  (cap === null || capRaw === null || cap.raw === capRaw);

/** Why the step cannot be closed by its runs yet; null where it can. */
export function whyNotClosed(found: CalibrationOf, state: VisitState): string | null {
  const { codes, estimate, wrongCount, check, question } = found;
  if (!estimate) return 'There is no reading yet.';
  if (wrongCount) return 'The ratio is nothing that a wheel explains: settle the count first.';
  const { fitted } = state.calibration;
  const isMoved = fitted !== null && (fitted.wheelRaw !== fitted.atWheelRaw || fitted.pulsesRaw !== fitted.atPulsesRaw);
  if (isMoved && (check?.count ?? 0) < CHECK_READINGS)
    return `The wheel code was changed: ${CHECK_READINGS} readings with the new one confirm it first.`;
  if (isMoved && check?.run && !check.run.agrees)
    return 'The check run does not say what was predicted: read on, or choose anew.';
  if (question && question.limitKmh !== null && codes.cap && codes.capKmh === null)
    return `${codes.cap.label} shows a value that is no cap: key one first.`;
  if (overLimitKmh(found) > 0)
    return `As keyed, drive may run to ${kmhWords(found.endsNow?.worst ?? 0)}, and ${kmhWords(question?.limitKmh ?? 0)} is allowed: choose other codes.`;
  return null;
}

/** What the step ends with. */
export function calibratedBy({ codes, estimate, endsNow, check, overshoot, bent }: CalibrationOf): Calibrated {
  const open = [
    ...(overshoot.from === 'unknown' ? ['how far drive acts beyond the cap is not known'] : []),
    ...(bent ? ['the display does not follow a line through zero'] : []),
    ...((estimate?.ifTruncated ?? null) !== null ? ['it is not known how the display rounds'] : []),
  ];
  const { k, u, low, high } = estimate ?? { k: 1, u: 0, low: 1, high: 1 };
  return {
    how: 'runs',
    ratio: { k, u, low, high },
    atWheelRaw: codes.wheelRaw,
    atPulsesRaw: codes.pulsesRaw,
    count: estimate?.count ?? 0,
    ends: endsOf(endsNow),
    checkOff: check?.run?.off ?? null,
    provisional: open.join('; '),
  };
}

/**
 * What the step ends with where the unit was not run: what its family tells of it, carried to the codes that this unit
 * shows now, and where its cap lets drive end with that.
 * @returns null where its family tells nothing, or it is to be run
 */
export function learntBy(state: VisitState, map: DisplayMap): Calibrated | null {
  const { calibrate } = state.opened.bench ?? {};
  const terms = state.opened.setup.speed;
  if (terms === undefined || calibrate?.runs !== 'sample' || !calibrate.family) return null;
  const { k, u, low, high, count, wheelRaw, pulsesRaw } = calibrate.family;
  const codes = wheelCodes(state.values, map, terms);
  const wasMm = codes.wheel && wheelRaw !== null ? circumferenceMm(codes.wheel, wheelRaw) : undefined;
  const now = ratioWith(
    { k, low, high, wheelMm: wasMm ?? codes.wheelMm, pulses: pulsesOf(codes.pulses, pulsesRaw) ?? codes.pulsesSet },
    codes.wheelMm,
    codes.pulsesSet,
  );
  const overshootKmh = beyondCap(state, map, codes).kmh;
  const ends =
    codes.capKmh === null
      ? null
      : codes.capCounts === 'share'
        ? shareEnds(codes.capKmh + overshootKmh)
        : endSpeed(codes.capKmh, now, overshootKmh);
  return {
    how: 'learnt',
    ratio: { k, u, low, high },
    atWheelRaw: wheelRaw,
    atPulsesRaw: pulsesRaw,
    count,
    ends: endsOf(ends),
    checkOff: null,
    provisional: `learnt from ${count} units; not itself measured`,
  };
}

/** As it is written down: none where drive may run without end. */
const endsOf = (ends: Pick<EndSpeed, 'kmh' | 'worst'> | null): Calibrated['ends'] =>
  ends && Number.isFinite(ends.worst) ? { kmh: ends.kmh, worst: ends.worst } : null;

/** Why a unit cannot be closed by what its family was learnt to be; null where it can. */
export function whyNotLearnt(learnt: Calibrated, { opened }: VisitState): string | null {
  const { limit, tolerance } = opened.setup.speed ?? { limit: null, tolerance: 0 };
  if (limit === null) return null;
  if (learnt.ends === null) return 'Its cap shows a value that is none: run it, or key a cap first.';
  const isOver = learnt.ends.kmh > limit.kmh * WITHIN || learnt.ends.worst > limit.kmh * (1 + tolerance) * WITHIN;
  return isOver
    ? `By what its family was learnt to be, drive may run to ${kmhWords(learnt.ends.worst)} with the codes that it shows, and ${kmhWords(limit.kmh)} is allowed: run it and choose other codes.`
    : null;
}

/** A candidate as it is taken. */
export function fittedBy(
  { codes, estimate }: CalibrationOf,
  { wheel, pulses, cap, ratio }: WheelCandidate,
): WheelFitted {
  const found: RatioFound = estimate
    ? { k: estimate.k, u: estimate.u, low: estimate.low, high: estimate.high }
    : { k: 1, u: 0, low: 1, high: 1 };
  const scale = codes.pulses?.encoding.kind === 'line' ? codes.pulses.encoding.scale : 1;
  return {
    ratio: found,
    atWheelRaw: codes.wheelRaw,
    atPulsesRaw: codes.pulsesRaw,
    count: estimate?.count ?? 0,
    wheelRaw: codes.wheel ? wheel.raw : null,
    pulsesRaw: codes.pulses ? pulses / scale : null,
    capRaw: cap?.raw ?? codes.capRaw,
    predicted: { k: ratio.k, u: (found.u * ratio.k) / found.k, low: ratio.low, high: ratio.high },
  };
}
