import { readdirSync, readFileSync } from 'node:fs';
import type { RulePack } from '@decurio/core';
import type { LibraryEntry, StarterView } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { addDocument, libraryHeads } from './library.js';

/** Stands beside `server/` and `server/dist` alike. */
const FOLDER = new URL(import.meta.url.includes('/dist/') ? '../../../starters/' : '../../starters/', import.meta.url);

const readStarters = (): readonly RulePack[] =>
  readdirSync(FOLDER)
    .filter((name) => name.endsWith('.json'))
    .sort()
    .map((name) => JSON.parse(readFileSync(new URL(name, FOLDER), 'utf8')) as RulePack);

/** Rule packs that ship with the product, from general knowledge and unchecked, and are not in the library yet. */
export async function listStarters(manager: EntityManager): Promise<StarterView[]> {
  const here = new Set((await libraryHeads(manager, 'rulePack')).map(({ id }) => id));
  return readStarters()
    .filter((pack) => !here.has(pack.id))
    .map(({ id, name, place, classes }) => ({ id, name, place, classes: classes.length }));
}

/** Brings one in, and first the one that it follows where the library has none of that name. */
export async function bringStarter(
  source: DataSource,
  id: string,
  accountId: string,
): Promise<LibraryEntry<'rulePack'>> {
  const pack = readStarters().find((each) => each.id === id);
  if (!pack) throw new HttpProblem('notFound', { message: `No starter rule pack is called "${id}".` });
  if (pack.parent === null) return addDocument(source, 'rulePack', pack, accountId);
  const { id: parentId } = pack.parent;
  const here = (await libraryHeads(source.manager, 'rulePack')).find((head) => head.id === parentId);
  const { version } = here ?? (await bringStarter(source, parentId, accountId));
  return addDocument(source, 'rulePack', { ...pack, parent: { id: parentId, version } }, accountId);
}
