import { describe, expect, it } from 'vitest';
import { hoursIn, type OpenHours } from './crew.js';
import { weekFromWords, weekToWords } from './week-words.js';

const week = (words: string): OpenHours => {
  const read = weekFromWords(words);
  if (!read.ok) throw new Error(read.problem.message);
  return { week: read.value, also: [], never: [] };
};
const hour = 3_600;

describe('hours', () => {
  // 2026-11-30 is a Monday.
  const monday = Date.UTC(2026, 10, 30, 6);

  it('are told from a moment on, in the clock of the house', () => {
    expect(hoursIn('UTC', monday, 2, week('Mon-Tue 08:00-12:00'))).toEqual([
      { fromS: 2 * hour, toS: 6 * hour },
      { fromS: 26 * hour, toS: 30 * hour },
    ]);
    expect(hoursIn('Europe/Berlin', monday, 0, week('Mon 08:00-12:00'))[0]).toEqual({ fromS: hour, toS: 5 * hour });
  });

  it('that have begun go on from now', () => {
    expect(hoursIn('UTC', monday + 3 * hour * 1000, 0, week('Mon 08:00-12:00'))).toEqual([{ fromS: 0, toS: 3 * hour }]);
  });

  it('leave out absences and add what is beside them', () => {
    const hours: OpenHours = {
      ...week('Mon 08:00-16:00'),
      never: [{ from: '2026-11-30T10:00', to: '2026-11-30T11:00', why: 'dentist' }],
      also: [{ from: '2026-11-30T16:00', to: '2026-11-30T17:00', why: '' }],
    };
    expect(hoursIn('UTC', monday, 0, hours)).toEqual([
      { fromS: 2 * hour, toS: 4 * hour },
      { fromS: 5 * hour, toS: 11 * hour },
    ]);
  });

  it('of a night on which clocks go forward are an hour shorter, and longer when they go back', () => {
    const spring = Date.UTC(2026, 2, 28, 23);
    const autumn = Date.UTC(2026, 9, 24, 22);
    const night = week('Sun 00:00-06:00');
    const length = (from: number): number =>
      hoursIn('Europe/Berlin', from, 1, night).reduce((sum, { fromS, toS }) => sum + toS - fromS, 0);
    expect(length(spring)).toBe(5 * hour);
    expect(length(autumn)).toBe(7 * hour);
  });

  it('to midnight end there', () => {
    expect(hoursIn('UTC', monday, 0, week('Mon 22:00-24:00'))).toEqual([{ fromS: 16 * hour, toS: 18 * hour }]);
  });
});

describe('hours in words', () => {
  it.each([
    'Mon-Fri 08:00-12:00 12:30-16:30; Sat 08:00-12:00',
    'Tue 22:00-24:00; Wed 00:00-06:00',
    'Mon-Sun 08:00-17:00',
    '',
  ])('"%s" are read as they are written', (words) => expect(weekToWords(week(words).week)).toBe(words));

  it('are read with dashes of any kind, short hours, lines and whole names of days', () => {
    expect(weekToWords(week('monday–Wednesday 8:00–12:00, 13:00-17:00\nSat-Sun 9:00-10:00').week)).toBe(
      'Mon-Wed 08:00-12:00 13:00-17:00; Sat-Sun 09:00-10:00',
    );
    expect(week('Sat-Mon 08:00-09:00').week.map(({ day }) => day)).toEqual([1, 6, 7]);
  });

  it.each([
    ['Mo 08:00-12:00', 'Mo'],
    ['Mon', 'from when to when'],
    ['Mon 8-12', '8-12'],
    ['Mon 12:00-08:00', 'ends before it begins'],
    ['Mon 08:00-25:00', '08:00-25:00'],
  ])('"%s" are refused with what to write', (words, says) => {
    const read = weekFromWords(words);
    expect(!read.ok && read.problem.message).toContain(says);
  });
});
