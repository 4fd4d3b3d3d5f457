import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { canonicalJson, fullMap, type DisplayMap } from '@decurio/core';
import { mapText } from './map-text.js';

const shelf = new URL('../../../demo/maps/', import.meta.url);
const maps = readdirSync(shelf).map(
  (file) => [file, JSON.parse(readFileSync(new URL(file, shelf), 'utf8')) as object] as const,
);

describe('the text of a map', () => {
  it.each(maps)('%s says the same, however its fields were stored', (_file, map) => {
    const stored = JSON.parse(canonicalJson(fullMap(map))) as DisplayMap;
    expect(JSON.parse(mapText(stored))).toEqual(map);
    expect(mapText(stored)).toBe(mapText(fullMap(map) as DisplayMap));
  });

  it('begins with what it is, and keeps a gesture on one line', () => {
    const [, map] = maps.find(([file]) => file.startsWith('tallow'))!;
    const lines = mapText(fullMap(map) as DisplayMap).split('\n');
    expect(lines[1]).toBe('  "format": "decurio-display-map/2",');
    expect(lines).toContain('    "next": "set",');
    expect(Math.max(...lines.map((line) => line.length))).toBeLessThan(400);
  });
});
