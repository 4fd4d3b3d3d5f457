import { gaveUp, type GaveUp, type Path } from './cheapest-path.js';
import type { KeyedMap } from '../map/display-map.js';
import type { DisplayState, RawValues } from '../machine/display-state.js';
import { simulateDisplay } from '../machine/simulate-display.js';
import type { KeyPlan, Unreachable } from './key-plan.js';
import type { Pace } from './pace.js';
import type { Move } from './plan-moves.js';
import { searchKeys, type KeySearch } from './search-keys.js';
import { written } from './write-plan.js';

/** Straight for the goal: what is found so is seldom much longer, and never more than so many times as long. */
const HURRY = { weight: 4, mostNodes: 1_200 } as const;
/** For all parts together, so that a plan is there in good time whatever the map. */
const NODES_IN_PARTS = 4_000;

/**
 * A good plan where the search for the cheapest gave up: of all targets at once by a search that goes straight for them,
 * else part by part in the order of the menu, what influences others first. It always ends. What it brings about is
 * right; that it is the cheapest is not claimed, and `atLeastMs` says how short one could be at best.
 * @param atLeastMs what the search that gave up had shown
 */
export function hurriedPlan(
  map: KeyedMap,
  from: DisplayState,
  targets: RawValues,
  pace: Pace,
  atLeastMs: number,
): KeyPlan {
  const found = searchKeys(map, from, targets, pace, HURRY);
  const { path, unreachable } =
    found !== null && !gaveUp(found) ? { path: found, unreachable: [] } : inParts(map, from, targets, pace);
  return { ...written(map, from, path, pace), unreachable, isShortest: false, atLeastMs };
}

interface InParts {
  readonly path: Path<Move>;
  readonly unreachable: readonly Unreachable[];
}

function inParts(map: KeyedMap, from: DisplayState, targets: RawValues, pace: Pace): InParts {
  let state = from;
  let steps: readonly Move[] = [];
  let ms = 0;
  let nodesLeft = NODES_IN_PARTS;
  let done: RawValues = {};
  const unreachable: Unreachable[] = [];
  const search = (wanted: RawValues, end: KeySearch['end']): Path<Move> | null | GaveUp => {
    const mostNodes = Math.max(1, Math.min(HURRY.mostNodes, nodesLeft));
    const found = searchKeys(map, state, wanted, pace, { ...HURRY, mostNodes, ...(end ? { end } : {}) });
    nodesLeft -= found === null || gaveUp(found) ? mostNodes : found.expanded;
    return found;
  };
  const take = (path: Path<Move>): void => {
    steps = [...steps, ...path.steps];
    ms += path.ms;
    state = path.steps.reduce((at, { gesture }) => simulateDisplay(map, at, gesture), state);
  };
  const parts = partsOf(map, from, targets);
  for (let part = parts.shift(); part !== undefined; part = parts.shift()) {
    const wanted = { ...done, ...Object.fromEntries(part.map((label) => [label, targets[label] ?? 0])) };
    const found = search(wanted, 'inTheMenu');
    if (found !== null && !gaveUp(found)) {
      take(found);
      done = wanted;
    } else if (part.length > 1) {
      const half = Math.ceil(part.length / 2);
      parts.unshift(part.slice(0, half), part.slice(half));
    } else
      unreachable.push(
        ...part.map((label) => ({
          label,
          why:
            found === null
              ? `No sequence of keys brings ${label} to ${targets[label] ?? 0} together with the others.`
              : `${label} hangs together with other codes in too many ways to be planned with them: key it by itself.`,
        })),
      );
  }
  const out = search(done, 'outOfTheMenu');
  if (out !== null && !gaveUp(out)) take(out);
  return { path: { steps, ms, expanded: NODES_IN_PARTS - nodesLeft }, unreachable };
}

/** The targets page by page; codes that others of them influence come last, those that influence them first. */
function partsOf(map: KeyedMap, from: DisplayState, targets: RawValues): string[][] {
  const due = (label: string): boolean => targets[label] !== undefined && targets[label] !== from.stored[label];
  const moved = new Set(
    map.codes.flatMap(({ label, influences }) => (due(label) ? (influences ?? []).map(({ code }) => code) : [])),
  );
  const onPages = map.menu.pages.map(({ items }) =>
    items.flatMap((item) => ('code' in item && due(item.code) ? [item.code] : [])),
  );
  const seen = new Set<string>();
  const once = (labels: readonly string[]): string[] =>
    labels.filter((label) => !seen.has(label) && seen.add(label) !== undefined);
  return [
    ...onPages.map((labels) => once(labels.filter((label) => !moved.has(label)))),
    ...onPages.map((labels) => once(labels)),
  ].filter((labels) => labels.length > 0);
}
