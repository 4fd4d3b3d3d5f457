/** A thing of named fields, as JSON has it. */
export type Fields = Record<string, unknown>;

export const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The same with some of its fields changed, those that are there. */
export const changed = (value: Fields, names: readonly string[], change: (own: unknown) => unknown): Fields =>
  Object.fromEntries(Object.entries(value).map(([name, own]) => [name, names.includes(name) ? change(own) : own]));

/** Whether two values are the same JSON, whatever the order of their fields. */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((one, i) => isSame(one, b[i]));
  if (!isFields(a) || !isFields(b)) return false;
  const names = Object.keys(a);
  return names.length === Object.keys(b).length && names.every((name) => name in b && isSame(a[name], b[name]));
}
