import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import {
  atRest,
  displayAtRest,
  drivenBy,
  fittedMap,
  HANDS_OFF,
  instrumentsOf,
  moveOn,
  newStandIn,
  obeyedCodes,
  speedRatioOf,
  type Controls,
  type DisplayMap,
  type Instruments,
  type Motion,
  type RawValues,
  type VehicleType,
} from '@decurio/core';
import { useHandlebar, type Handlebar } from '../../ui/handlebar/use-handlebar.js';
import { tellFeed } from '../../measuring/stand-in-feed.js';
import { keepStandIn, seedOf, type KeptStandIn } from './kept-stand-in.js';

const TICK_MS = 100;

export interface StandInRun {
  /** The display as it is really fitted. */
  readonly map: DisplayMap;
  readonly bar: Handlebar;
  readonly isPackIn: boolean;
  readonly motion: Motion;
  readonly odometerKm: number;
  readonly instruments: Instruments;
  /** Shown over true speed, which nobody at the stand knows. */
  readonly ratio: number;
  readonly controls: Controls;
  readonly control: (change: Partial<Controls>) => void;
  readonly packIn: () => void;
  readonly packOut: () => void;
  readonly unplug: () => void;
  readonly charge: (percent: number) => void;
  /** Places of the motors that drive it when they are asked to. */
  readonly driven: readonly string[];
  /** As its codes say; null where it stays on. */
  readonly autoOffMin: number | null;
  /** So long nobody touches it. */
  readonly leaveAlone: () => void;
}

export interface StandInOf {
  readonly unitId: string;
  readonly serial: string;
  readonly type: VehicleType;
  readonly map: DisplayMap;
  readonly other: DisplayMap | null;
  readonly kept: KeptStandIn;
}

/** A simulated vehicle under real hands: its display in real time, its wheel, motor and pack by simple physics. */
export function useStandIn({ unitId, serial, type, map, other, kept }: StandInOf): StandInRun {
  const faults = useMemo(() => ({ ...kept.faults, otherRevision: other }), [kept.faults, other]);
  const fitted = useMemo(() => fittedMap(map, faults), [map, faults]);
  const unit = useMemo(() => newStandIn(type, seedOf(serial), faults), [type, serial, faults]);
  const display =
    kept.display && fitted.codes.every(({ label }) => label in (kept.display?.stored ?? {}))
      ? { ...displayAtRest(fitted), ...kept.display }
      : {};
  const bar = useHandlebar(fitted, display);
  const [isPackIn, setPackIn] = useState(kept.isPackIn);
  const [motion, setMotion] = useState(() => atRest(unit, kept.chargePercent));
  const [controls, setControls] = useState(HANDS_OFF);

  const { state, down } = bar;
  const isOn = isPackIn && state.screen.kind !== 'off';
  const values = useMemo(
    (): RawValues => (faults.deadCode === null ? state.inForce : without(state.inForce, faults.deadCode)),
    [state.inForce, faults.deadCode],
  );
  const obeyed = useMemo(
    () => obeyedCodes(type, fitted, values, { level: state.level, mode: state.mode, on: state.on }),
    [type, fitted, values, state.level, state.mode, state.on],
  );
  const walkHeld = fitted.dangers.some(
    ({ gesture }) =>
      gesture.kind === 'hold' && gesture.keys.every((key) => down.has(key)) && down.size === gesture.keys.length,
  );

  const latest = useRef({ controls, obeyed, isOn, walkHeld });
  useEffect(() => {
    latest.current = { controls, obeyed, isOn, walkHeld };
  });
  useEffect(() => {
    const timer = setInterval(() => {
      const now = latest.current;
      const hands = now.isOn
        ? { ...now.controls, walkHeld: now.walkHeld }
        : { ...now.controls, throttle: 0, walkHeld: false };
      setMotion((before) => {
        const isIdle = before.trueKmh === 0 && hands.throttle === 0 && !hands.pedalling && !hands.walkHeld;
        return isIdle
          ? before
          : moveOn(
              unit,
              before,
              now.isOn ? now.obeyed : { ...now.obeyed, levelShare: 0 },
              hands,
              TICK_MS,
              fitted.speed?.overshootKmh ?? 0,
            );
      });
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [unit, fitted]);

  const odometerKm = Math.floor((kept.odometerKm + motion.rolledM / 1000) * 10) / 10;
  useEffect(() => {
    keepStandIn(unitId, { ...kept, display: state, isPackIn, chargePercent: motion.chargePercent, odometerKm });
  }, [unitId, kept, state, isPackIn, motion.chargePercent, odometerKm]);

  useEffect(
    () => tellFeed({ unitId, treadKmh: motion.trueKmh, groundKmh: controls.onStand ? 0 : motion.trueKmh }),
    [unitId, motion.trueKmh, controls.onStand],
  );
  useEffect(() => () => tellFeed(null), []);

  const control = useCallback((change: Partial<Controls>) => setControls((before) => ({ ...before, ...change })), []);
  return {
    map: fitted,
    bar: isPackIn ? bar : { ...bar, press: () => undefined },
    isPackIn,
    motion,
    odometerKm,
    instruments: instrumentsOf(unit, fitted, motion, obeyed),
    ratio: speedRatioOf(unit, obeyed),
    controls,
    control,
    driven: drivenBy(unit, controls),
    packIn: () => {
      setPackIn(true);
      setMotion((before) => ({ ...before, isCutOff: false }));
    },
    packOut: () => {
      bar.act({ kind: 'packOut' });
      setPackIn(false);
    },
    unplug: () => bar.act({ kind: 'unplugDisplay' }),
    charge: (percent) => setMotion((before) => ({ ...before, chargePercent: percent, isCutOff: false })),
    autoOffMin: obeyed.autoOffMin,
    leaveAlone: () => bar.act({ kind: 'packOut' }),
  };
}

const without = (values: RawValues, label: string): RawValues =>
  Object.fromEntries(Object.entries(values).filter(([other]) => other !== label));
