import { Ajv2020 } from 'ajv/dist/2020.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { demoMapFiles } from '../../testing/demo-maps.js';
import { fourKey, threeKey } from '../../testing/samples.js';
import { parseDisplayMap } from './parse-display-map.js';

const schema = JSON.parse(readFileSync(new URL('../../../docs/formats/display-map.schema.json', import.meta.url), 'utf8')) as object;
const ajv = new Ajv2020({ strict: false, allErrors: true });
const fits = ajv.compile(schema);

/** Every way to take one field out of a document, or to put one in that does not belong, down to a depth. */
function* spoilt(value: unknown, depth: number): Generator<unknown> {
  if (depth === 0 || typeof value !== 'object' || value === null) return;
  if (Array.isArray(value)) {
    const [first, ...rest] = value as unknown[];
    for (const one of spoilt(first, depth - 1)) yield [one, ...rest];
    return;
  }
  const entries = Object.entries(value);
  yield { ...value, colour: 'red' };
  for (const [name, inner] of entries) {
    yield Object.fromEntries(entries.filter(([other]) => other !== name));
    yield { ...value, [name]: typeof inner === 'number' ? 'seven' : 7.5 };
    for (const one of spoilt(inner, depth - 1)) yield { ...value, [name]: one };
  }
}

const isShapeSound = (data: unknown): boolean => {
  const parsed = parseDisplayMap(data);
  return parsed.ok || parsed.problems.every((problem) => problem.code !== 'shape');
};

describe('the published schema', () => {
  it.each(demoMapFiles())('accepts %s', (_id, map) => {
    expect(fits(map) ? [] : fits.errors).toEqual([]);
  });

  const tried: readonly (readonly [string, unknown])[] = [['a live map', fourKey], ['a map with a focus', threeKey], ...demoMapFiles().filter(([id]) => /heron|limpet|teasel|sorrel/.test(id))];
  it.each(tried)('agrees with the reader on every slip of one field in %s', (_name, map) => {
    const disagreed: unknown[] = [];
    let slips = 0;
    for (const data of spoilt(map, 4)) {
      slips++;
      if (fits(data) !== isShapeSound(data)) disagreed.push([fits.errors?.slice(0, 2).map((e) => `${e.instancePath} ${e.message}`), parseDisplayMap(data)]);
    }
    expect(slips).toBeGreaterThan(100);
    expect(disagreed.slice(0, 3)).toEqual([]);
  });
});
