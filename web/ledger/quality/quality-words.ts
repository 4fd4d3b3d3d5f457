/** `93 %`; of nothing at all a dash. */
export const percentOf = (part: number, whole: number): string =>
  whole === 0 ? '–' : `${Math.round((100 * part) / whole)} %`;

/** `6.4 min`, or `45 s` where it is less than one. */
export const minutesWords = (minutes: number): string =>
  minutes < 1 ? `${Math.round(minutes * 60)} s` : `${minutes.toFixed(1)} min`;

/** `40 min`, `5.5 h`. */
export const hoursWords = (hours: number): string =>
  hours < 1 ? `${Math.round(hours * 60)} min` : `${hours < 10 ? hours.toFixed(1) : Math.round(hours)} h`;
