/** Every way to take one field out of a document, or to put one in that does not belong, down to a depth. */
export function* spoilt(value: unknown, depth: number): Generator<unknown> {
  if (depth === 0 || typeof value !== 'object' || value === null) return;
  if (Array.isArray(value)) {
    const [first, ...rest] = value as unknown[];
    for (const one of spoilt(first, depth - 1)) yield [one, ...rest];
    return;
  }
  const entries = Object.entries(value);
  yield { ...value, colour: 'red' };
  for (const [name, inner] of entries) {
    yield Object.fromEntries(entries.filter(([other]) => other !== name));
    yield { ...value, [name]: typeof inner === 'number' ? 'seven' : 7.5 };
    for (const one of spoilt(inner, depth - 1)) yield { ...value, [name]: one };
  }
}
