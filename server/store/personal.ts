import { randomBytes } from 'node:crypto';
import {
  ERASED_NAME,
  HANDOVER_PERSONAL,
  PERSONAL_KINDS,
  personalHash,
  type Actor,
  type Evidence,
  type HandoverEntry,
  type NewHandover,
  type PersonalKind,
  type Salts,
} from '@decurio/core';
import type { EntityManager } from 'typeorm';
import type { PersonalRow } from './rows.js';

/** Keeps something of a person apart from every chain. @returns the hash by which a chain may cover it */
export async function keepPersonal(
  manager: EntityManager,
  kind: PersonalKind,
  subject: string,
  says: unknown,
): Promise<string> {
  const salt = randomBytes(16).toString('hex');
  const sha256 = personalHash({ kind, salt, says });
  await manager.query(
    'INSERT INTO personal (sha256, kind, subject, salt, says, at) VALUES (?, ?, ?, ?, ?, UTC_TIMESTAMP(3))',
    [sha256, kind, subject, salt, JSON.stringify(says)],
  );
  return sha256;
}

type Kept = Pick<PersonalRow, 'sha256' | 'kind' | 'salt' | 'says' | 'erasedAt'>;
export type PersonalOf = ReadonlyMap<string, Kept>;

/** What is kept under these hashes, erased or not. */
export async function personalOf(manager: EntityManager, hashes: Iterable<string | undefined>): Promise<PersonalOf> {
  const asked = [...new Set(hashes)].filter((hash) => hash !== undefined);
  if (asked.length === 0) return new Map();
  const rows = await manager.query<Kept[]>(
    'SELECT sha256, kind, salt, says, erasedAt FROM personal WHERE sha256 IN (?)',
    [asked],
  );
  return new Map(rows.map((row) => [row.sha256, row]));
}

/** How a person is written down in tables that nothing is ever changed in: by the hash of the name, where there is one. */
export const writtenBy = ({ name, nameSha256 }: Pick<Actor, 'name' | 'nameSha256'>): string => nameSha256 ?? name;

/** The names behind what `writtenBy` wrote; what is no such hash is a name of before. */
export async function namesBehind(
  manager: EntityManager,
  written: readonly (string | null)[],
): Promise<(each: string) => string> {
  const kept = await personalOf(
    manager,
    written.map((each) => (each !== null && /^[0-9a-f]{64}$/.test(each) ? each : undefined)),
  );
  return (each) => (kept.has(each) ? nameIn(kept, each) : each);
}

/** A name that is erased, or whose row is gone, shows as erased; which of the two it was is for the check of the seal to say. */
export const nameIn = (kept: PersonalOf, sha256: string): string => textIn(kept, sha256) ?? ERASED_NAME;

function textIn(kept: PersonalOf, sha256: string): string | null {
  const said = saidIn(kept, sha256);
  return typeof said === 'string' ? said : null;
}

/** What a row says; undefined where it was erased, is gone, or cannot be read. */
function saidIn(kept: PersonalOf, sha256: string): unknown {
  const says = kept.get(sha256)?.says;
  if (says === undefined || says === null) return undefined;
  try {
    return JSON.parse(says);
  } catch {
    return undefined;
  }
}

/** Entries as they are stored, with the names that their chain covers by hash. */
export const withNames = async (manager: EntityManager, evidence: readonly Evidence[]): Promise<Evidence[]> =>
  namedBy(await personalOf(manager, hashesIn(evidence)), evidence);

/** The same, of names that were read before. */
export const namedBy = (kept: PersonalOf, evidence: readonly Evidence[]): Evidence[] =>
  evidence.map((entry) => ({ ...entry, by: named(entry.by, kept) }));

/** The salts by which an exported record shows that its names are the ones it was sealed with. */
export async function saltsOf(manager: EntityManager, evidence: readonly Evidence[]): Promise<Salts> {
  const kept = await personalOf(manager, hashesIn(evidence));
  return Object.fromEntries([...kept.values()].flatMap(({ sha256, salt }) => (salt === null ? [] : [[sha256, salt]])));
}

const hashesIn = (entries: readonly { readonly by: Actor }[]): (string | undefined)[] =>
  entries.map(({ by }) => by.nameSha256);

const named = (by: Actor, kept: PersonalOf): Actor =>
  by.nameSha256 === undefined ? by : { ...by, name: nameIn(kept, by.nameSha256) };

/** Which fields of an entry of a handing over stand apart, each with the hash that stands for it. */
const apartIn = ({ kind, data }: Pick<HandoverEntry, 'kind' | 'data'>): (readonly [field: string, sha256: string])[] =>
  Object.keys(HANDOVER_PERSONAL[kind]).flatMap((field) => {
    const sha256 = (data as Readonly<Record<string, unknown>>)[`${field}Sha256`];
    return typeof sha256 === 'string' ? [[field, sha256] as const] : [];
  });

/** Every hash of what is said of persons in a handing over. */
export const apartInHandover = (entries: readonly HandoverEntry[]): (string | undefined)[] => [
  ...hashesIn(entries),
  ...entries.flatMap((entry) => apartIn(entry).map(([, sha256]) => sha256)),
];

/** Entries of a handing over as they are stored, with what is kept apart of persons; no strokes where a signature is erased. */
export const withPersons = async (
  manager: EntityManager,
  entries: readonly HandoverEntry[],
): Promise<HandoverEntry[]> => personsBy(await personalOf(manager, apartInHandover(entries)), entries);

/** The same, of what was read before. */
export function personsBy(kept: PersonalOf, entries: readonly HandoverEntry[]): HandoverEntry[] {
  const said = (sha256: string, field: string): unknown =>
    field === 'strokes' ? (saidIn(kept, sha256) ?? []) : nameIn(kept, sha256);
  return entries.map((entry) => {
    const apart = apartIn(entry).map(([field, sha256]) => [field, said(sha256, field)]);
    const data: unknown = { ...entry.data, ...Object.fromEntries(apart) };
    return { ...entry, by: named(entry.by, kept), data } as HandoverEntry;
  });
}

/** Keeps what a new entry says of persons apart, and puts the hashes beside it. */
export async function keepPersons<D extends NewHandover>(
  manager: EntityManager,
  visitId: string,
  draft: D,
): Promise<D> {
  const data: Record<string, unknown> = { ...draft.data };
  for (const [field, kind] of Object.entries<PersonalKind>(HANDOVER_PERSONAL[draft.kind]))
    data[`${field}Sha256`] = await keepPersonal(manager, kind, visitId, data[field]);
  return { ...draft, data };
}

/** What is amiss with what a chain covers by hash: a row that is gone, or says something else than was sealed. */
export function personalFindings(kept: PersonalOf, hashes: readonly (string | undefined)[]): readonly string[] {
  return [...new Set(hashes)].flatMap((sha256) => {
    if (sha256 === undefined) return [];
    const row = kept.get(sha256);
    if (!row)
      return [`What was kept of a person (${sha256.slice(0, 8)}) is gone, and nobody noted that it was erased.`];
    const { kind, salt, erasedAt } = row;
    if (erasedAt !== null) return [];
    const says = saidIn(kept, sha256);
    const holds = salt !== null && says !== undefined && personalHash({ kind, salt, says }) === sha256;
    return holds ? [] : [`${PERSONAL_KINDS[kind]}: one is not the one that was sealed.`];
  });
}
