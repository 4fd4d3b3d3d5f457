import { ok, refuse } from '../../result.js';
import type { DeedOf } from '../evidence.js';
import { needsSafety, type VisitState } from '../visit-state.js';
import { advance, type Outcome } from './support.js';

/** Cautions acknowledged: as a step of its own, and again whenever the unit came back to a stand. */
export function makeSafe(state: VisitState, deed: DeedOf<'madeSafe'>): Outcome {
  if (state.step !== 'makeSafe' && !needsSafety(state))
    return refuse('notDue', 'The cautions of this unit are acknowledged already.');
  const left = (state.opened.bench?.cautions ?? []).filter((caution) => !deed.data.cautions.includes(caution));
  if (left.length > 0) return refuse('cautionsLeft', `Still to be acknowledged: ${left.join(' ')}`);
  const next = state.step === 'makeSafe' ? advance(state, deed) : state;
  return ok({ ...next, isSafe: true });
}

/** Another stand takes the unit, knowing which one had it. */
export function takeOver(state: VisitState, { data, station, by }: DeedOf<'takenOver'>): Outcome {
  if (data.from !== state.stand.station)
    return refuse('movedOn', `It is on ${state.stand.station} with ${state.stand.by.name} now.`);
  if (station === state.stand.station) return refuse('notDue', 'It is on this stand already.');
  return ok({ ...state, stand: { station, by }, isSafe: false });
}
