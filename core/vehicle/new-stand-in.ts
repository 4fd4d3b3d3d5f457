import type { VehicleType } from '../setup/inputs/vehicle-type.js';
import { parseTyreMarking, rollOutGuess } from '../speed/tyre-marking.js';
import { seeded } from '../statistics/seeded.js';
import { NO_FAULTS, type Faults } from './faults.js';
import type { StandIn } from './motion.js';

/** A wheel differs from what its marking or its type's roll-out says by so much, as a standard deviation. */
const SPREAD = 0.012;

/** A stand-in unit of a type. The same seed gives the same hidden wheel. */
export function newStandIn(type: VehicleType, seed: number, faults: Faults = NO_FAULTS): StandIn {
  const marked = parseTyreMarking(type.tyre.marking);
  const typical =
    type.tyre.rolledMm ?? (marked ? rollOutGuess(marked).mm * 0.99 : Math.PI * 25.4 * type.tyre.wheelInch);
  return { type, faults, trueMm: typical * (1 + SPREAD * seeded(seed).normal()) };
}
