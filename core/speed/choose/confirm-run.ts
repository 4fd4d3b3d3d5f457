import { badFigure } from '../../figures.js';
import type { SpeedRatioEstimate } from '../ratio/estimate-speed-ratio.js';

/** A ratio that was predicted for new codes, and what a check run then measured. */
export interface CheckRun {
  readonly agrees: boolean;
  /** Measured less predicted, as a share of predicted. */
  readonly off: number;
  /** How far apart they may be by chance, 95 of 100, as a share. */
  readonly within: number;
}

/** Whether a check run says what was predicted, within what is known of both: `u` is a standard deviation of k. Nothing agrees with what is no figure. */
export function confirmRun(
  predicted: { readonly k: number; readonly u: number },
  measured: SpeedRatioEstimate,
): CheckRun {
  if (badFigure({ 'What was predicted': [predicted.k, 'aboveZero'], 'Its doubt': [predicted.u, 'notBelowZero'] }))
    return { agrees: false, off: 0, within: 0 };
  const within = (1.96 * Math.hypot(predicted.u, measured.u)) / predicted.k;
  const off = measured.k / predicted.k - 1;
  return { agrees: Math.abs(off) <= within, off, within };
}
