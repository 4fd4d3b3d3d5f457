import { readdirSync, readFileSync } from 'node:fs';
import type { DisplayMap } from '../display/map/display-map.js';
import { parseDisplayMap } from '../display/map/parse-display-map.js';

const SHELF = new URL('../../demo/maps/', import.meta.url);

/** Every map that ships with the demo scenario, by file name. */
export const demoMapFiles = (): readonly (readonly [string, unknown])[] =>
  readdirSync(SHELF).map(
    (file) => [file.replace('.json', ''), JSON.parse(readFileSync(new URL(file, SHELF), 'utf8')) as unknown] as const,
  );

export function demoMap(id: string): DisplayMap {
  const parsed = parseDisplayMap(demoMapFiles().find(([file]) => file === id)?.[1]);
  if (!parsed.ok) throw new Error(`${id}: ${parsed.problems.map((p) => `${p.path} ${p.message}`).join(' ')}`);
  return parsed.map;
}

export const demoMaps = (): readonly DisplayMap[] => demoMapFiles().map(([id]) => demoMap(id));
