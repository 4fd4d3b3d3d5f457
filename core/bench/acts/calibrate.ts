import { ok, refuse } from '../../result.js';
import type { CodeFunction } from '../../display/map/functions.js';
import { CHECK_READINGS } from '../../speed/choose/check-readings.js';
import type { DeedOf } from '../evidence.js';
import { isAfter } from '../steps.js';
import type { Calibration, VisitState } from '../visit-state.js';
import { advance, type Outcome } from './support.js';

/** Raw value that the unit shows for the first code of a function; null where its display has none. */
export function shownFor({ opened, known }: VisitState, what: CodeFunction): number | null {
  const target = opened.setup.targets.find((each) => each.function === what);
  return target ? (known[target.label] ?? null) : null;
}

const withCalibration = (state: VisitState, change: Partial<Calibration>): VisitState => ({
  ...state,
  calibration: { ...state.calibration, ...change },
});

/** How far the wheel rolls: it decides the wheel code until runs decide it better. */
export function measureWheel(state: VisitState, { data }: DeedOf<'wheelMeasured'>): Outcome {
  const { step } = state;
  if (step === null || step === 'checkIn' || isAfter(step, 'calibrate'))
    return refuse('wrongStep', 'The wheel is measured between check in and calibrate.');
  if (state.calibration.fitted)
    return refuse('fittedAlready', 'Wheel and cap were chosen by runs already, which tell more than a tape.');
  if (!(data.fromMm <= data.mm && data.mm <= data.toMm))
    return refuse('badRange', 'The range does not hold the value.');
  return ok(withCalibration(state, { wheel: data }));
}

export function readSpeed(state: VisitState, { id, at, by, data }: DeedOf<'speedRead'>): Outcome {
  const reading = {
    ...data,
    id,
    at,
    by: by.name,
    wheelRaw: shownFor(state, 'wheelSize'),
    pulsesRaw: shownFor(state, 'wheelPulses'),
    leftOut: null,
    isCheck: state.calibration.fitted !== null,
  };
  return ok(withCalibration(state, { readings: [...state.calibration.readings, reading] }));
}

/** Whether a reading counts is a person's to say, with a reason. */
export function judgeSpeed(state: VisitState, { by, data }: DeedOf<'speedJudged'>): Outcome {
  const { readings } = state.calibration;
  if (!readings.some(({ id }) => id === data.reading))
    return refuse('noReading', 'There is no such reading of this wheel.');
  if (!data.isUsed && data.words.trim() === '')
    return refuse('wordsMissing', 'Say why it is left out: braking, a bump, a bad fix.');
  const leftOut = data.isUsed ? null : { words: data.words, by: by.name };
  return ok(
    withCalibration(state, {
      readings: readings.map((each) => (each.id === data.reading ? { ...each, leftOut } : each)),
    }),
  );
}

/** A ratio that looks like miles, or like another pulse count, was looked at and is neither. */
export function letCountStand(state: VisitState, _deed: DeedOf<'countStands'>): Outcome {
  if (usedReadings(state.calibration).length === 0) return refuse('noReadings', 'There is no reading yet.');
  return ok(withCalibration(state, { countStands: true }));
}

export const readDriveEnd = (state: VisitState, { data }: DeedOf<'driveEndRead'>): Outcome =>
  ok(
    withCalibration(state, {
      driveEnds: [...state.calibration.driveEnds, { ...data, capRaw: shownFor(state, 'speedCap') }],
    }),
  );

/** Readings that count for the true speed. */
export const usedReadings = ({ readings }: Calibration): Calibration['readings'] =>
  readings.filter(({ leftOut, offGround }) => leftOut === null && !offGround);

/** Wheel, pulses and cap as chosen. What follows for every code is the setup's to say, in an entry of its own. */
export function fitWheel(state: VisitState, { by, data }: DeedOf<'wheelFitted'>): Outcome {
  if (usedReadings(state.calibration).length === 0) return refuse('noReadings', 'There is no reading to choose by.');
  const readings = state.calibration.readings.map((each) => ({ ...each, isCheck: false }));
  return ok(withCalibration(state, { readings, fitted: { ...data, by: by.name } }));
}

export function calibrate(state: VisitState, deed: DeedOf<'calibrated'>): Outcome {
  const { calibration } = state;
  const { data } = deed;
  if (data.how === 'learnt') {
    if (state.opened.bench?.calibrate?.runs !== 'sample')
      return refuse('notLearnt', 'This unit is to be run: its family does not tell enough of it.');
    return ok(advance(withCalibration(state, { result: data }), deed));
  }
  if (usedReadings(calibration).length === 0)
    return refuse('noReadings', 'There is no reading yet. Read a speed, or leave the step out in words.');
  const moved =
    calibration.fitted &&
    (calibration.fitted.wheelRaw !== calibration.fitted.atWheelRaw ||
      calibration.fitted.pulsesRaw !== calibration.fitted.atPulsesRaw);
  const checks = usedReadings(calibration).filter(({ isCheck }) => isCheck).length;
  if (moved && checks < CHECK_READINGS)
    return refuse(
      'noCheckRun',
      `The wheel code was changed: ${CHECK_READINGS} readings with the new one confirm it first.`,
    );
  return ok(advance(withCalibration(state, { result: data }), deed));
}
