import dayjs from 'dayjs';
import utc from 'dayjs/plugin/utc.js';

dayjs.extend(utc);

/** A time as papers show it; in UTC, because a paper travels. */
export const paperTime = (iso: string): string => `${dayjs.utc(iso).format('D MMM YYYY HH:mm')} UTC`;

/** Text with what the paper fonts cannot draw replaced, so that nothing vanishes without a trace. */
export const legible = (text: string): string => text.replace(/[^\u0020-\u024f\u2010-\u2026\u20ac\u2212]/gu, '?');
