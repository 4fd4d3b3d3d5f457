import { describe, expect, it } from 'vitest';
import { code, fourKey, hire, inputs, line, pedelec, stepThrough, withCodes, words } from '../../testing/samples.js';
import type { Code } from '../../display/map/display-map.js';
import type { SetupInputs } from '../inputs/setup-inputs.js';
import type { VehicleClass } from '../inputs/vehicle-class.js';
import type { VehicleType } from '../inputs/vehicle-type.js';
import { compileSetup } from './compile-setup.js';

const compile = (over: Partial<SetupInputs> = {}) => compileSetup(inputs(over));
const ofClass = (over: Partial<VehicleClass>, type: Partial<VehicleType> = {}) =>
  compile({ vehicleClass: { ...pedelec, ...over }, type: { ...stepThrough, ...type } });
const found = (over: Partial<VehicleClass>, type: Partial<VehicleType> = {}) =>
  ofClass(over, type).findings.map(({ level, id }) => `${level} ${id}`);
const says = (over: Partial<VehicleClass>, id: string, type: Partial<VehicleType> = {}) =>
  ofClass(over, type).findings.find((each) => each.id === id)?.says;
const withCode = (...codes: readonly Code[]) => ({ map: withCodes(fourKey, [...fourKey.codes, ...codes]) });
const rear = stepThrough.brakes.filter(({ wheel }) => wheel === 'rear');

describe('a class that keeps settings out of reach', () => {
  it('has a lead decide, with the codes that are open to anybody named', () => {
    expect(found({ settingsOutOfReach: true })).toContain('decide settingsInReach:unit');
    expect(says({ settingsOutOfReach: true, ask: 'the office' }, 'settingsInReach:unit')).toMatch(
      /L2.* open to anybody.*Ask the office/,
    );
  });

  it('takes a PIN for no cure, and has nothing to say of a menu that keys do not move', () => {
    const behind = (access: Code['access']) => ({
      ...fourKey,
      codes: fourKey.codes.map((each) => ({ ...each, access })),
    });
    const at = (access: Code['access']) =>
      compile({ map: behind(access), vehicleClass: { ...pedelec, settingsOutOfReach: true } }).findings;
    expect(at('pin').find(({ id }) => id === 'settingsInReach:unit')?.says).toContain('which does not cure it');
    expect(at('locked').some(({ id }) => id === 'settingsInReach:unit')).toBe(false);
  });
});

describe('a class under which altering may make one the maker', () => {
  it('has a lead decide as soon as a code about drive is altered, and says which', () => {
    expect(says({ changeMakesMaker: true }, 'makesMaker:unit')).toContain('L2 to 25');
    const asMade = Object.fromEntries(fourKey.codes.map(({ label }) => [label, 0]));
    const raws = ofClass({}).targets.flatMap(({ label, raw }) => (raw === null ? [] : [[label, raw] as const]));
    const unit = { ...inputs().unit, asFound: { ...asMade, ...Object.fromEntries(raws) } };
    const same = compile({ vehicleClass: { ...pedelec, changeMakesMaker: true }, unit });
    expect(same.findings.some(({ id }) => id === 'makesMaker:unit')).toBe(false);
  });

  it('says who may change settings', () => {
    expect(found({ mayChange: 'the maker' })).toContain('note mayChange:unit');
  });
});

describe('what a class asks of the vehicle', () => {
  it.each([
    ['stop tooFewBrakes:unit', { brakes: 2 }, { brakes: rear }],
    ['note motorIsBrake:unit', { brakes: 1 }, { brakes: rear.map((brake) => ({ ...brake, how: 'motor' as const })) }],
    ['stop brakeDoesNotCut:unit', { cutOnBrake: true }, { brakes: rear.map((b) => ({ ...b, cutsMotor: false })) }],
    ['decide notFitted:unit', { fittings: ['mirror' as const] }, {}],
    ['note massUnknown:unit', { greatestMassKg: 25 }, {}],
    ['stop tooHeavy:unit', { greatestMassKg: 25 }, { massKg: 25.5 }],
    ['decide paper-battery:unit', { certificates: [{ of: 'battery' as const, standard: 'EN 1' }] }, {}],
    ['note assistShape:unit', { taper: true }, {}],
    ['note assistShape:unit', { assistFactor: 4 }, {}],
  ])('%s', (id, asked, type) => {
    expect(found(asked, type)).toContain(id);
  });

  it.each([
    [{ brakes: 2 }, {}],
    [{ cutOnBrake: true }, {}],
    [{ fittings: ['bell' as const] }, {}],
    [{ greatestMassKg: 25 }, { massKg: 25 }],
    [
      { certificates: [{ of: 'battery' as const, standard: 'EN 1' }] },
      { certificates: [{ of: 'battery' as const, standard: 'EN 1', paper: '41' }] },
    ],
    [{ taper: true }, { pedalMagnets: null }],
  ])('and that is there is not asked again (%#)', (asked, type) => {
    expect(found(asked, type)).toEqual(found({}, type));
  });
});

