import type { CodeFunction } from '../../display/map/functions.js';
import { ok, refuse } from '../../result.js';
import type { DeedOf, EvidenceData } from '../evidence.js';
import { EARLIER_PIN, strayCode, surpriseOf, type Surprise } from '../surprises.js';
import { judged, type VisitState } from '../visit-state.js';
import { advance, goBack, inMenuOrder, keyedFrom, readable, see, targetFor, type Outcome } from './support.js';

/** A wrong value of these is illegal, throws a rider, ruins a pack or falsifies a measurement. */
const DECISIVE: ReadonlySet<CodeFunction> = new Set<CodeFunction>([
  'units',
  'speedCap',
  'throttleCap',
  'modeSpeedPercent',
  'modeTurbo',
  'wheelSize',
  'wheelPulses',
  'driveMode',
  'standstillStart',
  'currentLimit',
  'nominalVoltage',
  'cutoffVoltage',
  'accessPin',
  'startupPin',
]);

/** Codes that are read as found before anything surprised: all on the glass, or those on which something rests, locked ones among them. */
export function toFindFirst({ setup, bench }: EvidenceData['opened']): readonly string[] {
  if (bench?.asFound.reads !== 'decisive') return readable(setup);
  const decides = new Set(
    setup.targets.filter((target) => DECISIVE.has(target.function) || target.locked).map((target) => target.label),
  );
  return readable(setup).filter((label) => decides.has(label));
}

export function readAsFound(state: VisitState, { data }: DeedOf<'asFoundRead'>): Outcome {
  const target = targetFor(state, data.label);
  if (!target.ok) return target;
  if (!state.toFind.includes(data.label)) return refuse('notDue', `${data.label} is not waiting to be read.`);
  const found = { ...state.found, [data.label]: data.raw };
  const seen = data.raw === null ? state : see(state, target.value, data.raw);
  const met = surpriseOf({
    label: data.label,
    function: target.value.function,
    presumed: state.opened.factory[data.label],
    span: state.opened.bench?.spans[data.label],
    raw: data.raw,
  });
  const next = { ...seen, found, toFind: state.toFind.filter((label) => label !== data.label) };
  return ok(met === null ? next : surprised(next, met));
}

export function findStray(state: VisitState, { data }: DeedOf<'strayFound'>): Outcome {
  return ok(surprised(state, strayCode(data.shown, data.value)));
}

/** Nothing behind the PIN can be read: the unit waits for a lead with what is known. */
export function refusePin(state: VisitState, { at, by }: DeedOf<'pinRefused'>): Outcome {
  return ok({
    ...state,
    surprises: [...state.surprises, EARLIER_PIN],
    held: { reason: 'code', words: EARLIER_PIN.says, at, by },
  });
}

/** After any surprise the rest of the unit is read in full. */
function surprised(state: VisitState, met: Surprise): VisitState {
  const unread = readable(state.opened.setup).filter((label) => !(label in state.found));
  return { ...state, surprises: [...state.surprises, met], toFind: inMenuOrder(state, new Set(unread)) };
}

export function closeAsFound(state: VisitState, deed: DeedOf<'asFoundClosed'>): Outcome {
  if (state.toFind.length > 0) return refuse('codesLeft', `Still to be read: ${state.toFind.join(', ')}.`);
  const next = { ...advance(state, deed), atRoundStart: state.known };
  const grave = state.surprises.filter((met) => met.level === 'decide');
  if (grave.length === 0) return ok(next);
  return ok({ ...next, held: { reason: 'code', words: holdWords(grave), at: deed.at, by: deed.by } });
}

const SPELT_OUT = 3;

/** A few surprises in full; many, as on a display of another map, by their codes. */
function holdWords(grave: readonly Surprise[]): string {
  if (grave.length <= SPELT_OUT) return grave.map(({ says }) => says).join(' ');
  const labels = grave.flatMap(({ label }) => label ?? []);
  return `${grave.length} readings do not fit this display's map${labels.length > 0 ? ` (${labels.join(', ')})` : ''}. It may be another revision.`;
}

/** Codes that were found at another value than they show now, in menu order: what a plan back would key. */
export function toRestore({
  opened,
  found,
  known,
}: VisitState): readonly { readonly label: string; readonly raw: number }[] {
  return opened.setup.targets.flatMap(({ label, locked, offGlass }) => {
    const raw = found[label];
    return raw === undefined || raw === null || locked || offGlass === true || raw === known[label]
      ? []
      : [{ label, raw }];
  });
}

/** Brought back by hand: the unit shows what it was found at, and key-in begins anew. */
export function restoreAsFound(state: VisitState, { data }: DeedOf<'restoredAsFound'>): Outcome {
  const back = toRestore(state);
  if (back.length === 0) return refuse('notDue', 'It shows what it was found at already.');
  const missing = back.find(({ label }) => !data.labels.includes(label));
  if (missing) return refuse('codesLeft', `${missing.label} is not back yet.`);
  const known = { ...state.known, ...Object.fromEntries(back.map(({ label, raw }) => [label, raw])) };
  const { setup } = state.opened;
  return ok(
    judged({
      ...goBack(state, 'keyIn'),
      known,
      atRoundStart: known,
      round: state.round + 1,
      toKey: keyedFrom(setup, known),
      keyedThisRound: [],
      keyedBy: new Set(),
      stuck: new Set(),
      readings: {},
      toRead: readable(setup),
    }),
  );
}
