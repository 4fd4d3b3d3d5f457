import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../statistics/seeded.js';
import { stepThrough } from '../testing/samples.js';
import { judgeProof } from './judge-proof.js';
import { endSeen, judgeSpeed, type SpeedObservation } from './judge-speed.js';
import type { Cure, Observation, Watch } from './proving-test.js';

const cure: Cure = { way: 'hold', labels: [], part: null, says: 'Hold it.' };
const limit25: Watch & { kind: 'speed' } = {
  kind: 'speed',
  limitKmh: 25,
  words: '25 km/h',
  tolerance: 0,
  least: 2,
  predictedKmh: 24.2,
  attainableKmh: 31,
  cap: { kmh: 24, isShare: false },
};
const at = (trueKmh: number, uKmh = 0.2, uCommon = 0, reference = 'receiver'): SpeedObservation => ({
  kind: 'speed',
  trueKmh,
  uKmh,
  uCommon,
  reference,
});
const judged = (watch: Watch, ...seen: readonly Observation[]) => judgeProof({ watch, cure }, seen, stepThrough.pack);

describe('where drive was seen to end', () => {
  it('is the mean of readings that are alike, with its one-sided bound by the instruments', () => {
    // Two of 0.2 km/h: 0.2 / sqrt(2) = 0.141, times 1.645 = 0.233.
    const seen = endSeen([at(24.2), at(24.4)]);
    expect(seen?.kmh).toBeCloseTo(24.3, 1);
    expect((seen?.upper ?? 0) - (seen?.kmh ?? 0)).toBeCloseTo(0.233, 2);
    expect((seen?.kmh ?? 0) - (seen?.lower ?? 0)).toBeCloseTo(0.233, 2);
  });

  it('never knows more than what all readings of one instrument share', () => {
    const many = endSeen(Array.from({ length: 40 }, () => at(24, 0.2, 0.01, 'roller')));
    // 1 % of 24 km/h is 0.24, times 1.645 = 0.395, whatever the number.
    expect((many?.upper ?? 0) - 24).toBeGreaterThan(0.394);
    expect((many?.upper ?? 0) - 24).toBeLessThan(0.41);
    expect(many?.uShared).toBeCloseTo(0.24, 2);
  });

  it('is nothing without a reading', () => {
    expect(endSeen([])).toBeNull();
  });
});

describe('an end speed', () => {
  it('is shown where the upper bound lies within the limit, by as many readings as are asked', () => {
    expect(judged(limit25, at(24.2))).toMatchObject({ verdict: 'open', more: 1 });
    expect(judged(limit25, at(24.2), at(24.4))).toMatchObject({ verdict: 'shows' });
    expect(judged(limit25, at(24.2), at(24.4))).toMatchObject({
      says: expect.stringContaining('24.3 km/h, at most 24.5'),
    });
  });

  it('is not shown where even the lower bound lies beyond it, and says the cure', () => {
    expect(judged(limit25, at(25.6))).toMatchObject({ verdict: 'doesNot', cure });
    expect(judged(limit25, at(25.2), at(25.3))).toMatchObject({ verdict: 'doesNot' });
  });

  it('is not settled in between, and says how many more at this spread', () => {
    // 24.9 and 0.2 each: 0.1 of room wants (1.645 * 0.2 / 0.1)^2 = 10.8, so 11 in all.
    expect(judged(limit25, at(24.9), at(24.9))).toMatchObject({ verdict: 'open', more: 9 });
    expect(judged(limit25, at(24.9, 0.2, 0.01), at(24.9, 0.2, 0.01))).toMatchObject({ verdict: 'open', more: null });
    expect(judged(limit25, at(25.05), at(25.05))).toMatchObject({ verdict: 'open', more: null });
  });

  it('has the worst case alone loosened by a tolerance that the rule states', () => {
    const loose = { ...limit25, tolerance: 0.1 };
    expect(judged(loose, at(24.9), at(24.9))).toMatchObject({ verdict: 'shows' });
    expect(judged(loose, at(25.2), at(25.4))).toMatchObject({ verdict: 'doesNot' });
  });

  it('says so wrongly of a vehicle that is too fast at most once in twenty', () => {
    const random = seeded(5);
    let wrong = 0;
    const runs = 2_000;
    for (let i = 0; i < runs; i++) {
      const readings = [1, 2, 3].map(() => at(25.02 + 0.3 * random.normal(), 0.3));
      if (judgeSpeed(limit25, readings, cure).verdict === 'shows') wrong++;
    }
    expect(wrong / runs).toBeLessThan(0.06);
    expect(wrong / runs).toBeGreaterThan(0.02);
  });

  it('never turns from shown to not shown by a slower reading', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 26, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        (v, less) => {
          const [fast, slow] = [judged(limit25, at(v), at(v)), judged(limit25, at(v - less), at(v - less))];
          if (fast.verdict === 'shows') expect(slow.verdict).toBe('shows');
          if (slow.verdict === 'doesNot') expect(fast.verdict).toBe('doesNot');
        },
      ),
    );
  });
});

describe('a named outcome', () => {
  const watch: Watch = {
    kind: 'outcome',
    outcomes: [
      { id: 'still', says: 'The wheel stays still' },
      { id: 'runs', says: 'The motor runs' },
    ],
    right: ['still'],
  };
  it('is judged by core, the newest alone', () => {
    expect(judged(watch)).toMatchObject({ verdict: 'open', more: 1 });
    expect(judged(watch, { kind: 'outcome', outcome: 'still' })).toMatchObject({ verdict: 'shows' });
    expect(judged(watch, { kind: 'outcome', outcome: 'still' }, { kind: 'outcome', outcome: 'runs' })).toMatchObject({
      verdict: 'doesNot',
      says: 'The motor runs.',
    });
  });
});

describe('figures', () => {
  it('keep to the most that is asked', () => {
    expect(judged({ kind: 'seconds', most: 1 }, { kind: 'seconds', figure: 1 })).toMatchObject({ verdict: 'shows' });
    expect(judged({ kind: 'seconds', most: 1 }, { kind: 'seconds', figure: 1.2 })).toMatchObject({
      verdict: 'doesNot',
    });
    expect(judged({ kind: 'turns', most: 2 }, { kind: 'seconds', figure: 1 })).toMatchObject({ verdict: 'open' });
    expect(judged({ kind: 'metres' }, { kind: 'metres', metres: 5, besideMetres: 4.8 })).toMatchObject({
      verdict: 'doesNot',
    });
  });

  it('of a gauge that goes by another class are said to', () => {
    const gauge: Watch = { kind: 'gauge', as: 'percent' };
    // Ten cells at 41.4 V are nearly full; a gauge set to 48 V calls that about empty.
    expect(judged(gauge, { kind: 'gauge', meterV: 41.4, shown: 96 })).toMatchObject({ verdict: 'shows' });
    const wrong = judged(gauge, { kind: 'gauge', meterV: 41.4, shown: 3 });
    expect(wrong).toMatchObject({ verdict: 'doesNot', says: expect.stringContaining('A gauge set to 48') });
    expect(judged({ kind: 'gauge', as: 'volts' }, { kind: 'gauge', meterV: 41.4, shown: 41 })).toMatchObject({
      verdict: 'shows',
    });
  });

  it('of errors stand until none is shown', () => {
    expect(judged({ kind: 'errors' }, { kind: 'errors', shown: [] })).toMatchObject({ verdict: 'shows' });
    expect(judged({ kind: 'errors' }, { kind: 'errors', shown: ['E21'] })).toMatchObject({ verdict: 'doesNot' });
  });
});
