import type { Problem } from './result.js';

/** What a figure must be to be counted with. */
export type FigureRule = 'aboveZero' | 'notBelowZero' | 'whole';

const RULES: Readonly<Record<FigureRule, readonly [holds: (value: number) => boolean, says: string]>> = {
  aboveZero: [(value) => value > 0, 'a number above zero'],
  notBelowZero: [(value) => value >= 0, 'a number not below zero'],
  whole: [(value) => Number.isInteger(value) && value > 0, 'a whole number above zero'],
};

/**
 * The guard at the front door of a computation: the first figure that is none of its kind, and what it must be; null
 * where all may be counted with. NaN and what has no end are never figures.
 * @param figures  by the name that a person knows each by
 * @example
 * badFigure({ 'The pack': [NaN, 'aboveZero'] })?.message; // 'The pack is NaN: it must be a number above zero.'
 */
export function badFigure(
  figures: Readonly<Record<string, readonly [value: number, rule: FigureRule]>>,
): Problem | null {
  for (const [name, [value, rule]] of Object.entries(figures)) {
    const [holds, says] = RULES[rule];
    if (typeof value !== 'number' || !Number.isFinite(value) || !holds(value))
      return { code: 'noFigure', message: `${name} is ${String(value)}: it must be ${says}.` };
  }
  return null;
}
