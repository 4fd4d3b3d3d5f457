import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyMap } from '../../testing/any-map.js';
import { demoMap } from '../../testing/demo-maps.js';
import { cheapestReadingByTryingAll } from '../../testing/exhaustive-search.js';
import { code, fourKey, threeKey, withCodes } from '../../testing/samples.js';
import { planReadout } from './plan-readout.js';
import { displayAtRest, simulateDisplay } from '../machine/simulate-display.js';

const closed = { values: {}, at: null };
const cheap = { tapMs: 300, holdExtraMs: 200, lookMs: 500 };
const shownIn = (plan: ReturnType<typeof planReadout>) =>
  plan.steps.flatMap(({ after }) => (after.kind === 'menu' ? [after.label] : []));

describe('a read-out', () => {
  it('shows every code once in the order of the menu, and leaves', () => {
    const plan = planReadout(fourKey, closed);
    expect(shownIn(plan)).toEqual(['L1', 'L2', 'L3', 'L4', 'L5']);
    expect(plan.steps.map((step) => step.serves)).toEqual(['L1', 'L2', 'L3', 'L4', 'L5', null]);
    expect(plan.steps.every((step) => step.stores.length === 0)).toBe(true);
  });

  it('needs no closing where the list closes behind its last code', () => {
    expect(planReadout(threeKey, closed, cheap).steps.at(-1)).toMatchObject({
      gesture: { kind: 'tap', key: 'up' },
      after: { kind: 'riding' },
    });
  });

  it('reads a sample only, where that is enough', () => {
    expect(planReadout(fourKey, closed, cheap, ['L2']).steps.map((step) => step.serves)).toEqual(['L2', 'L2', null]);
  });

  it('names what is hidden now, and what stands on a page nobody enters', () => {
    const map = withCodes(fourKey, [
      code('A', 'unknown', {}),
      code('B', 'unknown', { shownIf: { code: 'A', in: [6] } }),
    ]);
    expect(planReadout(map, closed).unreachable).toEqual([
      { label: 'B', why: 'B is not shown with the values the display has now.' },
    ]);
    expect(planReadout(map, { values: { A: 6 }, at: null }).unreachable).toEqual([]);
    expect(planReadout(demoMap('sorrel-two-list'), closed).unreachable.map((u) => u.label)).toEqual(['M1', 'M2']);
  });

  it('of a unit set by instruction has no keys', () => {
    expect(planReadout(demoMap('teasel-link'), closed).steps).toEqual([]);
  });
});

it('no cheaper read-out exists in the simulator, and none changes a value', () => {
  fc.assert(
    fc.property(anyMap({ codes: 4, values: 2 }), (map) => {
      const plan = planReadout(map, closed, cheap);
      const from = displayAtRest(map);
      const end = plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), from);
      expect(end.stored).toEqual(from.stored);
      const left = new Set(plan.unreachable.map((u) => u.label));
      const labels = map.codes.map((c) => c.label).filter((label) => !left.has(label));
      const best = cheapestReadingByTryingAll(map, from, labels, cheap);
      if (best === null) expect(labels).toEqual([]);
      else expect(plan.estimatedMs).toBeCloseTo(best, 6);
    }),
    { numRuns: 60, seed: 31 },
  );
});
