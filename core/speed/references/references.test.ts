import { describe, expect, it } from 'vitest';
import { rolledOut } from './roll-out.js';
import { rollerSpeed } from './roller-bench.js';
import { timedSpeed } from './timed-distance.js';

describe('a timed distance', () => {
  it('of 50 m in 8 s is 22.5 km/h, to 0.4 km/h by hand, and shares the error of its marks', () => {
    const speed = timedSpeed({ distanceM: 50, uDistanceM: 0.1, seconds: 8 });
    expect(speed).toEqual({ ok: true, value: { kmh: 22.5, uKmh: expect.closeTo(0.398, 3), uCommon: 0.002 } });
  });

  it.each([
    [{ distanceM: 0, uDistanceM: 0, seconds: 8 }, 'noDistance'],
    [{ distanceM: 50, uDistanceM: 0, seconds: 0 }, 'noTime'],
    [{ distanceM: 50, uDistanceM: 0, seconds: 0.4 }, 'tooFast'],
  ])('of %j is refused: %s', (timed, code) => {
    const speed = timedSpeed(timed);
    expect(speed.ok ? '' : speed.problem.code).toBe(code);
  });
});

describe('a roller bench', () => {
  it('of 100 mm at 1,200 a minute is 22.6 km/h and one per cent for slip; that and its diameter all readings share', () => {
    const speed = rollerSpeed({ rpm: 1200, stepRpm: 1, rollerMm: 100, withinMm: 0.5 });
    expect(speed).toEqual({
      ok: true,
      value: {
        kmh: expect.closeTo(22.8456, 3),
        uKmh: expect.closeTo(0.00544, 5),
        uCommon: expect.closeTo(0.006455, 6),
      },
    });
  });

  it('that stands still tells nothing', () => {
    const speed = rollerSpeed({ rpm: 0, stepRpm: 1, rollerMm: 100, withinMm: 0.5 });
    expect(speed.ok ? '' : speed.problem.code).toBe('noTurns');
  });
});

describe('a roll-out', () => {
  it('over five turns under load is known to 15 mm in two metres', () => {
    const guess = rolledOut({ distanceMm: 10_350, turns: 5, loaded: true });
    expect(guess).toEqual({
      ok: true,
      value: { mm: 2070, fromMm: expect.closeTo(2057.4, 1), toMm: expect.closeTo(2082.6, 1) },
    });
  });

  it('without load rolls too long, and says so in its range', () => {
    const guess = rolledOut({ distanceMm: 2070, turns: 1, loaded: false });
    expect(guess.ok && guess.value.fromMm).toBeLessThan(2015);
  });

  it('without load may be five per cent out on a small or a fat tyre, and two on others', () => {
    const below = (mm: number, widthMm: number | null) => {
      const guess = rolledOut({ distanceMm: mm, turns: 1, loaded: false, widthMm });
      const loaded = rolledOut({ distanceMm: mm, turns: 1, loaded: true, widthMm });
      return guess.ok && loaded.ok ? (loaded.value.fromMm - guess.value.fromMm) / mm : NaN;
    };
    expect(below(2070, 47)).toBeCloseTo(0.02, 9);
    expect(below(2070, 100)).toBeCloseTo(0.05, 9);
    expect(below(800, null)).toBeCloseTo(0.05, 9);
  });

  it.each([
    [{ distanceMm: 10_350, turns: 0, loaded: true }, 'noTurns'],
    [{ distanceMm: 10.35, turns: 5, loaded: true }, 'noWheel'],
  ])('%j is refused: %s', (roll, code) => {
    const guess = rolledOut(roll);
    expect(guess.ok ? '' : guess.problem.code).toBe(code);
  });
});
