import { cheapestPath, gaveUp, type GaveUp, type Path } from './cheapest-path.js';
import { isKeyed, type DisplayMap, type KeyedMap } from '../map/display-map.js';
import { codeOf, codeShown, isListed, type DisplayState } from '../machine/display-state.js';
import type { KeyPlan, PlanStart, Unreachable } from './key-plan.js';
import { DEFAULT_PACE, type Pace } from './pace.js';
import { startState } from './plan-keys.js';
import { written } from './write-plan.js';
import { moves, type Move } from './plan-moves.js';
import { simulateDisplay } from '../machine/simulate-display.js';
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
  if (!isKeyed(map))
    return { steps: [], estimatedMs: 0, longestGapMs: 0, unreachable: [], isShortest: true, atLeastMs: 0 };
  const { readable, unreachable } = sorted(map, from, labels);
  const cheapest = searchReading(map, from, readable, pace, { mostNodes: MOST_NODES });
  const { path, atLeastMs } = gaveUp(cheapest)
    ? { path: pageByPage(map, from, readable, pace), atLeastMs: cheapest.atLeastMs }
    : { path: cheapest, atLeastMs: cheapest?.ms ?? 0 };
  if (path === null)
    return {
      steps: [],
      estimatedMs: 0,
      longestGapMs: 0,
      unreachable: readable.map((label) => ({ label, why: `No sequence of keys shows ${label}.` })),
      isShortest: true,
      atLeastMs: 0,
    };
  const plan = reading(written(map, from, path, pace), new Set(readable));
  return { ...plan, unreachable, isShortest: !gaveUp(cheapest), atLeastMs };
}

/** Nodes looked at before the search for the very quickest reading gives up. */
const MOST_NODES = 4_000;
const HURRY = { weight: 4, mostNodes: 1_500 } as const;

interface ReadingSearch {
  readonly end?: 'outOfTheMenu' | 'anywhere';
  readonly weight?: number;
  readonly mostNodes: number;
}

/** Presses that have each of these codes on the glass once; null where none do. */
export function searchReading(
  map: KeyedMap,
  from: DisplayState,
  labels: readonly string[],
  pace: Pace,
  { end = 'outOfTheMenu', weight = 1, mostNodes }: ReadingSearch,
): Path<Move> | null | GaveUp {
  const bit = new Map(labels.map((label, i) => [label, 1n << BigInt(i)]));
  const all = (1n << BigInt(labels.length)) - 1n;
  const seeing = (state: DisplayState, seen: bigint): bigint =>
    seen | (bit.get(codeShown(map, state)?.label ?? '') ?? 0n);
  const codes = labels.map((label) => codeOf(map, label));
  const travelMs = travelBound(map, pace, codes, false);
  return cheapestPath<Node, Move>({
    start: { state: from, seen: seeing(from, 0n) },
    isGoal: ({ state, seen }) => seen === all && (end === 'anywhere' || state.screen.kind === 'riding'),
    edges: ({ state, seen }) =>
      moves(map, state, (at) => seeing(at, seen) !== seen, pace).map(({ to, ms, steps }) => ({
        to: { state: to, seen: seeing(to, seen) },
        ms,
        steps,
      })),
    atLeast: ({ state, seen }) =>
      weight *
      travelMs(
        state,
        codes.filter((_, i) => (seen & (1n << BigInt(i))) === 0n),
      ),
    key: ({ state: { screen, mode, resume }, seen }) => `${JSON.stringify([screen, mode, resume])}${seen}`,
    mostNodes,
  });
}

/** Every page in the order of the menu, then out: right, and not claimed to be the quickest. Null where some code never shows. */
function pageByPage(map: KeyedMap, from: DisplayState, labels: readonly string[], pace: Pace): Path<Move> | null {
  const hurried = searchReading(map, from, labels, pace, HURRY);
  if (hurried === null || !gaveUp(hurried)) return hurried;
  const onPages = map.menu.pages
    .map(({ items }) => items.flatMap((item) => ('code' in item && labels.includes(item.code) ? [item.code] : [])))
    .filter((codes) => codes.length > 0);
  let state = from;
  const steps: Move[] = [];
  let ms = 0;
  for (const [i, codes] of [...onPages, []].entries()) {
    const end = i < onPages.length ? 'anywhere' : 'outOfTheMenu';
    const path = searchReading(map, state, codes, pace, { ...HURRY, end });
    if (path === null || gaveUp(path)) return null;
    steps.push(...path.steps);
    ms += path.ms;
    state = path.steps.reduce((at, { gesture }) => simulateDisplay(map, at, gesture), state);
  }
  return { steps, ms, expanded: 0 };
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
  const shown = [...new Set(readable)];
  return { readable: shown, unreachable: unreachable.filter(({ label }) => !shown.includes(label)) };
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
