import { describe, expect, it } from 'vitest';
import { clockDifference, recordTime } from './clock.js';

const at = Date.UTC(2026, 10, 28, 9);

describe('the clock of a device', () => {
  it('is held against the middle of the question and its answer', () => {
    expect(clockDifference({ sentMs: at, heardMs: at + 400, serverMs: at + 200 + 420_000 })).toBe(420_000);
    expect(clockDifference({ sentMs: at, heardMs: at + 400, serverMs: at + 200 - 420_000 })).toBe(-420_000);
  });

  it('that agrees within half a minute is left alone', () => {
    expect(clockDifference({ sentMs: at, heardMs: at + 400, serverMs: at + 29_000 })).toBe(0);
  });

  it('tells nothing by an answer that was long on its way, or by no time at all', () => {
    expect(clockDifference({ sentMs: at, heardMs: at + 6_000, serverMs: at })).toBeNull();
    expect(clockDifference({ sentMs: at, heardMs: at - 1, serverMs: at })).toBeNull();
    expect(clockDifference({ sentMs: at, heardMs: at + 10, serverMs: Number.NaN })).toBeNull();
  });
});

it('entries carry the time of the house, not of a device that is off', () => {
  expect(recordTime({ addMs: -600_000 }, at)).toBe('2026-11-28T08:50:00.000Z');
});
