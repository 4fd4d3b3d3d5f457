/** `61 of 100`, never more sure than a thousand tries tell. */
export const of100 = (inTime: number): string =>
  inTime >= 99.5 ? 'over 99 of 100' : inTime < 0.5 ? 'under 1 of 100' : `${Math.round(inTime)} of 100`;
