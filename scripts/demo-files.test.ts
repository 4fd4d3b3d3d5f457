import { describe, expect, it } from 'vitest';
import { withDays } from './lib/demo-files.mjs';

describe('the days of a demo file', () => {
  it.each([
    ['a Saturday', '2026-11-28T10:00', '2026-12-03', '2026-11-27'],
    ['a Sunday, the last day of its week', '2026-11-29T23:59', '2026-12-03', '2026-11-28'],
    ['a Monday', '2026-11-30T00:00', '2026-12-10', '2026-11-29'],
    ['a Thursday', '2026-12-03T08:00', '2026-12-10', '2026-12-02'],
    ['the last minutes of a year', '2026-12-31T23:58', '2027-01-07', '2026-12-30'],
    ['the day before clocks change', '2027-03-27T12:00', '2027-04-01', '2027-03-26'],
    ['a leap day', '2028-02-29T12:00', '2028-03-09', '2028-02-28'],
  ])('follow from %s', (_, now, thursday, yesterday) => {
    expect(withDays('2614,{Thu+1} 08:00,{day-1} 16:00,{Mon-1}', new Date(now))).toContain(
      `2614,${thursday} 08:00,${yesterday} 16:00,`,
    );
  });

  it('leave everything else as it stands', () => {
    expect(withDays('{serial},{Thu},2026-12-03', new Date())).toBe('{serial},{Thu},2026-12-03');
  });
});
