import type { VehicleType } from '../setup/inputs/vehicle-type.js';
import { parseTyreMarking, rollOutGuess } from '../speed/tyre-marking.js';
import { NO_FAULTS, type Faults } from './faults.js';
import type { StandIn } from './motion.js';

/** A wheel differs from what its marking or its type's roll-out says by so much, as a standard deviation. */
const SPREAD = 0.012;

/** A stand-in unit of a type. The same seed gives the same hidden wheel. */
export function newStandIn(type: VehicleType, seed: number, faults: Faults = NO_FAULTS): StandIn {
  const marked = parseTyreMarking(type.tyre.marking);
  const typical = type.tyre.rolledMm ?? (marked ? rollOutGuess(marked).mm * 0.99 : Math.PI * 25.4 * type.tyre.wheelInch);
  return { type, faults, trueMm: typical * (1 + SPREAD * bell(seed)) };
}

/** A number near 0 with a standard deviation of about 1, the same for the same seed. */
function bell(seed: number): number {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t ^= t + Math.imul(t ^ (t >>> 7), 61 | t);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  return Array.from({ length: 12 }, next).reduce((sum, part) => sum + part, -6);
}
