/** Shown speed over true speed of a display, with the lower end of its 95 % interval. */
export interface SpeedRatio {
  readonly k: number;
  readonly low: number;
}

export interface SafeCapInputs {
  /** Lowest of class, site, order and type, true km/h. */
  readonly limitKmh: number;
  /** Null while nobody measured it: the display is then taken at its word, and the cap is provisional. */
  readonly ratio: SpeedRatio | null;
  /** How far above the cap, in shown km/h, drive still acts; null where nobody knows. */
  readonly overshootKmh: number | null;
  /** Relative tolerance that the rule itself states; 0 for none. It loosens only the worst case. */
  readonly tolerance: number;
  /** What the code can be set to, as shown km/h. */
  readonly settable: readonly { readonly raw: number; readonly kmh: number }[];
}

export interface SafeCap {
  readonly raw: number;
  readonly shownKmh: number;
  /** Where drive ends against the ground, at the mean of the ratio; equal to the shown value while that is unknown. */
  readonly trueKmh: number;
  /** Ratio or overshoot unknown: to be looked at again once measured. */
  readonly isProvisional: boolean;
}

const WITHIN = 1 + 1e-9;

/**
 * The greatest cap that keeps the true end speed within the limit: (V + e) / k_low <= L and V <= L, so that a corrected
 * tyre does not make it illegal. With a stated tolerance t: V / k <= L and V / k_low <= L (1 + t). Equality is safe.
 * Undefined where no value satisfies.
 */
export function safeCap({ limitKmh, ratio, overshootKmh, tolerance, settable }: SafeCapInputs): SafeCap | undefined {
  if (ratio !== null && !(ratio.low > 0)) return undefined;
  const over = overshootKmh ?? 0;
  const isSafe = (shown: number): boolean => {
    if (shown > limitKmh * WITHIN) return false;
    if (ratio === null) return shown + over <= limitKmh * WITHIN * (1 + tolerance);
    const worst = (shown + over) / ratio.low;
    return tolerance > 0 ? (shown + over) / ratio.k <= limitKmh * WITHIN && worst <= limitKmh * (1 + tolerance) * WITHIN : worst <= limitKmh * WITHIN;
  };
  const best = settable.filter(({ kmh }) => isSafe(kmh)).reduce<{ raw: number; kmh: number } | undefined>((a, b) => (a === undefined || b.kmh > a.kmh ? b : a), undefined);
  return best && { raw: best.raw, shownKmh: best.kmh, trueKmh: best.kmh / (ratio?.k ?? 1), isProvisional: ratio === null || overshootKmh === null };
}
