/** Nothing is learnt from fewer units of a family. */
export const FEWEST_RUNS = 8;
