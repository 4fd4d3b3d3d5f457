/** The number that a text stands for as far as it is typed; null where it is none yet. */
export const amountIn = (typed: number | string): number | null =>
  typed === '' || !Number.isFinite(Number(typed)) ? null : Number(typed);
