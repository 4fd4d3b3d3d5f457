import { PLACES, type ProvingTest } from './proving-test.js';

type SetUp = Pick<ProvingTest, 'at' | 'pack' | 'waitsMin'>;

/**
 * Set-ups in the order they are gone through: wheel up, standing, where it is ridden, then what needs a full pack, and
 * last what it is left alone for, so that it can stand aside meanwhile.
 */
function setUpRank({ at, pack, waitsMin }: SetUp): number {
  if (waitsMin !== null) return 5;
  if (pack === 'full') return at === 'yard' ? 4 : 3;
  return { stand: 0, rest: 1, yard: 2 }[at];
}

/** Whether two tests want it standing alike. */
export const isSameSetUp = (a: SetUp, b: SetUp): boolean => setUpRank(a) === setUpRank(b);

/** What a set-up is called. */
export function setUpTitle({ at, pack, waitsMin }: SetUp): string {
  if (waitsMin !== null) return 'Left alone';
  return pack === 'full' ? `${PLACES[at]}, full pack` : PLACES[at];
}

/** How often a unit is set up anew while these tests are made in this order; the first time counts. */
export const setUpsOf = (tests: readonly SetUp[]): number =>
  tests.filter((test, i) => {
    const before = tests[i - 1];
    return before === undefined || !isSameSetUp(before, test);
  }).length;

/** The same tests with as few set-ups as there can be: each once. Within one they keep their order. */
export const orderProofs = <T extends SetUp>(tests: readonly T[]): readonly T[] =>
  [...tests].sort((a, b) => setUpRank(a) - setUpRank(b));
