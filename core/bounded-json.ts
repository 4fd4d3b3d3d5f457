import type { Problem } from './result.js';

/** What any document of ours may be at most, with much to spare. */
const MOST = { deep: 24, values: 200_000, inOne: 5_000 } as const;

/**
 * Whether parsed JSON is of a size that can be read at all: what is nested deeper, or holds more than any document of
 * ours, is refused before anything walks through it.
 * @returns the first thing that is too much, with its path; null where nothing is
 */
export function tooMuch(data: unknown): Problem | null {
  const left: { readonly value: unknown; readonly path: string; readonly deep: number }[] = [
    { value: data, path: '', deep: 0 },
  ];
  let values = 0;
  for (let at = left.pop(); at !== undefined; at = left.pop()) {
    const { value, path, deep } = at;
    if (++values > MOST.values)
      return { code: 'tooMuch', path, message: `This holds more than ${MOST.values} values in all.` };
    if (typeof value !== 'object' || value === null) continue;
    const count = Array.isArray(value) ? value.length : Object.keys(value).length;
    if (count > MOST.inOne)
      return { code: 'tooMuch', path, message: `This has ${count} entries; ${MOST.inOne} are the most.` };
    if (deep === MOST.deep)
      return { code: 'tooDeep', path, message: `This is nested more than ${MOST.deep} levels deep.` };
    for (const [key, each] of Object.entries(value))
      left.push({
        value: each,
        path: Array.isArray(value) ? `${path}[${key}]` : path === '' ? key : `${path}.${key}`,
        deep: deep + 1,
      });
  }
  return null;
}
