import type { Code } from '../../display/map/display-map.js';
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

export const finding = (level: Finding['level'], topic: string, label: string | null, says: string): Finding => ({ level, id: `${topic}:${label ?? 'unit'}`, label, says });

/** What the unit would show with this setup: the target, or what was found where there is none or the code is locked. */
export const willShow = ({ work }: Draft, { code, wish }: Drafted): number => (code.access === 'locked' ? work.found(code) : (wish.raw ?? work.found(code)));

export const withFunction = (draft: Draft, fn: CodeFunction): readonly Drafted[] => draft.codes.filter(({ code }) => code.function === fn);

/** Whether the one code of a function will mean one of these words; undefined where the map has no such code, or no such word. */
export function willMean(draft: Draft, fn: CodeFunction, ...words: readonly string[]): boolean | undefined {
  const [drafted] = withFunction(draft, fn);
  if (!drafted) return undefined;
  const raws = words.map((word) => rawForWord(drafted.code, word)).filter((raw) => raw !== undefined);
  return raws.length === 0 ? undefined : raws.includes(willShow(draft, drafted));
}

/** Codes that nobody may build on: hearsay, absent, for a tool, or for the eye alone. */
export const carriesClaim = (code: Code): boolean => code.source !== 'hearsay' && code.effect === 'acts' && code.access !== 'absent' && code.access !== 'tool';
