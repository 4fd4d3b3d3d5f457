import type { KeyedMap } from '../map/display-map.js';
import type { Edge } from './cheapest-path.js';
import {
  codeOf,
  codeShown,
  isListed,
  itemOf,
  pageOf,
  type DisplayState,
  type MenuScreen,
} from '../machine/display-state.js';
import { ledTo } from '../map/pages-listing.js';
import { editOf } from '../map/edit-rules.js';
import { keysOf, type Gesture } from '../map/gesture.js';
import type { PlanGesture, StepPurpose } from './key-plan.js';
import { gestureMs, type Pace } from './pace.js';
import { pinAsItStands, pinKeyed } from './pin-path.js';
import { idleLimit, simulateDisplay } from '../machine/simulate-display.js';

/** A step while the plan is being searched: what is done and what for. Glass and stores are filled in once it is chosen. */
export interface Move {
  readonly gesture: PlanGesture;
  readonly purpose: StepPurpose;
}

/** A display state, what it cost, and how one got there. */
export type Run = Edge<DisplayState, Move>;

/** Whether an item stands on the glass now that was not there before, so that a person must look. */
export const isNewToLook = ({ screen: before }: DisplayState, { screen: after }: DisplayState): boolean =>
  after.kind === 'menu' && !(before.kind === 'menu' && before.item === after.item && before.page === after.page);

/** Runs gestures on the simulator one after another, waiting out messages, and adds up what that takes. */
export function runOf(
  map: KeyedMap,
  from: DisplayState,
  gestures: readonly Gesture[],
  purpose: StepPurpose,
  pace: Pace,
): Run {
  let state = from;
  let ms = 0;
  const steps: Move[] = [];
  for (const gesture of gestures) {
    const before = state;
    state = simulateDisplay(map, state, gesture);
    steps.push({ gesture, purpose });
    ms += gestureMs(pace, gesture);
    if (state.screen.kind === 'message') {
      const wait = { kind: 'wait', ms: state.screen.leftMs } as const;
      state = simulateDisplay(map, state, wait);
      steps.push({ gesture: wait, purpose: 'wait' });
      ms += wait.ms;
    }
    if (isNewToLook(before, state)) ms += pace.lookMs;
  }
  return { to: state, ms, steps };
}

/** Whether the item on the glass is worth stopping at. */
export type Stops = (state: DisplayState) => boolean;

/** All ways on from a state that change no value: to other items, pages, in and out of the menu. */
export function moves(map: KeyedMap, state: DisplayState, stops: Stops, pace: Pace): Run[] {
  const { screen } = state;
  const { menu } = map;
  const one = (gesture: Gesture, purpose: StepPurpose): Run => runOf(map, state, [gesture], purpose, pace);
  switch (screen.kind) {
    case 'message':
      return [waitFor(map, state, screen.leftMs, pace)];
    case 'off':
      return [
        ...(map.power.on ? [one(map.power.on, 'power')] : []),
        ...menu.opens.filter((way) => way.from === 'off').map((way) => one(way.gesture, 'open')),
      ];
    case 'pin':
      return [
        ...[pinKeyed(map, state, screen, pace), pinAsItStands(map, screen)].flatMap((gestures) =>
          gestures === null ? [] : [runOf(map, state, gestures, 'pin', pace)],
        ),
        ...(menu.close && screen.asks === 'menu' ? [one(menu.close, 'close')] : []),
        ...(Number.isFinite(idleLimit(map, state))
          ? [waitFor(map, state, idleLimit(map, state) - state.idleMs, pace)]
          : []),
      ];
    case 'riding':
      return ridingMoves(map, one);
    case 'menu':
      return screen.focus === 'value'
        ? [...leaveEdit(map, state, one), waitFor(map, state, idleLimit(map, state) - state.idleMs, pace)]
        : browse(map, state, screen, stops, pace, one);
  }
}

function ridingMoves(map: KeyedMap, one: (gesture: Gesture, purpose: StepPurpose) => Run): Run[] {
  const { opens, pages } = map.menu;
  const modes = map.ride?.modes;
  return [
    ...opens.filter((way) => way.from === 'riding').map((way) => one(way.gesture, 'open')),
    ...(modes && pages.some((page) => page.mode !== undefined) ? [one(modes.gesture, 'mode')] : []),
    ...(map.power.off && opens.some((way) => way.from === 'off') ? [one(map.power.off, 'power')] : []),
  ];
}

