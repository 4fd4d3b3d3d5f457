import {
  calibratedBy,
  fittedBy,
  isAsChosen,
  learntBy,
  showsAlready,
  overLimitKmh,
  whyNotClosed,
  whyNotLearnt,
  type CalibrationOf,
  type DisplayMap,
  type VisitState,
  type WheelCandidate,
} from '@decurio/core';

/** What the main button does. */
export type Act =
  | {
      readonly kind: 'fit';
      readonly label: string;
      readonly note: string | null;
      readonly data: ReturnType<typeof fittedBy>;
    }
  | {
      readonly kind: 'close';
      readonly label: string;
      readonly note: string | null;
      readonly data: ReturnType<typeof calibratedBy>;
    };

/** The one thing to do next, where the readings allow one. */
export function nextAct(found: CalibrationOf, state: VisitState, map: DisplayMap, chosen: string | null): Act | null {
  const learnt = learntBy(state, map);
  if (found.estimate === null)
    return learnt && whyNotLearnt(learnt, state) === null
      ? {
          kind: 'close',
          label: `As learnt from ${learnt.count} units, to prove`,
          note: 'This unit is not itself measured; its certificate says so.',
          data: learnt,
        }
      : null;
  const pick = found.candidates.find((each) => keyOf(each) === chosen) ?? found.candidates[0];
  const isOther = pick !== undefined && !showsAlready(pick, found.codes) && !isConfirmed(found, state);
  if (isOther && (chosen !== null || !isAsChosen(found))) {
    const moved = [
      pick.wheel.raw !== found.codes.wheelRaw,
      pick.pulses !== found.codes.pulsesSet,
      pick.cap !== null && pick.cap.raw !== found.codes.capRaw,
    ].filter(Boolean).length;
    if (found.readings.length < 2 || !isNearLimit(found)) return null;
    if (pick.cap === null && found.question?.limitKmh !== null && (found.question?.caps.length ?? 0) > 0) return null;
    return {
      kind: 'fit',
      label: `Key ${moved} code${moved === 1 ? '' : 's'} and restart`,
      note: found.next.isEnough ? null : 'One more reading would make it surer.',
      data: fittedBy(found, pick),
    };
  }
  if (whyNotClosed(found, state) !== null) return null;
  return { kind: 'close', label: 'Calibrated, to prove', note: null, data: calibratedBy(found) };
}

export const keyOf = ({ wheel, pulses }: WheelCandidate): string => `${wheel.raw} ${pulses}`;

const isNearLimit = ({ next }: CalibrationOf): boolean => next.isEnough || next.why !== 'noneNearLimit';

/** The codes were chosen and a check run agrees: nothing is to be chosen any more. */
export const isConfirmed = (found: CalibrationOf, state: VisitState): boolean =>
  state.calibration.fitted !== null &&
  (found.check?.count ?? 0) >= 2 &&
  found.check?.run?.agrees === true &&
  overLimitKmh(found) === 0;
