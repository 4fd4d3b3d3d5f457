import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { displayAtRest, simulateDisplay } from '../display/machine/simulate-display.js';
import type { DisplayMap } from '../display/map/display-map.js';
import { demoMap } from '../testing/demo-maps.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';
import { fittedMap, NO_FAULTS, type Faults } from './faults.js';
import { instrumentsOf } from './instruments.js';
import { atRest, drivenBy, HANDS_OFF, moveOn, speedRatioOf, type Controls, type Motion } from './motion.js';
import { newStandIn } from './new-stand-in.js';
import { obeyedCodes } from './obeyed-codes.js';

const read = (path: string) =>
  JSON.parse(readFileSync(new URL(`../../demo/${path}`, import.meta.url), 'utf8')) as unknown;
const tallow = demoMap('tallow-four-key');
const limpet = demoMap('limpet-modes');
const samphire = read('types/samphire-26.json') as VehicleType;
const petrel = read('types/petrel-10.json') as VehicleType;

const throttled = { ...samphire, throttleFitted: true };
const set = (values: Record<string, number>, level = 5, type: VehicleType = throttled) =>
  obeyedCodes(type, tallow, values, { level, mode: null });
const RIDE: Controls = { ...HANDS_OFF, onStand: false, pedalling: true };
const THROTTLE: Controls = { ...HANDS_OFF, onStand: false, throttle: 1 };
const ride = (
  values: Record<string, number>,
  controls: Controls,
  seconds = 90,
  faults: Faults = NO_FAULTS,
  from?: Motion,
) => {
  const unit = newStandIn(throttled, 7, faults);
  return { unit, motion: moveOn(unit, from ?? atRest(unit), set(values), controls, seconds * 1000) };
};
const shown = (values: Record<string, number>, motion: Partial<Motion>, faults: Faults = NO_FAULTS, map = tallow) => {
  const unit = newStandIn(throttled, 7, faults);
  return instrumentsOf(unit, map, { ...atRest(unit), ...motion }, set(values));
};
/** Both, live, on a full level. */
const OPEN = { 'L4.1': 25, 'L4.3': 33, 'L2.4': 22, 'L1.1': 11 };

