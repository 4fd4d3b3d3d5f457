import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { instantOf } from './instant.js';

describe('the time of an entry', () => {
  it.each([
    ['2026-11-28T09:00:00Z', Date.UTC(2026, 10, 28, 9)],
    ['2026-11-28T09:00:00.5Z', Date.UTC(2026, 10, 28, 9, 0, 0, 500)],
    ['2028-02-29T23:59:59.999Z', Date.UTC(2028, 1, 29, 23, 59, 59, 999)],
    ['2026-11-28T09:00:00.123456Z', Date.UTC(2026, 10, 28, 9, 0, 0, 123)],
  ])('is read as it stands: %s', (text, ms) => expect(instantOf(text)).toBe(ms));

  it.each([
    '2026-13-45T99:99:99Z',
    '2026-02-30T00:00:00Z',
    '2027-02-29T00:00:00Z',
    '2026-11-28T24:00:00Z',
    '2026-12-31T23:59:60Z',
    '2026-00-10T00:00:00Z',
    '2026-11-00T00:00:00Z',
    '2026-11-28T09:00:00',
    '2026-11-28T09:00:00+01:00',
    '2026-11-28',
    'yesterday',
    '',
    ' 2026-11-28T09:00:00Z',
  ])('is none where it is %j', (text) => expect(instantOf(text)).toBeNull());

  it('is read back from whatever a clock writes', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1970-01-01'), max: new Date('9999-12-31'), noInvalidDate: true }),
        (date) => {
          expect(instantOf(date.toISOString())).toBe(date.getTime());
        },
      ),
      { seed: 2 },
    );
  });
});
