import { gaveUp } from './cheapest-path.js';
import { isKeyed, type Code, type DisplayMap, type KeyedMap } from '../map/display-map.js';
import { storeOne } from '../machine/store-values.js';
import { storesAtOnce } from '../map/edit-rules.js';
import { codeOf, displayAtCode, displayAtRest, type DisplayState, type RawValues } from '../machine/display-state.js';
import type { KeyPlan, PlanStart, Unreachable } from './key-plan.js';
import { DEFAULT_PACE, type Pace } from './pace.js';
import { simulateDisplay } from '../machine/simulate-display.js';
import { hurriedPlan } from './hurried-plan.js';
import { searchKeys } from './search-keys.js';
import { sparedByOrder, sparedByPlace, type Due } from './edit-bound.js';
import { outOfReach } from './unreachable.js';
import { keepsClear, written } from './write-plan.js';

export { DEFAULT_PACE, type Pace } from './pace.js';
export { IDLE_MARGIN } from './write-plan.js';
export {
  pressCount,
  type KeyPlan,
  type PlanGesture,
  type PlanStart,
  type PlanStep,
  type StepPurpose,
  type Unreachable,
} from './key-plan.js';

/**
 * The sequence of presses, cheapest at this pace, that brings every reachable target into store, changes nothing else
 * and leaves the menu. Every step is run through `simulateDisplay`: what a plan says the glass shows is what that
 * machine shows. A gap between two presses keeps `IDLE_MARGIN` clear of the time-out; at a pace that cannot, nothing is
 * planned and every code says so.
 *
 * An action is run only where 1 is its own target; one that restores the maker's values comes before all else.
 *
 * @param targets raw value per code label; codes not named are left as they are
 * @param start   a state of the display, or what is known of it; values missing there are taken as the maker delivers them
 */
export function planKeys(
  map: DisplayMap,
  targets: RawValues,
  start: PlanStart | DisplayState,
  pace: Pace = DEFAULT_PACE,
): KeyPlan {
  const from = 'screen' in start ? start : startState(map, start);
  const restoring = map.codes.find((code) => code.action === 'restoreDefaults' && targets[code.label] === 1);
  if (restoring && isKeyed(map)) return restoredFirst(map, from, restoring, targets, pace);
  const due = map.codes.filter(
    (code) => targets[code.label] !== undefined && targets[code.label] !== from.stored[code.label],
  );
  if (!isKeyed(map))
    return nothing(due.map(({ label }) => ({ label, why: `${label} is set by instruction, not by keys.` })));
  const isBusy = from.screen.kind !== 'riding' && from.screen.kind !== 'off';
  const barred = outOfReach(map, from, targets);
  if (due.length === 0 && !isBusy) return nothing(barred);
  const wanted = without(targets, barred);
  const search = searchKeys(map, from, wanted, pace);
  const plan = gaveUp(search)
    ? hurriedPlan(map, from, wanted, pace, search.atLeastMs)
    : search &&
      asProved(
        written(map, from, search, pace),
        map,
        from,
        due.map((code) => ({ code, from: from.stored[code.label] ?? code.factory, to: targets[code.label] ?? 0 })),
        pace,
      );
  if (plan && keepsClear(map, from, plan, pace)) return withBarred(plan, barred);
  if (plan) {
    const labels = new Set([...due.map(({ label }) => label), ...Object.keys(from.unstored)]);
    return nothing([...labels].map((label) => ({ label, why: tooSlow(plan.longestGapMs) })));
  }
  return planWithoutHopeless(map, from, targets, barred, pace);
}

/** The maker's values first, in the same opening of the menu; then the targets, from what the display holds after it. */
function restoredFirst(map: KeyedMap, from: DisplayState, action: Code, targets: RawValues, pace: Pace): KeyPlan {
  const barred = outOfReach(map, from, { [action.label]: 1 });
  const rest = Object.fromEntries(Object.entries(targets).filter(([label]) => label !== action.label));
  const path = barred.length === 0 ? searchKeys(map, from, { [action.label]: 1 }, pace, { end: 'inTheMenu' }) : null;
  if (!path || gaveUp(path)) {
    const plan = planKeys(map, rest, from, pace);
    return {
      ...plan,
      unreachable: [
        ...(barred.length > 0
          ? barred
          : [{ label: action.label, why: `No sequence of keys runs ${action.label} on this display.` }]),
        ...plan.unreachable,
      ],
    };
  }
  const first = written(map, from, path, pace);
  const after = first.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), from);
  const then = planKeys(map, rest, after, pace);
  // Other targets might have been met on the way.
  const isAll = Object.keys(rest).length === 0;
  return {
    steps: [...first.steps, ...then.steps],
    estimatedMs: first.estimatedMs + then.estimatedMs,
    longestGapMs: Math.max(first.longestGapMs, then.longestGapMs),
    unreachable: then.unreachable,
    isShortest: then.isShortest && isAll,
    atLeastMs: then.isShortest && isAll ? first.estimatedMs + then.estimatedMs : first.estimatedMs,
  };
}

