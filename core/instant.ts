const SHAPE = /^(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d):(\d\d)(?:\.(\d{1,3})\d*)?Z$/;

/**
 * Reads a time as entries carry it: ISO 8601 in UTC, to the second or finer, on a day that the calendar has.
 * @returns milliseconds since 1970, or null where it is no such time (month 13, 30 February, 24:00, a leap second)
 */
export function instantOf(text: string): number | null {
  const parts = SHAPE.exec(text);
  if (!parts) return null;
  const [year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0] = parts.slice(1, 7).map(Number);
  const ms = Number((parts[7] ?? '').padEnd(3, '0'));
  const date = new Date(Date.UTC(2000, month - 1, day, hour, minute, second, ms));
  date.setUTCFullYear(year, month - 1, day);
  const isTrue =
    date.getUTCFullYear() === year &&
    date.getUTCMonth() === month - 1 &&
    date.getUTCDate() === day &&
    date.getUTCHours() === hour &&
    date.getUTCMinutes() === minute &&
    date.getUTCSeconds() === second;
  return isTrue ? date.getTime() : null;
}
