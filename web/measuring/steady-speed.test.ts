import { describe, expect, it } from 'vitest';
import { steadySpeed, type Fix } from './steady-speed.js';

const fixes = (kmh: (i: number) => number, count = 10): Fix[] =>
  Array.from({ length: count }, (_, i) => ({ ms: 1_000_000 + i * 500, kmh: kmh(i), uKmh: 0.3 }));

describe('a receiver', () => {
  it('is steady while its fixes stay together, and surer than one of them', () => {
    const steady = steadySpeed(fixes((i) => 20 + 0.2 * (i % 2)));
    expect(steady).toEqual({
      kmh: expect.closeTo(20.1, 5),
      uKmh: expect.closeTo(0.3 / Math.sqrt(5), 5),
      isSteady: true,
    });
  });

  it('is not while the speed changes, while it stands, or after two fixes', () => {
    expect(steadySpeed(fixes((i) => 15 + i * 0.4))?.isSteady).toBe(false);
    expect(steadySpeed(fixes(() => 0))?.isSteady).toBe(false);
    expect(steadySpeed(fixes(() => 20, 2))?.isSteady).toBe(false);
    expect(steadySpeed([])).toBeNull();
  });

  it('forgets what was before the last five seconds', () => {
    expect(steadySpeed(fixes((i) => (i < 10 ? 5 : 20), 21))?.kmh).toBe(20);
  });
});
