import { cheapestPath } from './cheapest-path.js';
import { isKeyed, type DisplayMap, type KeyedMap } from '../map/display-map.js';
import { codeOf, codeShown, isListed, type DisplayState } from '../machine/display-state.js';
import type { KeyPlan, PlanStart, Unreachable } from './key-plan.js';
import { DEFAULT_PACE, type Pace } from './pace.js';
import { startState, written } from './plan-keys.js';
import { moves, type Move } from './plan-moves.js';
import { travelBound } from './travel-bound.js';

/** A display state together with the codes that have been on the glass. */
interface Node {
  readonly state: DisplayState;
  readonly seen: bigint;
}

/**
 * The quickest way to have every readable code on the glass once, changing nothing, and leave the menu. Pages that are
 * never entered are left out, and so are codes that the present values hide; both are named with the reason. Each step
 * that brings a code not read before serves that code.
 *
 * @param labels only these codes, where a sample is enough
 */
export function planReadout(
  map: DisplayMap,
  start: PlanStart,
  pace: Pace = DEFAULT_PACE,
  labels?: readonly string[],
): KeyPlan {
  const from = startState(map, start);
  if (!isKeyed(map)) return { steps: [], estimatedMs: 0, longestGapMs: 0, unreachable: [], isShortest: true };
  const { readable, unreachable } = sorted(map, from, labels);
  const bit = new Map(readable.map((label, i) => [label, 1n << BigInt(i)]));
  const all = (1n << BigInt(readable.length)) - 1n;
  const seeing = (state: DisplayState, seen: bigint): bigint =>
    seen | (bit.get(codeShown(map, state)?.label ?? '') ?? 0n);
  const codes = readable.map((label) => codeOf(map, label));
  const travelMs = travelBound(map, pace);
  const path = cheapestPath<Node, Move>({
    start: { state: from, seen: seeing(from, 0n) },
    isGoal: ({ state, seen }) => state.screen.kind === 'riding' && seen === all,
    edges: ({ state, seen }) =>
      moves(map, state, (at) => seeing(at, seen) !== seen, pace).map(({ to, ms, steps }) => ({
        to: { state: to, seen: seeing(to, seen) },
        ms,
        steps,
      })),
    atLeast: ({ state, seen }) =>
      travelMs(
        state,
        codes.filter((_, i) => (seen & (1n << BigInt(i))) === 0n),
      ),
    key: ({ state: { screen, mode, resume }, seen }) => `${JSON.stringify([screen, mode, resume])}${seen}`,
  });
  if (!path || path === 'tooMany')
    return {
      steps: [],
      estimatedMs: 0,
      longestGapMs: 0,
      unreachable: readable.map((label) => ({ label, why: `No sequence of keys shows ${label}.` })),
      isShortest: true,
    };
  return { ...reading(written(map, from, path, pace), new Set(readable)), unreachable };
}

function sorted(
  map: KeyedMap,
  from: DisplayState,
  labels: readonly string[] | undefined,
): { readable: string[]; unreachable: Unreachable[] } {
  const readable: string[] = [];
  const unreachable: Unreachable[] = [];
  for (const page of map.menu.pages) {
    for (const item of page.items) {
      if (!('code' in item) || labels?.includes(item.code) === false) continue;
      if (page.neverEnter !== undefined)
        unreachable.push({
          label: item.code,
          why: `${item.code} stands on ${page.title}, which is not entered: ${page.neverEnter}`,
        });
      else if (!isListed(map, from, item))
        unreachable.push({ label: item.code, why: `${item.code} is not shown with the values the display has now.` });
      else readable.push(item.code);
    }
  }
  return { readable, unreachable };
}

/** Each step serves the code that it leads to next. */
function reading(plan: KeyPlan, wanted: ReadonlySet<string>): KeyPlan {
  const unread = new Set(wanted);
  const firsts = plan.steps.map(({ after }) =>
    after.kind === 'menu' && unread.delete(after.label) ? after.label : null,
  );
  let serves: string | null = null;
  const steps = [...plan.steps.keys()].reverse().map((i) => {
    serves = firsts[i] ?? serves;
    const step = plan.steps[i] as KeyPlan['steps'][number];
    return { ...step, serves: step.purpose === 'close' ? null : serves };
  });
  return { ...plan, steps: steps.reverse() };
}
