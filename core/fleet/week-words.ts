import { ok, type Result } from '../result.js';
import type { WeekHours } from './crew.js';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const CLOCK = /^([01]?\d|2[0-3]):([0-5]\d)$|^24:00$/;

/**
 * Hours of a week as a person writes them: `Mon-Fri 08:00-12:00 12:30-17:00; Sat 08:00-12:00`. A part names its days,
 * then its stretches; parts are set apart by semicolons or lines.
 * @returns refused (`badHours`) with the first word that is not understood, and what to write
 * @example
 * weekFromWords('Mon 8:00-12:00'); // { ok: true, value: [{ day: 1, from: '08:00', to: '12:00' }] }
 */
export function weekFromWords(words: string): Result<readonly WeekHours[]> {
  const hours: WeekHours[] = [];
  for (const part of words.split(/[;\n]/)) {
    const [days, ...stretches] = part
      .trim()
      .replaceAll('–', '-')
      .split(/[\s,]+/);
    if (days === undefined || days === '') continue;
    const named = daysFrom(days);
    if (named === null) return bad(`"${days}" is no day: write Mon, or Mon-Fri.`);
    if (stretches.length === 0) return bad(`Say from when to when on ${days}: ${days} 08:00-16:30.`);
    for (const stretch of stretches) {
      const [from = '', to = '', more] = stretch.split('-');
      if (!CLOCK.test(from) || from === '24:00' || !CLOCK.test(to) || more !== undefined)
        return bad(`"${stretch}" is no stretch of a day: write 08:00-16:30.`);
      const [begins, ends] = [from.padStart(5, '0'), to.padStart(5, '0')];
      if (begins >= ends)
        return bad(`${stretch} ends before it begins: a night is two parts, to 24:00 and from 00:00.`);
      for (const day of named) hours.push({ day, from: begins, to: ends });
    }
  }
  return ok(hours.sort((a, b) => a.day - b.day || a.from.localeCompare(b.from)));
}

/** The same, written as shortly as it goes. */
export function weekToWords(hours: readonly WeekHours[]): string {
  const byDay = DAYS.map((_, i) =>
    hours
      .filter(({ day }) => day === i + 1)
      .sort((a, b) => a.from.localeCompare(b.from))
      .map(({ from, to }) => `${from}-${to}`)
      .join(' '),
  );
  const parts: string[] = [];
  for (let i = 0; i < DAYS.length;) {
    let last = i;
    while (last + 1 < DAYS.length && byDay[last + 1] === byDay[i]) last++;
    if (byDay[i] !== '') parts.push(`${last === i ? DAYS[i] : `${DAYS[i]}-${DAYS[last]}`} ${byDay[i]}`);
    i = last + 1;
  }
  return parts.join('; ');
}

function daysFrom(words: string): readonly number[] | null {
  const [first = '', last = first, more] = words.split('-');
  const at = (name: string): number => DAYS.findIndex((day) => day.toLowerCase() === name.slice(0, 3).toLowerCase());
  const [from, to] = [at(first), at(last)];
  if (from < 0 || to < 0 || more !== undefined) return null;
  // Sat-Mon goes over the end of the week.
  return Array.from({ length: ((to - from + 7) % 7) + 1 }, (_, i) => ((from + i) % 7) + 1);
}

const bad = (message: string): Result<never> => ({ ok: false, problem: { code: 'badHours', message } });
