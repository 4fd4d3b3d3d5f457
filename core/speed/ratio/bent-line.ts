import { studentQuantile } from '../../statistics/quantiles.js';
import type { EndSpeed } from '../choose/choose-wheel-codes.js';
import { lineFit, type LineFit } from './line-fit.js';
import type { SpeedGlass, SpeedReading } from './reading.js';

/** What no wheel code cures: figures off by a fixed amount, or falling behind as speed rises. */
export interface BentLine {
  readonly kind: 'offset' | 'curve';
  readonly fit: LineFit;
}

/** The offset or the bend that readings really have, whichever is surer; null where a line through the origin does. */
export function bentLine(readings: readonly SpeedReading[], glass: SpeedGlass, k: number): BentLine | null {
  const offset = lineFit(readings, glass, k, () => 1);
  const curve = lineFit(readings, glass, k, (kmh) => kmh ** 2);
  const strength = (fit: LineFit | null): number => (fit?.isReal ? Math.abs(fit.amount) / fit.uAmount : 0);
  if (strength(offset) === 0 && strength(curve) === 0) return null;
  return offset && strength(offset) >= strength(curve)
    ? { kind: 'offset', fit: offset }
    : curve && { kind: 'curve', fit: curve };
}

/**
 * True speed at which the display shows so much, by its line: V_true = (V - a) / b, or the root of its bend; 95 % interval.
 * Without end where the line never comes to that figure.
 */
export function endOnBentLine(
  { kind, fit: { slope, amount, uAmount, uSlope, covariance, df } }: BentLine,
  shownKmh: number,
): EndSpeed {
  const kmh = kind === 'offset' ? (shownKmh - amount) / slope : rootOf(slope, amount, shownKmh);
  if (!(kmh > 0 && kmh < Infinity)) return NEVER;
  const steep = kind === 'offset' ? slope : slope + 2 * amount * kmh;
  if (!(steep > 0)) return NEVER;
  const [bySlope, byAmount] = [kmh / steep, (kind === 'offset' ? 1 : kmh ** 2) / steep];
  const u = Math.sqrt(
    Math.max(0, (bySlope * uSlope) ** 2 + (byAmount * uAmount) ** 2 + 2 * bySlope * byAmount * covariance),
  );
  const reach = studentQuantile(0.975, df) * u;
  return { kmh, least: kmh - reach, worst: kmh + reach };
}

const NEVER: EndSpeed = { kmh: Infinity, least: 0, worst: Infinity };

function rootOf(slope: number, amount: number, shown: number): number {
  const inner = slope ** 2 + 4 * amount * shown;
  if (inner < 0) return Infinity;
  return Math.abs(amount) < 1e-9 ? shown / slope : (Math.sqrt(inner) - slope) / (2 * amount);
}
