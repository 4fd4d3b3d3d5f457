import { cheapestPath, type GaveUp, type Path } from './cheapest-path.js';
import type { Code, KeyedMap } from '../map/display-map.js';
import { codeShown, shownValue, type DisplayState, type RawValues } from '../machine/display-state.js';
import { begin, editBound } from './edit-bound.js';
import { jobOf, standsAt, type Job } from './key-job.js';
import { gestureMs, type Pace } from './pace.js';
import { moves, runOf, type Move, type Run } from './plan-moves.js';
import { travelBound } from './travel-bound.js';
import { editOf, storesAtOnce } from '../map/edit-rules.js';
import { startingPresses } from '../map/pair-halves.js';
import { hasManyWays, valuePath, valuePaths } from './value-path.js';

/** Nodes looked at before a search for the very cheapest gives up: about a second's work. Maps whose codes leave one another alone need a few hundred. */
const MOST_NODES = 5_000;

export interface KeySearch {
  /** Where the display is to stand at the end. */
  readonly end?: 'outOfTheMenu' | 'inTheMenu';
  /** 1 finds the cheapest. More goes for the goal straighter, and what it finds costs at most so many times the cheapest. */
  readonly weight?: number;
  readonly mostNodes?: number;
}

/** The presses that bring every target into store, cheapest first; null where none do. */
export function searchKeys(
  map: KeyedMap,
  from: DisplayState,
  targets: RawValues,
  pace: Pace,
  { end = 'outOfTheMenu', weight = 1, mostNodes = MOST_NODES }: KeySearch = {},
): Path<Move> | null | GaveUp {
  const job = jobOf(map, from, targets);
  const editMs = editBound(map, job, pace);
  const travelMs = travelBound(map, pace, job.tracked);
  const standing = standings(job);
  return cheapestPath<DisplayState, Move>({
    start: { ...from, ran: [] },
    isGoal: (state) =>
      state.screen.kind === (end === 'inTheMenu' ? 'menu' : 'riding') &&
      job.tracked.every((code) => held(state, code) === job.wanted(code)),
    edges: (state) => edges(map, job, state, pace),
    atLeast: (state) => {
      // The bounds count leaving in.
      if (end === 'inTheMenu' && weight === 1) return 0;
      const { open, away } = standing(state);
      return weight * (editMs(state, open) + travelMs(state, away));
    },
    key: (state) => `${whereKey(state)}|${standing(state).key}`,
    mostNodes,
  });
}

/** The value in store; of an action 1 once it was run. */
const held = ({ ran, stored }: DisplayState, code: Code): number =>
  code.action !== undefined && ran.includes(code.label) ? 1 : (stored[code.label] ?? code.factory);

/** What is still open with the values a display holds. */
interface Standing {
  readonly open: readonly Code[];
  /** Those that must be gone to: one that another may bring to its target need not be. */
  readonly away: readonly Code[];
  readonly key: string;
}

/** Values change far less often than places: what follows from them is worked out once for each. */
function standings({ tracked, wanted, isDragged }: Job): (state: DisplayState) => Standing {
  const known = new WeakMap<RawValues, WeakMap<RawValues, Standing>>();
  const due = tracked.map((code) => ({ code, aim: wanted(code) }));
  return (state) => {
    const { stored, unstored } = state;
    const byUnstored = known.get(stored) ?? new WeakMap<RawValues, Standing>();
    known.set(stored, byUnstored);
    const before = byUnstored.get(unstored);
    if (before) return before;
    // What is right in store may be so again by itself: time running out drops what is on the glass alone.
    const open: Code[] = [];
    let key = state.ran.join();
    for (const { code, aim } of due) {
      const { label } = code;
      if (held(state, code) !== aim && standsAt(state, code) !== aim) open.push(code);
      key += label in unstored ? `,${stored[label]}~${unstored[label]}` : `,${stored[label]}`;
    }
    const standing = { open, away: open.some(isDragged) ? open.filter((code) => !isDragged(code)) : open, key };
    byUnstored.set(unstored, standing);
    return standing;
  };
}

