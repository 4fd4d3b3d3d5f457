import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { code, fourKey, hire, inputs, line, pedelec, stepThrough, withCodes, words } from '../../testing/samples.js';
import type { Code } from '../../display/map/display-map.js';
import { NO_FACTS, type SetupInputs } from '../inputs/setup-inputs.js';
import { compileSetup } from './compile-setup.js';

const compile = (over: Partial<SetupInputs> = {}) => compileSetup(inputs(over));
const withCode = (...codes: readonly Code[]) => ({ map: withCodes(fourKey, [...fourKey.codes, ...codes]) });
const target = (over: Partial<SetupInputs>) => compile(over).targets.find(({ label }) => label === 'L9');
const ids = (over: Partial<SetupInputs>) => compile(over).findings.map(({ level, id }) => `${level} ${id}`);
const chosen = (choices: Partial<typeof hire.choices>) => ({
  houseRules: { ...hire, choices: { ...hire.choices, ...choices } },
});
const throttled = { ...stepThrough, throttleFitted: true };
const free = { ...pedelec, throttle: 'toCap' as const, cruise: 'allowed' as const };
const direct = {
  ...stepThrough,
  motors: [{ place: 'rear' as const, drive: 'directHub' as const, freewheels: false }],
};

describe('cruise', () => {
  const cruise = withCode(code('L9', 'cruise', { factory: 5, encoding: words([5, 'off'], [6, 'on']) }));

  it('is off wherever no throttle may drive, whatever the house wants', () => {
    expect(target({ ...cruise, ...chosen({ cruise: 'on' }), type: throttled })).toMatchObject({
      raw: 5,
      because: expect.stringContaining('cruise would hold drive like one'),
    });
    expect(target({ ...cruise, ...chosen({ cruise: 'on' }), type: stepThrough })?.raw).toBe(5);
  });

  it('is the house to choose where a throttle may', () => {
    expect(target({ ...cruise, ...chosen({ cruise: 'on' }), type: throttled, vehicleClass: free })?.raw).toBe(6);
    expect(target({ ...cruise, type: throttled, vehicleClass: free })?.raw).toBe(5);
  });
});

describe('motor braking', () => {
  const braking = (factory: number) =>
    withCode(code('L9', 'regen', { range: { min: 0, max: 5, step: 1 }, factory, encoding: line('') }));

  it.each([
    ['weak', 3, 3],
    ['none', 2, 2],
    ['weak', 1, 1],
    ['weak', 0, 1],
    ['strong', 2, 5],
  ] as const)(
    'wanted %s where %i was delivered is set to %i: never weaker than it came',
    (motorBraking, factory, raw) => {
      expect(target({ ...braking(factory), ...chosen({ motorBraking }), type: direct })?.raw).toBe(raw);
    },
  );

  it('says so where it keeps what was delivered, and that a full pack may refuse', () => {
    const { findings } = compile({ ...braking(3), type: direct });
    expect(findings.find(({ id }) => id === 'brakesAsDelivered:L9')).toMatchObject({
      level: 'note',
      says: expect.stringContaining('A full pack may refuse to brake'),
    });
  });

  it('is weaker on one unit by a word of its own, and a lead decides on that', () => {
    const unit = {
      ...NO_FACTS,
      override: { why: 'a learner rides it', by: 'Ines M.', limit: null, choices: { motorBraking: 'weak' as const } },
    } as unknown as SetupInputs['unit'];
    expect(target({ ...braking(3), type: direct, unit })?.raw).toBe(1);
    expect(ids({ ...braking(3), type: direct, unit })).toContain('decide brakesLess:L9');
  });

  it('goes by words where the code has them', () => {
    const told = withCode(
      code('L9', 'regen', { factory: 2, encoding: words([0, 'none'], [1, 'weak'], [2, 'strong']) }),
    );
    expect(target({ ...told, type: direct })?.raw).toBe(2);
  });
});

describe('a start that waits for pedals', () => {
  it('is a stop on a scooter, which has none', () => {
    const start = withCode(
      code('L9', 'standstillStart', { factory: 3, encoding: words([1, 'rolling'], [3, 'pedalFirst']) }),
    );
    const scooter = { ...throttled, kind: 'scooter' as const };
    const asked = { ...start, type: scooter, vehicleClass: { ...free, kind: 'any' as const } };
    expect(ids({ ...asked, ...chosen({ standstillStart: 'pedalFirst' }) })).toContain('stop noPedals:L9');
    expect(ids({ ...asked, ...chosen({ standstillStart: 'rolling' }) })).not.toContain('stop noPedals:L9');
  });
});

