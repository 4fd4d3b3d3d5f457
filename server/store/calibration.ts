import {
  calibratedBy,
  calibrationOf,
  fittedBy,
  learntBy,
  whyNotClosed,
  whyNotLearnt,
  type Calibrated,
  type DisplayMap,
  type Evidence,
  type RatioFound,
  type VisitState,
} from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import type { VisitRow } from './entities.js';
import { getDocument } from './library.js';

const NEAR = 1e-6;

/** What was computed at the bench is computed here again from the readings in the log: figures that do not follow are refused. */
export async function guardCalibration(
  manager: EntityManager,
  visit: VisitRow,
  state: VisitState,
  entry: Evidence,
): Promise<void> {
  const { document: map } = await getDocument(manager, 'displayMap', visit.mapId, visit.mapVersion);
  if (entry.kind === 'calibrated' && entry.data.how === 'learnt') return guardLearnt(state, entry.data, map);
  const found = calibrationOf(state, map);
  if (!found) throw new HttpProblem('notYet');
  if (entry.kind === 'calibrated') {
    const why = whyNotClosed(found, state);
    if (why !== null) throw new HttpProblem('notYet', { message: why });
    const own = calibratedBy(found);
    if (!isNear(own.ratio, entry.data.ratio) || own.count !== entry.data.count || !endsNear(own, entry.data))
      throw new HttpProblem('otherFigures');
  }
  if (entry.kind === 'wheelFitted') {
    const { data } = entry;
    const taken = found.candidates
      .map((each) => fittedBy(found, each))
      .find(({ wheelRaw, pulsesRaw }) => wheelRaw === data.wheelRaw && pulsesRaw === data.pulsesRaw);
    if (!taken || !isNear(taken.ratio, data.ratio) || !isNear(taken.predicted, data.predicted))
      throw new HttpProblem('otherFigures');
    if (taken.capRaw !== data.capRaw)
      throw new HttpProblem('otherFigures', {
        message: `With that wheel value the cap is ${taken.capRaw}, not ${data.capRaw}.`,
      });
  }
}

/** A unit that was not run itself is closed with what its family was learnt to be, and not beyond what is allowed. */
function guardLearnt(state: VisitState, data: Calibrated, map: DisplayMap): void {
  const learnt = learntBy(state, map);
  if (!learnt || data.count !== learnt.count || !isNear(learnt.ratio, data.ratio) || !endsNear(learnt, data))
    throw new HttpProblem('otherFigures');
  const why = whyNotLearnt(learnt, state);
  if (why !== null) throw new HttpProblem('notYet', { message: why });
}

const endsNear = (own: Calibrated, sent: Calibrated): boolean =>
  (own.ends === null) === (sent.ends === null) && Math.abs((own.ends?.worst ?? 0) - (sent.ends?.worst ?? 0)) <= NEAR;
const isNear = (a: RatioFound, b: RatioFound): boolean =>
  (['k', 'u', 'low', 'high'] as const).every(
    (key) => Math.abs(a[key] - b[key]) <= NEAR * Math.max(1, Math.abs(a[key])),
  );
