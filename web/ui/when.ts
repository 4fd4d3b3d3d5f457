import dayjs, { type Dayjs } from 'dayjs';
import timezone from 'dayjs/plugin/timezone.js';
import utc from 'dayjs/plugin/utc.js';
import { houseZone, today } from './house-zone.js';

dayjs.extend(utc);
dayjs.extend(timezone);

/** A moment in the house's zone. A time without a zone, as due times are, stands there already. */
const inHouse = (iso: string): Dayjs => (/Z$|[+-]\d\d:?\d\d$/.test(iso) ? dayjs(iso).tz(houseZone()) : dayjs(iso));

/** `Thu 26 Nov 08:00`. */
export const whenDay = (iso: string): string => inHouse(iso).format('ddd D MMM HH:mm');

/** `26 Nov 2026 08:00`. */
export const whenFull = (iso: string): string => inHouse(iso).format('D MMM YYYY HH:mm');

/** `08:51`, or with its day where that is not today. */
export const whenClock = (iso: string): string => {
  const time = inHouse(iso);
  return time.format('YYYY-MM-DD') === today() ? time.format('HH:mm') : time.format('D MMM HH:mm');
};

/** `08:51:07`. */
export const whenSecond = (iso: string): string => inHouse(iso).format('HH:mm:ss');

/** Minutes from one wall-clock time of the house to a later one, both as due times are written. */
export const minutesBetween = (from: string, to: string): number => dayjs.utc(to).diff(dayjs.utc(from), 'minute');

/** `by 40 min`, `by 5 h`, `by 3 days`. */
export function lateBy(minutes: number): string {
  if (minutes < 1) return 'now';
  if (minutes < 60) return `by ${minutes} min`;
  const hours = Math.floor(minutes / 60);
  return hours < 48 ? `by ${hours} h` : `by ${Math.floor(hours / 24)} days`;
}

/** `Thursday 26 November`. */
export const whenDayOnly = (iso: string): string => inHouse(iso).format('dddd D MMMM');

/** `08:51` today, `Mon 08:51` within the week, else with its date. */
export function whenSoon(ms: number, nowMs: number = Date.now()): string {
  const time = dayjs(ms).tz(houseZone());
  if (time.format('YYYY-MM-DD') === today(nowMs)) return time.format('HH:mm');
  return Math.abs(ms - nowMs) < 6 * 86_400_000 ? time.format('ddd HH:mm') : time.format('D MMM HH:mm');
}

export const isPast = (ms: number): boolean => ms <= Date.now();
