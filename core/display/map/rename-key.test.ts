import { describe, expect, it } from 'vitest';
import { demoMap, demoMapFiles } from '../../testing/demo-maps.js';
import { blankMap } from '../revisions/blank-map.js';
import { everyGesture } from './every-gesture.js';
import { keysOf } from './gesture.js';
import { parseDisplayMap } from './parse-display-map.js';
import { withKeyCalled } from './rename-key.js';
import { writtenMap } from './written-map.js';

const blank = writtenMap({ ...blankMap(), tellBy: 'Grey case.' });
const read = (written: unknown) => {
  const parsed = parseDisplayMap(written);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.problems));
  return parsed.map;
};

describe('a key that is called otherwise', () => {
  it.each(demoMapFiles().map(([id]) => id))('is meant by every gesture that meant it before, on %s', (file) => {
    const map = demoMap(file);
    map.keys.forEach(({ id }, at) => {
      const after = read(withKeyCalled(writtenMap(map), at, 'Zz9'));
      expect(after.keys[at]).toEqual({ id: 'Zz9', label: 'Zz9' });
      expect(everyGesture(after).flatMap(keysOf)).not.toContain(id);
      const meant = JSON.parse(JSON.stringify(map), (name, own: unknown) =>
        (name === 'key' || /^\d+$/.test(name)) && own === id ? 'Zz9' : own,
      ) as typeof map;
      expect({ ...after, keys: [], codes: [] }).toEqual({ ...meant, keys: [], codes: [] });
      // And nothing else has changed.
      const back = read(withKeyCalled(writtenMap(after), at, id));
      expect({ ...back, keys: [] }).toEqual({ ...map, keys: [] });
    });
  });

  it('keeps an id of its own where its label cannot stand in a gesture, or is another’s', () => {
    const odd = read(withKeyCalled(blank, 0, '⏻'));
    expect(odd.keys[0]).toEqual({ id: 'k1', label: '⏻' });
    expect(odd.power.on).toEqual({ kind: 'hold', keys: ['k1'], ms: 1_500 });
    const twin = withKeyCalled(withKeyCalled(blank, 1, 'U'), 2, 'U') as { keys: unknown };
    expect(twin.keys).toEqual(['SET', 'U', { id: 'k3', label: 'U' }]);
  });

  it('letter by letter is called by the last, whatever it was on the way', () => {
    const typed = (label: string, at: number, from: unknown) =>
      [...label].reduce((written, _, i) => withKeyCalled(written, at, label.slice(0, i + 1)), from);
    const map = read(typed('DOWN', 2, typed('D', 1, typed('M', 0, blank))));
    expect(map.keys).toEqual(['M', 'D', 'DOWN'].map((id) => ({ id, label: id })));
    expect(map.menu?.opens[0]?.gesture).toEqual({ kind: 'hold', keys: ['D', 'DOWN'], ms: 2_000 });
    expect(map.menu?.store).toEqual({ on: 'change' });
  });

  it('that is one more is added behind the others', () => {
    expect((withKeyCalled(blank, 3, 'ON') as { keys: unknown[] }).keys.at(-1)).toBe('ON');
  });

  it('leaves what is no map as it is', () => {
    expect(withKeyCalled('no map', 0, 'A')).toBe('no map');
  });
});
