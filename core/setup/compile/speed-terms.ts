import type { SpeedTerms } from '../setup.js';
import { CAPS } from './function-groups.js';
import type { Work } from './wish.js';
import { kmhPerRaw } from './wishes/speed.js';

/** What calibrating has to keep to under this promise. */
export function speedTermsOf(work: Work): SpeedTerms {
  const { limit, vehicleClass, choices, type, map } = work;
  const perRaw = map.codes.flatMap((code) => {
    const per = CAPS.has(code.function) ? kmhPerRaw(code, work) : undefined;
    return per === undefined ? [] : [[code.label, per] as const];
  });
  return {
    limit: limit && { kmh: limit.kmh, words: limit.words, says: limit.because },
    tolerance: vehicleClass.tolerance,
    shown: choices.shownSpeed,
    isFixed: vehicleClass.regime === 'checkOnly',
    mayTrim: choices.wheelPulses === 'trim',
    attainableKmh: type.attainableKmh,
    pulses: type.wheelPulses,
    tyre: type.tyre.marking,
    ...(type.tyre.barFrom !== null && type.tyre.barTo !== null
      ? { tyreBar: { from: type.tyre.barFrom, to: type.tyre.barTo } }
      : {}),
    kmhPerRaw: Object.fromEntries(perRaw),
  };
}
