import { describe, expect, it } from 'vitest';
import { demoMap } from '../../testing/demo-maps.js';
import { code, fourKey, withCodes } from '../../testing/samples.js';
import { compareMaps } from './compare-maps.js';

const kinds = (left: Parameters<typeof compareMaps>[0], right: Parameters<typeof compareMaps>[1]) =>
  Object.fromEntries(
    compareMaps(left, right)
      .codes.filter((c) => c.kind !== 'same')
      .map((c) => [c.label, c.kind]),
  );

describe('two maps side by side', () => {
  it('tell what was added, removed, and means something else', () => {
    expect(kinds(demoMap('dunlin-a'), demoMap('dunlin-c'))).toEqual({
      d1: 'changed',
      d3: 'changed',
      d5: 'changed',
      d8: 'added',
      d9: 'added',
    });
    expect(kinds(demoMap('dunlin-c'), demoMap('dunlin-b'))).toMatchObject({ d9: 'removed', d7: 'changed' });
  });

  it('say in words what differs: the same digit the other way round', () => {
    const walk = compareMaps(demoMap('dunlin-a'), demoMap('dunlin-c')).codes.find((c) => c.label === 'd5');
    expect(walk?.changes.map((change) => [change.aspect, change.left, change.right])).toEqual([
      ['meaning', '0 off; 1 on', '0 on; 1 off'],
      ['factory', '1, on', '0, on'],
    ]);
  });

  it('tell range, default, access, behaviour and source apart', () => {
    const one = withCodes(fourKey, [code('A', 'walk', {})]);
    const other = withCodes(fourKey, [
      code('A', 'cruise', {
        range: { min: 0, max: 8, step: 2 },
        factory: 4,
        access: 'locked',
        actsAfter: 'restart',
        more: 'slower',
        source: 'hearsay',
      }),
    ]);
    expect(compareMaps(one, other).codes[0]?.changes).toEqual([
      { aspect: 'function', left: 'Walk assist', right: 'Cruise' },
      { aspect: 'range', left: '0 to 10', right: '0 to 8 in steps of 2' },
      { aspect: 'factory', left: '5', right: '4' },
      { aspect: 'access', left: 'open', right: 'locked: shown, does not move' },
      {
        aspect: 'behaviour',
        left: 'acts, at once, kept in the controller',
        right: 'acts, after a restart, kept in the controller, more is slower',
      },
      { aspect: 'source', left: 'measured', right: 'hearsay' },
    ]);
  });

  it('name the other parts that differ, and nothing where all is the same', () => {
    expect(compareMaps(fourKey, { ...fourKey, dangers: [], menu: { ...fourKey.menu, values: 'stop' } }).parts).toEqual([
      'menu',
      'dangers',
    ]);
    expect(compareMaps(fourKey, structuredClone(fourKey))).toMatchObject({
      parts: [],
      codes: fourKey.codes.map(() => ({ kind: 'same' })),
    });
  });
});
