import { expect, it } from 'vitest';
import { demoMaps } from '../../testing/demo-maps.js';
import { vocabularyOf } from './vocabulary.js';

it('holds every word of the maps that ship, where a function has words of its own', () => {
  const strange = demoMaps().flatMap(({ id, codes }) =>
    codes.flatMap(({ label, function: what, encoding }) => {
      const halves =
        encoding.kind === 'table'
          ? [{ function: what, entries: encoding.entries }]
          : encoding.kind === 'pair'
            ? [encoding.first, encoding.second]
            : [];
      return halves.flatMap((half) => {
        const known = vocabularyOf(half.function);
        return known.length === 0
          ? []
          : half.entries.filter(({ value }) => !known.includes(value)).map(({ value }) => `${id} ${label}: ${value}`);
      });
    }),
  );
  expect(strange).toEqual([]);
  expect(vocabularyOf('constructor')).toEqual([]);
});
