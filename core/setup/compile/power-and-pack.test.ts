import { describe, expect, it } from 'vitest';
import type { Code } from '../../display/map/display-map.js';
import { code, fourKey, hire, inputs, line, pedelec, stepThrough, withCodes, words } from '../../testing/samples.js';
import { compileSetup } from './compile-setup.js';
import { NO_FACTS, type SetupInputs } from '../inputs/setup-inputs.js';
import type { Choices } from '../inputs/house-rules.js';

const compile = (over: Partial<SetupInputs> = {}) => compileSetup(inputs(over));
const target = (label: string, over: Partial<SetupInputs> = {}) => compile(over).targets.find((t) => t.label === label);
const ids = (over: Partial<SetupInputs> = {}) => compile(over).findings.map(({ level, id }) => `${level} ${id}`);
const also = (...codes: Code[]) => ({ map: withCodes(fourKey, [...fourKey.codes, ...codes]) });
const chosen = (choices: Partial<Choices>) => ({ houseRules: { ...hire, choices: { ...hire.choices, ...choices } } });
const pack48 = {
  chemistry: 'liIon' as const,
  cellsInSeries: 13,
  labelV: 48,
  capacityAh: 14,
  protectionTripsV: null,
  profile: null,
};

describe('power', () => {
  it("on the rated basis gives no current: the type's limit stands", () => {
    expect(target('L5')).toMatchObject({ raw: 12, because: '250 W rated; type allows 12 A' });
  });

  it('stops on a rated label above the class, however low the current', () => {
    expect(ids({ type: { ...stepThrough, ratedPowerW: 500 } })).toContain('stop ratedPower:L5');
  });

  it.each([
    ['nominal', 15],
    ['full', 13],
  ] as const)('of 750 W at 48 V is %s: %d A, with all readings in the trail', (basis, amps) => {
    const type = { ...stepThrough, typeLimitA: 20, controllerLimitA: 20, pack: pack48 };
    const current = target('L5', { type, vehicleClass: { ...pedelec, power: [{ watts: 750, basis, is: 'atMost' }] } });
    expect(current?.raw).toBe(amps);
    expect(current?.trail?.map((s) => s.says).join(' ')).toContain(
      '15.6 A at 48 V by label, 13.7 A at 54.6 V when full',
    );
  });
});

describe('the cut-off', () => {
  const open = (range: Code['range']) =>
    code('L9', 'cutoffVoltage', { range, decimals: 1, factory: range.min, encoding: line('V') });

  it('is the cell floor and the margin, times the cells', () => {
    expect(target('L4')).toMatchObject({ raw: 31, because: '3.1 V a cell, 10 cells' });
    const lfp = {
      ...stepThrough,
      pack: {
        chemistry: 'lfp' as const,
        cellsInSeries: 12,
        labelV: 36,
        capacityAh: 10,
        protectionTripsV: null,
        profile: null,
      },
    };
    expect(target('L4', { type: lfp })?.raw).toBe(33.6);
    expect(target('L4', chosen({ cutoffMarginVPerCell: 0 }))?.raw).toBe(30);
  });

  it("lies not under the controller's own, and above where the pack protects itself", () => {
    const over = also(open({ min: 28, max: 36, step: 0.1 }));
    expect(target('L9', { ...over, type: { ...stepThrough, controllerCutoffV: 32 } })).toMatchObject({
      raw: 32,
      because: expect.stringContaining('controller itself'),
    });
    expect(
      target('L9', { ...over, type: { ...stepThrough, pack: { ...stepThrough.pack, protectionTripsV: 33 } } })?.raw,
    ).toBe(33.1);
    expect(
      target('L9', { ...over, type: { ...stepThrough, pack: { ...stepThrough.pack, protectionTripsV: 28 } } })?.raw,
    ).toBe(31);
  });

  it('stops on a code that cannot be set high enough, and asks where the ride would end early', () => {
    expect(ids(also(open({ min: 20, max: 28, step: 0.5 })))).toContain('stop tooLow:L9');
    expect(ids(also(open({ min: 37, max: 40, step: 0.5 })))).toContain('decide endsEarly:L9');
    expect(ids(also(open({ min: 43, max: 60, step: 0.5 })))).toContain('stop aboveFull:L9');
  });

  it('names a taper that never acts', () => {
    const taper = (factory: number) =>
      also(code('L9', 'taperVoltage', { range: { min: 20, max: 40, step: 1 }, factory, encoding: line('V') }));
    expect(ids(taper(30))).toContain('note taperNeverActs:L9');
    expect(ids(taper(33))).toEqual([]);
  });
});

