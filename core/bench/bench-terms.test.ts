import { describe, expect, it } from 'vitest';
import { fourKey, inputs, stepThrough } from '../testing/samples.js';
import { benchTermsFor, broughtBack, samplingOf } from './bench-terms.js';
import { surpriseOf } from './surprises.js';

const { houseRules } = inputs();
const NONE = { units: 0, sinceSurprise: null };

describe('how much is read as found', () => {
  it('is the first three in full, then one in five', () => {
    const reads = Array.from({ length: 14 }, (_, units) => samplingOf('sample', { units, sinceSurprise: null }).reads);
    expect(reads.map((r) => r[0]).join('')).toBe('aaaddddaddddad');
  });

  it('is in full again after a surprise, for the next three', () => {
    expect([0, 1, 2, 3].map((sinceSurprise) => samplingOf('sample', { units: 5, sinceSurprise }).reads)).toEqual([
      'all',
      'all',
      'all',
      'decisive',
    ]);
  });

  it('is every unit in full where house rules say so', () => {
    expect(samplingOf('every', { units: 40, sinceSurprise: null }).reads).toBe('all');
  });
});

describe('a unit that comes back from private land', () => {
  it('is read and proved in full, and not let go unproved, whatever the house samples', () => {
    const sampled = benchTermsFor({
      type: stepThrough,
      map: fourKey,
      houseRules: {
        ...houseRules,
        choices: { ...houseRules.choices, readAsFound: 'sample', proofs: 'sample', unproved: 'inWriting' },
      },
      batch: { units: 4, sinceSurprise: null },
    });
    expect(sampled).toMatchObject({
      asFound: { reads: 'decisive' },
      proving: { runs: 'safety', unproved: 'inWriting' },
    });
    expect(broughtBack(sampled)).toMatchObject({
      asFound: { reads: 'all' },
      proving: { runs: 'all', unproved: 'never' },
    });
  });
});

describe('what a visit is asked', () => {
  const terms = (choices: Partial<typeof houseRules.choices>, map = fourKey) =>
    benchTermsFor({
      type: stepThrough,
      map,
      houseRules: { ...houseRules, choices: { ...houseRules.choices, ...choices } },
      batch: NONE,
    });

  it('is photographs as the house rules say', () => {
    expect(terms({ photos: 'none' }).photos).toEqual({ checkIn: [], readBack: [] });
    expect(terms({ photos: 'both' }).photos).toEqual({
      checkIn: ['display', 'ratingPlate', 'serial'],
      readBack: ['display'],
    });
  });

  it('is the unplug check only where a value lives in the display while it is attached', () => {
    const kept = {
      ...fourKey,
      codes: fourKey.codes.map((code) => ({ ...code, keptIn: 'displayWhileAttached' as const })),
    };
    expect(terms({ unplugCheck: 'whereKept' }).unplugCheck).toBe(false);
    expect(terms({ unplugCheck: 'whereKept' }, kept).unplugCheck).toBe(true);
    expect(terms({ unplugCheck: 'never' }, kept).unplugCheck).toBe(false);
  });

  it('names each caution once, how to cut power among them', () => {
    const { cautions } = terms({});
    expect(new Set(cautions).size).toBe(cautions.length);
    expect(cautions.some((caution) => caution.includes(stepThrough.cutPower))).toBe(true);
  });
});

describe('a surprise', () => {
  const span = { min: 10, max: 40, decimals: 0 };
  it.each([
    ['nothing, at the value expected', { presumed: 25, raw: 25 }, null],
    ['a code that is not shown', { presumed: 25, raw: null }, 'notShown'],
    ['a value outside the range', { presumed: 25, raw: 41 }, 'outOfRange'],
    ['a value that moved', { presumed: 25, raw: 30 }, 'moved'],
  ] as const)('is %s', (_says, { presumed, raw }, kind) => {
    expect(surpriseOf({ label: 'X', function: 'speedCap', presumed, raw, span })?.kind ?? null).toBe(kind);
  });

  it('is none where the display does not list the code as things stand', () => {
    expect(
      surpriseOf({ label: 'X', function: 'gaugeEmptyV', presumed: 31, raw: null, span, isHidden: true }),
    ).toBeNull();
  });

  it('is told in the words that the display shows', () => {
    const shows = [
      { raw: 11, text: 'ROLL' },
      { raw: 12, text: 'STAND' },
    ];
    const met = surpriseOf({
      label: 'St',
      function: 'standstillStart',
      presumed: 12,
      raw: 11,
      span: { ...span, shows },
    });
    expect(met?.says).toContain('ROLL');
  });

  it('is a PIN set before, never its digits; a table value it does not have; and no odometer', () => {
    const pin = surpriseOf({
      label: 'P',
      function: 'accessPin',
      presumed: 0,
      raw: 4711,
      span: { min: 0, max: 9999, decimals: 0 },
    });
    expect(pin).toMatchObject({ kind: 'pinSet', level: 'decide' });
    expect(pin?.says).not.toContain('4711');
    expect(
      surpriseOf({
        label: 'W',
        function: 'walk',
        presumed: 51,
        raw: 53,
        span: { min: 51, max: 55, decimals: 0, only: [51, 52] },
      })?.kind,
    ).toBe('outOfRange');
    expect(surpriseOf({ label: 'O', function: 'odometer', presumed: 0, raw: 812, span })).toBeNull();
  });
});
