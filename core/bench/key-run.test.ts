import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMap } from '../testing/demo-maps.js';
import { fourKey } from '../testing/samples.js';
import { benchOpened, checkedIn, foundAsDelivered, madeSafe, setup, stateAfter } from '../testing/visit-script.js';
import { isKeyed, type DisplayMap } from '../display/map/display-map.js';
import { displayAtRest, idleLimit, simulateDisplay } from '../display/machine/simulate-display.js';
import { planKeys } from '../display/plan/plan-keys.js';
import { firstRun, stepKeyRun, targetsOf, type KeyRun, type KeyRunEvent } from './key-run.js';

const state = stateAfter([benchOpened, checkedIn, madeSafe, ...foundAsDelivered, ['asFoundClosed', {}]]);
const context = (run: KeyRun, map: DisplayMap = fourKey, oneCode = false) => ({
  map,
  plan: planKeys(map, targetsOf(run.labels, setup), run.start),
  state,
  oneCode,
});
const step = (run: KeyRun, event: KeyRunEvent, map?: DisplayMap) => stepKeyRun(run, event, context(run, map));
const begin = firstRun(state, false);

describe('a round of key-in', () => {
  it('writes each code as it is stored, with its presses, and is through at the end', () => {
    const { plan } = context(begin);
    const { entries, isThrough, run } = step(begin, { kind: 'done', through: plan.steps.length - 1 });
    expect(entries.map(({ kind, data }) => [kind, data.label, data.raw])).toEqual([
      ['codeKeyed', 'L1', 11],
      ['codeKeyed', 'L2', 25],
      ['codeKeyed', 'L3', 31],
      ['codeKeyed', 'L5', 12],
    ]);
    expect(entries.every((entry) => entry.kind === 'codeKeyed' && entry.data.presses > 0)).toBe(true);
    expect([isThrough, run.index]).toEqual([true, plan.steps.length]);
  });

  it('goes on with the next code where one is keyed at a time', () => {
    const one = firstRun(state, true);
    expect(one.labels).toEqual(['L1']);
    const { plan } = context(one, fourKey, true);
    const next = stepKeyRun(one, { kind: 'done', through: plan.steps.length - 1 }, context(one, fourKey, true));
    expect([next.run.labels, next.run.index, next.run.start.values['L1']]).toEqual([['L2'], 0, 11]);
  });

  it('is planned anew from what the glass really shows', () => {
    const met = step(begin, { kind: 'showsElse', label: 'L2', raw: 28 });
    expect(met.entries).toEqual([{ kind: 'codeSeen', data: { label: 'L2', raw: 28 } }]);
    expect(met.run).toMatchObject({
      labels: ['L1', 'L3', 'L5', 'L2'],
      start: { at: 'L2', values: { L2: 28 } },
      index: 0,
    });
    // At its target already, on the glass at least: it is seen into store all the same.
    const there = step(begin, { kind: 'showsElse', label: 'L2', raw: 25 });
    expect(there.run).toMatchObject({ labels: ['L1', 'L3', 'L5', 'L2'], start: { at: 'L2', shown: 25 } });
  });

  it('leaves out a code that keys do not move, and says so once', () => {
    const stuck = step(begin, { kind: 'doesNotChange', label: 'L2', raw: 30 });
    expect(stuck.entries).toEqual([{ kind: 'codeStuck', data: { label: 'L2', raw: 30 } }]);
    expect(stuck.run.labels).toEqual(['L1', 'L3', 'L5']);
    const other = step(begin, { kind: 'doesNotChange', label: 'L4', raw: 31 });
    expect(other.entries).toEqual([]);
  });
});

describe('where the menu closed by itself', () => {
  it.each(['burdock-digit', 'tallow-four-key', 'dunlin-a', 'quill-two-key', 'sorrel-two-list', 'fescue-three-key'])(
    '%s holds what the simulator says it holds, wherever in the plan it was',
    (id) => {
      const map = demoMap(id);
      if (!isKeyed(map)) throw new Error('set by keys');
      const targets = Object.fromEntries(
        map.codes
          .filter(({ access }) => access === 'open')
          .slice(0, 4)
          .map((code) => [code.label, code.range.max]),
      );
      const plan = planKeys(map, targets, { values: {}, at: null });
      fc.assert(
        fc.property(fc.nat(Math.max(0, plan.steps.length - 1)), (index) => {
          const run: KeyRun = { labels: Object.keys(targets), start: { values: {}, at: null }, index };
          const from = displayAtRest(map);
          const there = plan.steps.slice(0, index).reduce((at, { gesture }) => simulateDisplay(map, at, gesture), from);
          const ms = idleLimit(map, there);
          const closed = Number.isFinite(ms) ? simulateDisplay(map, there, { kind: 'wait', ms }) : there;
          const { values } = stepKeyRun(run, { kind: 'menuClosed' }, { map, plan, state, oneCode: false }).run.start;
          expect({ ...from.stored, ...values }).toEqual(closed.stored);
        }),
        { numRuns: 30 },
      );
    },
  );
});
