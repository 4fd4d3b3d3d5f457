import type { DisplayMap } from '../../display/map/display-map.js';
import {
  chooseWheelCodes,
  endSpeed,
  type EndSpeed,
  type WheelCandidate,
  type WheelQuestion,
} from '../../speed/choose/choose-wheel-codes.js';
import { confirmRun, type CheckRun } from '../../speed/choose/confirm-run.js';
import { nextReading, type NextReading } from '../../speed/choose/next-reading.js';
import { overshootOf, type Overshoot } from '../../speed/overshoot.js';
import { estimateSpeedRatio, type SpeedRatioEstimate } from '../../speed/ratio/estimate-speed-ratio.js';
import { bentLine, endOnBentLine, type BentLine } from '../../speed/ratio/bent-line.js';
import { speedsApart } from '../../speed/ratio/reading-blocks.js';
import { readingDoubts, type ReadingDoubt } from '../../speed/ratio/reading-doubts.js';
import type { SpeedGlass, SpeedReading } from '../../speed/ratio/reading.js';
import { suspectMiles, suspectPulses, type WrongCount } from '../../speed/ratio/wrong-count.js';
import { SPOT_U_KMH } from '../../speed/references/true-speed.js';
import { KM_PER_MILE } from '../../speed/speed.js';
import { circumferenceMm } from '../../speed/wheel-code.js';
import { usedReadings } from '../acts/calibrate.js';
import type { KeptReading, VisitState } from '../visit-state.js';
import { speedGlass, pulsesOf, questionFor, wheelCodes, type WheelCodes } from './wheel-question.js';

/** Everything that the speed readings of a visit amount to. */
export interface CalibrationOf {
  readonly codes: WheelCodes;
  readonly glass: SpeedGlass;
  /** Readings that count, as shown under the codes that are keyed now; in the order of `kept`. */
  readonly readings: readonly SpeedReading[];
  readonly kept: readonly KeptReading[];
  readonly estimate: SpeedRatioEstimate | null;
  /** Index into `readings`. */
  readonly doubts: readonly ReadingDoubt[];
  /** An offset or a bend that no wheel code cures. */
  readonly bent: BentLine | null;
  /** It is claimed by two speeds alone, which cannot tell an offset from rounding: the worse of both answers stands. */
  readonly isTwoSpeeds: boolean;
  readonly wrongCount: WrongCount | null;
  /** Where drive ends as keyed now; null where nothing caps it or nothing was read. */
  readonly endsNow: EndSpeed | null;
  /** How far beyond the cap drive acts, shown km/h, and who says so. */
  readonly overshoot: Overshoot;
  readonly question: WheelQuestion | null;
  /** Best first. Empty while nothing was read, or a line through the origin is not what the display does. */
  readonly candidates: readonly WheelCandidate[];
  readonly next: NextReading;
  /** After wheel and cap were chosen: what the readings with them say, and whether that is what was predicted. */
  readonly check: { readonly count: number; readonly run: CheckRun | null } | null;
}

/** Works out what a visit's readings say of its display. Pure: the screen shows it, and the server holds what was closed against it. */
export function calibrationOf(state: VisitState, map: DisplayMap): CalibrationOf | null {
  const terms = state.opened.setup.speed;
  if (terms === undefined) return null;
  const codes = wheelCodes(state.values, map, terms);
  const glass = speedGlass(state.values, map);
  const kept = usedReadings(state.calibration);
  const readings = kept.map((each) => speedReading(each, codes));
  const found = estimateSpeedRatio(readings, glass);
  const estimate = found.ok ? found.value : null;
  const overshoot = beyondCap(state, map, codes);
  const fastestKmh = Math.min(terms.attainableKmh, (terms.limit?.kmh ?? terms.attainableKmh) * 1.1);
  const base = { codes, glass, readings, kept, estimate, overshoot };
  const blank = questionFor(codes, terms, overshoot.kmh, { k: 1, low: 1, high: 1 });
  if (!estimate)
    return {
      ...base,
      doubts: [],
      bent: null,
      isTwoSpeeds: false,
      wrongCount: null,
      endsNow: null,
      question: null,
      candidates: [],
      next: nextReading({
        readings,
        estimate: NO_ESTIMATE,
        glass,
        uNext: () => SPOT_U_KMH,
        question: blank,
        fastestKmh,
      }),
      check: checkOf(state, codes, glass),
    };
  const doubts = readingDoubts(readings, glass, estimate.k);
  const counted = {
    ...estimate,
    wheelMm: codes.wheelMm,
    pulsesSet: codes.pulsesSet,
    wheelsMm: blank.wheel.map(({ mm }) => mm),
  };
  const wrongCount = state.calibration.countStands ? null : (suspectMiles(counted) ?? suspectPulses(counted));
  const question = questionFor(codes, terms, overshoot.kmh, estimate);
  const bent = doubts.length > 0 ? null : bentLine(readings, glass, estimate.k);
  const cap = codes.capKmh;
  const isTwoSpeeds = bent !== null && speedsApart(readings, glass) < 3;
  return {
    ...base,
    doubts,
    bent,
    isTwoSpeeds,
    wrongCount,
    endsNow:
      cap === null
        ? null
        : codes.capCounts === 'share'
          ? shareEnds(cap + overshoot.kmh)
          : bent
            ? worseOf(
                endOnBentLine(bent, cap + overshoot.kmh),
                isTwoSpeeds ? endSpeed(cap, estimate, overshoot.kmh) : null,
              )
            : endSpeed(cap, estimate, overshoot.kmh),
    question,
    candidates: bent || wrongCount ? [] : chooseWheelCodes(question),
    next: nextReading({
      readings,
      estimate,
      glass,
      uNext: () => readings.at(-1)?.uKmh ?? SPOT_U_KMH,
      question,
      fastestKmh,
    }),
    check: checkOf(state, codes, glass),
  };
}

