import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pathOf, problemAt, rangeIn, rangeOut, valueAt, withValue, type Place } from './written-form.js';

describe('a map being written', () => {
  it('names a place as problems do', () => {
    expect(pathOf(['codes', 3, 'range'])).toBe('codes[3].range');
    const problems = [{ code: 'x', path: 'codes[3].range.min', message: 'too low' }];
    expect(problemAt(problems, ['codes', 3, 'range'])).toBe('too low');
    expect(problemAt(problems, ['codes', 3])).toBe('too low');
    expect(problemAt(problems, ['codes', 30])).toBeNull();
    expect(problemAt(problems, ['codes', 3, 'rang'])).toBeNull();
  });

  it('has what was put there, and all else as it was', () => {
    const step = fc.constantFrom<string | number>('a', 'b', 'c', 0, 1);
    const place = fc.array(step, { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(place, place, fc.integer(), (here, there, value) => {
        const before = withValue({}, there, 'kept');
        const after = withValue(before, here, value);
        // A list begins at its first place.
        const isReachable = (of: Place) => of.every((each) => typeof each === 'string' || each === 0);
        fc.pre(isReachable(here) && isReachable(there) && kindsFit(here, there));
        expect(valueAt(after, here)).toBe(value);
        if (!startsWith(there, here) && !startsWith(here, there)) expect(valueAt(after, there)).toBe('kept');
      }),
    );
  });

  it('takes out what is wiped, and what held nothing else', () => {
    expect(withValue({ speed: { decimals: 1 }, name: 'x' }, ['speed', 'decimals'], undefined)).toEqual({ name: 'x' });
    expect(withValue({ codes: [1, 2, 3] }, ['codes', 1], undefined)).toEqual({ codes: [1, 3] });
    expect(withValue({ name: 'x' }, ['menu', 'pin', 'back'], undefined)).toEqual({ name: 'x' });
  });

  it('reads a range written either way, and writes the shorter', () => {
    expect(rangeIn([5, 30])).toEqual([5, 30, undefined]);
    expect(rangeIn({ min: 5, max: 30, step: 5 })).toEqual([5, 30, 5]);
    expect(rangeIn('much')).toEqual([undefined, undefined, undefined]);
    expect(rangeOut([5, 30, undefined])).toEqual([5, 30]);
    expect(rangeOut([5, 30, 5])).toEqual([5, 30, 5]);
    expect(rangeOut([undefined, undefined, undefined])).toBeUndefined();
  });
});

const startsWith = (place: Place, begin: Place): boolean => begin.every((step, i) => place[i] === step);

/** Where both share the way so far, they step on in the same kind: a field of an object, or a place in a list. */
const kindsFit = (a: Place, b: Place): boolean => {
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    if (typeof a[i] !== typeof b[i]) return false;
    if (a[i] !== b[i]) return true;
  }
  return true;
};