describe('a stand-in unit', () => {
  it('ends drive at its cap in shown speed: truly at the cap over its hidden ratio', () => {
    const { unit, motion } = ride(OPEN, THROTTLE);
    const k = speedRatioOf(unit, set(OPEN));
    expect(motion.trueKmh * k).toBeGreaterThan(24);
    expect(motion.trueKmh * k).toBeLessThanOrEqual(25);
    expect(motion.trueKmh).not.toBeCloseTo(25, 1);
  });

  it('is driven by the motors that its rider chose, less one that is dead, each with its share of the current', () => {
    const [front, rear] = (['front', 'rear'] as const).map((place) => ({
      place,
      drive: 'directHub' as const,
      freewheels: false,
    }));
    const two: VehicleType = { ...throttled, motors: [front!, rear!] };
    const pulling = (motors: Controls['motors'], faults: Faults = NO_FAULTS) => {
      const unit = newStandIn(two, 7, faults);
      const hands: Controls = { ...HANDS_OFF, throttle: 1, motors };
      return { driven: drivenBy(unit, hands), amps: moveOn(unit, atRest(unit), set(OPEN, 5, two), hands, 40).currentA };
    };
    const both = pulling('both');
    expect(both.driven).toEqual(['front', 'rear']);
    for (const motors of ['front', 'rear'] as const) {
      const one = pulling(motors);
      expect(one.driven).toEqual([motors]);
      expect(one.amps / both.amps).toBeCloseTo(0.5, 1);
    }
    const dead = { ...NO_FAULTS, motorDead: true };
    expect(pulling('both', dead).driven).toEqual(['front']);
    expect(pulling('rear', dead)).toEqual({ driven: [], amps: 0 });
    expect(drivenBy(newStandIn(throttled, 7, dead), HANDS_OFF)).toEqual(['rear']);
  });

  it('runs on beyond the cap by the overshoot of its display', () => {
    const unit = newStandIn(throttled, 7);
    const shown = moveOn(unit, atRest(unit), set(OPEN), THROTTLE, 90_000, 2).trueKmh * speedRatioOf(unit, set(OPEN));
    expect(shown).toBeGreaterThan(25.5);
    expect(shown).toBeLessThanOrEqual(27);
  });

  it('attains about the top speed of its type where nothing caps it, and less on a low pack', () => {
    const unit = newStandIn(throttled, 7);
    const uncapped = {
      ...set(OPEN),
      throttleEnds: [],
      assistEnds: [],
      currentA: throttled.controllerLimitA,
      cutoffV: null,
    };
    const full = moveOn(unit, atRest(unit, 100), uncapped, THROTTLE, 240_000).trueKmh;
    const low = moveOn(unit, atRest(unit, 12), uncapped, THROTTLE, 240_000).trueKmh;
    expect(full / throttled.attainableKmh).toBeGreaterThan(0.93);
    expect(full / throttled.attainableKmh).toBeLessThan(1.05);
    expect(low).toBeLessThan(full * 0.97);
  });

  it('rolls as far as its speed takes it', () => {
    const { motion, unit } = ride(OPEN, THROTTLE, 60);
    const on = moveOn(unit, motion, set(OPEN), THROTTLE, 10_000);
    expect((on.rolledM - motion.rolledM) / ((on.trueKmh / 3.6) * 10)).toBeCloseTo(1, 1);
  });

  it('obeys drive mode and start: pedal alone, only once rolling, only once pedalled', () => {
    expect(ride({ ...OPEN, 'L4.3': 31 }, THROTTLE).motion.trueKmh).toBe(0);
    expect(ride({ ...OPEN, 'L4.3': 31 }, RIDE).motion.trueKmh).toBeGreaterThan(18);
    const rolling = { ...OPEN, 'L2.4': 21 };
    expect(ride(rolling, THROTTLE).motion.trueKmh).toBe(0);
    const pedalled = ride(rolling, RIDE, 6).motion;
    expect(ride(rolling, THROTTLE, 60, NO_FAULTS, pedalled).motion.trueKmh).toBeGreaterThan(18);
  });

  it('gives less on a lower level, and nothing of assist on level 0', () => {
    const on = (level: number) =>
      moveOn(newStandIn(throttled, 7), atRest(newStandIn(throttled, 7)), set(OPEN, level), RIDE, 8_000).trueKmh;
    expect(on(1)).toBeLessThan(on(5));
    expect(moveOn(newStandIn(throttled, 7), atRest(newStandIn(throttled, 7)), set(OPEN, 0), RIDE, 8_000).currentA).toBe(
      0,
    );
  });

  it('is cut by each lever that has a switch, and by a stuck one for good', () => {
    const { motion, unit } = ride(OPEN, THROTTLE, 20);
    const braked = moveOn(unit, motion, set(OPEN), { ...THROTTLE, brakes: { front: true, rear: false } }, 200);
    expect(braked.currentA).toBe(0);
    expect(ride(OPEN, THROTTLE, 60, { ...NO_FAULTS, brakeSwitchStuck: true }).motion.trueKmh).toBe(0);
  });

  it('ends drive at its cut-off volts until power is cycled', () => {
    const unit = newStandIn(throttled, 7);
    const low = moveOn(unit, atRest(unit, 3), { ...set(OPEN), cutoffV: 33 }, THROTTLE, 30_000);
    expect(low).toMatchObject({ isCutOff: true, currentA: 0 });
  });

  it('has the same wheel for the same seed, and another for another', () => {
    expect(newStandIn(samphire, 7)).toEqual(newStandIn(samphire, 7));
    const wheels = Array.from({ length: 200 }, (_, seed) => newStandIn(samphire, seed).trueMm);
    const mean = wheels.reduce((a, b) => a + b) / wheels.length;
    const spread = Math.sqrt(wheels.reduce((sum, mm) => sum + (mm - mean) ** 2, 0) / wheels.length) / mean;
    expect(spread).toBeGreaterThan(0.009);
    expect(spread).toBeLessThan(0.015);
  });
});

describe('the ends of drive', () => {
  it('all hold: the first that is reached ends it', () => {
    const unit = newStandIn(throttled, 7);
    const both = { ...set(OPEN), throttleEnds: [{ shownKmh: 25 }, { share: 15 / throttled.attainableKmh }] };
    expect(moveOn(unit, atRest(unit), both, THROTTLE, 60_000).trueKmh).toBeLessThanOrEqual(15.01);
  });

  it('are taken in mph where the display says so', () => {
    const [kmh, mph] = [set(OPEN), set({ ...OPEN, 'L1.1': 12 })].map(({ throttleEnds }) => throttleEnds[0]);
    const follows = tallow.codes.find(({ label }) => label === 'L4.1')?.encoding;
    expect(kmh).toEqual({ shownKmh: 25 });
    expect(mph).toEqual({ shownKmh: follows?.kind === 'line' && follows.follows !== undefined ? 25 * 1.609344 : 25 });
  });
});

describe('its instruments', () => {
  it('show speed in the unit of the display', () => {
    const kmh = shown(OPEN, { trueKmh: 20 });
    const mph = shown({ ...OPEN, 'L1.1': 12 }, { trueKmh: 20 });
    expect([kmh.unit, mph.unit]).toEqual(['km/h', 'mph']);
    expect(mph.speed / kmh.speed).toBeCloseTo(0.62, 1);
  });

  it('show twice the speed where the wheel gives twice the pulses', () => {
    expect(shown(OPEN, { trueKmh: 20 }, { ...NO_FAULTS, wrongPulses: true }).speed).toBeGreaterThan(38);
  });

  it('tell of another pack by the meter', () => {
    expect(shown(OPEN, {}).meterV).toBeLessThan(42);
    expect(shown(OPEN, {}, { ...NO_FAULTS, otherPack: true }).meterV).toBeGreaterThan(46);
  });
});

