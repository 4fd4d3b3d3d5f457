import { ok, refuse, type Result } from '../result.js';
import { checkIn, photograph } from './acts/check-in.js';
import { closeAsFound, findStray, readAsFound, refusePin, restoreAsFound } from './acts/as-found.js';
import {
  calibrate,
  fitWheel,
  judgeSpeed,
  letCountStand,
  measureWheel,
  readDriveEnd,
  readSpeed,
} from './acts/calibrate.js';
import { release } from './acts/hold.js';
import { closeKeyIn, keyCode, restart, seeCode, stickCode } from './acts/key-in.js';
import { makeSafe, takeOver } from './acts/make-safe.js';
import { findDisplay, openVisit } from './acts/open-visit.js';
import { closeReadBack, readCode } from './acts/read-back.js';
import { replacePart } from './acts/replace-part.js';
import { signOff, stepByHand } from './acts/sign-off.js';
import { at, type Outcome } from './acts/support.js';
import type { Deed } from './evidence.js';
import { reviseSetup } from './revise-setup.js';
import { needsSafety, type VisitState } from './visit-state.js';

/**
 * Folds a visit's evidence, oldest first, into its state, or refuses at the first entry that cannot follow the
 * ones before it. The same function shows a visit and accepts an entry, so the two cannot disagree.
 */
export function foldVisit(deeds: readonly Deed[]): Result<VisitState> {
  let live: Deed[] = [];
  let state: VisitState | null = null;
  for (const [index, deed] of deeds.entries()) {
    if (deed.seq !== index + 1) return refuse('outOfSequence', `Entry ${deed.seq} stands where ${index + 1} is due.`);
    if (deed.kind === 'undone') {
      const stop = state && onAnotherStand(state, deed);
      if (stop) return stop;
      if (state?.mayUndo !== deed.data.voids)
        return refuse('notUndoable', 'Only the newest act of this unit can be taken back.');
      live = live.filter((entry) => entry.id !== deed.data.voids);
    } else {
      live = [...live, deed];
    }
    const outcome: Outcome = deed.kind === 'undone' || state === null ? replay(live) : follow(state, deed);
    if (!outcome.ok) return outcome;
    state = {
      ...outcome.value,
      stand: standAfter(outcome.value, deed),
      seq: deed.seq,
      lastAt: deed.at,
      lastBy: deed.by,
      lastStation: deed.station,
      mayUndo: undoable(live),
    };
  }
  return state ? ok(state) : refuse('empty', 'This visit has no entries.');
}

function replay(live: readonly Deed[]): Outcome {
  const [first, ...rest] = live;
  if (first?.kind !== 'opened') return refuse('notOpened', 'A visit begins with its opening entry.');
  let state = openVisit(first);
  for (const deed of rest) {
    const outcome = follow(state, deed);
    if (!outcome.ok) return outcome;
    state = outcome.value;
  }
  return ok(state);
}

const KEPT_FOR_GOOD = new Set<Deed['kind']>([
  'opened',
  'displayFound',
  'setupRevised',
  'held',
  'released',
  'takenOver',
  'partReplaced',
  'signedOff',
  'withdrawn',
]);

function undoable(live: readonly Deed[]): string | null {
  const last = live.at(-1);
  return last && !KEPT_FOR_GOOD.has(last.kind) ? last.id : null;
}

const PASSES_A_HOLD = new Set<Deed['kind']>([
  'released',
  'setupRevised',
  'withdrawn',
  'takenOver',
  'partReplaced',
  'photographed',
]);

/** Written from anywhere: by whoever decides, or by the server. */
const NOT_AT_THE_STAND = new Set<Deed['kind']>([
  'opened',
  'held',
  'released',
  'setupRevised',
  'withdrawn',
  'takenOver',
  'signedOff',
]);

/** Hands are on the vehicle. */
const HANDS_ON = new Set<Deed['kind']>([
  'asFoundRead',
  'strayFound',
  'pinRefused',
  'asFoundClosed',
  'restoredAsFound',
  'codeSeen',
  'codeKeyed',
  'codeStuck',
  'keyInClosed',
  'restarted',
  'codeRead',
  'readBackClosed',
  'speedRead',
  'driveEndRead',
  'stepByHand',
]);