describe('places with a speed of their own', () => {
  const limit = { value: 6, unit: 'km/h' as const };
  it("are the rider's, a mode's or a module's to keep", () => {
    const kept = (keptBy: 'rider' | 'code' | 'module') => found({ places: [{ where: 'Promenade', limit, keptBy }] });
    expect(kept('rider')).toEqual(found({}));
    expect(kept('code')).toContain('decide place-0:unit');
    expect(kept('module')).toContain('note place-0:unit');
  });

  it('that a module keeps are proved there', () => {
    const places = [{ where: 'Promenade', limit, keptBy: 'module' as const }];
    const test = ofClass({ places }).tests?.find(({ id }) => id === 'place:0');
    expect(test?.proves.clauses).toEqual(['Promenade: to 6 km/h, kept by the module']);
  });
});

describe('walk assist', () => {
  const walk = withCode(code('L9', 'walk', { range: { min: 0, max: 8, step: 1 }, factory: 0, encoding: line('km/h') }));
  const on = { houseRules: { ...hire, choices: { ...hire.choices, walk: 'on' as const } } };
  const raw = (over: Partial<VehicleClass>, unit = inputs().unit) =>
    compile({ ...walk, ...on, unit, vehicleClass: { ...pedelec, ...over } }).targets.find(({ label }) => label === 'L9')
      ?.raw;

  it('pushes at most as fast as the class lets it, and at a walking pace where that names no speed', () => {
    expect(raw({ walkTo: { value: 4, unit: 'km/h' } })).toBe(4);
    expect(raw({ walkTo: null })).toBe(6);
    expect(raw({ walkTo: { value: 3.7, unit: 'mph' } })).toBe(5);
  });

  it('is set slower where the display counts low', () => {
    const ratio = { k: 0.8, low: 0.78, atWheelRaw: null };
    expect(raw({ walkTo: { value: 6, unit: 'km/h' } }, { ...inputs().unit, ratio })).toBe(4);
  });

  it("that places see differently is a lead's choice", () => {
    const { findings } = compile({ ...walk, ...on, vehicleClass: { ...pedelec, walk: 'decide' } });
    expect(findings.map(({ level, id }) => `${level} ${id}`)).toContain('decide walkAllowed:L9');
  });
});

describe('cruise', () => {
  const throttled = { ...stepThrough, throttleFitted: true };
  const cruise = withCode(code('L9', 'cruise', { factory: 5, encoding: words([5, 'off'], [6, 'on']) }));
  const at = (rule: VehicleClass['cruise']) =>
    compile({
      ...cruise,
      type: throttled,
      vehicleClass: { ...pedelec, throttle: 'toCap', cruise: rule },
      houseRules: { ...hire, choices: { ...hire.choices, cruise: 'on' } },
    });

  it('is off where the class forbids it, whatever the house wants', () => {
    expect(at('forbidden').targets.find(({ label }) => label === 'L9')?.raw).toBe(5);
    expect(at('allowed').targets.find(({ label }) => label === 'L9')?.raw).toBe(6);
  });

  it("that places see differently is a lead's choice", () => {
    expect(at('decide').findings.map(({ level, id }) => `${level} ${id}`)).toContain('decide cruiseAllowed:L9');
  });
});

describe('a limit that has itself to be stayed under', () => {
  const cap = (over: Partial<VehicleClass>) =>
    ofClass({ ...over, tolerance: 0 }).targets.find(({ label }) => label === 'L2')?.raw;

  it('is not reached: less than 25 km/h is 24 on a display of whole ones', () => {
    expect(cap({})).toBe(25);
    expect(cap({ limitIs: 'under' })).toBe(24);
  });

  it('is said as it stands in the rule', () => {
    expect(ofClass({ limitIs: 'under' }).speed?.limit?.words).toBe('less than 25 km/h');
  });
});

describe('a throttle that may drive only while the pedals turn', () => {
  const start = withCode(
    code('L9', 'standstillStart', { factory: 0, encoding: words([0, 'live'], [1, 'rolling'], [2, 'pedalFirst']) }),
    code('L8', 'driveMode', { factory: 2, encoding: words([0, 'pedal'], [1, 'throttle'], [2, 'both']) }),
  );
  const free = { ...pedelec, throttle: 'toCap' as const, throttleFrom: 'pedalling' as const };
  const throttled = { ...stepThrough, throttleFitted: true };

  it('is set so, whatever the house wants', () => {
    const setup = compile({ ...start, type: throttled, vehicleClass: free });
    expect(setup.targets.find(({ label }) => label === 'L9')?.raw).toBe(2);
    expect(setup.findings.filter(({ level }) => level === 'stop')).toEqual([]);
  });

  it('stops a display whose start is locked at rolling', () => {
    const codes = start.map.codes.map((each) =>
      each.label === 'L9' ? { ...each, access: 'locked' as const, factory: 1 } : each,
    );
    const setup = compile({ map: { ...start.map, codes }, type: throttled, vehicleClass: free });
    expect(setup.findings.map(({ level, id }) => `${level} ${id}`)).toContain('stop liveStart:L9');
  });
});
