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
  /** How far above the cap, in shown km/h, drive still acts. */
  readonly overshootKmh: number;
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
}

const WITHIN = 1 + 1e-9;
/** A display that nobody measured is taken at its word, and no bolder than one that was found true. */
const AT_ITS_WORD: SpeedRatio = { k: 1, low: 1 };

type CapBounds = Pick<SafeCapInputs, 'limitKmh' | 'ratio' | 'overshootKmh' | 'tolerance'>;

/**
 * The fastest a cap may be set to, shown km/h: (V + e) / k_low <= L and V <= L, so that a corrected tyre does not make it
 * illegal. With a stated tolerance t: V / k <= L and V / k_low <= L (1 + t). Equality is safe. No cap is safe, minus infinity, where a
 * figure is none: not a number, without end, a ratio or a limit of zero and less, an overshoot or a tolerance below zero.
 * @example
 * greatestSafeKmh({ limitKmh: 25, ratio: { k: 1, low: 0.97 }, overshootKmh: 0.5, tolerance: 0 }).toFixed(2); // '23.75'
 * greatestSafeKmh({ limitKmh: 25, ratio: null, overshootKmh: 1, tolerance: 0 }).toFixed(1); // '24.0'
 */
export function greatestSafeKmh({ limitKmh, ratio, overshootKmh, tolerance }: CapBounds): number {
  const { k, low } = ratio ?? AT_ITS_WORD;
  if (
    ![limitKmh, k, low].every((value) => Number.isFinite(value) && value > 0) ||
    ![overshootKmh, tolerance].every((value) => Number.isFinite(value) && value >= 0)
  )
    return -Infinity;
  const limit = limitKmh * WITHIN;
  const worst = limit * (1 + tolerance) * low - overshootKmh;
  return Math.min(limit, tolerance > 0 ? Math.min(limit * k - overshootKmh, worst) : worst);
}

/**
 * The greatest settable cap that keeps the true end speed within the limit. Undefined where no value does.
 * @example
 * const settable = [20, 24, 25].map((kmh) => ({ raw: kmh, kmh }));
 * safeCap({ limitKmh: 25, ratio: { k: 1.03, low: 1.01 }, overshootKmh: 1, tolerance: 0, settable })?.raw; // 24
 */
export function safeCap({ settable, ...bounds }: SafeCapInputs): SafeCap | undefined {
  const most = greatestSafeKmh(bounds);
  const best = settable.reduce<SafeCapInputs['settable'][number] | undefined>(
    (a, b) => (b.kmh <= most && (a === undefined || b.kmh > a.kmh) ? b : a),
    undefined,
  );
  return best && capOf(best, bounds);
}

/** A settable value as a cap. */
export const capOf = (
  { raw, kmh }: SafeCapInputs['settable'][number],
  { ratio }: Pick<CapBounds, 'ratio'>,
): SafeCap => ({ raw, shownKmh: kmh, trueKmh: kmh / (ratio?.k ?? 1) });
