import { canonicalJson, hashOf, shortened, type ClassCheck, type RulePack } from '@decurio/core';
import type { LibraryDocuments, LibraryEntry, LibraryKind, VersionView } from '@decurio/contract';
import { LRUCache } from 'lru-cache';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Accounts, Library, Orders, type LibraryRow } from './entities.js';
import { readJson } from './json-column.js';
import { parsedOnce } from './parsed-once.js';
import { inTransaction } from './transaction.js';

/** Adds a document as the next version of its id. Versions never change. */
export async function addDocument<K extends LibraryKind>(
  source: DataSource,
  kind: K,
  document: LibraryDocuments[K],
  accountId: string,
): Promise<LibraryEntry<K>> {
  return inTransaction(source, (manager) => addWithin(manager, kind, document, accountId));
}

/** The same in a transaction that is open already. */
export async function addWithin<K extends LibraryKind>(
  manager: EntityManager,
  kind: K,
  document: LibraryDocuments[K],
  accountId: string,
): Promise<LibraryEntry<K>> {
  const newest = await lockNewest(manager, kind, document.id);
  await refuseConfusion(manager, kind, document);
  if (kind === 'rulePack') refuseForeignChecks(document as RulePack, newest && (JSON.parse(newest.body) as RulePack));
  const body = canonicalJson(document);
  if (newest?.body === body) throw new HttpProblem('sameDocument');
  const row: LibraryRow = {
    kind,
    docId: document.id,
    version: (newest?.version ?? 0) + 1,
    name: document.name,
    body,
    addedAt: new Date(),
    addedBy: accountId,
  };
  await manager.insert(Library, row);
  if (kind === 'rulePack') await projectChecks(manager, document as RulePack);
  return entryOf<K>(row);
}

/** What an order names by its words must mean one thing: a place its rules, a type its name; and a type its displays. */
async function refuseConfusion<K extends LibraryKind>(
  manager: EntityManager,
  kind: K,
  document: LibraryDocuments[K],
): Promise<void> {
  const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();
  if (kind === 'rulePack') {
    const { id, place } = document as RulePack;
    const twin = (await libraryHeads(manager, 'rulePack')).find(
      (head) => head.id !== id && same(head.place ?? '', place),
    );
    if (twin)
      throw new HttpProblem('placeTaken', {
        message: `"${twin.name}" (${twin.id}) holds the rules of ${place} already. Add the classes there, or name the place of this one otherwise.`,
        fields: { place: 'There are rules for this place already.' },
      });
  }
  if (kind === 'rulePack') await refuseStrayParent(manager, document as RulePack);
  if (kind === 'vehicleType') {
    const { id, name, maps, checkList } = document as LibraryDocuments['vehicleType'];
    if (checkList !== null && !(await libraryHeads(manager, 'checkList')).some((head) => head.id === checkList))
      throw new HttpProblem('listMissing', {
        message: `The library has no list of checks "${checkList}". Bring that one in first, then this type.`,
        fields: { checkList: 'Not in the library.' },
      });
    const twin = (await libraryHeads(manager, 'vehicleType')).find((head) => head.id !== id && same(head.name, name));
    if (twin)
      throw new HttpProblem('nameTaken', {
        message: `Another type is called ${name} already (${twin.id}). Order files name types by name: call this one otherwise, or change that one.`,
        fields: { name: 'Another type is called so already.' },
      });
    const here = new Set((await libraryHeads(manager, 'displayMap')).map(({ id: map }) => map));
    const missing = maps.filter((map) => !here.has(map));
    if (missing.length > 0)
      throw new HttpProblem('mapsMissing', {
        message: `The library has no display ${missing.map((map) => `"${map}"`).join(', ')}. Bring those maps in first, then this type.`,
        fields: { maps: `Not in the library: ${missing.join(', ')}.` },
      });
  }
}

/** What a pack follows is there at that version, follows nothing itself, and holds the classes that are followed. */
async function refuseStrayParent(manager: EntityManager, { id, parent, classes }: RulePack): Promise<void> {
  if (parent === null) return;
  const row = await manager.findOneBy(Library, { kind: 'rulePack', docId: parent.id, version: parent.version });
  const followed = row && (JSON.parse(row.body) as RulePack);
  if (!followed || parent.id === id || followed.parent !== null)
    throw new HttpProblem('parentMissing', {
      message: followed
        ? `"${parent.id}" cannot be followed: it is this pack itself, or follows another one.`
        : `The library has no rule pack "${parent.id}" at version ${parent.version}. Bring that one in first, then this.`,
      fields: { parent: 'Not a pack that can be followed.' },
    });
  const there = new Set(followed.classes.map((each) => each.id));
  const stray = classes.flatMap((each) => (each.follows === null || there.has(each.follows) ? [] : [each.follows]));
  if (stray.length > 0)
    throw new HttpProblem('parentMissing', {
      message: `"${parent.id}" has no class ${stray.map((each) => `"${each}"`).join(', ')} at version ${parent.version}.`,
      fields: { parent: `Not among its classes: ${stray.join(', ')}.` },
    });
}

