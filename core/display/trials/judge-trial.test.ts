import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { certain } from '../../result.js';
import { seeded } from '../../statistics/seeded.js';
import { fourKey } from '../../testing/samples.js';
import { parseDisplayMap } from '../map/parse-display-map.js';
import { writtenMap } from '../map/written-map.js';
import { judgeTrial, type TrialJudgement } from './judge-trial.js';
import { rankSumInterval } from './rank-sum.js';
import { quantityFor, triable, trialOrder, type TrialPlan, type TrialRun } from './trial.js';
import { trialSays, withTrial } from './trial-words.js';

const runsOf = (groups: Readonly<Record<number, readonly number[]>>): TrialRun[] =>
  Object.entries(groups).flatMap(([raw, all]) => all.map((measured) => ({ raw: Number(raw), measured })));
const plan = (over: Partial<TrialPlan> = {}): TrialPlan => ({
  label: 'L2.1',
  values: [1, 3],
  quantity: 'secondsTo',
  each: 5,
  matters: 0.3,
  seed: 11,
  ...over,
});
const judged = (runs: readonly TrialRun[], over: Partial<TrialPlan> = {}): TrialJudgement =>
  certain(judgeTrial(plan(over), runs));

describe('the order of a trial', () => {
  it('has every value as often, is the same for a seed, and goes on without moving what was run', () => {
    const order = trialOrder({ values: [1, 3, 5], each: 4, seed: 3 });
    expect(order.toSorted()).toEqual([1, 1, 1, 1, 3, 3, 3, 3, 5, 5, 5, 5]);
    expect(trialOrder({ values: [1, 3, 5], each: 4, seed: 3 })).toEqual(order);
    expect(trialOrder({ values: [1, 3, 5], each: 4, seed: 3 }, [2]).slice(0, 12)).toEqual(order);
    expect(trialOrder({ values: [1, 3, 5], each: 4, seed: 3 }, [2])).toHaveLength(18);
  });

  it('puts each value first as often as another, over many seeds', () => {
    const first = Array.from({ length: 600 }, (_, seed) => trialOrder({ values: [1, 5], each: 5, seed })[0]);
    const ones = first.filter((raw) => raw === 1).length;
    expect(ones).toBeGreaterThan(255);
    expect(ones).toBeLessThan(345);
  });
});

describe('chance', () => {
  it('is counted over every arrangement: 2 of 20 for three and three apart', () => {
    expect(judged(runsOf({ 1: [1, 2, 3], 3: [4, 5, 6] })).p).toBeCloseTo(2 / 20, 12);
    expect(judged(runsOf({ 1: [1, 1.1, 1.2, 1.3], 3: [0.2, 0.3, 0.4, 0.5] })).p).toBeCloseTo(2 / 70, 12);
    // Three values: all that put the groups as far apart, whichever is which.
    expect(judged(runsOf({ 1: [1, 2], 3: [3, 4], 5: [5, 6] }), { values: [1, 3, 5] }).p).toBeCloseTo(6 / 90, 12);
  });

  it('is 1 where nothing differs at all', () => {
    expect(judged(runsOf({ 1: [2, 2, 2], 3: [2, 2, 2] })).p).toBe(1);
  });

  it('is drawn where arrangements are too many, and lies near what a shift of two deviations would give', () => {
    const { normal } = seeded(5);
    const some = (mean: number) => Array.from({ length: 12 }, () => mean + normal());
    const far = judged(runsOf({ 1: some(10), 3: some(13) }));
    expect([far.isExact, far.verdict]).toEqual([false, 'differs']);
    expect(judged(runsOf({ 1: some(10), 3: some(10) })).p).toBeGreaterThan(0.01);
  });

  it('cries out at most once in twenty where a code does nothing', () => {
    const { normal, uniform } = seeded(77);
    let cries = 0;
    for (let trial = 0; trial < 200; trial++) {
      const runs = trialOrder({ values: [1, 3], each: 5, seed: trial }).map((raw) => ({
        raw,
        measured: 6 + normal() * (0.5 + uniform()),
      }));
      if (judged(runs).verdict === 'differs') cries++;
    }
    expect(cries).toBeLessThanOrEqual(18);
  });

  it('is not worn down by looking again: five looks cry out no more than one in twenty', () => {
    const { normal } = seeded(78);
    let cries = 0;
    for (let trial = 0; trial < 100; trial++) {
      const runs: TrialRun[] = [];
      for (let look = 1; look <= 5; look++) {
        for (const raw of trialOrder({ values: [1, 3], each: 4, seed: trial * 31 + look }))
          runs.push({ raw, measured: 6 + normal() });
        const now = judgeTrial(plan(), runs, look);
        if (now.ok && now.value.verdict === 'differs') {
          cries++;
          break;
        }
      }
    }
    expect(cries).toBeLessThanOrEqual(11);
  });

  it('is not fooled by a pack that sinks: the drift is said, and rarely passes for the code', () => {
    const { normal } = seeded(6);
    let [cries, said] = [0, 0];
    for (let trial = 0; trial < 100; trial++) {
      const runs = trialOrder({ values: [1, 3], each: 6, seed: 1000 + trial }).map((raw, i) => ({
        raw,
        measured: 6 + 0.2 * i + 0.1 * normal(),
      }));
      const { verdict, drift } = judged(runs);
      if (verdict === 'differs') cries++;
      if (drift !== null && drift > 0) said++;
    }
    expect(cries).toBeLessThanOrEqual(11);
    expect(said).toBeGreaterThan(75);
  });
});

