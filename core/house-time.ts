import dayjs from 'dayjs';
import customParseFormat from 'dayjs/plugin/customParseFormat.js';
import timezone from 'dayjs/plugin/timezone.js';
import utc from 'dayjs/plugin/utc.js';

dayjs.extend(utc);
dayjs.extend(timezone);
dayjs.extend(customParseFormat);

/** Whether a name is that of a time zone, such as `Europe/Berlin`. */
export function isTimeZone(zone: string): boolean {
  try {
    return zone !== '' && new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

/**
 * The day that it is in a zone, as 2026-11-25.
 * @param ms since 1970
 * @example
 * dayIn('America/St_Johns', Date.UTC(2026, 0, 1, 2)); // '2025-12-31'
 */
export const dayIn = (zone: string, ms: number): string => timeIn(zone, ms).slice(0, 10);

/**
 * Day and time in a zone, as 2026-11-25T16:30: as due times are written.
 * @example
 * timeIn('Europe/Berlin', Date.UTC(2026, 6, 1, 12, 5)); // '2026-07-01T14:05'
 */
export function timeIn(zone: string, ms: number): string {
  const parts = new Map(
    clockOf(zone)
      .formatToParts(ms)
      .map(({ type, value }) => [type, value]),
  );
  const part = (name: Intl.DateTimeFormatPartTypes): string => parts.get(name) ?? '';
  return `${part('year').padStart(4, '0')}-${part('month')}-${part('day')}T${part('hour')}:${part('minute')}`;
}

/** Making one takes a hundred times as long as using it, and there are no more of them than zones. */
const clocks = new Map<string, Intl.DateTimeFormat>();

function clockOf(zone: string): Intl.DateTimeFormat {
  const known = clocks.get(zone);
  if (known) return known;
  const clock = new Intl.DateTimeFormat('en', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  });
  clocks.set(zone, clock);
  return clock;
}

const MINUTE_MS = 60_000;

/**
 * How far a zone is ahead of UTC at a moment, minutes.
 * @example
 * minutesAhead('Europe/Berlin', Date.UTC(2026, 6, 1)); // 120
 */
export const minutesAhead = (zone: string, ms: number): number =>
  Date.parse(`${timeIn(zone, ms)}:00Z`) / MINUTE_MS - Math.floor(ms / MINUTE_MS);

const LOCAL = /^(\d{4}-\d\d-\d\d)[T ](\d\d:\d\d)(:\d\d)?(?:\.(\d{1,3})\d*)?$/;
const WITH_ZONE = /^\d{4}-\d\d-\d\d[T ]\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)$/i;

/**
 * A time as files write it: ISO 8601 with its zone, or without one in the zone given. Whichever machine reads it, it is
 * the same moment.
 * @returns milliseconds since 1970; null where it is no time
 * @example
 * momentIn('Europe/Berlin', '2026-07-01T14:05:00'); // Date.UTC(2026, 6, 1, 12, 5)
 * momentIn('Europe/Berlin', '2026-07-01T14:05:00+09:00'); // Date.UTC(2026, 6, 1, 5, 5)
 */
export function momentIn(zone: string, text: string): number | null {
  if (WITH_ZONE.test(text)) {
    const ms = Date.parse(text.replace(' ', 'T'));
    return Number.isNaN(ms) ? null : ms;
  }
  const [, day = '', minute = '', second = ':00', fraction = ''] = LOCAL.exec(text) ?? [];
  const local = `${day} ${minute}${second}`;
  if (day === '' || !dayjs.utc(local, 'YYYY-MM-DD HH:mm:ss', true).isValid()) return null;
  return dayjs.tz(local, 'YYYY-MM-DD HH:mm:ss', zone).valueOf() + Number(fraction.padEnd(3, '0'));
}