/** A check belongs to the values it was made for: it stays with a class that says the same, and cannot be brought in. */
function refuseForeignChecks(next: RulePack, newest: RulePack | null): void {
  for (const each of next.classes) {
    if (each.checked === null) continue;
    const before = newest?.classes.find(({ id }) => id === each.id);
    if (!before || hashOf(before) !== hashOf(each))
      throw new HttpProblem('checkedElsewhere', {
        fields: { [each.id]: `"${each.title}" is new or changed: "checked" must be null.` },
      });
  }
}

/** Lists of orders say who checked their class: written here, so that no list has to open a rule pack. */
async function projectChecks(manager: EntityManager, pack: RulePack): Promise<void> {
  for (const { id, checked } of pack.classes)
    await manager.update(
      Orders,
      { rulePackId: pack.id, classId: id },
      { classCheck: checked && JSON.stringify(checked) },
    );
}

/** Confirms one class of the newest version of a rule pack: a new version that says who did it, with which authority. */
export async function confirmClass(
  source: DataSource,
  packId: string,
  classId: string,
  check: ClassCheck,
  seen: { readonly version: number; readonly userId: string },
): Promise<LibraryEntry<'rulePack'>> {
  return inTransaction(source, async (manager) => {
    const newest = await lockNewest(manager, 'rulePack', packId);
    if (!newest) throw new HttpProblem('notFound', { message: `The library has no rule pack "${packId}".` });
    if (newest.version !== seen.version)
      throw new HttpProblem('staleVersion', {
        message: 'There is a newer version of this rule pack. Look at that one.',
      });
    const pack = JSON.parse(newest.body) as RulePack;
    if (!pack.classes.some(({ id }) => id === classId)) throw new HttpProblem('classGone');
    if (check.expiresOn < check.on) throw new HttpProblem('expiresBefore');
    const classes = pack.classes.map((each) => (each.id === classId ? { ...each, checked: check } : each));
    const row: LibraryRow = {
      ...newest,
      version: newest.version + 1,
      body: canonicalJson({ ...pack, classes }),
      addedAt: new Date(),
      addedBy: seen.userId,
    };
    await manager.insert(Library, row);
    await projectChecks(manager, { ...pack, classes });
    return entryOf<'rulePack'>(row);
  });
}

const lockNewest = (manager: EntityManager, kind: LibraryKind, docId: string): Promise<LibraryRow | null> =>
  manager.findOne(Library, { where: { kind, docId }, order: { version: 'DESC' }, lock: { mode: 'pessimistic_write' } });

/** Who stands behind a map that was held against a real unit. */
export interface Confirmation {
  readonly version: number;
  readonly unit: string;
  readonly firmware: string;
  readonly by: { readonly userId: string; readonly name: string };
  /** Day in the house's calendar, as 2026-11-24. */
  readonly on: string;
}

/** Confirms the newest version of a draft map: a new version that says who did it. Not by whoever wrote the draft. */
export async function confirmMap(
  source: DataSource,
  docId: string,
  { version, unit, firmware, by, on }: Confirmation,
): Promise<LibraryEntry<'displayMap'>> {
  return inTransaction(source, async (manager) => {
    const newest = await lockNewest(manager, 'displayMap', docId);
    if (!newest) throw new HttpProblem('notFound', { message: `The library has no display "${docId}".` });
    if (newest.version !== version) throw new HttpProblem('staleVersion');
    const draft = JSON.parse(newest.body) as LibraryDocuments['displayMap'];
    if (draft.confirmed) throw new HttpProblem('confirmedAlready');
    if (newest.addedBy === by.userId) throw new HttpProblem('ownDraft');
    const author = await manager.findOneBy(Accounts, { id: newest.addedBy });
    const confirmed = { by: author ? shortened(`${author.displayName}, ${by.name}`, 80) : by.name, on, unit, firmware };
    const row: LibraryRow = {
      ...newest,
      version: version + 1,
      body: canonicalJson({ ...draft, confirmed }),
      addedAt: new Date(),
      addedBy: by.userId,
    };
    await manager.insert(Library, row);
    return entryOf<'displayMap'>(row);
  });
}

