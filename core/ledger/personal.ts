import type { Actor, Evidence } from '../bench/evidence.js';
import { hashOf } from './canonical-json.js';

/** What is kept of persons, apart from every chain: the chain holds its hash, so that it can be erased and the seal holds. */
export const PERSONAL_KINDS = {
  worker: 'Names of those who work here',
  receiver: 'Names of those who received a unit, or were told its PIN',
  signature: 'Signatures',
} as const;
export type PersonalKind = keyof typeof PERSONAL_KINDS;

/** Something said of a person. The salt keeps the hash from being guessed back to a name once this is erased. */
export interface PersonalData {
  readonly kind: PersonalKind;
  /** Random, hex. */
  readonly salt: string;
  readonly says: unknown;
}

/** Stands where a name was, once it is erased. */
export const ERASED_NAME = 'Name erased';

/**
 * The hash by which a chain covers what is kept apart.
 * @throws TypeError where `says` is no JSON
 */
export const personalHash = ({ kind, salt, says }: PersonalData): string => hashOf({ kind, salt, says });

/**
 * An object as its chain covers it: of the fields named, each one whose hash stands beside it (`nameSha256` beside `name`)
 * is left out. What was written before anything was kept apart has no such hash, and is covered as it stands.
 */
export const sealedForm = <T extends object>(value: T, fields: readonly string[]): Partial<T> =>
  Object.fromEntries(
    Object.entries(value).filter(([field]) => !fields.includes(field) || !(`${field}Sha256` in value)),
  ) as Partial<T>;

/** Salts of the names that stand in some entries, by the hash of each. */
export type Salts = Readonly<Record<string, string>>;

/** The first entry whose name is not the one that its chain covers; undefined where all are, or say that they were erased. */
export const wronglyNamed = (evidence: readonly Evidence[], salts: Salts): Evidence | undefined =>
  evidence.find(({ by }) => !isNamedTruly(by, salts));

function isNamedTruly({ name, nameSha256 }: Actor, salts: Salts): boolean {
  if (nameSha256 === undefined) return true;
  const salt = Object.hasOwn(salts, nameSha256) ? salts[nameSha256] : undefined;
  if (salt === undefined) return name === ERASED_NAME;
  return personalHash({ kind: 'worker', salt, says: name }) === nameSha256;
}