function waitFor(map: KeyedMap, state: DisplayState, ms: number, pace: Pace): Run {
  const waited = simulateDisplay(map, state, { kind: 'wait', ms });
  // An edit that stored by waiting has its message to pass before a key counts again.
  const messageMs = state.screen.kind !== 'message' && waited.screen.kind === 'message' ? waited.screen.leftMs : 0;
  const to = messageMs === 0 ? waited : simulateDisplay(map, waited, { kind: 'wait', ms: messageMs });
  const lookMs = isNewToLook(state, to) ? pace.lookMs : 0;
  const steps = [ms, ...(messageMs > 0 ? [messageMs] : [])].map((each) => ({
    gesture: { kind: 'wait', ms: each } as const,
    purpose: 'wait' as const,
  }));
  return { to, ms: ms + messageMs + lookMs, steps };
}

function leaveEdit(map: KeyedMap, state: DisplayState, one: (gesture: Gesture, purpose: StepPurpose) => Run): Run[] {
  const { store, close } = map.menu;
  const edit = editOf(map.menu, codeShown(map, state));
  const end =
    edit.style === 'focus'
      ? edit.select
      : edit.style === 'enter'
        ? edit.end
        : edit.style === 'digits'
          ? (edit.end ?? edit.walk)
          : null;
  return [
    ...(end ? [one(end, 'store')] : []),
    ...(edit.style === 'enter' && edit.abandon ? [one(edit.abandon, 'move')] : []),
    ...(store.by ? [one(store.by, 'store')] : []),
    ...(close ? [one(close, 'close')] : []),
  ];
}

function browse(
  map: KeyedMap,
  state: DisplayState,
  screen: MenuScreen,
  stops: Stops,
  pace: Pace,
  one: (gesture: Gesture, purpose: StepPurpose) => Run,
): Run[] {
  const { menu } = map;
  const item = itemOf(map, screen);
  const erases = 'code' in item ? codeOf(map, item.code).holdErases?.gesture : undefined;
  const isHarmless = (gesture: Gesture): boolean =>
    erases === undefined || gesture.kind !== 'hold' || keysOf(gesture).some((key) => !keysOf(erases).includes(key));
  const runs: Run[] = [walk(map, state, menu.next, stops, pace)];
  if (menu.previous) runs.push(walk(map, state, menu.previous, stops, pace));
  const mayEnter = (id: string) => pageOf(map, id).neverEnter === undefined;
  for (const turn of menu.turns)
    if (turn.from === screen.page && mayEnter(turn.to) && isHarmless(turn.gesture))
      runs.push(one(turn.gesture, 'page'));
  if (menu.pick && !('code' in item)) {
    if ('exit' in item) runs.push(one(menu.pick, 'close'));
    else if (ledTo(map, item).every(mayEnter)) runs.push(one(menu.pick, 'page'));
  }
  if (
    menu.store.on === 'gesture' &&
    menu.store.by &&
    Object.keys(state.unstored).length > 0 &&
    isHarmless(menu.store.by)
  )
    runs.push(one(menu.store.by, 'store'));
  if (menu.close && isHarmless(menu.close)) runs.push(one(menu.close, 'close'));
  runs.push(waitFor(map, state, idleLimit(map, state) - state.idleMs, pace));
  return runs.filter((run) => run.steps.length > 0);
}

/** Presses one key until an item worth stopping at comes, the press has stored something, the menu closes, or nothing new comes any more. */
function walk(map: KeyedMap, state: DisplayState, gesture: Gesture, stops: Stops, pace: Pace): Run {
  const steps: Move[] = [];
  let ms = 0;
  let now = state;
  for (;;) {
    const run = runOf(map, now, [gesture], 'move', pace);
    const isStored = run.to.stored !== state.stored;
    const isRound = isSamePlace(run.to, now) || isSamePlace(run.to, state);
    if (isRound && !isStored) return { to: state, ms: 0, steps: [] };
    steps.push(...run.steps);
    ms += run.ms;
    now = run.to;
    if (now.screen.kind !== 'menu' || isStored || isStop(map, now, now.screen, stops)) return { to: now, ms, steps };
  }
}

const isSamePlace = ({ screen: a }: DisplayState, { screen: b }: DisplayState): boolean =>
  a.kind === 'menu' && b.kind === 'menu' ? a.item === b.item && a.page === b.page : a.kind === b.kind;

function isStop(map: KeyedMap, state: DisplayState, screen: MenuScreen, stops: Stops): boolean {
  const item = itemOf(map, screen);
  if (!isListed(map, state, item)) return false;
  if (!('code' in item)) return map.menu.pick !== null;
  return stops(state);
}