/** Every version of a document, newest first. */
export async function listVersions(source: DataSource, kind: LibraryKind, docId: string): Promise<VersionView[]> {
  const rows = await source.query<{ version: number; addedAt: Date; addedBy: string | null; confirmed: unknown }[]>(
    `SELECT l.version, l.addedAt, a.displayName AS addedBy, JSON_EXTRACT(l.body, '$.confirmed') AS confirmed
      FROM library_document l LEFT JOIN account a ON a.id = l.addedBy
      WHERE l.kind = ? AND l.docId = ? ORDER BY l.version DESC LIMIT 200`,
    [kind, docId],
  );
  return rows.map((row) => ({
    version: row.version,
    addedAt: row.addedAt.toISOString(),
    addedBy: row.addedBy ?? 'unknown',
    confirmed: readJson<VersionView['confirmed']>(row.confirmed),
  }));
}

const NEWEST_SQL = `SELECT l.kind, l.docId, l.version, l.name, l.body, l.addedAt, l.addedBy FROM library_document l
  JOIN (SELECT docId, MAX(version) AS version FROM library_document WHERE kind = ? GROUP BY docId) newest ON newest.docId = l.docId AND newest.version = l.version
  WHERE l.kind = ? ORDER BY l.docId`;

/** What tells documents apart without reading them. */
export interface LibraryHead {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  /** Of a display map: which others look like it. */
  readonly family: string | null;
  /** Of a rule pack. */
  readonly place: string | null;
}

const HEADS_SQL = `SELECT l.docId AS id, l.version, l.name, JSON_VALUE(l.body, '$.family') AS family, JSON_VALUE(l.body, '$.place') AS place
  FROM library_document l
  JOIN (SELECT docId, MAX(version) AS version FROM library_document WHERE kind = ? GROUP BY docId) newest ON newest.docId = l.docId AND newest.version = l.version
  WHERE l.kind = ? ORDER BY l.docId`;

/** What documents of a kind there are, at their newest, by id; none of them is read. */
export const libraryHeads = (manager: EntityManager, kind: LibraryKind): Promise<LibraryHead[]> =>
  manager.query<LibraryHead[]>(HEADS_SQL, [kind, kind]);

/** The newest version of these documents, by id; those that are not there are left out. */
export async function getDocuments<K extends LibraryKind>(
  manager: EntityManager,
  kind: K,
  ids: readonly string[],
): Promise<LibraryEntry<K>[]> {
  const wanted = new Set(ids);
  const heads = (await libraryHeads(manager, kind)).filter(({ id }) => wanted.has(id));
  if (heads.length === 0) return [];
  const rows = await manager.findBy(
    Library,
    heads.map(({ id, version }) => ({ kind, docId: id, version })),
  );
  return rows.map((row) => entryOf<K>(row)).toSorted((a, b) => (a.id < b.id ? -1 : 1));
}

/** The newest version of every document of a kind, by id: what the library shows. */
export async function newestDocuments<K extends LibraryKind>(
  manager: EntityManager,
  kind: K,
): Promise<LibraryEntry<K>[]> {
  const rows = await manager.query<LibraryRow[]>(NEWEST_SQL, [kind, kind]);
  return rows.map((row) => entryOf<K>(row));
}

/** One document: the newest version, or the one named. */
export async function getDocument<K extends LibraryKind>(
  manager: EntityManager,
  kind: K,
  docId: string,
  version?: number,
): Promise<LibraryEntry<K>> {
  const row = await manager.findOne(Library, {
    where: { kind, docId, ...(version === undefined ? {} : { version }) },
    order: { version: 'DESC' },
  });
  if (!row) throw new HttpProblem('notFound', { message: `The library has no ${kind} "${docId}".` });
  return entryOf<K>(row);
}

const MOST_KEPT = 500;
const named = new WeakMap<DataSource, LRUCache<string, LibraryEntry<LibraryKind>>>();

/**
 * The version of a document that a visit names. It was committed before that visit was, and never changes: it is read
 * once per process and database.
 */
export async function namedDocument<K extends LibraryKind>(
  manager: EntityManager,
  kind: K,
  docId: string,
  version: number,
): Promise<LibraryEntry<K>> {
  const known = named.get(manager.dataSource) ?? new LRUCache({ max: MOST_KEPT });
  named.set(manager.dataSource, known);
  const key = `${kind} ${docId} ${version}`;
  const kept = known.get(key) ?? (await getDocument(manager, kind, docId, version));
  known.set(key, kept);
  return kept as LibraryEntry<K>;
}

function entryOf<K extends LibraryKind>(row: LibraryRow): LibraryEntry<K> {
  return {
    kind: row.kind as K,
    id: row.docId,
    version: row.version,
    name: row.name,
    addedAt: row.addedAt.toISOString(),
    document: parsedOnce(row.body) as LibraryDocuments[K],
  };
}
