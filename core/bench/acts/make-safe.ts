import { refusal } from '../refusals.js';
import { needsSafety } from '../visit-state.js';
import type { ActOf } from './act.js';
import { advance } from './support.js';

/** Cautions acknowledged: as a step of its own, and again whenever the unit came back to a stand. */
export const madeSafe: ActOf<'madeSafe'> = {
  closed: (state) => (state.step !== 'makeSafe' && !needsSafety(state) ? refusal('safeAlready') : null),
  refuses: ({ opened }, { data }) => {
    const left = (opened.bench?.cautions ?? []).filter((caution) => !data.cautions.includes(caution));
    return left.length > 0 ? refusal('cautionsLeft', left.join(' ')) : null;
  },
  then: (state, deed) => ({ ...advance(state, 'makeSafe', deed), isSafe: true }),
};

/** Another stand takes the unit, knowing which one had it. */
export const takenOver: ActOf<'takenOver'> = {
  closed: ({ stand }, { station }) => (station === stand.station ? refusal('onThisStand') : null),
  refuses: ({ stand }, { data }) =>
    data.from === stand.station ? null : refusal('movedOn', stand.station, stand.by.name),
  then: (state, { station, by }) => ({ ...state, stand: { station, by }, isSafe: false }),
};
