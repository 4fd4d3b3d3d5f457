import type { EntryOf } from './evidence.js';
import { canonicalJson } from '../ledger/canonical-json.js';
import { targetOf, type Setup } from '../setup/setup.js';
import { goBack } from './acts/support.js';
import { isAgainst, judgeReadback } from './judge-readback.js';
import { lastShown } from './last-shown.js';
import type { StepId } from './steps.js';
import { judged, type VisitState } from './visit-state.js';

const KEYED_AGAIN = new Set<StepId>(['keyIn', 'restart', 'readBack', 'calibrate', 'prove']);

/**
 * A visit under a setup that was worked out anew. What was done stands; codes whose target moved are keyed and read
 * again, and where keys cannot move them the unit is held.
 */
export function reviseSetup(state: VisitState, { data, at, by }: EntryOf<'setupRevised'>): VisitState {
  const opened = {
    ...state.opened,
    order: data.order,
    versions: { ...state.opened.versions, ...data.versions },
    pack: data.pack,
    setup: data.setup,
  };
  const known = { ...state.values, ...lastShown(state) };
  const toKey = data.setup.targets
    .filter(
      (t) =>
        t.raw !== null &&
        !t.locked &&
        !(state.stuck.includes(t.label) && unmoved(state, t.label, t.raw)) &&
        t.raw !== known[t.label],
    )
    .map((t) => t.label);
  const stop = data.setup.findings.find((finding) => finding.level === 'stop');
  // A hold for another reason is still a lead's to decide; what the setup stops is held after it.
  const other =
    state.opened.bench !== undefined && state.held !== null && state.held.reason !== 'setup' ? state.held : null;
  const held =
    other ??
    (stop
      ? { reason: 'setup' as const, words: stop.says, at, by }
      : state.held?.reason === 'setup'
        ? null
        : state.held);
  const moved = {
    ...state,
    opened,
    toKey,
    held,
    stuck: state.stuck.filter((label) => !toKey.includes(label)),
    accepted: stillAccepted(state, opened.setup),
  };
  return isPastKeyIn(state)
    ? afterKeyIn(moved, known, { before: state.opened.setup, at, by })
    : judged({
        ...moved,
        toRead: stillToRead(moved, toKey),
        keyedThisRound: state.keyedThisRound.filter((label) => !toKey.includes(label)),
      });
}

const unmoved = (state: VisitState, label: string, raw: number): boolean =>
  state.opened.setup.targets.some((t) => t.label === label && t.raw === raw);

/** What a lead let stand was held against a target; where that moved, it is decided anew. One that is left as found because of it stands. */
const stillAccepted = (
  { accepted, opened }: VisitState,
  setup: VisitState['opened']['setup'],
): VisitState['accepted'] =>
  Object.fromEntries(
    Object.entries(accepted).filter(([label]) => {
      const next = targetOf(setup, label);
      return (next?.locked === true && next.raw === null) || targetOf(opened.setup, label)?.raw === next?.raw;
    }),
  );

function isPastKeyIn({ step, opened }: VisitState): boolean {
  return step !== null && opened.steps.indexOf(step) > opened.steps.indexOf('keyIn');
}

/** Back to key-in with the codes that moved; where there are none, what was read is judged by the new targets. */
function afterKeyIn(
  state: VisitState,
  known: VisitState['values'],
  {
    before,
    at,
    by,
  }: { readonly before: Setup; readonly at: string; readonly by: NonNullable<VisitState['held']>['by'] },
): VisitState {
  if (state.toKey.length > 0) {
    const readings = Object.fromEntries(
      Object.entries(state.readings).filter(([label]) => !state.toKey.includes(label)),
    );
    const next: VisitState = {
      ...state,
      readings,
      values: known,
      atRoundStart: known,
      step: 'keyIn',
      done: state.done.filter((d) => !KEYED_AGAIN.has(d.step)),
      round: state.round + 1,
      keyedThisRound: [],
    };
    return judged({ ...next, toRead: stillToRead(next, state.toKey) });
  }
  const next = judged(provedAgain(state, before));
  const against = next.verdicts
    .filter(isAgainst)
    .map(
      ({ label, readings, target }) =>
        `${label} shows ${readings.at(-1) ?? 'nothing'}, must be ${target}, and does not change.`,
    );
  return against.length === 0 || next.held
    ? next
    : { ...next, held: { reason: 'setup', words: against.join(' '), at, by } };
}

/** What was tried was tried for another promise: where something else is to be shown now, it is proved again. */
function provedAgain(state: VisitState, before: Setup): VisitState {
  const { setup, bench } = state.opened;
  const isSame = canonicalJson(setup.proves ?? []) === canonicalJson(before.proves ?? []);
  if (isSame || bench?.proofsStand !== true) return state;
  const back = goBack(state, 'prove');
  return back === state ? state : { ...back, byHand: back.byHand.filter(({ step }) => step !== 'prove') };
}

/** Codes on the glass without a final reading, and those to be keyed. */
function stillToRead({ opened, readings }: VisitState, toKey: readonly string[]): readonly string[] {
  const unread = judgeReadback(opened.setup, readings).flatMap((v) => (v.verdict === 'notRead' ? [v.label] : []));
  return opened.setup.targets
    .filter(({ offGlass, label }) => offGlass !== true && (toKey.includes(label) || unread.includes(label)))
    .map(({ label }) => label);
}