/** Of two answers the faster vehicle, which the limit has to hold. */
const worseOf = (a: EndSpeed, b: EndSpeed | null): EndSpeed => (b && b.worst > a.worst ? b : a);

/** A share of what motor and pack attain ends there whatever the display counts; drive acts beyond it as beyond any cap. */
export const shareEnds = (kmh: number): EndSpeed => ({ kmh, least: kmh, worst: kmh });

const NO_ESTIMATE: SpeedRatioEstimate = {
  k: 1,
  u: 1,
  low: 0,
  high: 2,
  df: Infinity,
  count: 0,
  scatter: 0,
  ifTruncated: null,
};

/** A reading as the display would have shown it with the codes that are keyed now. */
function speedReading(
  { trueKmh, uKmh, uCommon, reference, instrument, shown, unit, wheelRaw, pulsesRaw }: KeptReading,
  codes: WheelCodes,
): SpeedReading {
  const was = {
    mm: (codes.wheel && wheelRaw !== null ? circumferenceMm(codes.wheel, wheelRaw) : undefined) ?? codes.wheelMm,
    pulses: pulsesOf(codes.pulses, pulsesRaw) ?? codes.pulsesSet,
  };
  const scale = (codes.wheelMm / was.mm) * (was.pulses / codes.pulsesSet);
  return {
    trueKmh,
    uKmh,
    uCommon,
    reference: `${reference} ${instrument}`,
    shownKmh: shown * (unit === 'mph' ? KM_PER_MILE : 1) * scale,
    scale,
  };
}

/** How far beyond its cap drive acts: as seen on this visit, else on an earlier one of this unit, else as its map says. */
export function beyondCap(
  { calibration, opened, values, proving }: Pick<VisitState, 'calibration' | 'opened' | 'values' | 'proving'>,
  map: DisplayMap,
  { cap }: WheelCodes,
): Overshoot {
  const per = cap ? opened.setup.speed?.kmhPerRaw[cap.label] : undefined;
  const measured = [
    ...proving.overshoots,
    ...calibration.driveEnds.flatMap(({ shown, unit, capRaw }) =>
      per === undefined || capRaw === null ? [] : [shown * (unit === 'mph' ? KM_PER_MILE : 1) - capRaw * per],
    ),
  ];
  // The farthest that was seen, and never less than none.
  const own = opened.bench?.calibrate?.own?.overshootKmh ?? null;
  return overshootOf({
    measuredKmh: measured.length > 0 ? Math.max(0, ...measured) : own,
    familyKmh: opened.bench?.calibrate?.overshootKmh ?? null,
    mappedKmh: map.speed?.overshootKmh ?? null,
    stepKmh: speedGlass(values, map).resolutionKmh,
  });
}

/** What was read since wheel and cap were chosen, against what was predicted then. */
function checkOf({ calibration }: VisitState, codes: WheelCodes, glass: SpeedGlass): CalibrationOf['check'] {
  const { fitted } = calibration;
  if (!fitted) return null;
  const own = usedReadings(calibration).filter(({ isCheck }) => isCheck);
  const measured = estimateSpeedRatio(
    own.map((each) => speedReading(each, codes)),
    glass,
  );
  return { count: own.length, run: measured.ok ? confirmRun(fitted.predicted, measured.value) : null };
}
