import dayjs from 'dayjs';

/** `Thu 26 Nov 08:00`, in the place where one sits. */
export const whenDay = (iso: string): string => dayjs(iso).format('ddd D MMM HH:mm');

/** `26 Nov 2026 08:00`. */
export const whenFull = (iso: string): string => dayjs(iso).format('D MMM YYYY HH:mm');

/** `08:51`, or with its day where that is not today. */
export const whenClock = (iso: string): string => {
  const time = dayjs(iso);
  return time.isSame(dayjs(), 'day') ? time.format('HH:mm') : time.format('D MMM HH:mm');
};

/** `08:51:07`. */
export const whenSecond = (iso: string): string => dayjs(iso).format('HH:mm:ss');

/** Today in the place where one sits, as 2026-11-25. */
export const today = (): string => dayjs().format('YYYY-MM-DD');

/** `by 40 min`, `by 5 h`, `by 3 days`. */
export function lateBy(minutes: number): string {
  if (minutes < 1) return 'now';
  if (minutes < 60) return `by ${minutes} min`;
  const hours = Math.floor(minutes / 60);
  return hours < 48 ? `by ${hours} h` : `by ${Math.floor(hours / 24)} days`;
}
