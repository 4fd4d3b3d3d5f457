import { CELL_VOLTS } from '../electrical/cell.js';
import { restedCellV } from '../electrical/open-circuit.js';
import { cutsMotor, type VehicleType } from '../setup/inputs/vehicle-type.js';
import { cellsFitted, pulsesFitted, type Faults } from './faults.js';
import type { DriveEnd, Obeyed } from './obeyed-codes.js';

/** A stand-in unit: what is true of it, whatever its display says. */
export interface StandIn {
  readonly type: VehicleType;
  readonly faults: Faults;
  /** How far the loaded wheel rolls in a turn; nobody is told. */
  readonly trueMm: number;
}

/** Which motors a rider lets drive, where there are two. */
export const MOTOR_CHOICES = { both: 'Both motors', front: 'Front motor alone', rear: 'Rear motor alone' } as const;
export type MotorChoice = keyof typeof MOTOR_CHOICES;

/** What hands and feet do. */
export interface Controls {
  /** 0 to 1. */
  readonly throttle: number;
  readonly pedalling: boolean;
  readonly brakes: { readonly front: boolean; readonly rear: boolean };
  /** The driven wheel is clear of the ground: nothing to carry, no wind. */
  readonly onStand: boolean;
  /** Which of two motors the rider chose. */
  readonly motors: MotorChoice;
  /** The key that starts the motor is held down. */
  readonly walkHeld: boolean;
}

export const HANDS_OFF: Controls = {
  throttle: 0,
  pedalling: false,
  brakes: { front: false, rear: false },
  onStand: true,
  motors: 'both',
  walkHeld: false,
};

export interface Motion {
  /** Against the ground, or of the tyre on a stand. */
  readonly trueKmh: number;
  /** Rolled so far, whatever for. */
  readonly rolledM: number;
  readonly chargePercent: number;
  /** Battery current, A. */
  readonly currentA: number;
  /** At the terminals, under load. */
  readonly packV: number;
  readonly pedalledSinceStop: boolean;
  readonly pedalMs: number;
  /** Steady throttle so long, for cruise. */
  readonly steadyMs: number;
  readonly steadyThrottle: number;
  readonly cruises: boolean;
  /** What cruise holds, 0 to 1. */
  readonly heldThrottle: number;
  /** The controller ended drive for low volts, until power is cycled. */
  readonly isCutOff: boolean;
}

const G = 9.81;
const AIR = 1.2;
const ROLLING = 0.012;
const EFFICIENCY = 0.78;
const STEP_MS = 10;
const ROLLS_FROM_KMH = 3;
const PEDAL_SENSED_MS = 300;
const CRUISE_AFTER_MS = 8_000;
const WALK_SHOWN_KMH = 5;
const FAST_WALK_SHOWN_KMH = 11;
const RIDER_W = 90;
/** Drive fades out over the last shown km/h before its end. */
const FADE_KMH = 1;
const PACK_OHM_PER_CELL = 0.008;

export const restedV = ({ type, faults }: StandIn, chargePercent: number): number =>
  restedCellV(type.pack.chemistry, chargePercent) * cellsFitted(type, faults);

export const atRest = (unit: StandIn, chargePercent = 95): Motion => ({
  trueKmh: 0,
  rolledM: 0,
  chargePercent,
  currentA: 0,
  packV: restedV(unit, chargePercent),
  pedalledSinceStop: false,
  pedalMs: 0,
  steadyMs: 0,
  steadyThrottle: 0,
  cruises: false,
  heldThrottle: 0,
  isCutOff: false,
});

/** Shown over true speed of this unit with these codes: pulses are counted, and a circumference is taken for granted. */
export const speedRatioOf = (
  { type, faults, trueMm }: StandIn,
  { wheelMm, pulses }: Pick<Obeyed, 'wheelMm' | 'pulses'>,
): number => (wheelMm / trueMm) * (pulsesFitted(type, faults) / pulses);

