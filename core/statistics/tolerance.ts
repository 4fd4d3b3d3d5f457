import { chiSquareQuantile, logGamma, normalCdf, normalQuantile } from './quantiles.js';

/**
 * How many sample standard deviations around the mean of `n` hold `content` of a normal population with `confidence`:
 * Howe's two-sided factor with his correction for small samples (W. G. Howe, JASA 64, 1969). n >= 2.
 * @example
 * twoSidedFactor(10).toFixed(2); // '3.41'
 */
export function twoSidedFactor(n: number, content = 0.95, confidence = 0.95): number {
  const df = freedomOf(n);
  const chi2 = chiSquareQuantile(1 - confidence, df);
  const howe = normalQuantile((1 + content) / 2) * Math.sqrt((df * (1 + 1 / n)) / chi2);
  return howe * Math.sqrt(1 + (n - 3 - chi2) / (2 * (n + 1) ** 2));
}

/**
 * How many sample standard deviations under the mean of `n` leave `content` of a normal population above with
 * `confidence`: the exact one-sided factor, a quantile of the noncentral t distribution. n >= 2.
 * @example
 * [3, 10, 30].map((n) => oneSidedFactor(n).toFixed(2)); // ['10.55', '3.98', '3.06']
 */
export function oneSidedFactor(n: number, content = 0.99, confidence = 0.95): number {
  const df = freedomOf(n);
  const shift = normalQuantile(content) * Math.sqrt(n);
  return noncentralQuantile(confidence, df, shift) / Math.sqrt(n);
}

/** @throws RangeError for fewer than two of a sample, from which nothing follows: a bug of the caller */
function freedomOf(n: number): number {
  if (!(Number.isInteger(n) && n >= 2)) throw new RangeError(`no tolerance follows from ${n} of a sample`);
  return n - 1;
}

function noncentralQuantile(p: number, df: number, shift: number): number {
  const cdf = noncentralCdf(df, shift);
  let low = shift / 2;
  let high = shift + 1;
  while (cdf(high) < p) high *= 2;
  while (high - low > 1e-9 * high) {
    const middle = (low + high) / 2;
    if (cdf(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

const STEPS = 400;

/**
 * Distribution of (Z + shift) / sqrt(W / df), Z normal and W chi-square: the normal law of Z averaged over that of
 * W, by Simpson's rule over ln(W / df), where the density is smooth for one degree of freedom as for ten thousand.
 */
function noncentralCdf(df: number, shift: number): (t: number) => number {
  const spread = Math.sqrt(2 / df);
  const [from, to] = [Math.min(-12 * spread, -70 / df), 12 * spread];
  const step = (to - from) / STEPS;
  const log = (df / 2) * Math.log(df / 2) - logGamma(df / 2);
  const nodes = Array.from({ length: STEPS + 1 }, (_, i) => {
    const y = from + i * step;
    const simpson = i === 0 || i === STEPS ? 1 : i % 2 === 1 ? 4 : 2;
    return { root: Math.exp(y / 2), weight: ((simpson * step) / 3) * Math.exp(log + (df / 2) * (y - Math.exp(y))) };
  });
  return (t) => nodes.reduce((sum, { root, weight }) => sum + weight * normalCdf(t * root - shift), 0);
}
