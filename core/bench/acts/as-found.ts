import type { CodeFunction } from '../../display/map/functions.js';
import type { CodeTarget } from '../../setup/setup.js';
import type { EvidenceData } from '../evidence.js';
import { refusal } from '../refusals.js';
import { EARLIER_PIN, strayCode, surpriseOf, type Surprise } from '../surprises.js';
import { judged, type VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { advance, goBack, inMenuOrder, keyedFrom, readable, see, targetFor, unknownCode, unsee } from './support.js';

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

/** What was not as expected may be read again: one looks and types amiss. */
export const asFoundRead: ActOf<'asFoundRead'> = {
  refuses: (state, { data: { label } }) => {
    const isDoubted = state.surprises.some((met) => met.label === label);
    return (
      unknownCode(state, label) ?? (state.toFind.includes(label) || isDoubted ? null : refusal('notToRead', label))
    );
  },
  then: (state, { data: { label, raw } }) => {
    const target = targetFor(state, label);
    if (!target) return state;
    const seen = raw === null ? unsee(state, target) : see(state, target, raw);
    const next = {
      ...seen,
      surprises: state.surprises.filter((met) => met.label !== label),
      found: { ...state.found, [label]: raw },
      toFind: state.toFind.filter((each) => each !== label),
    };
    const met = surpriseOf({
      label,
      function: target.function,
      presumed: state.opened.factory[label],
      span: state.opened.bench?.spans[label],
      raw,
      isHidden: isHiddenIn(next, target),
    });
    return met === null ? next : surprised(next, met);
  },
};

export const strayFound: ActOf<'strayFound'> = {
  then: (state, { data }) => surprised(state, strayCode(data.shown, data.value)),
};

/** Nothing behind the PIN can be read: the unit waits for a lead with what is known. */
export const pinRefused: ActOf<'pinRefused'> = {
  then: (state, { at, by }) => ({
    ...state,
    surprises: [...state.surprises, EARLIER_PIN],
    held: { reason: 'code', words: EARLIER_PIN.says, at, by },
  }),
};

/** By what was found, and what was delivered where nobody has looked yet. */
function isHiddenIn({ found, opened }: VisitState, { shownIf }: CodeTarget): boolean {
  if (!shownIf) return false;
  const shows = found[shownIf.code] ?? opened.factory[shownIf.code];
  return shows !== undefined && !shownIf.in.includes(shows);
}

/** After any surprise the rest of the unit is read in full. */
function surprised(state: VisitState, met: Surprise): VisitState {
  const unread = readable(state.opened.setup).filter((label) => !(label in state.found));
  return { ...state, surprises: [...state.surprises, met], toFind: inMenuOrder(state, new Set(unread)) };
}

export const asFoundClosed: ActOf<'asFoundClosed'> = {
  refuses: ({ toFind }) => (toFind.length > 0 ? refusal('leftToRead', toFind.join(', ')) : null),
  then: (state, deed) => {
    const next = { ...advance(state, 'asFound', deed), atRoundStart: state.values };
    const grave = state.surprises.filter((met) => met.level === 'decide');
    if (grave.length === 0) return next;
    return { ...next, held: { reason: 'code', words: holdWords(grave), at: deed.at, by: deed.by } };
  },
};

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
  values: known,
}: VisitState): readonly { readonly label: string; readonly raw: number }[] {
  return opened.setup.targets.flatMap(({ label, locked, offGlass }) => {
    const raw = found[label];
    return raw === undefined || raw === null || locked || offGlass === true || raw === known[label]
      ? []
      : [{ label, raw }];
  });
}

/** Brought back by hand: the unit shows what it was found at, and key-in begins anew. */
export const restoredAsFound: ActOf<'restoredAsFound'> = {
  closed: (state) => (toRestore(state).length === 0 ? refusal('asFoundAlready') : null),
  refuses: (state, { data }) => {
    const missing = toRestore(state).find(({ label }) => !data.labels.includes(label));
    return missing ? refusal('notBackYet', missing.label) : null;
  },
  then: (state) => {
    const back = toRestore(state);
    const known = { ...state.values, ...Object.fromEntries(back.map(({ label, raw }) => [label, raw])) };
    const { setup } = state.opened;
    return judged({
      ...goBack(state, 'keyIn'),
      values: known,
      atRoundStart: known,
      round: state.round + 1,
      toKey: keyedFrom(setup, known),
      keyedThisRound: [],
      keyedBy: [],
      stuck: [],
      readings: {},
      toRead: readable(setup),
    });
  },
};