/**
 * Moves a unit on by some milliseconds. Longitudinal motion alone: drive by current, volts and what the codes allow,
 * against rolling, air and brakes; the air is such that the type attains its own top speed on a full pack.
 */
export function moveOn(
  unit: StandIn,
  motion: Motion,
  obeyed: Obeyed,
  controls: Controls,
  ms: number,
  overshootKmh = 0,
): Motion {
  let now = motion;
  for (let left = ms; left > 0; left -= STEP_MS)
    now = step(unit, now, obeyed, controls, Math.min(STEP_MS, left), overshootKmh);
  return now;
}

function step(
  unit: StandIn,
  motion: Motion,
  obeyed: Obeyed,
  controls: Controls,
  ms: number,
  overshootKmh: number,
): Motion {
  const { type } = unit;
  const { massKg, areaM2 } = bodyOf(type);
  const next = sensed(motion, controls, ms);
  const demand = demandOf(unit, next, obeyed, controls, overshootKmh);
  const currentA = demand * obeyed.currentA * (drivenBy(unit, controls).length / type.motors.length);
  const ohm = PACK_OHM_PER_CELL * cellsFitted(type, unit.faults);
  const packV = restedV(unit, next.chargePercent) - currentA * ohm;
  const isCutOff = next.isCutOff || (obeyed.cutoffV !== null && packV < obeyed.cutoffV && currentA > 0);

  const v = motion.trueKmh / 3.6;
  const rider = controls.pedalling && !controls.onStand && motion.trueKmh < 30 ? RIDER_W / Math.max(v, 1.5) : 0;
  const drive = isCutOff ? 0 : ((packV * currentA * EFFICIENCY) / Math.max(v, 1)) * fade(unit, motion, packV);
  const braking = (controls.brakes.front ? 2.5 : 0) + (controls.brakes.rear ? 1.5 : 0);
  const carried = controls.onStand ? 8 : massKg;
  const against = controls.onStand ? 1.5 + 0.02 * v * v : ROLLING * massKg * G + 0.5 * AIR * areaM2 * v * v;
  const pushN = drive + rider - braking * carried;
  const a = v <= 0 ? Math.max(0, pushN - (pushN > 0 ? against : 0)) / carried : (pushN - against) / carried;
  const trueKmh = Math.max(0, v + (a * ms) / 1000) * 3.6;
  const usedAh = isCutOff ? 0 : (currentA * ms) / 3_600_000;
  const stands = trueKmh < 0.3;
  return {
    ...next,
    trueKmh: stands && pushN <= 0 ? 0 : trueKmh,
    rolledM: next.rolledM + (trueKmh / 3.6) * (ms / 1000),
    chargePercent: Math.max(0, next.chargePercent - (usedAh / type.pack.capacityAh) * 100),
    currentA: isCutOff ? 0 : currentA,
    packV,
    isCutOff,
    pedalledSinceStop:
      !stands && (next.pedalledSinceStop || controls.pedalling) ? true : stands ? controls.pedalling : false,
  };
}

/** Places of the motors that drive when they are asked to: those chosen, less one that is dead. */
export const drivenBy = ({ type, faults }: StandIn, { motors }: Pick<Controls, 'motors'>): readonly string[] => {
  const all = type.motors.map(({ place }) => place);
  if (all.length < 2) return all;
  return all.filter((place) => (motors === 'both' || place === motors) && !(faults.motorDead && place === 'rear'));
};

function bodyOf({ kind, heavyCargo, attainableKmh, pack, controllerLimitA }: VehicleType): {
  readonly massKg: number;
  readonly areaM2: number;
} {
  const massKg = kind === 'scooter' ? 98 : heavyCargo ? 160 : 108;
  const top = attainableKmh / 3.6;
  const fullW = CELL_VOLTS[pack.chemistry].restedFullV * pack.cellsInSeries * controllerLimitA * EFFICIENCY * fadeAt(1);
  const leftN = fullW / top - ROLLING * massKg * G;
  return { massKg, areaM2: Math.max(0.15, (2 * leftN) / (AIR * top * top)) };
}

