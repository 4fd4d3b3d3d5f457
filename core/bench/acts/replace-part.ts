import type { Part } from '../../setup/inputs/parts.js';
import type { EntryOf } from '../evidence.js';
import { refusal } from '../refusals.js';
import type { StepId } from '../steps.js';
import { judged, NOT_CALIBRATED, type VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { stoppedByPack } from './check-in.js';
import { goBack, keyedFrom, readable } from './support.js';

/** Where a unit goes back to when a part was changed. */
const BACK_TO: Readonly<Record<Part, StepId>> = {
  display: 'checkIn',
  controller: 'asFound',
  firmware: 'asFound',
  motor: 'restart',
  pack: 'restart',
  tyre: 'calibrate',
  brakes: 'prove',
  throttle: 'prove',
  pedals: 'prove',
  lights: 'prove',
};

/**
 * A part was changed during the visit. What was read of the vehicle before it tells nothing any more: a display or
 * controller brings its own values and firmware may have set others, a pack was unplugged and may have lost some, a motor or tyre turns another wheel.
 */
export const partReplaced: ActOf<'partReplaced'> = {
  closed: ({ checkedIn }) => (checkedIn === null ? refusal('notCheckedIn') : null),
  refuses: (_, { data: { part, packV, packCondition, spare } }) => {
    if (spare && part !== 'display') return refusal('spareIsDisplay');
    if (part !== 'pack') return null;
    if (packV === null) return refusal('packNotMeasured');
    return packCondition === undefined ? refusal('packNotLookedAt') : null;
  },
  then: (state, deed) => {
    const { part, words } = deed.data;
    const noted = {
      ...state,
      checks: withoutPart(state, part),
      parts: [...state.parts, { part, words, at: deed.at, by: deed.by }],
      isSafe: false,
    };
    return voided(noted, deed);
  },
};

/** The number of a part that is not on the vehicle any more; a new pack wants its charger looked at too, by whoever scans it. */
function withoutPart({ checks, opened }: VisitState, part: Part): VisitState['checks'] {
  const gone = new Set(
    (opened.bench?.checks ?? []).flatMap(({ id, asks }) => (asks.kind === 'number' && asks.of === part ? [id] : [])),
  );
  return Object.fromEntries(Object.entries(checks).filter(([id]) => !gone.has(id)));
}

function voided(state: VisitState, { data, at, by }: EntryOf<'partReplaced'>): VisitState {
  const back = goBack(state, BACK_TO[data.part]);
  switch (data.part) {
    case 'display': {
      const carried = (data.oldOdometerKm ?? state.checkedIn?.odometerKm ?? 0) - (data.newOdometerKm ?? 0);
      return {
        ...strange(back, data.spare?.values),
        checkedIn: null,
        displayTold: null,
        step: 'checkIn',
        done: [],
        carriedKm: state.carriedKm + Math.max(0, carried),
      };
    }
    case 'controller':
    case 'firmware':
      return strange(back);
    case 'motor':
      return unread({ ...back, wheelFamily: back.wheelFamily + 1, calibration: NOT_CALIBRATED });
    case 'tyre':
      return {
        ...back,
        wheelFamily: back.wheelFamily + 1,
        calibration: NOT_CALIBRATED,
        byHand: back.byHand.filter(({ step }) => step !== 'calibrate' && step !== 'prove'),
      };
    case 'brakes':
    case 'throttle':
    case 'pedals':
    case 'lights':
      return back;
    case 'pack': {
      const { packCondition = 'sound' } = data;
      const packV = data.packV ?? 0;
      const next = unread({ ...back, checkedIn: back.checkedIn && { ...back.checkedIn, packV, packCondition } });
      return stoppedByPack(next, { packV, packCondition }, { at, by });
    }
  }
}

/** Nothing is known of its codes, or what the record of a spare says: presumed until seen, and all of them to be read. */
function strange(state: VisitState, known: Readonly<Record<string, number>> = {}): VisitState {
  const { setup, factory: delivered } = state.opened;
  const factory = { ...delivered, ...known };
  return unread({
    ...state,
    values: factory,
    atRoundStart: factory,
    witnessed: [],
    found: {},
    toFind: readable(setup),
    surprises: [],
    toKey: keyedFrom(setup, factory),
    keyedThisRound: [],
    stuck: [],
    accepted: {},
    calibration: { ...NOT_CALIBRATED, wheel: state.calibration.wheel },
  });
}

const unread = (state: VisitState): VisitState =>
  judged({ ...state, readings: {}, toRead: readable(state.opened.setup), byHand: [] });
