import { describe, expect, it } from 'vitest';
import { code, fourKey, words } from '../testing/samples.js';
import { formatRaw, greatestRawWithin, leastRawFrom, meaningOf, onGrid, parseTyped, rawForWord } from './raw-value.js';

const cap = fourKey.codes[1]!;
const cutoff = fourKey.codes[3]!;

describe('a raw value', () => {
  it('is shown with the decimals of its code', () => {
    expect(formatRaw(cutoff, 31)).toBe('31.0');
    expect(formatRaw(cap, 25)).toBe('25');
  });

  it('lies on the grid of a code that steps by tenths', () => {
    expect(onGrid(cutoff, 31.3)).toBe(true);
    expect(onGrid(cutoff, 31.35)).toBe(false);
    expect(onGrid(cutoff, 28.9)).toBe(false);
  });

  it('of a table is only what the table names', () => {
    const gap = code('X', 'walk', { range: { min: 1, max: 3, step: 1 }, encoding: words([1, 'off'], [3, 'on']) });
    expect(onGrid(gap, 2)).toBe(false);
    expect(rawForWord(gap, 'on')).toBe(3);
    expect(rawForWord(gap, 'loud')).toBeUndefined();
  });

  it('means what its encoding says, sentinels first', () => {
    expect(meaningOf(cap, 25)).toBe('25 km/h');
    expect(meaningOf(cap, 32)).toBe('no cap at all');
    expect(meaningOf(cap, 99)).toBe('outside this map');
    expect(meaningOf(code('V', 'cutoffVoltage', { range: { min: 290, max: 340, step: 1 }, encoding: { kind: 'line', scale: 0.1, unit: 'V', sentinels: [] } }), 313)).toBe('31.3 V');
  });
});

describe('typed digits', () => {
  it.each([['25', 25], [' 31.0 ', 31], ['31,5', 31.5], ['-3', -3], ['007', 7]])('read %j as %d', (typed, raw) => {
    expect(parseTyped(cap, typed)).toEqual({ ok: true, value: raw });
  });

  it.each(['', '25 km/h', '2.5.1', '1e3', 'L4', '١٢', '999999'])('refuse %j with what to type instead', (typed) => {
    const parsed = parseTyped(cap, typed);
    expect(parsed).toMatchObject({ ok: false, problem: { code: 'notDigits', message: expect.stringContaining('L2') } });
  });
});

describe('the greatest setting within a limit', () => {
  it('takes equality as within, and never the sentinel', () => {
    expect(greatestRawWithin(cap, 25)).toBe(25);
    expect(greatestRawWithin(cap, 24.945)).toBe(24);
    expect(greatestRawWithin(cap, 60)).toBe(31);
  });

  it('is absent below the range', () => {
    expect(greatestRawWithin(cap, 9.9)).toBeUndefined();
  });
});

describe('the least setting from a floor', () => {
  it('rounds up on the grid of tenths', () => {
    expect(leastRawFrom(cutoff, 31)).toBe(31);
    expect(leastRawFrom(cutoff, 31.01)).toBe(31.1);
    expect(leastRawFrom(cutoff, 35)).toBeUndefined();
  });

  it('steps over a sentinel', () => {
    expect(leastRawFrom(code('Z', 'autoOff', { encoding: { kind: 'line', scale: 1, unit: 'min', sentinels: [{ raw: 0, means: 'off', title: 'never' }] } }), 0)).toBe(1);
  });
});
