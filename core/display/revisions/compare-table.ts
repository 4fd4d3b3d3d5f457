import type { Code, DisplayMap } from '../map/display-map.js';
import { codeTitle } from '../map/code-title.js';
import { functionTitle } from '../map/functions.js';
import { rangeWords } from './compare-maps.js';
import { formatRaw } from '../map/raw-value.js';

/** What a maker's table says of a code otherwise than a map does. */
export interface TableDifference {
  readonly label: string;
  /** `onlyInTable`: in the paper, not on the display. `onlyOnDisplay`: the paper does not know it. */
  readonly kind: 'onlyInTable' | 'onlyOnDisplay' | 'differs';
  readonly says: string;
}

/**
 * Holds a map, such as one captured from a live unit, against codes read from a maker's table. Functions count only
 * where both know one; ranges and delivered values always.
 */
export function compareTable(map: DisplayMap, table: readonly Code[]): readonly TableDifference[] {
  const inTable = new Map(table.map((code) => [code.label, code]));
  const onDisplay = new Map(map.codes.map((code) => [code.label, code]));
  const missing = table
    .filter((code) => !onDisplay.has(code.label))
    .map((code): TableDifference => ({
      label: code.label,
      kind: 'onlyInTable',
      says: `${codeTitle(code)}, ${rangeWords(code)}: in the paper, not on the display.`,
    }));
  const others = map.codes.flatMap((code): TableDifference[] => {
    const told = inTable.get(code.label);
    if (!told)
      return code.access === 'absent'
        ? []
        : [
            {
              label: code.label,
              kind: 'onlyOnDisplay',
              says: `${codeTitle(code)}, ${rangeWords(code)}: the paper does not know it.`,
            },
          ];
    const words = differences(code, told);
    return words.length === 0 ? [] : [{ label: code.label, kind: 'differs', says: `${words.join('; ')}.` }];
  });
  return [...others, ...missing];
}

function differences(code: Code, told: Code): string[] {
  const { range } = code;
  const isKnown = told.function !== 'unknown' && code.function !== 'unknown';
  return [
    ...(isKnown && told.function !== code.function
      ? [`the paper calls it ${functionTitle(told.function).toLowerCase()}, the map ${codeTitle(code).toLowerCase()}`]
      : []),
    ...(told.range.min !== range.min || told.range.max !== range.max
      ? [`the paper says ${told.range.min} to ${told.range.max}, the display ${range.min} to ${range.max}`]
      : []),
    ...(told.factory !== code.factory
      ? [`delivered at ${formatRaw(told, told.factory)} by the paper, ${formatRaw(code, code.factory)} as seen`]
      : []),
    ...(told.access === 'open' && code.access === 'locked' ? ['locked, although the paper says it can be set'] : []),
  ];
}