function onAnotherStand(
  { stand, opened }: VisitState,
  deed: Deed,
): { readonly ok: false; readonly problem: { readonly code: string; readonly message: string } } | null {
  if (opened.bench === undefined || NOT_AT_THE_STAND.has(deed.kind) || deed.station === stand.station) return null;
  return refuse(
    'otherStand',
    `This unit is on ${stand.station} with ${stand.by.name}. Look as you like; to work on it, take it over.`,
  );
}

/** Its stand, with whoever worked on it last there. */
const standAfter = ({ stand }: VisitState, { kind, station, by }: Deed): VisitState['stand'] =>
  NOT_AT_THE_STAND.has(kind) || station !== stand.station ? stand : { station, by };

function follow(state: VisitState, deed: Deed): Outcome {
  if (deed.visitId !== state.visitId) return refuse('otherVisit', 'This entry belongs to another visit.');
  if (state.withdrawn !== null)
    return refuse('withdrawn', 'This unit was withdrawn from its order and takes no more entries.');
  if (state.step === null)
    return refuse('sealed', 'This visit is sealed and takes no more entries. Open a new visit instead.');
  if (state.held && !PASSES_A_HOLD.has(deed.kind))
    return refuse('held', `Held: ${state.held.words} A lead releases it first.`);
  const elsewhere = onAnotherStand(state, deed);
  if (elsewhere) return elsewhere;
  if (HANDS_ON.has(deed.kind) && needsSafety(state))
    return refuse('notSafe', 'The unit came back to a stand: its cautions are acknowledged first.');
  switch (deed.kind) {
    case 'opened':
      return refuse('openedTwice', 'This visit is open already.');
    case 'undone':
      return refuse('notUndoable', 'Only the newest act of this unit can be taken back.');
    case 'held':
      return ok({ ...state, held: { ...deed.data, at: deed.at, by: deed.by } });
    case 'released':
      return release(state, deed);
    case 'displayFound':
      return at(state, 'checkIn', () => findDisplay(state, deed));
    case 'setupRevised':
      return ok(reviseSetup(state, deed));
    case 'withdrawn':
      return ok({ ...state, step: null, held: null, withdrawn: deed.data.words });
    case 'takenOver':
      return takeOver(state, deed);
    case 'partReplaced':
      return replacePart(state, deed);
    case 'photographed':
      return photograph(state, deed);
    case 'checkedIn':
      return at(state, 'checkIn', () => checkIn(state, deed));
    case 'madeSafe':
      return makeSafe(state, deed);
    case 'asFoundRead':
      return at(state, 'asFound', () => readAsFound(state, deed));
    case 'strayFound':
      return at(state, 'asFound', () => findStray(state, deed));
    case 'pinRefused':
      return at(state, 'asFound', () => refusePin(state, deed));
    case 'asFoundClosed':
      return at(state, 'asFound', () => closeAsFound(state, deed));
    case 'restoredAsFound':
      return restoreAsFound(state, deed);
    case 'codeSeen':
      return at(state, 'keyIn', () => seeCode(state, deed));
    case 'codeKeyed':
      return at(state, 'keyIn', () => keyCode(state, deed));
    case 'codeStuck':
      return at(state, 'keyIn', () => stickCode(state, deed));
    case 'keyInClosed':
      return at(state, 'keyIn', () => closeKeyIn(state, deed));
    case 'restarted':
      return at(state, 'restart', () => restart(state, deed));
    case 'codeRead':
      return at(state, 'readBack', () => readCode(state, deed));
    case 'readBackClosed':
      return at(state, 'readBack', () => closeReadBack(state, deed));
    case 'wheelMeasured':
      return measureWheel(state, deed);
    case 'speedRead':
      return at(state, 'calibrate', () => readSpeed(state, deed));
    case 'speedJudged':
      return at(state, 'calibrate', () => judgeSpeed(state, deed));
    case 'countStands':
      return at(state, 'calibrate', () => letCountStand(state, deed));
    case 'driveEndRead':
      return at(state, 'calibrate', () => readDriveEnd(state, deed));
    case 'wheelFitted':
      return at(state, 'calibrate', () => fitWheel(state, deed));
    case 'calibrated':
      return at(state, 'calibrate', () => calibrate(state, deed));
    case 'stepByHand':
      return stepByHand(state, deed);
    case 'signedOff':
      return at(state, 'signOff', () => signOff(state, deed));
  }
}
