import { expect, it } from 'vitest';
import { fourKey } from '../testing/samples.js';
import { restartActs, seenAfterRestart } from './restart-acts.js';

const bare = {
  ...fourKey,
  restart: [{ act: 'Pack off and on.', waitMs: 4000 }],
  power: { ...fourKey.power, offInMenu: false },
};

it('leaves the menu first where power cannot be cut inside it, once', () => {
  expect(restartActs(bare, false).map(({ act }) => act)).toEqual([
    'Leave the menu first: power cannot be cut inside it.',
    'Pack off and on.',
  ]);
  expect(restartActs({ ...bare, power: { ...bare.power, offInMenu: true } }, false)).toHaveLength(1);
  expect(
    restartActs({ ...bare, restart: [{ act: 'Up and out.', waitMs: 0, does: 'leavesMenu' }] }, false),
  ).toHaveLength(1);
});

it('is nothing where nothing waits for a power cycle', () => {
  expect(restartActs({ ...bare, restart: [] }, false)).toEqual([]);
});

it('takes the display off its plug where house rules ask it, naming the codes that live in it', () => {
  const map = {
    ...bare,
    codes: bare.codes.map((code) =>
      code.label === 'L2' ? { ...code, keptIn: 'displayWhileAttached' as const } : code,
    ),
  };
  expect(restartActs(map, true).at(-1)).toMatchObject({
    act: expect.stringContaining('L2 live in it only while it is attached'),
    waitMs: 5000,
  });
  expect(
    restartActs({ ...map, restart: [{ act: 'Off its plug.', waitMs: 0, does: 'unplugsDisplay' }] }, true),
  ).toHaveLength(2);
  expect(restartActs({ ...map, restart: [{ act: 'Unplug the service lead.', waitMs: 0 }] }, true)).toHaveLength(3);
});

it('says what the glass should show afterwards', () => {
  expect(seenAfterRestart({ ...bare, power: { ...bare.power, shows: '88.8' } })).toContain(
    '88.8 for a moment, then speed',
  );
});