describe('a shift', () => {
  it('is the median of all differences, with the interval of the rank sum', () => {
    expect(rankSumInterval([1, 2, 3, 4], [11, 12, 13, 14], 0.05)).toEqual({ shift: 10, low: 7, high: 13 });
    // Tables of the rank sum: for 5 and 5 at 5 % two-sided, 2 differences are left out at each end.
    const low = [1, 2, 3, 4, 5];
    const high = [10, 20, 30, 40, 50];
    const all = high.flatMap((b) => low.map((a) => b - a)).toSorted((a, b) => a - b);
    expect(rankSumInterval(low, high, 0.05)).toMatchObject({ low: all[2], high: all[22] });
  });

  it('is bounded by nothing where too few were run', () => {
    expect(rankSumInterval([1, 2, 3], [4, 5, 6], 0.05)).toMatchObject({ low: -Infinity, high: Infinity });
  });

  it('holds the truth in 19 of 20 trials, moves with the runs and turns about with them', () => {
    const { normal } = seeded(9);
    const sample = (n: number, mean: number) => Array.from({ length: n }, () => mean + normal());
    const missed = Array.from({ length: 400 }, () => {
      const { low, high } = rankSumInterval(sample(6, 0), sample(7, 1.5), 0.05);
      return low > 1.5 || high < 1.5;
    }).filter(Boolean).length;
    expect(missed).toBeLessThanOrEqual(32);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 400 }), { minLength: 4, maxLength: 9 }),
        fc.array(fc.integer({ min: 0, max: 400 }), { minLength: 4, maxLength: 9 }),
        fc.integer({ min: -50, max: 50 }),
        (from, to, by) => {
          const plain = rankSumInterval(from, to, 0.05);
          const moved = rankSumInterval(
            from,
            to.map((each) => each + by),
            0.05,
          );
          const turned = rankSumInterval(to, from, 0.05);
          expect([moved.shift, moved.low, moved.high]).toEqual([plain.shift + by, plain.low + by, plain.high + by]);
          expect([turned.shift + plain.shift, turned.low + plain.high, turned.high + plain.low]).toEqual([0, 0, 0]);
          expect(plain.low).toBeLessThanOrEqual(plain.shift);
          expect(plain.high).toBeGreaterThanOrEqual(plain.shift);
        },
      ),
    );
  });
});

