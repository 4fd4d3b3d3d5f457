import type { DisplayMap } from '../display/map/display-map.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';

/** Cautions that apply to this type with this display on a stand, the ones that hold for every unit first. */
export function cautionsFor(type: VehicleType, map: DisplayMap): readonly string[] {
  const driven = type.motors.length > 1 ? 'Driven wheels are' : 'Driven wheel is';
  const brakes = {
    both: 'Both brakes work; each lever cuts the motor.',
    front: 'Brakes work; only the front lever cuts the motor.',
    rear: 'Brakes work; only the rear lever cuts the motor.',
    none: 'Brakes work. No lever cuts the motor: only cutting power stops it.',
  }[type.brakeCutoffs];
  return unique([
    `${driven} clear of the ground; hands, hair and sleeves are clear of spokes and tyre.`,
    brakes,
    `I know how to cut power: ${type.cutPower}`,
    ...(type.throttleFitted ? ['The throttle can start the motor: nobody leans on it.'] : []),
    ...map.dangers.map((danger) => danger.caution),
    ...type.cautions,
  ]);
}

const unique = (lines: readonly string[]): readonly string[] => [...new Set(lines)];
