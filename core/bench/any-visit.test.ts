import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyChoices, deedOf, likelyActs, walk } from '../testing/any-visit.js';
import { benchOpening, opening, TEO } from '../testing/visit-script.js';
import { decide, offers } from './decide.js';
import type { Entry } from './evidence.js';
import { foldAll, foldVisit, resume } from './fold-visit.js';
import { EVIDENCE_KINDS } from './kinds.js';
import { lastShown } from './last-shown.js';
import type { VisitState } from './visit-state.js';

/** What every entry leaves, whether it counts or was taken back. */
const withoutWriter = (whole: VisitState): Partial<VisitState> =>
  Object.fromEntries(Object.entries(whole).filter(([key]) => !WRITERS.has(key)));
const WRITERS = new Set(['seq', 'lastAt', 'lastBy', 'lastStation', 'mayUndo', 'stand']);
const state = (deeds: readonly Entry[]): VisitState => {
  const fold = foldVisit(deeds);
  if (!fold.ok) throw new Error(fold.problem.message);
  return fold.value;
};

/** The entries that count, numbered anew: none that was taken back, and no taking back. */
function counted(deeds: readonly Entry[]): Entry[] {
  const live: Entry[] = [];
  for (const deed of deeds) {
    if (deed.kind === 'undone') live.pop();
    else live.push(deed);
  }
  return live.map((deed, i) => ({ ...deed, seq: i + 1 }));
}

describe('a visit that people worked on at random', () => {
  it('is one state, whether folded at once, entry by entry, or without what was taken back', () => {
    fc.assert(
      fc.property(anyChoices(), fc.boolean(), (choices, old) => {
        const { deeds, fold } = walk(choices, old ? opening : benchOpening);
        expect(state(deeds)).toEqual(fold.state);
        expect(withoutWriter(state(counted(deeds)))).toEqual(withoutWriter(fold.state));
      }),
      { numRuns: 150 },
    );
  });

  it('is plain JSON', () => {
    fc.assert(
      fc.property(anyChoices(), (choices) => {
        const { fold } = walk(choices);
        expect(JSON.parse(JSON.stringify(fold.state))).toEqual(fold.state);
      }),
      { numRuns: 60 },
    );
  });

  it('is offered what it takes: nothing that was taken had been withheld, whatever it said', () => {
    fc.assert(
      fc.property(anyChoices(), (choices) => {
        const { deeds } = walk(choices);
        const first = foldAll(deeds.slice(0, 1));
        if (!first.ok) throw new Error('no visit');
        let fold = first.value;
        for (const deed of deeds.slice(1)) {
          expect(offers(fold.state, deed.kind, deed)).toBeNull();
          fold = resume(fold, deed);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('refuses in words, by one of the kinds there are, and stays as it is', () => {
    fc.assert(
      fc.property(anyChoices(), (choices) => {
        for (const { deed, at } of walk(choices).refused) {
          const why = decide(at, deed);
          expect(why?.message.length).toBeGreaterThan(5);
          if (offers(at, deed.kind, deed) !== null) expect(why).not.toBeNull();
        }
      }),
      { numRuns: 40 },
    );
  });

  it('left what was read of it last, in whatever round', () => {
    let sealed = 0;
    fc.assert(
      fc.property(anyChoices(93, 60), (choices) => {
        const { deeds, fold } = walk(choices);
        if (fold.state.step !== null || fold.state.withdrawn !== null) return;
        sealed++;
        const newest = new Map<string, number | null>();
        for (const deed of counted(deeds)) if (deed.kind === 'codeRead') newest.set(deed.data.label, deed.data.raw);
        const left = [...newest].filter(([, raw]) => raw !== null);
        expect(lastShown(fold.state)).toEqual(Object.fromEntries(left));
      }),
      { numRuns: 150, seed: 11 },
    );
    expect(sealed).toBeGreaterThan(10);
  });
});

describe('a log that no rule of today would have taken', () => {
  it('is read all the same: the fold takes what happened', () => {
    const { state: at } = walk([]).fold;
    const kinds = likelyActs(at);
    fc.assert(
      fc.property(fc.array(fc.nat(kinds.length - 1), { maxLength: 60 }), (which) => {
        const deeds = which.map((i, n) => deedOf(kinds[i]!, n + 2, TEO, n % 3 === 0 ? 'bay 2' : 'bay 1'));
        const outcome = foldVisit([deedOf(['opened', benchOpening], 1, TEO, 'bay 1'), ...deeds]);
        expect(outcome.ok && outcome.value.seq).toBe(deeds.length + 1);
      }),
      { numRuns: 150 },
    );
  });

  it('is refused where it is no visit', () => {
    const [first, second] = walk([{ which: 0, how: 'straight', station: 'bay 1', lead: false }]).deeds;
    const code = (deeds: readonly (Entry | undefined)[]) => {
      const outcome = foldVisit(deeds as Entry[]);
      return outcome.ok ? null : outcome.problem.code;
    };
    expect(code([])).toBe('empty');
    expect(code([second])).toBe('notOpened');
    expect(code([first, { ...second!, seq: 3 }])).toBe('outOfSequence');
    expect(code([first, { ...second!, visitId: 'v-2' }])).toBe('otherVisit');
    expect(code([first, { ...second!, kind: 'toString' } as unknown as Entry])).toBe('unknownKind');
  });
});

describe('the table of kinds', () => {
  it('lets no decision be taken back, and nothing of the server be held up', () => {
    const facts = Object.entries(EVIDENCE_KINDS);
    expect(facts.filter(([, kind]) => kind.from === 'anywhere' && kind.mayBeUndone === true)).toEqual([]);
    expect(facts.filter(([, kind]) => kind.writtenBy === 'server' && kind.mayBeUndone === true)).toEqual([]);
    expect(facts.filter(([, kind]) => kind.handsOn && kind.passesHold)).toEqual([]);
  });
});
