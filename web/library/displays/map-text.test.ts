import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { canonicalJson, type DisplayMap } from '@decurio/core';
import { mapText } from './map-text.js';

const shelf = new URL('../../../demo/maps/', import.meta.url);
const maps = readdirSync(shelf).map(
  (file) => [file, JSON.parse(readFileSync(new URL(file, shelf), 'utf8')) as DisplayMap] as const,
);

describe('the text of a map', () => {
  it.each(maps)('%s says the same, however its fields were stored', (_file, map) => {
    const stored = JSON.parse(canonicalJson(map)) as DisplayMap;
    expect(JSON.parse(mapText(stored))).toEqual(map);
    expect(mapText(stored)).toBe(mapText(map));
  });

  it('begins with what it is, and keeps a gesture on one line', () => {
    const [, map] = maps.find(([file]) => file.startsWith('tallow'))!;
    const lines = mapText(map).split('\n');
    expect(lines[1]).toBe('  "format": "decurio-display-map/1",');
    expect(lines).toContain('    "next": { "kind": "tap", "key": "set" },');
    expect(Math.max(...lines.map((line) => line.length))).toBeLessThan(400);
  });
});
