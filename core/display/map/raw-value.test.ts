import { describe, expect, it } from 'vitest';
import { code, fourKey, line, words } from '../../testing/samples.js';
import type { Code } from './code.js';
import { doubtSaid, unsureOf } from './doubt.js';
import {
  digitsOf,
  formatRaw,
  fromDigits,
  greatestRawWithin,
  isAllWords,
  leastRawFrom,
  meaningBeside,
  meaningOf,
  onGrid,
  parseTyped,
  rawForWord,
  valuesInOrder,
  valueWords,
} from './raw-value.js';

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
    expect(
      meaningOf(
        code('V', 'cutoffVoltage', {
          range: { min: 290, max: 340, step: 1 },
          encoding: { kind: 'line', scale: 0.1, unit: 'V', sentinels: [] },
        }),
        313,
      ),
    ).toBe('31.3 V');
  });
});

describe('typed digits', () => {
  it.each([
    ['25', 25],
    [' 31.0 ', 31],
    ['31,5', 31.5],
    ['-3', -3],
    ['007', 7],
  ])('read %j as %d', (typed, raw) => {
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
    expect(
      leastRawFrom(
        code('Z', 'autoOff', {
          encoding: { kind: 'line', scale: 1, unit: 'min', sentinels: [{ raw: 0, means: 'off', title: 'never' }] },
        }),
        0,
      ),
    ).toBe(1);
  });
});

const clock = code('CL', 'clock', { range: { min: 0, max: 1439, step: 1 }, factory: 0, encoding: { kind: 'clock' } });
const day = code('DY', 'info', { range: { min: 0, max: 36524, step: 1 }, factory: 0, encoding: { kind: 'date' } });
const pair = code('PA', 'assistLevels', {
  range: { min: 30, max: 51, step: 1 },
  factory: 31,
  encoding: {
    kind: 'pair',
    first: {
      function: 'assistLevels',
      entries: [3, 5].map((raw) => ({ raw, value: String(raw), title: `${raw} levels` })),
    },
    second: {
      function: 'zeroLevel',
      entries: [
        { raw: 0, value: 'off', title: 'no level 0' },
        { raw: 1, value: 'on', title: 'level 0' },
      ],
    },
  },
});

describe('a clock and a date', () => {
  it('are shown and typed as on the glass', () => {
    expect(formatRaw(clock, 825)).toBe('13:45');
    expect(parseTyped(clock, '13:45')).toEqual({ ok: true, value: 825 });
    expect(parseTyped(clock, '0905')).toEqual({ ok: true, value: 545 });
    expect(formatRaw(day, 9824)).toBe('26-11-24');
    expect(parseTyped(day, '26-11-24')).toEqual({ ok: true, value: 9824 });
    expect(formatRaw(day, 59)).toBe('00-02-29');
  });

  it.each<[Code, string]>([
    [clock, '24:00'],
    [clock, '12:60'],
    [clock, '7'],
    [day, '26-02-30'],
    [day, '26-13-01'],
    [day, 'today'],
  ])('refuse what is none: %#', (one, typed) => {
    expect(parseTyped(one, typed)).toMatchObject({ ok: false });
  });

  it('are counted digit by digit, and are no value while the digits make none', () => {
    expect(digitsOf(clock, 825)).toEqual([1, 3, 4, 5]);
    expect(fromDigits(clock, [2, 3, 5, 9])).toBe(1439);
    expect(fromDigits(clock, [3, 3, 5, 9])).toBeNull();
    expect(fromDigits(day, [2, 6, 0, 2, 3, 1])).toBeNull();
  });
});

describe('two functions in one code', () => {
  it('are every pair of the two, and nothing else', () => {
    expect(valuesInOrder(pair)).toEqual([30, 31, 50, 51]);
    expect(onGrid(pair, 51)).toBe(true);
    expect(onGrid(pair, 40)).toBe(false);
    expect(onGrid(pair, 52)).toBe(false);
  });

  it('mean both', () => {
    expect(meaningOf(pair, 51)).toBe('5 levels, level 0');
    expect(valueWords(pair, 30)).toBe('30, 3 levels, no level 0');
  });
});

