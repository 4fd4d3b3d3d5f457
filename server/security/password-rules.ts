import { randomInt } from 'node:crypto';

const AS_TYPED = /[\s._-]/g;
const plain = (text: string): string => text.normalize('NFKC').toLowerCase().replace(AS_TYPED, '');

let common: Promise<ReadonlySet<string>> | null = null;
const listed = (): Promise<ReadonlySet<string>> =>
  (common ??= import('@zxcvbn-ts/language-common').then(
    ({ dictionary }) => new Set([...dictionary['passwords-common']].map((word) => plain(String(word)))),
  ));

/**
 * Whether a password is among those that are tried first: on the list of common ones, one of them with some figures or
 * signs behind, one letter over and over, or somebody's own name. Nothing is asked of its signs.
 * @param names of whoever chooses it
 */
export async function isCommon(password: string, names: readonly string[]): Promise<boolean> {
  const typed = plain(password);
  const words = await listed();
  const stem = typed.replace(/[\d!?.,;:#*+]+$/, '');
  const isOneOver = /^(.{1,3})\1+.?.?$/.test(typed);
  const isName = names.map(plain).some((name) => name.length > 2 && (typed === name || stem === name));
  return isOneOver || isName || words.has(typed) || (stem !== '' && words.has(stem));
}

const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const GROUPS = 4;

/** Sixteen letters and digits that are not taken for one another, in fours: some 79 bits. */
export const passwordForOnce = (): string =>
  Array.from({ length: GROUPS }, () =>
    Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join(''),
  ).join('-');