function whereKey({ screen, mode, resume, unlocked }: DisplayState): string {
  const rest = `${mode ?? ''}${unlocked ? '' : '!'}${resume ? `@${resume.page}/${resume.item}` : ''}`;
  switch (screen.kind) {
    case 'menu':
      return `${screen.page}/${screen.item}/${screen.focus}${screen.digit}${screen.digits?.join('') ?? ''}${rest}`;
    case 'pin':
      return `pin${screen.digits.join('')}${screen.at}${screen.then.kind === 'menu' ? `${screen.then.page}/${screen.then.item}` : ''}${rest}`;
    case 'message':
      return `message${screen.then.kind}${rest}`;
    default:
      return screen.kind + rest;
  }
}

function edges(map: KeyedMap, job: Job, state: DisplayState, pace: Pace): readonly Run[] {
  const code = codeShown(map, state);
  const mayEdit = code !== null && job.isTracked(code) && job.mayEdit(state, code);
  const edits = code && mayEdit && !asksFirst(map, state, code) ? editRuns(map, job, state, code, pace) : [];
  const mayComeBack = code !== null && held(state, code) === job.wanted(code);
  if (code && edits.length > 0 && !mayComeBack && job.isDueOnArrival(state, code)) return edits;
  // Any guarded entry asks for the PIN, one that is to stay as it is too: once given it opens them all.
  const isWanted = job.tracked.some((each) => each.access === 'pin' && standsAt(state, each) !== job.wanted(each));
  const asking = (at: DisplayState, here: Code): boolean => isWanted && asksFirst(map, at, here);
  const stops = (at: DisplayState): boolean => {
    const here = codeShown(map, at);
    if (here !== null && asking(at, here)) return true;
    return (
      here !== null &&
      job.isTracked(here) &&
      job.mayEdit(at, here) &&
      (standsAt(at, here) !== job.wanted(here) || job.useful(at, here).some((raw) => raw !== standsAt(at, here)))
    );
  };
  const asks = code && asking(state, code) ? [askingRun(map, state, code, pace)] : [];
  return [...asks, ...edits, ...moves(map, state, stops, pace)];
}

/** Whether an entry asks for the PIN before it can be changed. */
const asksFirst = ({ menu: { pin } }: KeyedMap, state: DisplayState, code: Code): boolean =>
  pin?.asks === 'entry' && code.access === 'pin' && !state.unlocked;

/** The quickest press that would change it, and brings the PIN on the glass. */
function askingRun(map: KeyedMap, state: DisplayState, code: Code, pace: Pace): Run {
  const [first, ...others] = startingPresses(editOf(map.menu, code), code);
  const quickest = others.reduce(
    (best, press) => (gestureMs(pace, press) < gestureMs(pace, best) ? press : best),
    first,
  );
  return runOf(map, state, [quickest], 'pin', pace);
}

function editRuns(map: KeyedMap, job: Job, state: DisplayState, code: Code, pace: Pace): Run[] {
  return job.useful(state, code).flatMap((raw) => {
    if (raw === standsAt(state, code)) return [];
    return editRunsTo(map, state, code, raw, pace).filter((run) => shownValue(run.to, code) === raw);
  });
}

/** Begins the edit where it must be begun, and brings the shown value to `raw`: by every way that may leave other codes otherwise. */
function editRunsTo(map: KeyedMap, state: DisplayState, code: Code, raw: number, pace: Pace): readonly Run[] {
  const begun = begin(map, state, pace);
  const movesOthers = (storesAtOnce(map.menu, code) && code.influences !== undefined) || hasManyWays(map, code);
  const quickest = movesOthers ? null : valuePath(map, begun.to, code, raw, pace);
  const ways = movesOthers ? valuePaths(map, begun.to, code, raw, pace) : quickest ? [quickest] : [];
  return ways
    .filter(({ gestures }) => gestures.length > 0)
    .map(({ gestures }) => {
      const rest = runOf(map, begun.to, gestures, 'change', pace);
      return { to: rest.to, ms: begun.ms + rest.ms, steps: [...begun.steps, ...rest.steps] };
    });
}
