import { describe, expect, it } from 'vitest';
import { isNamed, type FleetNotice, type NoticedUnit } from './notice.js';

const NOBODY: FleetNotice['names'] = { types: [], maps: [], serialFrom: null, serialTo: null, packs: [] };
const unit: NoticedUnit = {
  serial: 'S26-0100',
  typeId: 'samphire-26',
  mapId: 'tallow',
  packNumber: 'PK-12',
  firmware: '2.4',
};
const named = (names: Partial<FleetNotice['names']>, over: Partial<NoticedUnit> = {}, isOver = false) =>
  isNamed({ names: { ...NOBODY, ...names }, isOver }, { ...unit, ...over });

describe('a notice', () => {
  it('that names nothing names nobody', () => {
    expect(named({})).toBe(false);
  });

  it.each([
    [{ types: ['samphire-26'] }, true],
    [{ types: ['other', 'samphire-26'] }, true],
    [{ types: ['other'] }, false],
    [{ maps: ['tallow'] }, true],
    [{ maps: ['tallow'], types: ['other'] }, false],
    [{ serialFrom: 'S26-0099' }, true],
    [{ serialFrom: 'S26-0101' }, false],
    [{ serialTo: 'S26-0100' }, true],
    [{ serialTo: 'S26-0099' }, false],
    [{ serialFrom: 'S26-0001', serialTo: 'S26-1000' }, true],
    [{ packs: [' pk-12 '] }, true],
    [{ packs: ['PK-120'] }, false],
    [{ firmware: ['2.4'] }, true],
    [{ firmware: ['2.40', '2.3'] }, false],
    [{ firmware: ['2.4'], maps: ['other'] }, false],
  ] as const)('%j: %s', (names, is) => {
    expect(named(names)).toBe(is);
  });

  it('by packs names no unit whose pack nobody has scanned', () => {
    expect(named({ packs: ['PK-12'] }, { packNumber: null })).toBe(false);
  });

  it('by firmware names no unit whose firmware nobody has noted', () => {
    expect(named({ firmware: ['2.4'] }, { firmware: null })).toBe(false);
  });

  it('that is over names nobody', () => {
    expect(named({ types: ['samphire-26'] }, {}, true)).toBe(false);
  });
});
