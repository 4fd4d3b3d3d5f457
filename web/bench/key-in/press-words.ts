import {
  gestureKeys,
  gestureWords,
  findCode,
  codeTitle,
  meaningOf,
  formatRaw,
  type DisplayMap,
  type Glass,
  type KeyPlan,
  type PlanStep,
} from '@decurio/core';
import { capital } from '../../ui/capital.js';

export interface PressWords {
  readonly order: string;
  readonly effect: string;
}

/** The step that is due as an order and its effect, counting the same presses still to come. */
export function pressWords(map: DisplayMap, plan: KeyPlan, index: number): PressWords {
  const step = plan.steps[index];
  if (!step) return { order: '', effect: '' };
  const { gesture } = step;
  if (gesture.kind === 'wait')
    return {
      order: `Wait ${seconds(gesture.ms)} s`,
      effect:
        step.before.kind === 'message'
          ? `The glass says ${step.before.text}; no key counts meanwhile.`
          : 'The menu closes by itself.',
    };
  if (gesture.kind === 'double')
    return { order: `Press ${gestureKeys(map, gesture)} twice, quickly`, effect: effectOf(map, step) };
  if (gesture.kind === 'hold')
    return {
      order:
        step.purpose === 'change' && changes(step) && gesture.underMs === undefined
          ? holdUntil(map, step)
          : capital(gestureWords(map, gesture)),
      effect: effectOf(map, step),
    };
  const before = plan.steps[index - 1];
  const isRepeat = before !== undefined && isSame(before, step);
  let count = 1;
  for (let i = index + 1; i < plan.steps.length && isSame(plan.steps[i] as PlanStep, step); i++) count++;
  const times = isRepeat
    ? count === 1
      ? 'once more'
      : `${count} more times`
    : count === 1
      ? 'once'
      : `${count} times`;
  return {
    order: `Press ${gestureKeys(map, gesture)} ${times}${gesture.aloneMs === undefined ? '' : ', each by itself'}`,
    effect: effectOf(map, step, plan.steps[index + count - 1]),
  };
}

const seconds = (ms: number): string => String(Number((ms / 1000).toFixed(1)));

const isSame = (a: PlanStep, b: PlanStep): boolean =>
  a.gesture.kind === 'tap' &&
  b.gesture.kind === 'tap' &&
  a.gesture.key === b.gesture.key &&
  a.serves === b.serves &&
  a.purpose === b.purpose;

/** A value that runs while a key is held: one lets go by the glass, not by the clock. */
function holdUntil(map: DisplayMap, { gesture, after }: PlanStep): string {
  return gesture.kind === 'hold' && after.kind === 'menu'
    ? `Hold ${gestureKeys(map, gesture)} until ${after.text}`
    : '';
}

const changes = ({ before, after }: PlanStep): boolean =>
  before.kind === 'menu' && after.kind === 'menu' && before.raw !== after.raw;

function effectOf(map: DisplayMap, step: PlanStep, last: PlanStep = step): string {
  const { purpose, before, after, serves, stores } = step;
  const code = serves === null ? undefined : findCode(map, serves);
  switch (purpose) {
    case 'power':
      return after.kind === 'off' ? 'The glass goes dark.' : 'The glass lights.';
    case 'mode':
      return after.kind === 'riding' && after.mode !== null
        ? `The ride mode becomes ${after.mode}: its list opens next.`
        : '';
    case 'open':
      return opensAt(after);
    case 'pin':
      if (before.kind !== 'pin') return 'The glass asks for the PIN.';
      return after.kind === 'pin' ? `The PIN on the glass becomes ${after.digits}.` : 'The PIN is in.';
    case 'page':
      return after.kind === 'menu' || after.kind === 'entry' ? `On to ${after.page}.` : '';
    case 'close':
      return stores.length > 0
        ? `The menu closes, and ${stores.length === 1 ? 'the last value is stored' : `${stores.length} values are stored at once`}.`
        : 'The menu closes.';
    case 'store':
      return stores.length > 0 ? `${serves} is stored.` : 'The edit ends.';
    case 'wait':
      return '';
    case 'move':
      return code ? `Until ${shown(code)} shows: ${codeTitle(code).toLowerCase()}.` : onTo(last.after);
    case 'change':
      return code && before.kind === 'menu' && (last.after.kind === 'menu' || after.kind === 'menu')
        ? changeEffect(code, step, last)
        : '';
  }
}

/** Where a step leads that serves no code: to the entry that leaves, or out. */
function onTo(after: Glass): string {
  if (after.kind === 'menu' || after.kind === 'entry') return `On to ${after.shows}.`;
  return after.kind === 'message' ? `The glass says ${after.text}.` : 'The menu closes.';
}

const shown = (code: { readonly label: string; readonly shownAs?: string }): string => code.shownAs ?? code.label;

function opensAt(after: Glass): string {
  switch (after.kind) {
    case 'menu':
    case 'entry':
      return `The menu opens at ${after.shows}.`;
    case 'pin':
      return 'The glass asks for the PIN.';
    default:
      return 'The menu opens.';
  }
}

function changeEffect(
  code: NonNullable<ReturnType<typeof findCode>>,
  { before, after }: PlanStep,
  last: PlanStep,
): string {
  if (before.kind !== 'menu') return '';
  if (after.kind === 'menu' && before.text === after.text && before.focus !== after.focus)
    return `The value of ${shown(code)} can be changed now.`;
  if (after.kind === 'menu' && before.digit !== after.digit) return 'On to the next digit.';
  const end = last.after.kind === 'menu' ? last.after.raw : before.raw;
  const becomes = after.kind === 'menu' ? `${before.text} becomes ${after.text}. ` : '';
  return `${becomes}${codeTitle(code)} is to be ${code.encoding.kind === 'table' ? `${formatRaw(code, end)}, ` : ''}${meaningOf(code, end)}.`;
}
