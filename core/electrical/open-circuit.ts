import { badFigure } from '../figures.js';
import type { Chemistry } from '../setup/inputs/vehicle-type.js';

type Curve = readonly (readonly [percent: number, volts: number])[];

/** Rested volts of one cell by charge in percent: common figures for consumer cells, rising, to be read between by lines. */
const CURVES: Readonly<Record<Chemistry, Curve>> = {
  liIon: [
    [0, 3.0],
    [5, 3.35],
    [10, 3.45],
    [20, 3.55],
    [30, 3.61],
    [40, 3.65],
    [50, 3.7],
    [60, 3.77],
    [70, 3.86],
    [80, 3.96],
    [90, 4.06],
    [100, 4.2],
  ],
  lfp: [
    [0, 2.8],
    [5, 3.0],
    [10, 3.15],
    [20, 3.22],
    [30, 3.25],
    [50, 3.28],
    [70, 3.31],
    [90, 3.335],
    [100, 3.4],
  ],
  leadAcid: [
    [0, 1.95],
    [10, 1.97],
    [20, 1.985],
    [40, 2.02],
    [60, 2.055],
    [80, 2.09],
    [100, 2.12],
  ],
};

/** Between these a resting LFP cell hardly changes its voltage: no percentage can be told from it. */
const LFP_PLATEAU = { from: 20, to: 90 } as const;

/**
 * Rested volts of one cell at a charge of 0 to 100 percent; beyond that the ends stand.
 * @throws RangeError where the charge is no figure, which is a bug of the caller
 */
export function restedCellV(chemistry: Chemistry, percent: number): number {
  if (Number.isNaN(percent)) throw new RangeError('a charge is a number');
  return interpolate(CURVES[chemistry], percent);
}

/** Charge that a rested cell voltage tells, percent, or the span in which it lies where the voltage does not tell more. */
export interface ChargeTold {
  readonly fromPercent: number;
  readonly toPercent: number;
}

/**
 * Charge of a rested pack by its volts per cell. A resting LFP pack gives no percentage between about 20 and 90 %: the
 * whole plateau is given back.
 * @returns null where the volts are no figure
 * @example
 * chargeTold('liIon', 3.7); // { fromPercent: 50, toPercent: 50 }
 * chargeTold('lfp', 3.28); // { fromPercent: 20, toPercent: 90 }
 */
export function chargeTold(chemistry: Chemistry, cellV: number): ChargeTold | null {
  if (badFigure({ 'A cell': [cellV, 'notBelowZero'] })) return null;
  const percent = interpolate(
    CURVES[chemistry].map(([p, v]) => [v, p] as const),
    cellV,
  );
  const onPlateau = chemistry === 'lfp' && percent > LFP_PLATEAU.from && percent < LFP_PLATEAU.to;
  return onPlateau
    ? { fromPercent: LFP_PLATEAU.from, toPercent: LFP_PLATEAU.to }
    : { fromPercent: percent, toPercent: percent };
}

function interpolate(points: readonly (readonly [number, number])[], at: number): number {
  const last = points.length - 1;
  const above = points.findIndex(([x]) => x >= at);
  if (above === 0) return points[0]?.[1] ?? 0;
  if (above === -1) return points[last]?.[1] ?? 0;
  const [x0 = 0, y0 = 0] = points[above - 1] ?? [];
  const [x1 = 0, y1 = 0] = points[above] ?? [];
  return y0 + ((at - x0) / (x1 - x0)) * (y1 - y0);
}