/** A motor's push fades as it nears the speed its volts allow. */
const fade = ({ type }: StandIn, { trueKmh }: Motion, packV: number): number =>
  fadeAt(
    (trueKmh / type.attainableKmh) *
      ((CELL_VOLTS[type.pack.chemistry].restedFullV * type.pack.cellsInSeries) / Math.max(packV, 1)),
  );
const fadeAt = (share: number): number => Math.min(1, Math.max(0, (1.05 - share) / 0.1575));

function sensed(motion: Motion, { throttle, pedalling, brakes }: Controls, ms: number): Motion {
  const isSteady = throttle > 0.2 && Math.abs(throttle - motion.steadyThrottle) < 0.05;
  const steadyMs = isSteady ? motion.steadyMs + ms : 0;
  const isReopened = motion.cruises && motion.steadyThrottle < 0.05 && throttle > 0.2;
  const cruises = (motion.cruises || steadyMs > CRUISE_AFTER_MS) && !brakes.front && !brakes.rear && !isReopened;
  return {
    ...motion,
    pedalMs: pedalling ? motion.pedalMs + ms : 0,
    steadyMs,
    steadyThrottle: isSteady ? motion.steadyThrottle : throttle,
    cruises,
    heldThrottle: cruises ? (motion.cruises ? motion.heldThrottle : throttle) : 0,
  };
}

/** Part of the full current that hands, feet and codes ask for together, 0 to 1. */
function demandOf(unit: StandIn, motion: Motion, obeyed: Obeyed, controls: Controls, overshootKmh: number): number {
  const { type, faults } = unit;
  const cuts = (controls.brakes.front && cutsMotor(type, 'front')) || (controls.brakes.rear && cutsMotor(type, 'rear'));
  if (cuts || faults.brakeSwitchStuck || motion.isCutOff) return 0;
  const shown = motion.trueKmh * speedRatioOf(unit, obeyed);
  const until = (all: readonly DriveEnd[]): number => {
    const ends = faults.capIgnored ? [] : all;
    return Math.min(
      1,
      ...ends.map((end) =>
        within(
          'shownKmh' in end ? end.shownKmh + overshootKmh - shown : end.share * type.attainableKmh - motion.trueKmh,
        ),
      ),
    );
  };
  const mayThrottle =
    type.throttleFitted && (faults.throttleLive || (obeyed.driveMode !== 'pedal' && started(motion, obeyed)));
  const throttle = mayThrottle ? controls.throttle * obeyed.throttleShare * until(obeyed.throttleEnds) : 0;
  const senses = obeyed.pedalMagnets === type.pedalMagnets || motion.pedalMs % 900 < 300;
  const assist =
    obeyed.driveMode !== 'throttle' && controls.pedalling && motion.pedalMs > PEDAL_SENSED_MS && senses
      ? obeyed.levelShare * until(obeyed.assistEnds)
      : 0;
  const walk =
    controls.walkHeld && obeyed.walk
      ? 0.3 * within((faults.walkFast ? FAST_WALK_SHOWN_KMH : WALK_SHOWN_KMH) - shown)
      : 0;
  const cruise = obeyed.cruise && mayThrottle && motion.cruises ? motion.heldThrottle * until(obeyed.throttleEnds) : 0;
  return Math.max(throttle, assist, walk, cruise);
}

const within = (kmhLeft: number): number => Math.min(1, Math.max(0, kmhLeft / FADE_KMH));

function started({ trueKmh, pedalledSinceStop }: Motion, { start }: Obeyed): boolean {
  switch (start) {
    case 'live':
      return true;
    case 'rolling':
      return trueKmh >= ROLLS_FROM_KMH;
    case 'pedalFirst':
      return pedalledSinceStop;
  }
}
