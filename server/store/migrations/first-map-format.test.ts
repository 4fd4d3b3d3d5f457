import { describe, expect, it } from 'vitest';
import { fullMap, parseDisplayMap, planKeys } from '@decurio/core';
import { demoFile } from '../../testing/test-server.js';
import { upgradeMap, type FirstMap } from './first-map-format.js';

const rest = fullMap(JSON.parse(demoFile('maps/tallow-four-key.json'))) as Record<string, unknown> & {
  codes: FirstMap['codes'];
};
const { format, id, name, revision, tellBy, keys, restart, dangers, codes, confirmed } = rest;
const first = {
  format,
  id,
  name,
  revision,
  tellBy,
  keys,
  restart,
  dangers,
  codes,
  confirmed,
  powerUp: { first: 'Pack on.', gesture: { kind: 'hold', keys: ['power'], ms: 1500 } },
  menu: {
    open: { kind: 'hold', keys: ['set', 'up'], ms: 2000 },
    close: { kind: 'hold', keys: ['set'], ms: 1500 },
    next: 'set',
    previous: null,
    afterLast: 'wrap',
    edit: { style: 'live', up: 'up', down: 'down' },
    valuesWrap: true,
    store: 'onMove',
    idleMs: 8000,
    onTimeout: 'drop',
  },
} as unknown as FirstMap;

describe('a map that the first release stored', () => {
  it("comes to today's form, sound and plannable", () => {
    const upgraded = upgradeMap(first);
    const parsed = parseDisplayMap(upgraded);
    expect(parsed).toMatchObject({ ok: true });
    const plan = parsed.ok ? planKeys(parsed.map, { 'L1.1': 11 }, { values: {}, at: null }) : null;
    expect(plan?.steps.at(-1)?.stores).toEqual([{ label: 'L1.1', raw: 11 }]);
  });

  it('with a focus stores as it did: with the key', () => {
    const focus = {
      ...first,
      menu: {
        ...first.menu,
        edit: { style: 'focus', select: 'set', up: 'up', down: 'down' },
        next: 'up',
        previous: 'down',
      },
    } as FirstMap;
    expect(upgradeMap(focus)?.menu).toMatchObject({
      store: { on: 'endOfEdit' },
      edit: { style: 'focus', select: { kind: 'tap', key: 'set' } },
    });
  });

  it("is left alone where it is in today's form already", () => {
    expect(upgradeMap(rest as unknown as FirstMap)).toBeNull();
  });
});
