import type { DisplayMap } from '../display/map/display-map.js';
import { cutsMotor, type VehicleType } from '../setup/inputs/vehicle-type.js';

/** Cautions that apply to this type with this display on a stand, the ones that hold for every unit first. */
export function cautionsFor(type: VehicleType, map: DisplayMap): readonly string[] {
  const driven = type.motors.length > 1 ? 'Driven wheels are' : 'Driven wheel is';
  return unique([
    `${driven} clear of the ground; hands, hair and sleeves are clear of spokes and tyre.`,
    brakesCaution(type),
    `I know how to cut power: ${type.cutPower}`,
    ...(type.throttleFitted ? ['The throttle can start the motor: nobody leans on it.'] : []),
    ...map.dangers.map((danger) => danger.caution),
    ...type.cautions,
  ]);
}

function brakesCaution(type: VehicleType): string {
  const [front, rear] = [cutsMotor(type, 'front'), cutsMotor(type, 'rear')];
  if (front && rear) return 'Both brakes work; each lever cuts the motor.';
  if (!front && !rear) return 'Brakes work. No lever cuts the motor: only cutting power stops it.';
  return `Brakes work; only the ${front ? 'front' : 'rear'} lever cuts the motor.`;
}

const unique = (lines: readonly string[]): readonly string[] => [...new Set(lines)];