const nothing = (unreachable: readonly Unreachable[]): KeyPlan => ({
  steps: [],
  estimatedMs: 0,
  longestGapMs: 0,
  unreachable,
  isShortest: true,
  atLeastMs: 0,
});

const tooSlow = (gapMs: number): string =>
  `At this pace ${(gapMs / 1000).toFixed(1)} s pass between two presses, too near to the time-out. Practise first, or plan at the usual pace.`;

function without(targets: RawValues, barred: readonly Unreachable[]): RawValues {
  const out = new Set(barred.map(({ label }) => label));
  return Object.fromEntries(Object.entries(targets).filter(([label]) => !out.has(label)));
}

/**
 * What the search has proved. From a value that is shown and not stored there are ways on that it does not try: of such a
 * start only that its plan is right is claimed. A code is changed as soon as it is on the glass, though another order might have spared the
 * longer of two ends of an edit, and it does not go elsewhere only to wait there: so much less may be the shortest.
 */
function asProved(plan: KeyPlan, map: KeyedMap, from: DisplayState, due: readonly Due[], pace: Pace): KeyPlan {
  if (Object.keys(from.unstored).length > 0) return { ...plan, isShortest: false, atLeastMs: 0 };
  const sparedMs = sparedByOrder(map, due, pace) + sparedByPlace(map);
  return sparedMs === 0 || !plan.isShortest
    ? plan
    : { ...plan, isShortest: false, atLeastMs: Math.max(0, plan.atLeastMs - sparedMs) };
}

const withBarred = (plan: KeyPlan, barred: readonly Unreachable[]): KeyPlan => ({
  ...plan,
  unreachable: [...barred, ...plan.unreachable],
});

/** Whether one code alone can be reached is soon told, and where it is not told soon it is tried with the others. */
const ONE_BY_ONE = { mostNodes: 400 } as const;

/** No path to all targets: those that cannot be reached alone are named, and the rest is planned. */
function planWithoutHopeless(
  map: KeyedMap,
  from: DisplayState,
  targets: RawValues,
  barred: readonly Unreachable[],
  pace: Pace,
): KeyPlan {
  const named = [...barred];
  for (const [label, raw] of Object.entries(without(targets, barred))) {
    const alone = Object.fromEntries(Object.keys(targets).map((other) => [other, from.stored[other] ?? 0]));
    if (raw !== from.stored[label] && !searchKeys(map, from, { ...alone, [label]: raw }, pace, ONE_BY_ONE)) {
      named.push({ label, why: `No sequence of keys brings ${label} to ${raw} on this display.` });
    }
  }
  const left = without(targets, named);
  const path = searchKeys(map, from, left, pace);
  if (gaveUp(path)) return withBarred(hurriedPlan(map, from, left, pace, path.atLeastMs), named);
  if (path) return { ...written(map, from, path, pace), unreachable: named };
  const rest = Object.keys(without(targets, named)).filter((label) => targets[label] !== from.stored[label]);
  const stuck = Object.entries(from.unstored).filter(
    ([label, raw]) => !rest.includes(label) && raw !== (targets[label] ?? from.stored[label]),
  );
  return nothing([
    ...named,
    ...rest.map((label) => ({ label, why: `${label} cannot be brought to its target together with the others.` })),
    ...stuck.map(([label]) => ({
      label,
      why: `${label} shows another value, and no sequence of keys brings it back.`,
    })),
  ]);
}

/** The display as the plan's start describes it. */
export function startState(map: DisplayMap, start: PlanStart): DisplayState {
  const rest = displayAtRest(map, start.values);
  const riding = start.mode === undefined ? rest : { ...rest, mode: start.mode };
  if (start.off) return { ...riding, screen: { kind: 'off' } };
  if (!isKeyed(map)) return riding;
  const resumed =
    start.closedAt !== undefined && map.menu.idle.reopensAt === 'same'
      ? displayAtCode(map, riding, start.closedAt)?.screen
      : undefined;
  const closed = resumed?.kind === 'menu' ? { ...riding, resume: { page: resumed.page, item: resumed.item } } : riding;
  const at = start.at === null ? null : displayAtCode(map, closed, start.at, start.focus);
  if (at === null || start.at === null) return at ?? closed;
  if (start.shown === undefined || start.shown === at.stored[start.at]) return at;
  const shown = { [start.at]: start.shown };
  // Where a change is stored at once nothing is shown that is not.
  if (!storesAtOnce(map.menu, codeOf(map, start.at))) return { ...at, unstored: shown };
  const stored = storeOne(map, { ...at, unstored: shown }, codeOf(map, start.at));
  return { ...stored, screen: at.screen };
}
