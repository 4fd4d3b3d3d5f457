import { findCode, formatRaw, functionTitle, keyLabel, meaningOf, type DisplayMap, type Gesture, type KeyPlan, type PlanStep } from '@decurio/core';

/** What is on the keys of a gesture, e.g. `set` or `set and +`. */
export function gestureKeys(map: DisplayMap, gesture: Gesture): string {
  return gesture.kind === 'tap' ? keyLabel(map, gesture.key) : gesture.keys.map((key) => keyLabel(map, key)).join(' and ');
}

/** The press that is due as an order and its effect, counting the same presses still to come. */
export function pressWords(map: DisplayMap, plan: KeyPlan, index: number): { readonly order: string; readonly effect: string } {
  const step = plan.steps[index];
  if (!step) return { order: '', effect: '' };
  const keys = gestureKeys(map, step.gesture);
  if (step.gesture.kind === 'hold') return { order: `Hold ${keys} for ${step.gesture.ms / 1000} s`, effect: effectOf(map, step) };
  const before = plan.steps[index - 1];
  const isRepeat = before !== undefined && isSame(before, step);
  let count = 1;
  for (let i = index + 1; i < plan.steps.length && isSame(plan.steps[i] as PlanStep, step); i++) count++;
  const times = isRepeat ? (count === 1 ? 'once more' : `${count} more times`) : count === 1 ? 'once' : `${count} times`;
  return { order: `Press ${keys} ${times}`, effect: effectOf(map, step, plan.steps[index + count - 1]) };
}

const isSame = (a: PlanStep, b: PlanStep): boolean =>
  a.gesture.kind === 'tap' && b.gesture.kind === 'tap' && a.gesture.key === b.gesture.key && a.serves === b.serves && a.purpose === b.purpose;

function effectOf(map: DisplayMap, { purpose, before, after, serves }: PlanStep, last?: PlanStep): string {
  const code = serves === null ? undefined : findCode(map, serves);
  switch (purpose) {
    case 'open':
      return after.kind === 'menu' ? `The menu opens at ${after.label}.` : 'The menu opens.';
    case 'close':
      return 'The menu closes, and the last value is stored.';
    case 'store':
      return `${serves} is stored.`;
    case 'move':
      return code ? `Until ${code.label} shows: ${functionTitle(code.function).toLowerCase()}.` : '';
    case 'change': {
      if (!code || before.kind !== 'menu' || after.kind !== 'menu') return '';
      if (before.raw === after.raw) return `The value of ${code.label} can be changed now.`;
      const end = last?.after.kind === 'menu' ? last.after.raw : after.raw;
      return `${formatRaw(code, before.raw)} becomes ${formatRaw(code, after.raw)}. ${functionTitle(code.function)} is to be ${code.encoding.kind === 'table' ? `${formatRaw(code, end)}, ` : ''}${meaningOf(code, end)}.`;
    }
  }
}