describe('a verdict', () => {
  const { normal } = seeded(21);
  const around = (mean: number, n: number, sd: number) => Array.from({ length: n }, () => mean + sd * normal());

  it('is that it differs, that it does not, or what would settle it', () => {
    expect(judged(runsOf({ 1: around(7, 6, 0.1), 3: around(5.6, 6, 0.1) })).verdict).toBe('differs');
    const alike = judged(runsOf({ 1: around(7, 10, 0.05), 3: around(7, 10, 0.05) }));
    expect(alike).toMatchObject({ verdict: 'alike', moreEach: 0 });
    const open = judged(runsOf({ 1: around(7, 4, 0.8), 3: around(6.8, 4, 0.8) }));
    expect(open.verdict).toBe('open');
    expect(open.moreEach).toBeGreaterThan(0);
  });

  it('comes within what it asked for, mostly', () => {
    let settled = 0;
    for (let trial = 0; trial < 60; trial++) {
      const first = { 1: around(7, 5, 0.3), 3: around(6.5, 5, 0.3) };
      const { verdict, moreEach } = judged(runsOf(first));
      if (verdict !== 'open') settled++;
      else {
        const more = { 1: [...first[1], ...around(7, moreEach, 0.3)], 3: [...first[3], ...around(6.5, moreEach, 0.3)] };
        if (judged(runsOf(more)).verdict !== 'open') settled++;
      }
    }
    expect(settled).toBeGreaterThan(42);
  });

  it('is refused for too few, and for what is no figure', () => {
    expect(judgeTrial(plan(), runsOf({ 1: [1, 2], 3: [1] }))).toMatchObject({ problem: { code: 'tooFew' } });
    expect(judgeTrial(plan({ values: [1] }), runsOf({ 1: [1, 2] }))).toMatchObject({ problem: { code: 'tooFew' } });
    for (const measured of [NaN, Infinity, -1])
      expect(judgeTrial(plan(), [...runsOf({ 1: [1, 2], 3: [1, 2] }), { raw: 1, measured }])).toMatchObject({
        problem: { code: 'noFigure' },
      });
    expect(judgeTrial(plan({ matters: 0 }), runsOf({ 1: [1, 2], 3: [1, 2] }))).toMatchObject({ ok: false });
  });
});

describe('what a trial says and writes', () => {
  const own = plan({ label: 'L5', values: [10, 15] });
  const tried = (groups: Readonly<Record<number, readonly number[]>>) => judged(runsOf(groups), own);
  const code = fourKey.codes.find(({ label }) => label === 'L5')!;
  const differs = tried({ 10: [7.1, 7.2, 7, 7.3], 15: [5.6, 5.7, 5.5, 5.8] });
  const alike = tried({ 10: [7, 7.1, 7, 7.1, 7, 7.1], 15: [7.1, 7, 7.1, 7, 7.1, 7] });

  it('is how much, which way, and how sure', () => {
    expect(trialSays(own, differs, code)[0]).toMatch(
      /^15 A is 1\.50 s quicker than 10 A \(95 %: 1\.20 to 1\.80\), in 4 runs of each\.$/,
    );
    expect(trialSays(own, alike, code)).toEqual(['No difference of more than 0.30 s seen in 6 runs of each.']);
    const open = tried({ 10: [7, 9], 15: [6, 8] });
    expect(trialSays(own, open, code).join(' ')).toMatch(/^Not settled by 2 runs .*more of each would settle it/);
  });

  it('becomes source and effect of its code in a draft that is sound; what is not settled changes nothing', () => {
    const doubtful = {
      ...fourKey,
      codes: fourKey.codes.map((each) =>
        each.label === 'L5' ? { ...each, source: 'hearsay' as const, doubts: [{ says: 'Nobody felt it.' }] } : each,
      ),
    };
    const acts = withTrial(doubtful, own, differs, 'on S26-0401');
    const after = acts.codes.find(({ label }) => label === 'L5')!;
    expect(after).toMatchObject({ source: 'measured', effect: 'acts', note: expect.stringContaining('on S26-0401') });
    expect(after.doubts).toBeUndefined();
    expect(acts.confirmed).toBeNull();
    expect(parseDisplayMap(writtenMap(acts)).ok).toBe(true);
    const nothing = withTrial(doubtful, own, alike, 'on S26-0401').codes.find(({ label }) => label === 'L5');
    expect(nothing).toMatchObject({ effect: 'displayOnly' });
    expect(withTrial(doubtful, own, tried({ 10: [7, 9], 15: [6, 8] }), 'x')).toBe(doubtful);
  });

  it('is about codes that keys move, with the quantity that tells most of each', () => {
    expect(triable(fourKey).every(({ access }) => access === 'open' || access === 'pin')).toBe(true);
    expect(quantityFor({ function: 'speedCap' })).toBe('endSpeed');
    expect(quantityFor({ function: 'autoOff' })).toBe('secondsTo');
  });
});
