import type { CodeFunction } from '../../display/map/functions.js';
import { CHECK_READINGS } from '../../speed/choose/check-readings.js';
import { refusal } from '../refusals.js';
import { isAfter } from '../steps.js';
import type { Calibration, VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { advance } from './support.js';

/** Raw value that the unit shows for the first code of a function; null where its display has none. */
export function shownFor({ opened, values: known }: VisitState, what: CodeFunction): number | null {
  const target = opened.setup.targets.find((each) => each.function === what);
  return target ? (known[target.label] ?? null) : null;
}

const withCalibration = (state: VisitState, change: Partial<Calibration>): VisitState => ({
  ...state,
  calibration: { ...state.calibration, ...change },
});

/** How far the wheel rolls: it decides the wheel code until runs decide it better. */
export const wheelMeasured: ActOf<'wheelMeasured'> = {
  closed: ({ step, calibration, opened }) => {
    if (opened.setup.speed === undefined) return refusal('noSpeedToSet');
    if (step === null || step === 'checkIn' || isAfter(step, 'calibrate')) return refusal('wheelTooEarly');
    return calibration.fitted ? refusal('fittedAlready') : null;
  },
  refuses: (_, { data }) => (data.fromMm <= data.mm && data.mm <= data.toMm ? null : refusal('badRange')),
  then: (state, { data }) => withCalibration(state, { wheel: data }),
};

export const speedRead: ActOf<'speedRead'> = {
  then: (state, { id, at, by, data }) => {
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
    return withCalibration(state, { readings: [...state.calibration.readings, reading] });
  },
};

/** Whether a reading counts is a person's to say, with a reason. */
export const speedJudged: ActOf<'speedJudged'> = {
  refuses: ({ calibration: { readings } }, { data }) => {
    if (!readings.some(({ id }) => id === data.reading)) return refusal('noReading');
    return !data.isUsed && data.words.trim() === '' ? refusal('sayWhyLeftOut') : null;
  },
  then: (state, { by, data }) => {
    const leftOut = data.isUsed ? null : { words: data.words, by: by.name };
    return withCalibration(state, {
      readings: state.calibration.readings.map((each) => (each.id === data.reading ? { ...each, leftOut } : each)),
    });
  },
};

/** Readings that count for the true speed. */
export const usedReadings = ({ readings }: Calibration): Calibration['readings'] =>
  readings.filter(({ leftOut, offGround }) => leftOut === null && !offGround);

const noneUsed = ({ calibration }: VisitState) =>
  usedReadings(calibration).length === 0 ? refusal('noReadings') : null;

/** A ratio that looks like miles, or like another pulse count, was looked at and is neither. */
export const countStands: ActOf<'countStands'> = {
  closed: noneUsed,
  then: (state) => withCalibration(state, { countStands: true }),
};

export const driveEndRead: ActOf<'driveEndRead'> = {
  then: (state, { data }) =>
    withCalibration(state, {
      driveEnds: [...state.calibration.driveEnds, { ...data, capRaw: shownFor(state, 'speedCap') }],
    }),
};

/** Wheel, pulses and cap as chosen. What follows for every code is the setup's to say, in an entry of its own. */
export const wheelFitted: ActOf<'wheelFitted'> = {
  closed: noneUsed,
  then: (state, { by, data }) => {
    const readings = state.calibration.readings.map((each) => ({ ...each, isCheck: false }));
    return withCalibration(state, { readings, fitted: { ...data, by: by.name } });
  },
};

export const calibrated: ActOf<'calibrated'> = {
  refuses: (state, { data }) => {
    if (data.how === 'learnt') return state.opened.bench?.calibrate?.runs === 'sample' ? null : refusal('notLearnt');
    return noneUsed(state) ?? (needsCheckRun(state.calibration) ? refusal('noCheckRun', CHECK_READINGS) : null);
  },
  then: (state, deed) => advance(withCalibration(state, { result: deed.data, outOfFamily: null }), 'calibrate', deed),
};

/** A finding on the unit: its own figures stand, and a lead looks at it before it leaves. */
export const outOfFamily: ActOf<'outOfFamily'> = {
  then: (state, { data }) => withCalibration(state, { outOfFamily: data }),
};

/** Another wheel code or pulse count was keyed, and too few readings were taken with it. */
function needsCheckRun(calibration: Calibration): boolean {
  const { fitted } = calibration;
  const moved = fitted && (fitted.wheelRaw !== fitted.atWheelRaw || fitted.pulsesRaw !== fitted.atPulsesRaw);
  return moved === true && usedReadings(calibration).filter(({ isCheck }) => isCheck).length < CHECK_READINGS;
}
