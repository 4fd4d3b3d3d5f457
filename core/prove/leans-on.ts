import type { Part } from '../setup/inputs/parts.js';
import type { ProvingTest } from './proving-test.js';

/** What was changed on a vehicle. */
export interface Change {
  /** Codes that were keyed to another value. */
  readonly labels?: readonly string[];
  readonly parts?: readonly Part[];
}

type Leaning = Pick<ProvingTest, 'id' | 'proves' | 'leans'>;

/** Every code that a test binds to, once, in a fixed order. */
export const boundLabels = ({ proves, leans }: Leaning): readonly string[] =>
  [...new Set([...proves.labels, ...leans.labels])].sort();

/** Ids of the tests that a change voids: exactly those that lean on it. */
export const leansOn = (tests: readonly Leaning[], { labels = [], parts = [] }: Change): readonly string[] =>
  tests
    .filter(
      (test) =>
        boundLabels(test).some((label) => labels.includes(label)) ||
        test.leans.parts.some((part) => parts.includes(part)),
    )
    .map(({ id }) => id);

/** What a test is bound to as the vehicle stands: its codes with the value shown, and how often each part was changed. */
export interface Standing {
  readonly shows: (label: string) => number | null;
  /** How often a part was replaced or mended. */
  readonly changes: (part: Part) => number;
  /** How often the test was begun anew. */
  readonly tries: (test: string) => number;
}

/** A proof stands as long as this is what it was when it was made. */
export const bondOf = (test: Leaning, { shows, changes, tries }: Standing): string =>
  JSON.stringify([
    boundLabels(test).map((label) => [label, shows(label)]),
    test.leans.parts.map((part) => changes(part)),
    tries(test.id),
  ]);
