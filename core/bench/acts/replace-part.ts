import { ok, refuse } from '../../result.js';
import type { DeedOf, Part } from '../evidence.js';
import type { StepId } from '../steps.js';
import { judged, NOT_CALIBRATED, type VisitState } from '../visit-state.js';
import { packTooHigh } from './check-in.js';
import { goBack, keyedFrom, readable, type Outcome } from './support.js';

/** Where a unit goes back to when a part was changed. */
const BACK_TO: Readonly<Record<Part, StepId>> = {
  display: 'checkIn',
  controller: 'asFound',
  motor: 'restart',
  pack: 'restart',
  tyre: 'calibrate',
};

/**
 * A part was changed during the visit. What was read of the vehicle before it tells nothing any more: a display or
 * controller brings its own values, a pack was unplugged and may have lost some, a motor or tyre turns another wheel.
 */
export function replacePart(state: VisitState, deed: DeedOf<'partReplaced'>): Outcome {
  const { part, words, packV } = deed.data;
  if (state.checkedIn === null)
    return refuse('notCheckedIn', 'Check the unit in first; what it came with is recorded there.');
  if (part === 'pack' && packV === null) return refuse('packNotMeasured', 'Measure the new pack and type its volts.');
  const noted = { ...state, parts: [...state.parts, { part, words, at: deed.at, by: deed.by }], isSafe: false };
  return ok(voided(noted, deed));
}

function voided(state: VisitState, { data, at, by }: DeedOf<'partReplaced'>): VisitState {
  const back = goBack(state, BACK_TO[data.part]);
  switch (data.part) {
    case 'display': {
      const carried = (data.oldOdometerKm ?? state.checkedIn?.odometerKm ?? 0) - (data.newOdometerKm ?? 0);
      return {
        ...strange(back),
        checkedIn: null,
        displayTold: null,
        step: 'checkIn',
        done: [],
        carriedKm: state.carriedKm + Math.max(0, carried),
      };
    }
    case 'controller':
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
    case 'pack': {
      const packV = data.packV ?? 0;
      const words = packTooHigh(back, packV);
      const next = unread({
        ...back,
        checkedIn: back.checkedIn && { ...back.checkedIn, packV, packCondition: 'sound' },
      });
      return words === null ? next : { ...next, held: { reason: 'pack', words, at, by } };
    }
  }
}

/** Nothing is known of its codes: as delivered until seen, and all of them to be read. */
function strange(state: VisitState): VisitState {
  const { setup, factory } = state.opened;
  return unread({
    ...state,
    known: factory,
    atRoundStart: factory,
    witnessed: new Set(),
    found: {},
    toFind: readable(setup),
    surprises: [],
    toKey: keyedFrom(setup, factory),
    keyedThisRound: [],
    stuck: new Set(),
    accepted: {},
    calibration: { ...NOT_CALIBRATED, wheel: state.calibration.wheel },
  });
}

const unread = (state: VisitState): VisitState =>
  judged({ ...state, readings: {}, toRead: readable(state.opened.setup), byHand: [] });
