import { badFigure } from '../../figures.js';

/** What could make a ratio so far from 1 that no wheel explains it. */
export type WrongCount =
  | { readonly kind: 'pulses'; readonly pulses: number; readonly ratio: number }
  | { readonly kind: 'miles'; readonly meant: 'mph' | 'km/h' };

interface Counted {
  readonly k: number;
  readonly low: number;
  readonly high: number;
  readonly wheelMm: number;
  readonly pulsesSet: number;
  /** Circumferences that the wheel code can count with, mm. */
  readonly wheelsMm: readonly number[];
}

const KM_PER_MILE = 1.609344;
/** Tread, load and a size's name move a ratio by less than this. */
const WHEEL_EXPLAINS = 1.12;
const MOST_PULSES = 120;
const NEAR_MILES = 0.05;

/**
 * A wrong pulse count gives the ratio a factor N_true / N_set: the whole count that brings it nearest 1 is named only
 * where it brings it nearer than every wheel value does, and where tread and load cannot explain it.
 */
export function suspectPulses({ k, low, high, wheelMm, pulsesSet, wheelsMm }: Counted): WrongCount | null {
  if (isNoRatio({ k, wheelMm }) || badFigure({ 'The pulses': [pulsesSet, 'aboveZero'] })) return null;
  if (low < WHEEL_EXPLAINS && high > 1 / WHEEL_EXPLAINS) return null;
  const off = (ratio: number): number => Math.abs(Math.log(ratio));
  const bestWheel = Math.min(off(k), ...wheelsMm.map((mm) => off((k * mm) / wheelMm)));
  const counts = Array.from({ length: MOST_PULSES }, (_, i) => i + 1).filter((count) => count !== pulsesSet);
  const best = counts.reduce<{ pulses: number; ratio: number } | null>((nearest, pulses) => {
    const ratio = (k * pulsesSet) / pulses;
    return nearest === null || off(ratio) < off(nearest.ratio) ? { pulses, ratio } : nearest;
  }, null);
  return best && off(best.ratio) < bestWheel && off(best.ratio) < Math.log(WHEEL_EXPLAINS)
    ? { kind: 'pulses', ...best }
    : null;
}

/**
 * A ratio near 0.62 or 1.61 is what miles read as kilometres, or the other way, look like. Named only where no wheel value
 * explains the ratio as well: 26 in set on a wheel of 16 give 1.63 too. Asked, never converted unasked.
 */
export function suspectMiles({ k, wheelMm, wheelsMm }: Pick<Counted, 'k' | 'wheelMm' | 'wheelsMm'>): WrongCount | null {
  if (isNoRatio({ k, wheelMm })) return null;
  const off = (ratio: number): number => Math.abs(Math.log(ratio));
  const bestWheel = Math.min(...wheelsMm.filter((mm) => mm !== wheelMm).map((mm) => off((k * mm) / wheelMm)));
  const suspect = (meant: 'mph' | 'km/h', ratio: number): WrongCount | null =>
    Math.abs(ratio - 1) < NEAR_MILES && off(ratio) < bestWheel ? { kind: 'miles', meant } : null;
  return suspect('mph', k * KM_PER_MILE) ?? suspect('km/h', k / KM_PER_MILE);
}

const isNoRatio = ({ k, wheelMm }: Pick<Counted, 'k' | 'wheelMm'>): boolean =>
  badFigure({ 'The ratio': [k, 'aboveZero'], 'The wheel': [wheelMm, 'aboveZero'] }) !== null;
