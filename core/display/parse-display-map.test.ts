import { describe, expect, it } from 'vitest';
import { fourKey, threeKey } from '../testing/samples.js';
import { parseDisplayMap } from './parse-display-map.js';

const spoilt = (change: (map: { menu: object; codes: [object, object, object] }) => void): unknown => {
  const copy = structuredClone(fourKey) as unknown as { menu: object; codes: [object, object, object] };
  change(copy);
  return copy;
};
const problemsOf = (data: unknown) => {
  const parsed = parseDisplayMap(data);
  return parsed.ok ? [] : parsed.problems;
};

describe('a display map', () => {
  it('is read as it stands', () => {
    expect(parseDisplayMap(structuredClone(fourKey))).toEqual({ ok: true, map: fourKey });
    expect(parseDisplayMap(structuredClone(threeKey))).toEqual({ ok: true, map: threeKey });
  });

  it.each([null, 3, 'map', [], {}])('is refused, not thrown at, when it is %j', (data) => {
    expect(problemsOf(data).length).toBeGreaterThan(0);
  });

  it('names an unknown field with its path', () => {
    const problems = problemsOf(spoilt((m) => Object.assign(m.codes[0], { colour: 'red' })));
    expect(problems).toEqual([expect.objectContaining({ path: 'codes[0]', message: expect.stringContaining('colour') })]);
  });

  it('names a key that is not there', () => {
    const problems = problemsOf(spoilt((m) => Object.assign(m.menu, { next: 'sett' })));
    expect(problems).toEqual([{ code: 'unknownKey', path: 'menu.next', message: 'There is no key "sett" in keys.' }]);
  });

  it('names two codes under one label', () => {
    const problems = problemsOf(spoilt((m) => Object.assign(m.codes[2], { label: 'L1' })));
    expect(problems).toEqual([expect.objectContaining({ code: 'twiceLabelled', path: 'codes[2].label' })]);
  });

  it('names a range that excludes its factory value, and one that is empty', () => {
    expect(problemsOf(spoilt((m) => Object.assign(m.codes[1], { factory: 9 })))).toEqual([expect.objectContaining({ code: 'factoryOutside', path: 'codes[1].factory' })]);
    expect(problemsOf(spoilt((m) => Object.assign(m.codes[1], { range: { min: 5, max: 4, step: 1 } })))).toEqual([expect.objectContaining({ code: 'emptyRange' })]);
  });

  it('tells all problems at once', () => {
    const problems = problemsOf(spoilt((m) => {
      Object.assign(m.menu, { idleMs: 10 });
      Object.assign(m.codes[0], { function: 'colour' });
    }));
    expect(problems.map((p) => p.path).sort()).toEqual(['codes[0].function', 'menu.idleMs']);
  });
});
