import type { Code } from './code.js';
import type { DisplayMap } from './display-map.js';

const variants = new WeakMap<Code, readonly Code[]>();

/** The code as it stands under each of its other ranges, in their order. */
function variantsOf(code: Code): readonly Code[] {
  const before = variants.get(code);
  if (before) return before;
  const all = (code.otherRanges ?? []).map(({ range, decimals, factory }): Code => ({
    ...code,
    range,
    decimals: decimals ?? code.decimals,
    factory: factory ?? code.factory,
  }));
  variants.set(code, all);
  return all;
}

/**
 * A code with the range, step and decimals that it has while the display holds these values: another unit brings others.
 * The code itself where it has no others.
 */
export function codeNow(code: Code, values: Readonly<Record<string, number>>): Code {
  const at = code.otherRanges?.findIndex(({ when }) => when.in.includes(values[when.code] ?? Number.NaN)) ?? -1;
  return at === -1 ? code : (variantsOf(code)[at] ?? code);
}

/** The map while the display holds these values: every code with the range it then has. */
export const mapNow = (map: DisplayMap, values: Readonly<Record<string, number>>): DisplayMap =>
  map.codes.some(({ otherRanges }) => otherRanges !== undefined)
    ? { ...map, codes: map.codes.map((code) => codeNow(code, values)) }
    : map;
