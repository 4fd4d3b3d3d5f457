import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyChoices, walk } from '../testing/any-visit.js';
import { inputs, pedelec } from '../testing/samples.js';
import { benchOpening, deedsOf, upToKeyIn, type Act } from '../testing/visit-script.js';
import type { Entry } from './evidence.js';
import { foldAll, type Fold } from './fold-visit.js';
import { whyAnew } from './kinds.js';
import { setupAnew, type SetupGround } from './setup-anew.js';
import { numbered, visitAhead, type ReviseSetup, type Unnumbered } from './visit-ahead.js';

const { map, ...asOrdered } = inputs();
const revising = (over: Partial<SetupGround['inputs']>): ReviseSetup => {
  const { order, versions } = benchOpening;
  return (state, why, cause) =>
    setupAnew(state, map, { order, versions, inputs: { ...asOrdered, ...over } }, why, cause);
};
const asBefore = revising({});
/** The class allows less than when the visit was opened. */
const slower = revising({ vehicleClass: { ...pedelec, limit: { value: 20, unit: 'km/h' } } });

const foldOf = (entries: readonly Entry[]): Fold => {
  const folded = foldAll(entries);
  if (!folded.ok) throw new Error(folded.problem.message);
  return folded.value;
};

const unnumbered = ({ seq: _seq, ...entry }: Entry): Unnumbered => entry as Unnumbered;

describe('a visit ahead of the server', () => {
  const upToFound = upToKeyIn.slice(0, -1);
  const known = foldOf(deedsOf(upToFound));
  const more = (acts: readonly Act[]): readonly Unnumbered[] =>
    deedsOf([...upToFound, ...acts])
      .slice(upToFound.length)
      .map(unnumbered);
  const CAP = map.codes.find(({ function: fn }) => fn === 'speedCap')!;
  const CLOSED: Act = ['asFoundClosed', {}];
  const caps = ({ state }: Fold): readonly (number | null)[] =>
    state.opened.setup.targets.filter(({ function: fn }) => fn === 'speedCap').map(({ raw }) => raw);

  it('is worked out anew from what it stands on, as the server does it', () => {
    const ahead = visitAhead(known, more([CLOSED]), slower);
    expect(caps(known)).toEqual([25]);
    expect(ahead && caps(ahead)).toEqual([20]);
    expect(ahead?.state.seq).toBe(known.state.seq + 2);
    expect(ahead?.state.toKey).toContain(CAP.label);
  });

  it('goes on as it is where its setup stays, and where nothing is known to work it out from', () => {
    expect(visitAhead(known, more([CLOSED]), asBefore)?.state.seq).toBe(known.state.seq + 1);
    expect(visitAhead(known, more([CLOSED]), null)?.state.seq).toBe(known.state.seq + 1);
  });

  it('is none where one of those that wait cannot follow', () => {
    const keyed: Act = ['codeKeyed', { label: CAP.label, fromRaw: CAP.factory, raw: 20, presses: 5 }];
    expect(visitAhead(known, more([keyed]), slower)).toBeNull();
    expect(visitAhead(known, more([CLOSED, keyed]), slower)?.state.values[CAP.label]).toBe(20);
  });

  it('is what the server will have, whatever was done, however much of it was taken meanwhile', () => {
    let revised = 0;
    fc.assert(
      fc.property(anyChoices(90, 20), fc.nat(), (choices, cut) => {
        const { deeds } = walk(choices);
        const begun = foldOf(deeds.slice(0, 1));
        const waiting = deeds.slice(1).map(unnumbered);
        // A setup that moved may leave behind what cannot follow: as much as can is compared.
        const runs = [begun];
        for (const each of waiting) {
          const next = visitAhead(runs.at(-1)!, [each], slower);
          if (next === null) break;
          runs.push(next);
        }
        const last = runs.length - 1;
        const at = cut % (last + 1);
        const taken = foldOf(logOf(begun, waiting.slice(0, at)));
        const whole = visitAhead(taken, waiting.slice(at, last), slower);
        expect(whole?.state).toEqual(runs[last]!.state);
        if (!whole) return;
        revised += caps(whole)[0] === 20 ? 1 : 0;
      }),
      { numRuns: 30 },
    );
    expect(revised).toBeGreaterThan(0);
  });

  /** The log of a server that took these, with what it wrote because of them. */
  function logOf({ state: { visitId, opened } }: Fold, waiting: readonly Unnumbered[]): readonly Entry[] {
    let log: Entry[] = deedsOf([['opened', opened]]).map((first) => ({ ...first, visitId }));
    for (const each of waiting) {
      const entry = numbered(foldOf(log), each);
      log = [...log, entry];
      const why = whyAnew(entry);
      const { state } = foldOf(log);
      const data = why === null || state.step === null ? null : slower(state, why, entry.id);
      if (data === null) continue;
      const { at, by, station } = entry;
      log.push({ id: `after ${entry.id}`, visitId, seq: log.length + 1, kind: 'setupRevised', at, by, station, data });
    }
    return log;
  }
});