describe('a class in which a vehicle may be lowered or restored', () => {
  const lower = { ...pedelec, regime: 'lowerOnly' as const };
  const wheel = withCode(
    code('L9', 'wheelSize', { range: { min: 16, max: 29, step: 1 }, factory: 28, encoding: line('in') }),
  );

  it('never has its wheel taken for smaller than it was made with: that alone makes it faster', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1500, max: 2400 }), (mm) => {
        const unit = { ...NO_FACTS, rolled: { mm, fromMm: mm - 10, toMm: mm + 10 } };
        expect(target({ ...wheel, vehicleClass: lower, unit })?.raw).toBeGreaterThanOrEqual(28);
      }),
    );
    const measured = { ...NO_FACTS, ratio: { k: 1.12, low: 1.11, atWheelRaw: 28 } };
    expect(target({ ...wheel, vehicleClass: lower, unit: measured })?.raw).toBeLessThan(28);
    const small = { ...NO_FACTS, rolled: { mm: 1700, fromMm: 1690, toMm: 1710 } };
    expect(target({ ...wheel, unit: small })?.raw).toBeLessThan(28);
  });

  it('nor more pulses a turn, nor help that was off', () => {
    const pulses = withCode(
      code('L9', 'wheelPulses', { range: { min: 1, max: 12, step: 1 }, factory: 1, encoding: line('') }),
    );
    expect(target({ ...pulses, vehicleClass: lower, type: { ...stepThrough, wheelPulses: 6 } })?.raw).toBe(1);
    expect(
      target({ ...pulses, vehicleClass: { ...lower, regime: 'set' }, type: { ...stepThrough, wheelPulses: 6 } })?.raw,
    ).toBe(6);
    const walk = withCode(code('L9', 'walk', { factory: 5, encoding: words([5, 'off'], [6, 'on']) }));
    expect(target({ ...walk, vehicleClass: { ...lower, walkTo: null }, ...chosen({ walk: 'on' }) })?.raw).toBe(5);
  });
});

describe('a cap that is locked', () => {
  it('is judged by where drive really ends: 25 with 1 km/h beyond is a stop', () => {
    const map = {
      ...withCodes(
        fourKey,
        fourKey.codes.map((each) => (each.label === 'L2' ? { ...each, access: 'locked' as const, factory: 25 } : each)),
      ),
      speed: { rounding: 'nearest' as const, decimals: 1, overshootKmh: 1 },
    };
    expect(compile({ map }).findings.some(({ level }) => level === 'stop')).toBe(true);
    const held = { ...map, speed: { ...map.speed, overshootKmh: 0 } };
    expect(compile({ map: held }).findings.filter(({ level }) => level === 'stop')).toEqual([]);
  });
});

describe('a pack that gives many times what the motor is rated', () => {
  it('gets a note with all three readings of its power', () => {
    const strong = {
      ...stepThrough,
      ratedPowerW: 500,
      controllerLimitA: 30,
      typeLimitA: 24,
      pack: { ...stepThrough.pack, labelV: 60, cellsInSeries: 16 },
    };
    const { findings } = compile({ type: strong });
    expect(findings.find(({ id }) => id === 'drawsFarAbove:unit')).toMatchObject({
      level: 'note',
      says: expect.stringMatching(/500 W; 60 V and 24 A draw 1440 W from the pack, 1613 W when it is full/),
    });
    expect(ids({})).not.toContain('note drawsFarAbove:unit');
  });
});

describe('walk assist', () => {
  const mph = withCode(code('L9', 'walk', { range: { min: 0, max: 6, step: 1 }, factory: 0, encoding: line('mph') }));
  const cargo = { ...stepThrough, heavyCargo: true };

  it('is bounded by the class in whatever unit its code counts', () => {
    const kmh = { ...pedelec, walkTo: { value: 6, unit: 'km/h' as const } };
    expect(target({ ...mph, type: cargo, vehicleClass: kmh })?.raw).toBe(3);
    expect(target({ ...mph, type: cargo, vehicleClass: { ...kmh, walkTo: { value: 3.7, unit: 'mph' } } })?.raw).toBe(3);
    expect(target({ ...mph, type: cargo, vehicleClass: { ...kmh, walkTo: { value: 1, unit: 'km/h' } } })?.raw).toBe(0);
  });

  it('that is only switched on is to be measured', () => {
    const onOff = withCode(code('L9', 'walk', { factory: 5, encoding: words([5, 'off'], [6, 'on']) }));
    const kmh = { ...pedelec, walkTo: { value: 6, unit: 'km/h' as const } };
    expect(target({ ...onOff, type: cargo, vehicleClass: kmh })?.raw).toBe(6);
    expect(ids({ ...onOff, type: cargo, vehicleClass: kmh })).toContain('note walkSpeed:L9');
    expect(ids({ ...onOff, vehicleClass: kmh })).not.toContain('note walkSpeed:L9');
  });
});
