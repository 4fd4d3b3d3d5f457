import jstat from 'jstat';

const { jStat } = jstat;

/** Beyond so many degrees of freedom Student's t is the normal distribution to seven digits. */
const AS_NORMAL = 1e7;

/** Value under which a standard normal variable lies with probability `p`, 0 < p < 1. */
export const normalQuantile = (p: number): number => jStat.normal.inv(p, 0, 1);

export const normalCdf = (x: number): number => jStat.normal.cdf(x, 0, 1);

/**
 * Student's t: value under which it lies with probability `p`. `df` may be broken and infinite.
 * @example
 * [2, 9, Infinity].map((df) => studentQuantile(0.975, df).toFixed(3)); // ['4.303', '2.262', '1.960']
 */
export const studentQuantile = (p: number, df: number): number =>
  df > AS_NORMAL ? normalQuantile(p) : jStat.studentt.inv(p, df);

/** Chi-square: value under which it lies with probability `p`. */
export const chiSquareQuantile = (p: number, df: number): number => jStat.chisquare.inv(p, df);

export const logGamma = (x: number): number => jStat.gammaln(x);
