import { describe, expect, it } from 'vitest';
import { seeded } from '../statistics/seeded.js';
import { meanSeconds, stepLengths, type StepSeen } from './step-lengths.js';

const seen = (kind: string, count: number, minutes: number, over: Partial<StepSeen> = {}): readonly StepSeen[] => {
  const { normal } = seeded(count + minutes);
  return Array.from({ length: count }, () => ({
    step: 'keyIn',
    kind,
    personId: null,
    seconds: minutes * 60 * Math.exp(0.3 * normal()),
    ...over,
  }));
};

describe('a length that is learnt', () => {
  it('is its own where there is much of it, and drawn to the others where there is little', () => {
    const two = seen('few', 2, 20);
    const own = Math.sqrt((two[0]?.seconds ?? 0) * (two[1]?.seconds ?? 0)) / 60;
    const lengths = stepLengths([...seen('many', 200, 10), ...seen('other', 200, 4), ...seen('third', 200, 6), ...two]);
    const minutes = (kind: string): number => Math.exp(lengths.of('keyIn', kind).mean) / 60;
    expect(minutes('many')).toBeCloseTo(10, 0);
    expect(minutes('few')).toBeLessThan(own - 0.5);
    expect(minutes('few')).toBeGreaterThan(6);
    expect(lengths.of('keyIn', 'few').unsure).toBeGreaterThan(3 * lengths.of('keyIn', 'many').unsure);
  });

  it('of a kind that was never seen is that of the step, and less sure', () => {
    const lengths = stepLengths([...seen('a', 50, 10), ...seen('b', 50, 5), ...seen('c', 50, 7)]);
    const never = lengths.of('keyIn', 'never');
    expect(Math.exp(never.mean) / 60).toBeGreaterThan(5);
    expect(Math.exp(never.mean) / 60).toBeLessThan(10);
    expect(never.unsure).toBeGreaterThan(lengths.of('keyIn', 'a').unsure);
    expect(never.count).toBe(0);
  });

  it('is what the key plan says where nothing was seen of it, and assumed where no plan says anything', () => {
    const lengths = stepLengths([], (step) => (step === 'keyIn' ? 75 : null));
    expect(Math.exp(lengths.of('keyIn', 'x').mean)).toBeCloseTo(75, 6);
    expect(Math.exp(lengths.of('prove', 'x').mean)).toBeCloseTo(360, 6);
    expect(lengths.of('prove', 'x').unsure).toBeGreaterThan(0.3);
  });

  it('goes by the pace of a person who agreed to it, and of nobody else', () => {
    const both = [
      ...seen('a', 60, 10, { personId: 'slow' }).map((each) => ({ ...each, seconds: each.seconds * 1.5 })),
      ...seen('a', 61, 10, { personId: 'quick' }),
      ...seen('a', 59, 10),
    ];
    const lengths = stepLengths(both);
    const mean = (who: string | null): number => lengths.of('keyIn', 'a', who).mean;
    expect(mean('slow')).toBeGreaterThan(mean('quick') + 0.2);
    expect(mean('nobody known')).toBe(mean(null));
  });

  it('is reckoned with by its mean, which lies over its middle', () => {
    expect(meanSeconds({ mean: Math.log(100), sd: 0.5, unsure: 0, count: 1 })).toBeCloseTo(100 * Math.exp(0.125), 6);
  });
});
