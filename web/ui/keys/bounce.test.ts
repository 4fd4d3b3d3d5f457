import { describe, expect, it } from 'vitest';
import { Bounce } from './bounce.js';

describe('a key that bounces', () => {
  it('acts once within the time it rests, and again after it', () => {
    const bounce = new Bounce(250);
    expect([1000, 1050, 1200, 1249, 1250, 1300].map((at) => bounce.mayAct('Space', at))).toEqual([
      true,
      false,
      false,
      false,
      true,
      false,
    ]);
  });

  it('keeps no other key waiting', () => {
    const bounce = new Bounce(250);
    expect(bounce.mayAct('Space', 1000)).toBe(true);
    expect(bounce.mayAct('W', 1010)).toBe(true);
    expect(bounce.mayAct('W', 1020)).toBe(false);
  });

  it('does not act across a change of what is shown, however late that comes', () => {
    const bounce = new Bounce(250);
    expect(bounce.mayAct('Space', 1000)).toBe(true);
    bounce.shownAnew(1600);
    expect(bounce.restsFor('Space', 1700)).toBe(150);
    expect(bounce.mayAct('Space', 1700)).toBe(false);
    expect(bounce.mayAct('N', 1700)).toBe(false);
    expect(bounce.mayAct('Space', 1850)).toBe(true);
  });

  it('does not rest where the house says so', () => {
    const bounce = new Bounce(0);
    bounce.shownAnew(1000);
    expect([1000, 1000].map((at) => bounce.mayAct('Space', at))).toEqual([true, true]);
  });
});
