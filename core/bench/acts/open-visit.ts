import type { EntryOf } from '../evidence.js';
import { judged, NOT_CALIBRATED, NOT_PROVED, type VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { toFindFirst } from './as-found.js';
import { keyedFrom, readable } from './support.js';

/** A visit as its opening entry leaves it. */
export function openVisit({ visitId, seq, at, by, station, data }: Omit<EntryOf<'opened'>, 'kind' | 'id'>): VisitState {
  const stop = data.setup.findings.find((finding) => finding.level === 'stop');
  return judged({
    visitId,
    seq,
    step: data.steps[0] ?? null,
    opened: data,
    checkedIn: null,
    displayTold: null,
    done: [],
    stand: { station, by },
    isSafe: false,
    photos: [],
    notices: [],
    checks: {},
    found: {},
    toFind: toFindFirst(data),
    surprises: [],
    held: stop ? { reason: 'setup', words: stop.says, at, by } : null,
    round: 1,
    values: data.factory,
    atRoundStart: data.factory,
    witnessed: [],
    toKey: keyedFrom(data.setup, data.factory),
    keyedThisRound: [],
    stuck: [],
    keyedBy: [],
    accepted: {},
    toRead: readable(data.setup),
    readings: {},
    verdicts: [],
    calibration: NOT_CALIBRATED,
    proving: NOT_PROVED,
    countersigned: null,
    parts: [],
    carriedKm: 0,
    wheelFamily: 1,
    byHand: [],
    mayUndo: null,
    withdrawn: null,
    lastAt: at,
    lastBy: by,
    lastStation: station,
  });
}

/** Another display than presumed: the visit stands as if it had been opened with it. */
export const displayFound: ActOf<'displayFound'> = {
  then: (state, deed) => {
    const { map, factory, setup, told, bench } = deed.data;
    const opened = {
      ...state.opened,
      versions: { ...state.opened.versions, map },
      factory,
      setup,
      ...(bench ? { bench } : {}),
    };
    const { photos, parts, carriedKm, wheelFamily } = state;
    return { ...openVisit({ ...deed, data: opened }), displayTold: told, photos, parts, carriedKm, wheelFamily };
  },
};
