import type { Part } from '../../setup/inputs/parts.js';
import type { Cure, NamedOutcome, ProvingTest, Watch } from '../proving-test.js';

/** What most tests are; each says what it is otherwise. */
const USUAL = {
  at: 'stand',
  pack: 'any',
  first: null,
  cautions: [],
  sampled: 'every',
  isNeverLeftOut: false,
  waitsMin: null,
} as const satisfies Partial<ProvingTest>;

type Said = Pick<ProvingTest, 'id' | 'title' | 'does' | 'watch' | 'cure'> &
  Partial<Omit<ProvingTest, 'proves' | 'leans'>> & {
    readonly labels?: readonly string[];
    readonly clauses?: readonly string[];
    /** Codes that it hangs on beside those it proves. */
    readonly leansOnLabels?: readonly string[];
    readonly parts: readonly Part[];
  };

export const testOf = ({ labels = [], clauses = [], leansOnLabels = [], parts, ...said }: Said): ProvingTest => ({
  ...USUAL,
  ...said,
  proves: { labels, clauses },
  leans: { labels: leansOnLabels.filter((label) => !labels.includes(label)), parts },
});

/** Outcomes in the order in which the screen offers them: less happens first, so that their place tells nothing. */
export const outcomes = (
  right: readonly string[],
  ...all: readonly (readonly [id: string, says: string])[]
): Watch & { readonly kind: 'outcome' } => ({
  kind: 'outcome',
  outcomes: all.map(([id, says]): NamedOutcome => ({ id, says })),
  right,
});

/** Codes are read again after a restart; where they stand as they should and it still does so, it does not obey them. */
export const keyAgain = (labels: readonly string[], says: string): Cure =>
  labels.length > 0
    ? {
        way: 'readAgain',
        labels,
        part: null,
        says: `${says} Restart it and read ${labels.join(' and ')} again. Where the digits are right and it still does so, the vehicle does not obey them: hold it.`,
      }
    : {
        way: 'hold',
        labels: [],
        part: null,
        says: `${says} No code of this display answers for it: hold it for a lead.`,
      };

export const repair = (part: Part, says: string): Cure => ({ way: 'part', labels: [], part, says });

/** Controller, its firmware and the display that orders it about. */
export const ELECTRONICS: readonly Part[] = ['controller', 'firmware', 'display'];
