import type { Code } from '../../display/map/display-map.js';
import { rawForWord } from '../../display/map/raw-value.js';
import type { SpeedRatio } from '../../speed/safe-cap.js';
import { parseTyreMarking, rollOutGuess, type RollOutGuess } from '../../speed/tyre-marking.js';
import { circumferenceMm } from '../../speed/wheel-code.js';
import type { Work } from './wish.js';

/** What the display will count with once the unit is keyed: what was wished for where the code moves, else what stands. */
export interface Counts {
  /** Null where the display has no wheel code. */
  readonly wheelRaw: number | null;
  /** What it counts a turn of the wheel as; undefined where its map does not say. */
  readonly wheelMm: number | undefined;
  /** Whether speeds on it are miles an hour: what its units code will show, not what was chosen for it. */
  readonly inMiles: boolean;
  /** Pulses a turn that it reckons with; the type's own where it has no such code. */
  readonly pulses: number;
}

/** Shown over true speed of the unit as it will stand, or why nobody can tell. */
export type RatioAsKeyed =
  /** Null while nothing speaks against the display: it is taken at its word. */
  | { readonly isKnown: true; readonly ratio: SpeedRatio | null }
  /** It was measured under another wheel value, and the map does not say what the two count. */
  | { readonly isKnown: false };

export const pulsesIn = (code: Code | undefined, raw: number): number | undefined =>
  code?.encoding.kind === 'line' && raw > 0 ? raw * code.encoding.scale : undefined;

/** What the display counts with at these digits of its wheel and pulse codes. */
export function countsAt(map: Work['map'], type: Work['type'], rawOf: (code: Code) => number): Counts {
  const [wheel, pulses] = [wheelCode(map), pulseCode(map)];
  const wheelRaw = wheel ? rawOf(wheel) : null;
  return {
    wheelRaw,
    wheelMm: wheel && wheelRaw !== null ? circumferenceMm(wheel, wheelRaw) : undefined,
    inMiles: isInMiles(map, rawOf),
    pulses: (pulses && pulsesIn(pulses, rawOf(pulses))) ?? type.wheelPulses,
  };
}

export const isSameCount = (a: Counts, b: Counts): boolean =>
  a.wheelRaw === b.wheelRaw && a.pulses === b.pulses && a.inMiles === b.inMiles;

/** By its units code; where it has none, by the unit its caps are in. */
function isInMiles({ codes }: Work['map'], rawOf: (code: Code) => number): boolean {
  const units = codes.find((code) => code.function === 'units' && code.encoding.kind === 'table');
  return units
    ? rawOf(units) === rawForWord(units, 'mph')
    : codes.some(({ encoding }) => encoding.kind === 'line' && encoding.unit === 'mph');
}

const wheelCode = (map: Work['map']): Code | undefined => map.codes.find((code) => code.function === 'wheelSize');
const pulseCode = (map: Work['map']): Code | undefined => map.codes.find((code) => code.function === 'wheelPulses');

/**
 * Shown over true speed of the unit as it will stand, by whatever is known of it: its own runs or its family's, carried to
 * the codes that will stand (k * C' / C * N / N'); else the wheel as it was rolled out, or as its tyre's marking says at
 * most, and a pulse count that is not the one of the type. Every cap is worked out from this and from nothing else.
 */
export function ratioAsKeyed(work: Work): RatioAsKeyed {
  const { counts, unit, map } = work;
  const { ratio } = unit;
  if (ratio === null) return { isKnown: true, ratio: byMeasure(work) };
  const wheel = wheelCode(map);
  const isMoved = ratio.atWheelRaw !== null && ratio.atWheelRaw !== counts.wheelRaw;
  const wasMm = wheel && ratio.atWheelRaw !== null ? circumferenceMm(wheel, ratio.atWheelRaw) : undefined;
  if (isMoved && (wasMm === undefined || counts.wheelMm === undefined)) return { isKnown: false };
  const byWheel = isMoved && wasMm !== undefined && counts.wheelMm !== undefined ? counts.wheelMm / wasMm : 1;
  const wasPulses =
    ratio.atPulsesRaw === null || ratio.atPulsesRaw === undefined
      ? undefined
      : pulsesIn(pulseCode(map), ratio.atPulsesRaw);
  const by = byWheel * ((wasPulses ?? counts.pulses) / counts.pulses);
  return { isKnown: true, ratio: { k: ratio.k * by, low: ratio.low * by } };
}

/** By a wheel that was rolled out, or by its marking, and by the pulses; only where that makes the display count low. */
function byMeasure({ counts, unit, type }: Work): SpeedRatio | null {
  const rolls = rollOf(unit.rolled ?? null, type.tyre, counts.wheelMm);
  const miscounts = type.wheelPulses / counts.pulses;
  const k = miscounts * (rolls && counts.wheelMm !== undefined ? counts.wheelMm / rolls.mm : 1);
  const low = miscounts * (rolls && counts.wheelMm !== undefined ? counts.wheelMm / rolls.toMm : 1);
  return low < 1 - 1e-9 ? { k, low } : null;
}

/** How far the wheel rolls. A marking alone counts only against a wheel value that it cannot mean. */
function rollOf(
  own: RollOutGuess | null,
  { rolledMm, marking }: Work['type']['tyre'],
  countedMm: number | undefined,
): Pick<RollOutGuess, 'mm' | 'toMm'> | null {
  if (own) return own;
  if (rolledMm !== null) return { mm: rolledMm, toMm: rolledMm };
  const tyre = parseTyreMarking(marking);
  const guess = tyre ? rollOutGuess(tyre) : null;
  return guess && countedMm !== undefined && countedMm < guess.fromMm ? guess : null;
}