describe('its faults', () => {
  const press = (map: DisplayMap, keys: readonly ('set' | '+' | '-')[]) => {
    const id = (label: string) => map.keys.find((key) => key.label.replace('−', '-') === label)!.id;
    const opened = simulateDisplay(map, displayAtRest(map), { kind: 'hold', keys: [id('set'), id('+')], ms: 2500 });
    return keys.reduce((state, key) => simulateDisplay(map, state, { kind: 'tap', key: id(key) }), opened);
  };

  it('lock a code, and no other', () => {
    const locked = fittedMap(tallow, { ...NO_FAULTS, lockedCode: 'L1.1' });
    expect(press(locked, ['-', 'set', '+', 'set']).stored).toMatchObject({ 'L1.1': 12, 'L1.2': 4 });
    expect(press(tallow, ['-', 'set', '+', 'set']).stored).toMatchObject({ 'L1.1': 11, 'L1.2': 4 });
  });

  it('close the menu early', () => {
    const early = fittedMap(tallow, { ...NO_FAULTS, menuClosesEarly: true });
    const waited = (map: DisplayMap) =>
      simulateDisplay(map, press(map, []), { kind: 'wait', ms: tallow.menu!.idle.browseMs * 0.6 }).screen.kind;
    expect([waited(tallow), waited(early)]).toEqual(['menu', 'riding']);
  });

  it('put another display on it', () => {
    expect(fittedMap(tallow, { ...NO_FAULTS, otherRevision: limpet }).codes).toEqual(limpet.codes);
  });
});

describe('faults that proving is to catch', () => {
  const pedalOnly = { ...OPEN, 'L4.3': 31 };
  it('let a throttle drive that must be dead, and drive run past its cap', () => {
    expect(ride(pedalOnly, THROTTLE, 20).motion.trueKmh).toBe(0);
    expect(ride(pedalOnly, THROTTLE, 20, { ...NO_FAULTS, throttleLive: true }).motion.trueKmh).toBeGreaterThan(5);
    expect(ride(OPEN, THROTTLE, 120, { ...NO_FAULTS, capIgnored: true }).motion.trueKmh).toBeGreaterThan(27);
  });

  it('push too fast while walking', () => {
    const walking: Controls = { ...HANDS_OFF, walkHeld: true };
    const on = { ...OPEN, 'L5.2': 52 };
    expect(ride(on, walking, 30).motion.trueKmh).toBeLessThanOrEqual(6);
    expect(ride(on, walking, 30, { ...NO_FAULTS, walkFast: true }).motion.trueKmh).toBeGreaterThan(7);
  });

  it('show an error, and a gauge of another class', () => {
    expect(shown(OPEN, {}).errors).toEqual([]);
    expect(shown(OPEN, {}, { ...NO_FAULTS, errorRecurs: true }).errors).toEqual(['E21']);
    const [right, wrong] = [shown(OPEN, {}), shown(OPEN, {}, { ...NO_FAULTS, gaugeOfOther: true })];
    expect((right.gaugePercent ?? 0) - (wrong.gaugePercent ?? 0)).toBeGreaterThan(50);
  });
});

describe('cruise', () => {
  const CRUISE = { ...OPEN, 'L5.3': 54 };
  it('holds once the throttle was steady, is let go by a brake, and does nothing where it is off', () => {
    const held = (values: Record<string, number>, then: Controls) => {
      const { unit, motion } = ride(values, { ...THROTTLE, throttle: 0.6 }, 20);
      return moveOn(unit, motion, set(values), then, 15_000);
    };
    const off: Controls = { ...HANDS_OFF, onStand: false };
    expect(held(CRUISE, off).currentA).toBeGreaterThan(0);
    expect(held({ ...OPEN, 'L5.3': 53 }, off).currentA).toBe(0);
    const { unit, motion } = ride(CRUISE, { ...THROTTLE, throttle: 0.6 }, 20);
    const braked = moveOn(unit, motion, set(CRUISE), { ...off, brakes: { front: true, rear: false } }, 300);
    expect(moveOn(unit, braked, set(CRUISE), off, 2_000).currentA).toBe(0);
  });
});

describe('a scooter with ride modes', () => {
  it('goes as fast as the mode that is on allows', () => {
    const unit = newStandIn(petrel, 3);
    const modes = limpet.ride!.modes!.list.map(({ id }) => {
      // Delivered with turbo in its fastest mode, which lifts the cap of that.
      const obeyed = obeyedCodes(petrel, limpet, { 'fast S7': 0 }, { level: 1, mode: id });
      return {
        id,
        obeyed,
        top: moveOn(
          unit,
          atRest(unit, 100),
          { ...obeyed, driveMode: 'throttle', start: 'live' },
          { ...HANDS_OFF, onStand: false, throttle: 1 },
          120_000,
        ).trueKmh,
      };
    });
    for (const { obeyed, top } of modes)
      for (const end of obeyed.throttleEnds)
        if ('share' in end) expect(top).toBeLessThanOrEqual(end.share * petrel.attainableKmh + 0.01);
    expect(modes.every(({ obeyed }) => obeyed.throttleEnds.length > 0)).toBe(true);
    expect(new Set(modes.map(({ top }) => Math.round(top))).size).toBeGreaterThan(1);
  });
});
