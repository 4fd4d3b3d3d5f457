import { findCode, codeTitle, meaningOf, formatRaw, type DisplayMap, type KeyPlan } from '@decurio/core';
import { capital } from '../../ui/capital.js';
import { pressWords } from './press-words.js';

export interface CodePresses {
  /** Index of the last press of this code. */
  readonly to: number;
  readonly title: string;
  /** Presses that belong together, in order: `hold set and + for 2 s`, `press + 3 times`. */
  readonly orders: readonly string[];
  /** What the glass shows at the end, as `L4.1 at 24`; null where the menu is left. */
  readonly ends: string | null;
}

/** The same, to be said aloud. */
export const codeSays = ({ title, orders, ends }: CodePresses): string =>
  [title, ...orders, ends ?? ''].filter((part) => part !== '').join('. ');

/** All presses from here that serve the same code, those alike taken together. */
export function codePresses(map: DisplayMap, plan: KeyPlan, from: number): CodePresses {
  const serves = plan.steps[from]?.serves ?? null;
  let to = from;
  while (to + 1 < plan.steps.length && plan.steps[to + 1]?.serves === serves) to++;
  // Leaving the menu is no code of its own: it ends the last one.
  if (serves !== null && plan.steps.slice(to + 1).every((step) => step.serves === null)) to = plan.steps.length - 1;
  const orders: string[] = [];
  for (let i = from; i <= to; i++) {
    const { order } = pressWords(map, plan, i);
    const isRepeat = /(more times|once more)$/.test(order) && i > from;
    if (!isRepeat) orders.push(order);
  }
  const code = serves === null ? undefined : findCode(map, serves);
  const glass = plan.steps
    .slice(from, to + 1)
    .map(({ after }) => after)
    .findLast((after) => after.kind === 'menu' && after.label === serves);
  const target = glass?.kind === 'menu' ? glass.raw : undefined;
  return {
    to,
    title: code ? `${code.label}, ${codeTitle(code).toLowerCase()}` : 'Leave the menu',
    orders: orders.map(capital),
    ends:
      code && target !== undefined ? `${code.label} at ${formatRaw(code, target)}: ${meaningOf(code, target)}` : null,
  };
}