describe('the pack', () => {
  it('whose label does not go with its cells is questioned', () => {
    expect(ids({ type: { ...stepThrough, pack: { ...pack48, labelV: 52 } } })).toContain('decide packLabel:unit');
    expect(ids({ type: { ...stepThrough, pack: pack48 } })).not.toContain('decide packLabel:unit');
  });

  it('is held against the meter, and the pack that would explain the reading is named', () => {
    const reads = (packV: number) => compile({ unit: { ...NO_FACTS, packV } }).findings;
    expect(reads(39.8)).toEqual([]);
    expect(reads(46.9)[0]).toMatchObject({ level: 'stop', says: expect.stringContaining('12, 13, 14 or 15 cells') });
    expect(reads(24)[0]).toMatchObject({ level: 'stop', id: 'packVolts:unit' });
    expect(reads(32)[0]).toMatchObject({ level: 'note', id: 'packVolts:unit' });
  });

  it('never meets a display that its full volts would destroy', () => {
    expect(ids({ type: { ...stepThrough, displayStandsV: { from: 20, to: 40 } } })).toContain('stop displayVolts:unit');
    expect(ids({ type: { ...stepThrough, displayStandsV: { from: 33, to: 60 } } })).toContain('note displayDark:unit');
  });

  it('decides voltage class, cell kind and profile', () => {
    const klass = code('L8', 'nominalVoltage', { encoding: words([5, '24'], [6, '36']) });
    const kind = code('L9', 'batteryKind', { encoding: words([5, 'lfp'], [6, 'liIon']) });
    expect(target('L8', also(klass))?.raw).toBe(6);
    expect(target('L9', also(kind))?.raw).toBe(6);
    expect(ids({ ...also(klass), type: { ...stepThrough, pack: pack48 } })).toContain('stop noVoltageClass:L8');
    const profile = also(code('L9', 'packProfile', { encoding: words([1, 'a'], [2, 'b']) }));
    expect(target('L9', profile)?.raw).toBeNull();
    expect(
      target('L9', { ...profile, type: { ...stepThrough, pack: { ...stepThrough.pack, profile: 'b' } } })?.raw,
    ).toBe(2);
  });

  it('gives the gauge its steps', () => {
    const volts = { range: { min: 25, max: 45, step: 0.1 }, decimals: 1, factory: 30, encoding: line('V') };
    const bars = [1, 2, 3].map((n) => code(`G${n}`, 'gaugeStep', volts));
    const { targets } = compile(also(...bars, code('G4', 'gaugeEmptyV', volts), code('G5', 'gaugeFullV', volts)));
    expect(targets.slice(-5).map((t) => t.raw)).toEqual([35.8, 37, 39.1, 31, 41.2]);
    const centre = compile({ map: { ...also(...bars).map, gauge: { barGoesOutAt: 'centre' } } });
    expect(centre.targets.slice(-3).map((t) => t.raw)).toEqual([36.4, 38, 40.4]);
  });
});

