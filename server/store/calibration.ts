import { calibratedBy, calibrationOf, fittedBy, whyNotClosed, type Calibrated, type Evidence, type RatioFound, type VisitState } from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import type { VisitRow } from './entities.js';
import { getDocument } from './library.js';

const NEAR = 1e-6;

/** What was computed at the bench is computed here again from the readings in the log: figures that do not follow are refused. */
export async function guardCalibration(manager: EntityManager, visit: VisitRow, state: VisitState, entry: Evidence): Promise<void> {
  if (entry.kind === 'calibrated' && entry.data.how === 'learnt') return guardLearnt(state, entry.data);
  const { document: map } = await getDocument(manager, 'displayMap', visit.mapId, visit.mapVersion);
  const found = calibrationOf(state, map);
  if (!found) throw new HttpProblem('notYet');
  if (entry.kind === 'calibrated') {
    const why = whyNotClosed(found, state);
    if (why !== null) throw new HttpProblem('notYet', { message: why });
    const own = calibratedBy(found);
    if (!isNear(own.ratio, entry.data.ratio) || own.count !== entry.data.count || Math.abs((own.ends?.worst ?? 0) - (entry.data.ends?.worst ?? 0)) > NEAR) throw new HttpProblem('otherFigures');
  }
  if (entry.kind === 'wheelFitted') {
    const { data } = entry;
    const taken = found.candidates.map((each) => fittedBy(found, each)).find(({ wheelRaw, pulsesRaw }) => wheelRaw === data.wheelRaw && pulsesRaw === data.pulsesRaw);
    if (!taken || !isNear(taken.ratio, data.ratio) || !isNear(taken.predicted, data.predicted)) throw new HttpProblem('otherFigures');
    if (taken.capRaw !== data.capRaw) throw new HttpProblem('otherFigures', { message: `With that wheel value the cap is ${taken.capRaw}, not ${data.capRaw}.` });
  }
}

/** A unit that was not run itself is closed with what its family was learnt to be, and nothing else. */
function guardLearnt(state: VisitState, { ratio, count }: Calibrated): void {
  const family = state.opened.bench?.calibrate?.family;
  if (!family || count !== family.count || !isNear(family, ratio)) throw new HttpProblem('otherFigures');
}

const isNear = (a: RatioFound, b: RatioFound): boolean => (['k', 'u', 'low', 'high'] as const).every((key) => Math.abs(a[key] - b[key]) <= NEAR * Math.max(1, Math.abs(a[key])));
