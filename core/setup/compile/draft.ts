import type { Code, DisplayMap } from '../../display/map/display-map.js';
import { pagesListing } from '../../display/map/pages-listing.js';
import { unsureOf } from '../../display/map/doubt.js';
import { rawForWord } from '../../display/map/raw-value.js';
import type { CodeFunction } from '../../display/map/functions.js';
import type { Finding } from '../setup.js';
import type { Wish, Work } from './wish.js';

/** One code with what it is to be, while the checks still look at the whole. */
export interface Drafted {
  readonly code: Code;
  readonly wish: Wish;
}

/** A setup in the making: wishes in menu order. */
export interface Draft {
  readonly work: Work;
  readonly codes: readonly Drafted[];
}

export const finding = (level: Finding['level'], topic: string, label: string | null, says: string): Finding => ({
  level,
  id: `${topic}:${label ?? 'unit'}`,
  label,
  says,
});

/** Whether keys move a code on this display: not where it is locked, never touched, for a tool, or on a page nobody enters. */
export const canMove = (map: DisplayMap, code: Code): boolean =>
  (code.access === 'open' || code.access === 'pin') && !isOffGlass(map, code);

/** What the unit will show once it is keyed: the target, or what was found where there is none or the code does not move. */
export const willShow = ({ work }: Pick<Draft, 'work'>, { code, wish }: Drafted): number =>
  canMove(work.map, code) ? (wish.raw ?? work.found(code)) : work.found(code);

/** Not on the glass that a person keys: in the paper alone, for a tool, or on a page that nobody enters. */
export function isOffGlass(map: DisplayMap, code: Code): boolean {
  if (code.access === 'absent' || code.access === 'tool') return true;
  const pages = pagesListing(map, code.label);
  return pages.length > 0 && pages.every((page) => page.neverEnter !== undefined);
}

export const withFunction = (draft: Draft, fn: CodeFunction): readonly Drafted[] =>
  draft.codes.filter(({ code }) => code.function === fn);

/** Whether the one code of a function will mean one of these words; undefined where the map has no such code, or no such word. */
export function willMean(draft: Draft, fn: CodeFunction, ...words: readonly string[]): boolean | undefined {
  const [drafted] = withFunction(draft, fn);
  if (!drafted) return undefined;
  const raws = words.map((word) => rawForWord(drafted.code, word)).filter((raw) => raw !== undefined);
  return raws.length === 0 ? undefined : raws.includes(willShow(draft, drafted));
}

/** Whether another code, as it will stand, makes this one do nothing. */
export function isDead(draft: Draft, { deadIf }: Code): boolean {
  const by = deadIf && draft.codes.find(({ code }) => code.label === deadIf.code);
  return by !== undefined && deadIf !== undefined && deadIf.in.includes(willShow(draft, by));
}

/** Whether one may build on a code: not by hearsay, absent, for a tool, for the eye alone, or made dead by another. */
export const carriesClaim = (draft: Draft, code: Code): boolean =>
  unsureOf(code) === null &&
  code.effect === 'acts' &&
  code.access !== 'absent' &&
  code.access !== 'tool' &&
  !isDead(draft, code);
