import fc from 'fast-check';
import { expect, it } from 'vitest';
import { jsonDepth } from './json-depth.js';

it.each([
  ['4', 0],
  ['[]', 1],
  ['{"a":[{"b":1}]}', 3],
  ['"[[[["', 0],
  ['["\\"[[", [1]]', 2],
  ['[1],[2]', 1],
])('%s nests %i deep', (text, depth) => expect(jsonDepth(text)).toBe(depth));

it('is the depth of whatever was written', () => {
  const depthOf = (value: unknown): number =>
    typeof value === 'object' && value !== null ? 1 + Math.max(0, ...Object.values(value).map(depthOf)) : 0;
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
      expect(jsonDepth(JSON.stringify(value))).toBe(depthOf(value));
    }),
    { seed: 3 },
  );
});

it('stops at what is too deep, however long it goes on', () => {
  expect(jsonDepth('['.repeat(5_000_000), 40)).toBe(41);
});
