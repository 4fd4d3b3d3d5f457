import { describe, expect, it } from 'vitest';
import { compileSetup } from '../setup/compile/compile-setup.js';
import { demoMap } from '../testing/demo-maps.js';
import { code, fourKey, inputs, withCodes, words } from '../testing/samples.js';
import { checkedIn, opened, refusalOf, stateAfter, type Act } from '../testing/visit-script.js';
import type { DisplayMap } from '../display/map/display-map.js';

const found = (map: DisplayMap, told = [{ asks: 'How many entries?', says: '3' }]): Act => [
  'displayFound',
  {
    told,
    map: { id: map.id, version: 4, name: map.name, revision: map.revision },
    factory: Object.fromEntries(map.codes.map((c) => [c.label, c.factory])),
    setup: compileSetup(inputs({ map })),
  },
];
const other = { ...withCodes(fourKey, fourKey.codes.slice(0, 3)), id: 'other', revision: 'B' };

describe('a display told at check in', () => {
  it('takes the place of the one presumed, with its own setup and values', () => {
    const state = stateAfter([opened, found(other)]);
    expect(state.opened.versions.map).toMatchObject({ id: 'other', revision: 'B', version: 4 });
    expect(state.toRead).toEqual(['L1', 'L2', 'L3']);
    expect(Object.keys(state.values)).toEqual(['L1', 'L2', 'L3']);
    expect(state.displayTold).toEqual([{ asks: 'How many entries?', says: '3' }]);
    expect(state).toMatchObject({ step: 'checkIn', seq: 2, mayUndo: null });
  });

  it('may be told once more, the last one counting', () => {
    expect(stateAfter([opened, found(other), found(fourKey)]).opened.versions.map.id).toBe('four-key');
  });

  it('is told at check in, and not later', () => {
    expect(refusalOf([opened, checkedIn, found(other)])).toBe('wrongStep');
  });

  it('holds the unit where nothing may leave under its map', () => {
    expect(stateAfter([opened, found({ ...other, confirmed: null })]).held?.words).toContain('is a draft');
  });
});

describe('codes that never come on the glass', () => {
  it('are not asked for at read-back', () => {
    const map = withCodes(fourKey, [
      ...fourKey.codes,
      code('X1', 'cruise', { access: 'absent', encoding: words([5, 'off']) }),
      code('X2', 'walk', { access: 'tool', encoding: words([5, 'off']) }),
    ]);
    const listed = {
      ...map,
      menu: {
        ...map.menu,
        pages: [{ id: 'main', title: 'Menu', items: fourKey.codes.map(({ label }) => ({ code: label })) }],
      },
    };
    expect(stateAfter([opened, found(listed)]).toRead).toEqual(['L1', 'L2', 'L3', 'L4', 'L5']);
  });

  it('include the pages that nobody enters', () => {
    const { toRead } = stateAfter([opened, found(demoMap('sorrel-two-list'))]);
    expect(toRead).not.toContain('M1');
    expect(toRead).toContain('A1');
  });
});
