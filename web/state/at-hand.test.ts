import { describe, expect, it, vi } from 'vitest';

vi.stubGlobal('localStorage', { getItem: () => '{"units": "spoilt"}', setItem: () => undefined });
const { MOST_AT_HAND: MOST_STANDS, nextInTurn, atHand: stands } = await import('./at-hand.js');

const unit = (n: number) => ({
  unitId: `u${n}`,
  serial: `S26-000${n}`,
  mapId: 'm',
  owner: 'teo bay 1',
  step: 'keyIn' as const,
});
const { worked, restarting, left } = stands.actions;
const after = (...acts: Parameters<typeof stands.reducer>[1][]) =>
  acts.reduce(stands.reducer, stands.getInitialState());
const two = [worked(unit(1)), worked(unit(2)), worked(unit(3))];

describe('units side by side', () => {
  it('are at most four; the one that came first makes room', () => {
    expect(MOST_STANDS).toBe(4);
    expect(after(...two, worked(unit(4)), worked(unit(5))).units.map(({ unitId }) => unitId)).toEqual([
      'u2',
      'u3',
      'u4',
      'u5',
    ]);
  });

  it('keep their place and their wait while they are worked on', () => {
    const state = after(
      ...two,
      restarting({ unitId: 'u1', restart: { round: 1, at: 2, until: 5000 } }),
      worked({ ...unit(1), step: 'restart' }),
    );
    expect(state.units[0]).toMatchObject({ unitId: 'u1', step: 'restart', restart: { until: 5000 } });
    expect(after(...two, left('u2')).units).toHaveLength(2);
  });

  it('come in turn, and one that waits is passed over until its wait is out', () => {
    const { units } = after(...two, restarting({ unitId: 'u2', restart: { round: 1, at: 0, until: 5000 } }));
    expect(nextInTurn(units, 'u1', 4000)?.unitId).toBe('u3');
    expect(nextInTurn(units, 'u1', 5000)?.unitId).toBe('u2');
    expect(nextInTurn(units, 'u3', 4000)?.unitId).toBe('u1');
    expect(nextInTurn(units.slice(0, 1), 'u1', 0)).toBeUndefined();
  });

  it('begin empty where what was kept is spoilt', () => {
    expect(stands.getInitialState().units).toEqual([]);
  });
});
