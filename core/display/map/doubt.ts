import type { Code } from './code.js';

/** Whether nobody is sure what digits of this code do: that value alone, or every one from `doubtfulFrom` on. */
export const isDoubtful = ({ encoding, doubts = [] }: Code, raw: number): boolean =>
  (encoding.kind === 'line' && encoding.doubtfulFrom !== undefined && raw >= encoding.doubtfulFrom) ||
  doubts.some(({ raws }) => raws?.includes(raw) === true);

/** Why nobody is sure of the entry as a whole; null where it is known. */
export function unsureOf({ source, doubts = [] }: Code): string | null {
  if (source === 'hearsay') return 'Meaning known by hearsay only.';
  return doubts.find(({ raws }) => raws === undefined)?.says ?? null;
}

/** What is said of a doubtful value; null where there is no doubt, or none was put in words. */
export const doubtSaid = ({ doubts = [] }: Code, raw: number): string | null =>
  doubts.find(({ raws }) => raws?.includes(raw) === true)?.says ?? null;
