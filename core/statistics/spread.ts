/** Standard deviation of a quantity that a specification bounds by plus and minus `halfWidth`, every value alike. */
export const uniformSd = (halfWidth: number): number => halfWidth / Math.sqrt(3);

/** Standard deviation of a quantity given with its 95 % interval. */
export const sdOf95 = (halfWidth: number): number => halfWidth / 2;
