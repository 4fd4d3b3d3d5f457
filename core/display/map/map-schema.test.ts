import { Ajv2020 } from 'ajv/dist/2020.js';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { demoMapFiles } from '../../testing/demo-maps.js';
import { fourKey, threeKey } from '../../testing/samples.js';
import { spoilt } from '../../testing/spoilt.js';
import { parseDisplayMap } from './parse-display-map.js';

const schema = JSON.parse(
  readFileSync(new URL('../../../docs/formats/display-map.schema.json', import.meta.url), 'utf8'),
) as object;
const ajv = new Ajv2020({ strict: false, allErrors: true });
const fits = ajv.compile(schema);

const isShapeSound = (data: unknown): boolean => {
  const parsed = parseDisplayMap(data);
  return parsed.ok || parsed.problems.every((problem) => problem.code !== 'shape');
};

describe('the published schema', () => {
  it.each(demoMapFiles())('accepts %s', (_id, map) => {
    expect(fits(map) ? [] : fits.errors).toEqual([]);
  });

  const tried: readonly (readonly [string, unknown])[] = [
    ['a live map', fourKey],
    ['a map with a focus', threeKey],
    ...demoMapFiles().filter(([id]) => /burdock|limpet|teasel|sorrel/.test(id)),
  ];
  it.each(tried)('agrees with the reader on every slip of one field in %s', (_name, map) => {
    const disagreed: unknown[] = [];
    let slips = 0;
    for (const data of spoilt(map, 4)) {
      slips++;
      if (fits(data) !== isShapeSound(data))
        disagreed.push([fits.errors?.slice(0, 2).map((e) => `${e.instancePath} ${e.message}`), parseDisplayMap(data)]);
    }
    expect(slips).toBeGreaterThan(60);
    expect(disagreed.slice(0, 3)).toEqual([]);
  });
});
