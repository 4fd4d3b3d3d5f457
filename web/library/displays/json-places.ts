import { findNodeAtLocation, parseTree, type JSONPath } from 'jsonc-parser';

/** Where a path such as `codes[3].range.min` stands in a JSON text; its nearest parent where it is missing. */
export function placeOf(text: string, path: string): { readonly from: number; readonly to: number } {
  const tree = parseTree(text);
  const steps = stepsOf(path);
  for (let depth = steps.length; tree && depth >= 0; depth--) {
    const node = findNodeAtLocation(tree, steps.slice(0, depth));
    if (node && depth > 0) return { from: node.offset, to: node.offset + node.length };
  }
  return { from: 0, to: Math.min(1, text.length) };
}

/** `codes[3].range.min` as `['codes', 3, 'range', 'min']`; what stands in brackets after a space is words, not a step. */
export const stepsOf = (path: string): JSONPath =>
  path
    .replace(/ \(.*\)$/, '')
    .split(/[.[\]]+/)
    .filter((step) => step !== '')
    .map((step) => (/^\d+$/.test(step) ? Number(step) : step));
