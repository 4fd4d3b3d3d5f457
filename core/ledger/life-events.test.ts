import { describe, expect, it } from 'vitest';
import type { Evidence } from '../bench/evidence.js';
import { foldVisit } from '../bench/fold-visit.js';
import { chainHandover, type HandoverEntry, type HandoverEntryOf } from '../handover/handover.js';
import { fourKey } from '../testing/samples.js';
import { cleanVisit, deedsOf, TEO, type Act } from '../testing/visit-script.js';
import { lifeEvents } from './life-events.js';
import { CHAIN_START, sealEvidence } from './seal.js';
import { unitStates } from './unit-state.js';

function chain(acts: readonly Act[]): readonly Evidence[] {
  const entries: Evidence[] = [];
  for (const deed of deedsOf(acts)) entries.push(sealEvidence(deed, entries.at(-1)?.hash ?? CHAIN_START));
  return entries;
}

const sealed = chain(cleanVisit);
const state = (evidence: readonly Evidence[]) => {
  const fold = foldVisit(evidence);
  if (!fold.ok) throw new Error(fold.problem.message);
  return fold.value;
};

type Said = { [K in HandoverEntry['kind']]: readonly [K, HandoverEntryOf<K>['data']] }[HandoverEntry['kind']];
function afterwards(...said: readonly Said[]): readonly HandoverEntry[] {
  const entries: HandoverEntry[] = [];
  for (const [i, [kind, data]] of said.entries()) {
    const at = new Date(Date.UTC(2026, 11, 1 + i)).toISOString();
    const bare = { id: `h-${i}`, visitId: 'v-1', seq: i + 1, kind, at, by: TEO, data } as HandoverEntry;
    entries.push(chainHandover(bare, entries.at(-1)?.hash ?? sealed.at(-1)?.hash ?? ''));
  }
  return entries;
}
const out: Said = ['unsigned', { name: 'R. Maddock', words: 'by courier' }];
const back = (values: Readonly<Record<string, number | null>>): Said => [
  'cameBack',
  { values, asksPin: false, errors: ['E4'], says: 'Do not send it out: speed cap moved.' },
];

describe('what is told of a visit a year later', () => {
  it('is what was of note, and neither each code nor each look', () => {
    const events = lifeEvents(sealed, []);
    expect(events.map(({ kind }) => kind)).toEqual(['begun', 'begun', 'sealed']);
    expect(events[0]?.says).toBe('Begun for Sample, order 1.');
    expect(events[1]?.says).toBe('Checked in at 3 km.');
  });

  it('leaves out what was taken back', () => {
    const part: Act = [
      'partReplaced',
      { part: 'tyre', words: 'worn', oldOdometerKm: null, newOdometerKm: null, packV: null },
    ];
    const acts = [...cleanVisit.slice(0, 2), part, ...cleanVisit.slice(2)];
    expect(lifeEvents(chain(acts), []).map(({ says }) => says)).toContain('Tyre replaced: worn');
    const undone: Act = ['undone', { voids: 'e-3' }];
    const taken = [...cleanVisit.slice(0, 2), part, undone, ...cleanVisit.slice(2)];
    expect(lifeEvents(chain(taken), []).map(({ says }) => says)).not.toContain('Tyre replaced: worn');
  });

  it('goes on with where it went and how it came back', () => {
    const events = lifeEvents(sealed, afterwards(out, back({})));
    expect(events.slice(-2).map(({ kind, says }) => [kind, says])).toEqual([
      ['out', 'Handed over to R. Maddock without a signature: by courier'],
      ['back', 'Came back: Do not send it out: speed cap moved.'],
    ]);
  });
});

describe('the states of a unit', () => {
  const states = (handover: readonly HandoverEntry[] = []) => unitStates(sealed, state(sealed), handover, fourKey);

  it('are as it left, and each time it came back', () => {
    const both = states(afterwards(out, back({ L2: 32 }), ['packTaken', { packV: 40 }], out, back({ L2: null })));
    expect(both.map(({ key }) => key)).toEqual(['left', 'back-1', 'back-2']);
    const [left, first, second] = both;
    expect(left?.values['L2']).toBe(25);
    expect(first?.values).toEqual({ ...left?.values, L2: 32 });
    expect(second?.values['L2']).toBeUndefined();
    expect(first).toMatchObject({ asksPin: false, errors: ['E4'], proofs: [], ratio: null });
  });

  it('are none as it left while it is not signed off', () => {
    const open = chain(cleanVisit.slice(0, -1));
    expect(unitStates(open, state(open), [], fourKey)).toEqual([]);
  });
});
