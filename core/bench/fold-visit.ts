import { checkPack } from '../electrical/check-pack.js';
import { ok, refuse, type Result } from '../result.js';
import type { Deed, DeedOf } from './evidence.js';
import { isAgainst, isFinal, type CodeVerdict } from './judge-readback.js';
import { reviseSetup } from './revise-setup.js';
import { isOpen, targetOf, type CodeTarget } from '../setup/setup.js';
import { STEPS, type StepId } from './steps.js';
import { judged, type VisitState } from './visit-state.js';

type Outcome = Result<VisitState>;

/**
 * Folds a visit's evidence, oldest first, into its state, or refuses at the first entry that cannot follow the
 * ones before it. The same function shows a visit and accepts an entry, so the two cannot disagree.
 */
export function foldVisit(deeds: readonly Deed[]): Outcome {
  let live: Deed[] = [];
  let state: VisitState | null = null;
  for (const [index, deed] of deeds.entries()) {
    if (deed.seq !== index + 1) return refuse('outOfSequence', `Entry ${deed.seq} stands where ${index + 1} is due.`);
    if (deed.kind === 'undone') {
      if (state?.mayUndo !== deed.data.voids) return refuse('notUndoable', 'Only the newest act of this unit can be taken back.');
      live = live.filter((entry) => entry.id !== deed.data.voids);
    } else {
      live = [...live, deed];
    }
    const outcome: Outcome = deed.kind === 'undone' || state === null ? replay(live) : follow(state, deed);
    if (!outcome.ok) return outcome;
    state = { ...outcome.value, seq: deed.seq, lastAt: deed.at, lastBy: deed.by, lastStation: deed.station, mayUndo: undoable(live) };
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

const KEPT_FOR_GOOD = new Set<Deed['kind']>(['opened', 'displayFound', 'setupRevised', 'held', 'released', 'signedOff', 'withdrawn']);

function undoable(live: readonly Deed[]): string | null {
  const last = live.at(-1);
  return last && !KEPT_FOR_GOOD.has(last.kind) ? last.id : null;
}

function openVisit({ visitId, seq, at, by, station, data }: Omit<DeedOf<'opened'>, 'kind' | 'id'>): VisitState {
  const stop = data.setup.findings.find((finding) => finding.level === 'stop');
  return judged({
    visitId,
    seq,
    step: data.steps[0] ?? null,
    opened: data,
    checkedIn: null,
    displayTold: null,
    done: [],
    held: stop ? { reason: 'setup', words: stop.says, at, by } : null,
    round: 1,
    known: data.factory,
    atRoundStart: data.factory,
    witnessed: new Set(),
    toKey: data.setup.targets.filter((t) => t.raw !== null && !t.locked && t.raw !== data.factory[t.label]).map((t) => t.label),
    keyedThisRound: [],
    stuck: new Set(),
    toRead: data.setup.targets.filter((target) => target.offGlass !== true).map((target) => target.label),
    readings: {},
    verdicts: [],
    mayUndo: null,
    withdrawn: null,
    lastAt: at,
    lastBy: by,
    lastStation: station,
  });
}

const PASSES_A_HOLD = new Set<Deed['kind']>(['released', 'setupRevised', 'withdrawn']);

function follow(state: VisitState, deed: Deed): Outcome {
  if (deed.visitId !== state.visitId) return refuse('otherVisit', 'This entry belongs to another visit.');
  if (state.withdrawn !== null) return refuse('withdrawn', 'This unit was withdrawn from its order and takes no more entries.');
  if (state.step === null) return refuse('sealed', 'This visit is sealed and takes no more entries. Open a new visit instead.');
  if (state.held && !PASSES_A_HOLD.has(deed.kind)) return refuse('held', `Held: ${state.held.words} A lead releases it first.`);
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
      return at(state, 'checkIn', () => ok(findDisplay(state, deed)));
    case 'setupRevised':
      return ok(reviseSetup(state, deed));
    case 'withdrawn':
      return ok({ ...state, step: null, held: null, withdrawn: deed.data.words });
    case 'checkedIn':
      return at(state, 'checkIn', () => checkIn(state, deed));
    case 'codeSeen':
      return at(state, 'keyIn', () => seeCode(state, deed));
    case 'codeKeyed':
      return at(state, 'keyIn', () => keyCode(state, deed));
    case 'codeStuck':
      return at(state, 'keyIn', () => stickCode(state, deed));
    case 'keyInClosed':
      return at(state, 'keyIn', () => closeKeyIn(state, deed));
    case 'restarted':
      return at(state, 'restart', () => ok(advance(state, deed)));
    case 'codeRead':
      return at(state, 'readBack', () => readCode(state, deed));
    case 'readBackClosed':
      return at(state, 'readBack', () => closeReadBack(state, deed));
    case 'signedOff':
      return at(state, 'signOff', () => signOff(state, deed));
  }
}

function at(state: VisitState, step: StepId, then: () => Outcome): Outcome {
  if (state.step === step) return then();
  const name = STEPS.find((s) => s.id === state.step)?.title ?? '';
  return refuse('wrongStep', `This unit is at ${name.toLowerCase()} now.`);
}

function advance(state: VisitState, deed: Deed): VisitState {
  const { steps } = state.opened;
  const here = steps.findIndex((step) => step === state.step);
  const step = state.step;
  if (step === null) return state;
  const done = [...state.done.filter((d) => d.step !== step), { step, at: deed.at, by: deed.by }];
  return { ...state, done, step: steps[here + 1] ?? null };
}

function release(state: VisitState, deed: DeedOf<'released'>): Outcome {
  if (!state.held) return refuse('notHeld', 'This unit is not held.');
  if (deed.by.role === 'technician') return refuse('needsLead', 'A lead releases a held unit.');
  return ok({ ...state, held: null });
}

/** Another display than presumed: the visit stands as if it had been opened with it. */
function findDisplay(state: VisitState, deed: DeedOf<'displayFound'>): VisitState {
  const { map, factory, setup, told } = deed.data;
  const opened = { ...state.opened, versions: { ...state.opened.versions, map }, factory, setup };
  return { ...openVisit({ ...deed, data: opened }), displayTold: told };
}

function checkIn(state: VisitState, deed: DeedOf<'checkedIn'>): Outcome {
  const next = { ...advance(state, deed), checkedIn: deed.data };
  const pack = checkPack(state.opened.pack, deed.data.packV);
  const words =
    deed.data.packCondition === 'unsafe'
      ? 'Pack is swollen, wet or damaged. Do not power or charge it; it goes to whoever is qualified.'
      : pack.verdict === 'tooHigh'
        ? `Pack reads ${deed.data.packV.toFixed(1)} V. ${pack.says}`
        : null;
  return ok(words === null ? next : { ...next, held: { reason: 'pack', words, at: deed.at, by: deed.by } });
}

function targetFor(state: VisitState, label: string): Result<CodeTarget> {
  const target = targetOf(state.opened.setup, label);
  return target ? ok(target) : refuse('unknownCode', `${label} is not on this display's map.`);
}

const inMenuOrder = (state: VisitState, labels: ReadonlySet<string>): readonly string[] =>
  state.opened.setup.targets.map((target) => target.label).filter((label) => labels.has(label));

function seeCode(state: VisitState, { data }: DeedOf<'codeSeen'>): Outcome {
  const target = targetFor(state, data.label);
  if (!target.ok) return target;
  const toKey = new Set(state.toKey);
  const { raw, locked } = target.value;
  if (raw === null || raw === data.raw) toKey.delete(data.label);
  else if (!locked && !state.stuck.has(data.label)) toKey.add(data.label);
  return ok({ ...witness(state, data.label, data.raw), toKey: inMenuOrder(state, toKey) });
}

function keyCode(state: VisitState, { data }: DeedOf<'codeKeyed'>): Outcome {
  const target = targetFor(state, data.label);
  if (!target.ok) return target;
  if (target.value.raw === null) return refuse('leaveAsFound', `${data.label} stays as found.`);
  if (data.raw !== target.value.raw) return refuse('notTarget', `${data.label} is to be ${target.value.raw}, not ${data.raw}.`);
  if (!state.toKey.includes(data.label)) return refuse('notDue', `${data.label} is not waiting to be keyed.`);
  return ok({
    ...witness(state, data.label, data.raw),
    toKey: state.toKey.filter((label) => label !== data.label),
    keyedThisRound: [...state.keyedThisRound, data.label],
  });
}

function stickCode(state: VisitState, { data }: DeedOf<'codeStuck'>): Outcome {
  const target = targetFor(state, data.label);
  if (!target.ok) return target;
  if (!state.toKey.includes(data.label)) return refuse('notDue', `${data.label} is not waiting to be keyed.`);
  return ok({
    ...witness(state, data.label, data.raw),
    toKey: state.toKey.filter((label) => label !== data.label),
    stuck: new Set([...state.stuck, data.label]),
  });
}

const witness = (state: VisitState, label: string, raw: number): VisitState => ({
  ...state,
  known: { ...state.known, [label]: raw },
  witnessed: new Set([...state.witnessed, label]),
});

function closeKeyIn(state: VisitState, deed: DeedOf<'keyInClosed'>): Outcome {
  if (state.toKey.length > 0) return refuse('codesLeft', `Still to be keyed: ${state.toKey.join(', ')}.`);
  return ok(advance(state, deed));
}

function readCode(state: VisitState, { data }: DeedOf<'codeRead'>): Outcome {
  const target = targetFor(state, data.label);
  if (!target.ok) return target;
  const own = state.readings[data.label] ?? [];
  if (!state.toRead.includes(data.label) || isFinal(target.value.raw, own)) {
    return refuse('notDue', `${data.label} is not waiting to be read.`);
  }
  return ok(judged({ ...state, readings: { ...state.readings, [data.label]: [...own, data.raw] } }));
}

function closeReadBack(state: VisitState, deed: DeedOf<'readBackClosed'>): Outcome {
  const open = state.verdicts.filter((v) => v.verdict === 'notRead' && state.toRead.includes(v.label)).map((v) => v.label);
  if (open.length > 0) return refuse('codesLeft', `Still to be read: ${open.join(', ')}.`);
  const against = state.verdicts.filter(isAgainst);
  const next = advance(state, deed);
  return ok(against.length === 0 ? next : sendBack(next, against, deed));
}

/** Back to key-in with only the codes that disagree; held where keying again cannot help. */
function sendBack(state: VisitState, against: readonly CodeVerdict[], deed: DeedOf<'readBackClosed'>): VisitState {
  const labels = against.map((v) => v.label);
  const lastRead = against.flatMap(({ label, readings: own }) => {
    const last = own.at(-1);
    return last === undefined || last === null ? [] : [[label, last] as const];
  });
  const hopeless = against.filter((v) => v.verdict !== 'differs');
  const words = hopeless
    .map((v) => (v.verdict === 'notShown' ? `${v.label} is not shown.` : `${v.label} shows ${v.readings.at(-1)}, must be ${v.target}, and does not change.`))
    .join(' ');
  const again = new Set<StepId>(['keyIn', 'restart', 'readBack']);
  const known = { ...state.known, ...Object.fromEntries(lastRead) };
  return judged({
    ...state,
    step: 'keyIn',
    done: state.done.filter((d) => !again.has(d.step)),
    round: state.round + 1,
    known,
    atRoundStart: known,
    readings: Object.fromEntries(Object.entries(state.readings).filter(([label]) => !labels.includes(label))),
    toKey: labels.filter((label) => targetOf(state.opened.setup, label)?.locked !== true),
    toRead: labels,
    keyedThisRound: [],
    stuck: new Set(),
    held: hopeless.length > 0 ? { reason: 'code', words, at: deed.at, by: deed.by } : null,
  });
}

function signOff(state: VisitState, deed: DeedOf<'signedOff'>): Outcome {
  const stop = state.opened.setup.findings.find((finding) => finding.level === 'stop');
  if (stop) return refuse('stop', `Cannot be signed off: ${stop.says}`);
  const open = state.opened.setup.findings.find(isOpen);
  if (open) return refuse('undecided', `A lead has to choose first, on the page of the order: ${open.says}`);
  // What stands on papers is the check that was signed under, not the one at the opening.
  const order = { ...state.opened.order, classChecked: deed.data.classChecked ?? state.opened.order.classChecked };
  return ok(advance({ ...state, opened: { ...state.opened, order } }, deed));
}
