import type { Proof } from '../../prove/proof.js';
import { inKmh, speedWords } from '../../speed/speed.js';
import { mustUnplug } from './checks/throttle.js';
import { willShow, withFunction, type Draft } from './draft.js';
import { throttlePermission } from './throttle-permission.js';
import { isSwitchedOff } from './wish.js';
import { brakesLess } from './wishes/riding.js';

/** What has to be tried on the vehicle because a code alone cannot answer for it, the least movement first. */
export function proofsFor(draft: Draft): readonly Proof[] {
  const { type, vehicleClass, limit } = draft.work;
  const levers = [...new Set(type.brakes.filter(({ cutsMotor }) => cutsMotor).map(({ wheel }) => wheel))];
  return [
    ...(type.throttleFitted && !throttlePermission(draft.work).allowed
      ? [{ kind: 'throttleDead', first: mustUnplug(draft) ? 'unplug' : null } as const]
      : []),
    ...(vehicleClass.cutOnBrake && levers.length > 0 ? [{ kind: 'brakeCuts', levers } as const] : []),
    ...(vehicleClass.cutOnPedalStop && type.pedalMagnets !== null
      ? [{ kind: 'pedalStop', withinS: vehicleClass.cutOnPedalStop.withinS } as const]
      : []),
    ...walkProof(draft),
    ...(isBrakingLess(draft) ? [{ kind: 'stopsAsWell' } as const] : []),
    ...(vehicleClass.endSpeedMeasured && limit
      ? [{ kind: 'endSpeed', limitKmh: limit.kmh, tolerance: vehicleClass.tolerance } as const]
      : []),
    ...vehicleClass.places.flatMap(({ where, limit: most, keptBy }) =>
      keptBy === 'module' ? [{ kind: 'placeKept', where, limit: speedWords(most) } as const] : [],
    ),
  ];
}

/** Walk assist that is on pushes no faster than the class lets it. */
function walkProof(draft: Draft): readonly Proof[] {
  const { walkTo } = draft.work.vehicleClass;
  const isOn = withFunction(draft, 'walk').some((walk) => !isSwitchedOff(walk.code, willShow(draft, walk)));
  return isOn && walkTo ? [{ kind: 'walkSpeed', limitKmh: inKmh(walkTo), words: speedWords(walkTo) }] : [];
}

/** A lead had motor braking made weaker than it was delivered. */
const isBrakingLess = (draft: Draft): boolean =>
  [...withFunction(draft, 'regen'), ...withFunction(draft, 'modeRegen')].some((braking) =>
    brakesLess(braking.code, willShow(draft, braking), braking.code.factory),
  ) && draft.work.type.motors.some(({ freewheels }) => !freewheels);
