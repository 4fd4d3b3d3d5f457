import type { Code } from '../../display/map/display-map.js';
import { isDoubtful } from '../../display/map/doubt.js';
import {
  formatRaw,
  nearestValue,
  onGrid,
  plainValues,
  rawForWord,
  sentinelOf,
  valuesInOrder,
} from '../../display/map/raw-value.js';
import type { Counts } from './counts.js';
import type { SpeedLimit } from './speed-limit.js';
import type { Choice, Choices } from '../inputs/house-rules.js';
import { answerWords } from '../inputs/house-choices.js';
import type { SetupInputs } from '../inputs/setup-inputs.js';
import type { Finding, TrailSource, TrailStep } from '../setup.js';

/** What one code should be set to (null: as found), the reason, how it came about, and what is wrong with it if anything. */
export interface Wish {
  readonly raw: number | null;
  readonly because: string;
  readonly trail?: readonly TrailStep[];
  readonly findings?: readonly WishFinding[];
  readonly secret?: true;
}

export interface WishFinding extends Pick<Finding, 'level' | 'says'> {
  /** Names the finding together with the code's label. */
  readonly topic: string;
}

/** The inputs with what every wish needs worked out once. */
export interface Work extends SetupInputs {
  readonly limit: SpeedLimit | null;
  /** House rules with the unit's own choices over them. */
  readonly choices: Choices;
  /** Position of a code among those with the same function, from 0. */
  readonly nth: (code: Code) => number;
  readonly countOf: (fn: Code['function']) => number;
  /** As read on the glass, or as the maker delivers it. */
  readonly found: (code: Code) => number;
  /** What the display will count with: settled before any cap. */
  readonly counts: Counts;
}

export type WishFor = (code: Code, work: Work) => Wish;

export const asFound = (because: string, ...findings: readonly WishFinding[]): Wish => ({
  raw: null,
  because,
  ...(findings.length > 0 ? { findings } : {}),
});

/** `House rule: only once rolling`, or that this unit has it otherwise. */
export function choiceStep(work: Work, choice: Choice): TrailStep {
  const own = work.unit.override?.choices[choice];
  const says = answerWords(choice, work.choices[choice]);
  return own === undefined
    ? { from: 'house', says: `House rule: ${says}`, decided: true }
    : { from: 'unit', says: `This unit: ${says}, because ${work.unit.override?.why ?? ''}`, decided: true };
}

/** The digits that stand for a word of a table, the first of several words it has, or a lead is asked. */
export function word(code: Code, values: string | readonly string[], step: TrailStep): Wish {
  const wanted = typeof values === 'string' ? [values] : values;
  const raw = wanted.map((value) => rawForWord(code, value)).find((found) => found !== undefined);
  if (raw !== undefined) return { raw, because: step.says, trail: [step] };
  return asFound(`${step.says}: not offered by this code`, {
    level: 'decide',
    topic: 'notOffered',
    says: `${code.label} does not offer what was chosen (${step.says}). It stays as found.`,
  });
}

/** The digits for a meaning in the unit of the code's line, or a number standing as a word in its table. */
export function number(code: Code, meaning: number, step: TrailStep): Wish {
  if (code.encoding.kind === 'table') return word(code, String(meaning), step);
  const raw = rawOfMeaning(code, meaning);
  if (onGrid(code, raw)) return { raw, because: step.says, trail: [step] };
  return asFound(`${step.says}: outside this code's range`, {
    level: 'decide',
    topic: 'outOfRange',
    says: `${code.label} cannot be set to ${meaning} (${step.says}). It stays as found.`,
  });
}

/** The same for comfort codes: the nearest value the code has, with a note where that is another one. */
export function nearest(code: Code, meaning: number, step: TrailStep): Wish {
  const values = code.encoding.kind === 'line' ? plainValues(code) : valuesInOrder(code);
  const wanted = rawOfMeaning(code, meaning);
  if (code.encoding.kind === 'table' || onGrid(code, wanted) || values.length === 0) return number(code, meaning, step);
  const raw = nearestValue(values, wanted);
  const says = `${step.says}; ${code.label} has no such value, the nearest is ${formatRaw(code, raw)}.`;
  return {
    raw,
    because: says,
    trail: [step, { from: 'display', says }],
    findings: [{ level: 'note', topic: 'nearest', says }],
  };
}

export const lineScale = (code: Code): number => (code.encoding.kind === 'line' ? code.encoding.scale : 1);
export const rawOfMeaning = (code: Code, meaning: number): number =>
  Number((meaning / lineScale(code)).toFixed(code.decimals));
export const unitOf = (code: Code): string => (code.encoding.kind === 'line' ? code.encoding.unit : '');

/** The digits of a sentinel: `off`, `noCap` or `auto`. */
export const rawOfSentinel = (code: Code, means: 'noCap' | 'off' | 'auto'): number | undefined =>
  code.encoding.kind === 'line' ? code.encoding.sentinels.find((s) => s.means === means)?.raw : undefined;

/** Whether digits stand for off: by a table's word, a sentinel, or 0 on a line. */
export const isSwitchedOff = (code: Code, raw: number): boolean =>
  raw === rawForWord(code, 'off') || raw === rawOfSentinel(code, 'off') || (code.encoding.kind === 'line' && raw === 0);

/** Whether digits stand for no cap, or may do. */
export function mayBeNoCap(code: Code, raw: number): boolean {
  if (code.encoding.kind !== 'line') return false;
  return sentinelOf(code, raw)?.means === 'noCap' || isDoubtful(code, raw);
}

const WORDS = {
  gentle: ['gentle', 'soft', 'weak', 'low'],
  middle: ['middle', 'medium'],
  strong: ['strong', 'full', 'high'],
} as const;
const PLACE = { gentle: 0.25, middle: 0.5, strong: 1 } as const;

/**
 * Gentle, middle or strong on a table of such words, or on a line of which it is known what a greater value does:
 * gentle is a quarter of the way from its gentle end.
 */
export function strength(code: Code, how: keyof typeof PLACE, step: TrailStep, zeroIsOff = false): Wish {
  if (code.encoding.kind === 'table') return word(code, WORDS[how], step);
  if (code.more === undefined)
    return asFound('It is not known whether more is stronger or weaker here: stays as found.');
  const rising = plainValues(code).filter((raw) => !zeroIsOff || raw !== 0);
  const fromGentle = code.more === 'stronger' || code.more === 'quicker' ? rising : [...rising].reverse();
  const raw = fromGentle[Math.round((fromGentle.length - 1) * PLACE[how])];
  return raw === undefined
    ? asFound(`${step.says}: nothing to choose from`)
    : { raw, because: step.says, trail: [step] };
}

/** Greatest or middle value of a line. */
export function level(code: Code, where: 'full' | 'middle', step: TrailStep): Wish {
  const values = code.encoding.kind === 'line' ? plainValues(code) : valuesInOrder(code);
  const raw = where === 'full' ? values.at(-1) : values[Math.floor((values.length - 1) / 2)];
  return raw === undefined ? asFound(step.says) : { raw, because: step.says, trail: [step] };
}

export const step = (from: TrailSource, says: string): TrailStep => ({ from, says, decided: true });