describe('wheel and pedals', () => {
  const inches = code('L9', 'wheelSize', { range: { min: 16, max: 29, step: 1 }, encoding: line('in') });
  const millimetres = code('L9', 'wheelSize', {
    range: { min: 1000, max: 2400, step: 1 },
    factory: 2080,
    encoding: line('mm'),
  });

  it('are as marked until somebody measured', () => {
    expect(target('L9', also(inches))).toMatchObject({ raw: 26, because: 'As marked: 47-559, not yet measured' });
    expect(target('L9', also(millimetres))?.raw).toBe(2052);
  });

  it('then as rolled out, never showing too little', () => {
    const type = { ...stepThrough, tyre: { ...stepThrough.tyre, rolledMm: 2047.5 } };
    expect(target('L9', { ...also(millimetres), type })?.raw).toBe(2048);
    expect(target('L9', { ...also(millimetres), type, ...chosen({ shownSpeed: 'nearest' }) })?.raw).toBeOneOf([
      2047, 2048,
    ]);
    expect(target('L9', { ...also(millimetres), type, ...chosen({ wheelValue: 'marked' }) })?.raw).toBe(2052);
  });

  it('then as fitted to runs, and the cap counts with the corrected wheel', () => {
    const unit = { ...NO_FACTS, ratio: { k: 0.95, low: 0.94, atWheelRaw: 2080 } };
    const over = { ...also(millimetres), unit };
    // Never under true: the wheel is set by the lower end of the ratio, which leaves the cap its 25.
    expect([target('L9', over)?.raw, target('L2', over)?.raw]).toEqual([2213, 25]);
    const nearest = { ...over, ...chosen({ shownSpeed: 'nearest' }) };
    expect([target('L9', nearest)?.raw, target('L2', nearest)?.raw]).toEqual([2189, 24]);
  });

  it('as chosen at the stand, whatever else would suit, and as learnt from others where it was not run itself', () => {
    const ratio = { k: 0.95, low: 0.94, atWheelRaw: 2080 };
    const taken = { wheelRaw: 2230, pulsesRaw: null, count: 4, by: 'Ines M.' };
    expect(target('L9', { ...also(millimetres), unit: { ...NO_FACTS, ratio: { ...ratio, taken } } })).toMatchObject({
      raw: 2230,
      because: 'Fitted to 4 readings, and chosen by Ines M.: 2230.',
    });
    expect(
      target('L9', { ...also(millimetres), unit: { ...NO_FACTS, ratio: { ...ratio, learntFrom: 11 } } })?.because,
    ).toContain('Learnt from 11 units of this type, display and tyre, this one not itself measured');
    expect(
      target('L9', {
        ...also(millimetres),
        unit: { ...NO_FACTS, rolled: { mm: 2100, fromMm: 2088, toMm: 2112 } },
      }),
    ).toMatchObject({ raw: 2112 });
  });

  it('and drive that was seen to act beyond the cap lowers it', () => {
    const unit = { ...NO_FACTS, ratio: { k: 1, low: 1, atWheelRaw: null } };
    expect(target('L2', { unit: { ...unit, overshootKmh: 0 } })?.raw).toBe(25);
    expect(target('L2', { unit: { ...unit, overshootKmh: 1.2 } })?.raw).toBe(23);
  });

  it('a scooter marking tells no circumference', () => {
    expect(
      ids({ ...also(millimetres), type: { ...stepThrough, tyre: { ...stepThrough.tyre, marking: '10 x 2.5' } } }),
    ).toContain('decide rollOut:L9');
  });

  it('magnets are as fitted, pulses as counted', () => {
    expect(target('L9', also(code('L9', 'pedalMagnets', { range: { min: 6, max: 24, step: 1 } })))?.raw).toBe(12);
    expect(target('L9', also(code('L9', 'wheelPulses', {})))).toMatchObject({
      raw: 6,
      because: 'As counted: 6 a turn, never a trim',
    });
  });
});