describe('digits with their meaning', () => {
  it('do not say the digits twice', () => {
    expect(valueWords(cap, 25)).toBe('25 km/h');
    expect(meaningBeside(cap, 25)).toBe('km/h');
    expect(valueWords(fourKey.codes[2]!, 31)).toBe('31, pedal');
    expect(meaningBeside(fourKey.codes[2]!, 31)).toBe('pedal');
  });

  it('say a doubt near the top, and such a value is never the greatest within a limit', () => {
    const doubtful = code('D', 'speedCap', {
      range: { min: 6, max: 45, step: 1 },
      factory: 25,
      encoding: { kind: 'line', scale: 1, unit: 'km/h', sentinels: [], doubtfulFrom: 44 },
    });
    expect(meaningOf(doubtful, 44)).toBe('44 km/h, or no limit at all: not known');
    expect(greatestRawWithin(doubtful, 60)).toBe(43);
  });

  it('pass over values that the keys skip', () => {
    const wheel = code('W', 'wheelSize', {
      range: { min: 24, max: 29, step: 1 },
      factory: 26,
      skips: [25, 27],
      encoding: { kind: 'line', scale: 1, unit: 'in', sentinels: [] },
    });
    expect(onGrid(wheel, 25)).toBe(false);
    expect(greatestRawWithin(wheel, 27)).toBe(26);
    expect(leastRawFrom(wheel, 25)).toBe(26);
  });
});

it('a range that ends between two steps has its last value before the end', () => {
  const odd = code('A', 'unknown', { range: { min: 5, max: 100, step: 10 }, factory: 5 });
  expect(valuesInOrder(odd).at(-1)).toBe(95);
  expect(valuesInOrder(odd).every((raw) => onGrid(odd, raw))).toBe(true);
  const fine = code('B', 'unknown', { range: { min: 0, max: 1, step: 0.1 }, decimals: 1, factory: 0 });
  expect(valuesInOrder(fine)).toEqual([0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1]);
});

describe('a code that shows words', () => {
  const shows = [
    { raw: 0, text: 'OFF' },
    { raw: 1, text: 'ON' },
  ];
  const walk = code('Wk', 'walk', {
    range: { min: 0, max: 1, step: 1 },
    encoding: words([0, 'off'], [1, 'on']),
    shows,
  });

  it('is read by the word in any case, or by its digits, and printed as the word', () => {
    expect(parseTyped(walk, ' on ')).toEqual({ ok: true, value: 1 });
    expect(parseTyped(walk, '0')).toEqual({ ok: true, value: 0 });
    expect(parseTyped(walk, 'onn')).toMatchObject({ problem: { message: 'Type what Wk shows, such as OFF.' } });
    expect(formatRaw(walk, 1)).toBe('ON');
    expect(formatRaw(walk, 2)).toBe('2');
    expect(valueWords(walk, 1)).toBe('on');
    expect(isAllWords(walk)).toBe(true);
  });

  it('keeps its digits where digits are keyed', () => {
    expect(digitsOf({ ...walk, range: { min: 0, max: 10, step: 1 } }, 1)).toEqual([0, 1]);
  });
});

describe('a value that nobody is sure of', () => {
  const cap = code('S', 'speedCap', {
    range: { min: 10, max: 45, step: 1 },
    encoding: line('km/h'),
    doubts: [{ raws: [25], says: 'on some units it ends nothing.' }],
  });

  it('is no value to build on', () => {
    expect(greatestRawWithin(cap, 25)).toBe(24);
    expect(greatestRawWithin({ ...cap, doubts: [] }, 25)).toBe(25);
    expect(doubtSaid(cap, 25)).toContain('ends nothing');
    expect(unsureOf(cap)).toBeNull();
    expect(unsureOf({ ...cap, doubts: [{ says: 'nobody has tried it.' }] })).toBe('nobody has tried it.');
  });
});