describe('how it rides', () => {
  it('gentle is a quarter of the way, from whichever end is gentle', () => {
    const ramp = (more?: Code['more']) =>
      also(code('L9', 'startRamp', { range: { min: 1, max: 5, step: 1 }, ...(more ? { more } : {}) }));
    expect(target('L9', ramp('quicker'))?.raw).toBe(2);
    expect(target('L9', ramp('slower'))?.raw).toBe(4);
    expect(target('L9', ramp())?.raw).toBeNull();
    expect(target('L9', { ...ramp('quicker'), ...chosen({ startRamp: 'strong' }) })?.raw).toBe(5);
  });

  it('walk assist is on where the house wants it and the class allows it, no faster than it says', () => {
    const walk = also(
      code('L9', 'walk', {
        range: { min: 3, max: 8, step: 1 },
        encoding: { kind: 'line', scale: 1, unit: 'km/h', sentinels: [{ raw: 0, means: 'off', title: 'off' }] },
      }),
    );
    const california = { ...pedelec, walkTo: { value: 3.7, unit: 'mph' as const } };
    expect(target('L9', { ...walk, vehicleClass: california })?.raw).toBe(0);
    expect(target('L9', { ...walk, vehicleClass: california, type: { ...stepThrough, heavyCargo: true } })?.raw).toBe(
      5,
    );
    expect(
      target('L9', { ...walk, vehicleClass: { ...pedelec, walk: 'forbidden' }, ...chosen({ walk: 'on' }) })?.raw,
    ).toBe(0);
  });

  it('a motor that freewheels is asked for no braking', () => {
    const brakes = also(code('L9', 'regen', { encoding: words([0, 'none'], [1, 'weak'], [2, 'strong']) }));
    expect(target('L9', brakes)?.raw).toBeNull();
    const direct = {
      ...stepThrough,
      motors: [{ place: 'rear' as const, drive: 'directHub' as const, freewheels: false }],
    };
    expect(target('L9', { ...brakes, type: direct })?.raw).toBe(1);
  });

  it.each([
    ['units', [5, 'mph'], {}, null],
    ['cruise', [5, 'off'], {}, 5],
    ['gaugeMode', [5, 'percent'], {}, 5],
    ['throttleScope', [5, 'limited'], {}, 5],
    ['zeroLevel', [5, 'on'], {}, 5],
    ['zeroLevel', [5, 'off'], { zeroLevel: 'notOffered' }, 5],
    ['lowBatteryLimp', [5, 'on'], {}, 5],
    ['lowBatteryLimp', [5, 'off'], { limpFromPercent: 0 }, 5],
  ] as const)('%s of %j under %j is %s', (fn, entry, choices, raw) => {
    expect(target('L9', { ...also(code('L9', fn, { encoding: words(entry) })), ...chosen(choices) })?.raw).toBe(raw);
  });
});

describe('rules', () => {
  it.each([
    ['stop classWithoutLimit:unit', { vehicleClass: { ...pedelec, limit: null } }],
    ['stop otherKind:unit', { vehicleClass: { ...pedelec, kind: 'scooter' as const } }],
    ['stop rulesConflict:unit', { vehicleClass: { ...pedelec, throttle: 'toSpeed' as const } }],
    ['stop rulesConflict:unit', { vehicleClass: { ...pedelec, throttleTo: { value: 30, unit: 'km/h' as const } } }],
    ['note classNotChecked:unit', { vehicleClass: { ...pedelec, checked: null } }],
    ['note classExpired:unit', { today: '2027-10-02' }],
    ['decide walkingMode:unit', { vehicleClass: { ...pedelec, walkingMode: { value: 6, unit: 'km/h' as const } } }],
    ['decide settingsInReach:unit', { vehicleClass: { ...pedelec, settingsOutOfReach: true } }],
    ['stop draftMap:unit', { map: { ...fourKey, confirmed: null } }],
  ])('%s', (id, over) => {
    expect(ids(over)).toContain(id);
  });

  it('a check holds on its last day', () => {
    expect(ids({ today: '2027-10-01' })).toEqual([]);
  });
});
