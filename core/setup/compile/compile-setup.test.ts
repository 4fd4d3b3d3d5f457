import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { code, fourKey, hire, inputs, line, pedelec, stepThrough, withCodes, words } from '../../testing/samples.js';
import type { Code } from '../../display/map/display-map.js';
import { compileSetup } from './compile-setup.js';
import { NO_FACTS, type SetupInputs } from '../inputs/setup-inputs.js';

const compile = (over: Partial<SetupInputs> = {}) => compileSetup(inputs(over));
const target = (label: string, over: Partial<SetupInputs> = {}) => compile(over).targets.find((t) => t.label === label);
const withCode = (one: Code) => ({ map: withCodes(fourKey, [...fourKey.codes, one]) });
const instead = (one: Code) => ({
  map: withCodes(
    fourKey,
    fourKey.codes.map((c) => (c.label === one.label ? one : c)),
  ),
});
const chosen = (choices: Partial<typeof hire.choices>) => ({
  houseRules: { ...hire, choices: { ...hire.choices, ...choices } },
});

describe('a setup', () => {
  it('has a target or "as found", with its reason, for every code in menu order', () => {
    const { targets, findings, limitKmh, worst } = compile();
    expect(targets.map((t) => [t.label, t.raw])).toEqual([
      ['L1', 11],
      ['L2', 25],
      ['L3', 31],
      ['L4', 31],
      ['L5', 12],
    ]);
    expect(targets.every((t) => t.because.length > 0)).toBe(true);
    expect(findings).toEqual([]);
    expect({ limitKmh, worst: worst?.kmh }).toEqual({ limitKmh: 25, worst: 25 });
  });

  it('is the same whenever it is worked out', () => {
    expect(compile()).toEqual(compile());
  });

  it('is the same whatever was worked out before, for whichever unit', () => {
    const cut = code('L6', 'taperVoltage', { range: { min: 20, max: 40, step: 1 }, factory: 30, encoding: line('V') });
    const wheel = code('L7', 'wheelSize', {
      range: { min: 1000, max: 2400, step: 1 },
      factory: 2080,
      encoding: line('mm'),
    });
    const base = inputs({ map: withCodes(fourKey, [...fourKey.codes, cut, wheel]) });
    const unit = fc.record({
      asFound: fc.option(fc.record({ L2: fc.integer({ min: 10, max: 32 }), L6: fc.integer({ min: 25, max: 40 }) })),
      packV: fc.option(fc.double({ min: 28, max: 60, noNaN: true })),
      ratio: fc.option(
        fc.record({
          k: fc.double({ min: 0.9, max: 1.1, noNaN: true }),
          low: fc.constant(0.9),
          atWheelRaw: fc.constantFrom(null, 2080),
        }),
      ),
      override: fc.option(
        fc.record({
          choices: fc.constantFrom({}, { wheelValue: 'marked' as const }),
          limit: fc.constantFrom(null, { value: 15, unit: 'mph' as const }),
          why: fc.constant('asked'),
          by: fc.constant('Ines M.'),
        }),
      ),
    });
    fc.assert(
      fc.property(fc.array(unit, { minLength: 1, maxLength: 5 }), (units) =>
        units.every(
          (known) =>
            JSON.stringify(compileSetup({ ...base, unit: known })) ===
            JSON.stringify(compileSetup(structuredClone({ ...base, unit: known }))),
        ),
      ),
      { numRuns: 60 },
    );
  });

  it('asks a lead where the limit lies above what motor and pack reach', () => {
    expect(compile({ type: { ...stepThrough, attainableKmh: 22 } }).findings).toContainEqual(
      expect.objectContaining({ level: 'decide', id: 'aboveAttainable:unit' }),
    );
  });

  it('puts stops first, then what a lead decides, then notes', () => {
    const { findings } = compile({
      map: { ...fourKey, confirmed: null },
      type: { ...stepThrough, attainableKmh: 22, needsSource: ['typeLimitA'] },
    });
    expect(findings.map((f) => f.level)).toEqual(['stop', 'decide', 'note']);
    expect(findings.at(-1)?.says).toContain('current limit');
  });
});

describe('a code with two functions', () => {
  const pair = (factory: number) =>
    code('L9', 'assistLevels', {
      range: { min: 30, max: 91, step: 1 },
      factory,
      encoding: {
        kind: 'pair',
        first: {
          function: 'assistLevels',
          entries: [3, 5, 9].map((raw) => ({ raw, value: String(raw), title: `${raw} levels` })),
        },
        second: {
          function: 'unknown',
          entries: [0, 1].map((raw) => ({ raw, value: String(raw), title: raw ? 'b' : 'a' })),
        },
      },
    });

  it('gets the target of each half, and keeps a half nobody promised anything of', () => {
    expect(target('L9', withCode(pair(91)))).toMatchObject({ raw: 51, because: 'House rule: 5 levels' });
    expect(target('L9', withCode(pair(30)))).toMatchObject({ raw: 50 });
    expect(target('L9', { ...withCode(pair(30)), unit: { ...NO_FACTS, asFound: { L9: 91 } } })).toMatchObject({
      raw: 51,
    });
  });
});

describe('a code', () => {
  it.each([
    ['never', 'Never touched'],
    ['tool', "maker's tool"],
    ['absent', 'In the paper'],
  ] as const)('that is %s stays as found', (access, said) => {
    expect(target('L9', withCode(code('L9', 'walk', { access })))).toMatchObject({
      raw: null,
      because: expect.stringContaining(said),
    });
  });

  it('known by hearsay never gets a target, and supports no claim', () => {
    expect(
      target('L9', withCode(code('L9', 'walk', { encoding: words([5, 'off']), source: 'hearsay' }))),
    ).toMatchObject({ raw: null });
    const cap = { ...fourKey.codes[1]!, source: 'hearsay' as const };
    expect(compile(instead(cap)).findings[0]).toMatchObject({ level: 'stop', id: 'noCap:unit' });
  });

  it('that is doubtful as a whole, or at the very value that would be right, stays as found with the doubt said', () => {
    const walk = { encoding: words([5, 'off'], [6, 'on']), range: { min: 5, max: 6, step: 1 }, factory: 6 };
    expect(target('L9', withCode(code('L9', 'walk', walk)))?.raw).toBe(5);
    const whole = withCode(code('L9', 'walk', { ...walk, doubts: [{ says: 'Nobody has seen it act.' }] }));
    expect(target('L9', whole)).toMatchObject({ raw: null, because: 'Nobody has seen it act. Stays as found.' });
    const one = withCode(code('L9', 'walk', { ...walk, doubts: [{ raws: [5], says: 'On some units 5 is on.' }] }));
    expect(target('L9', one)?.raw).toBeNull();
    expect(compile(one).findings).toContainEqual(
      expect.objectContaining({
        level: 'decide',
        label: 'L9',
        says: expect.stringContaining('On some units 5 is on.'),
      }),
    );
  });

  it('for the workshop is off when it leaves, and the capacity is that of the pack', () => {
    expect(
      target('L9', withCode(code('L9', 'serviceMode', { encoding: words([0, 'off'], [1, 'on']), factory: 1 })))?.raw,
    ).toBe(0);
    const { capacityAh } = inputs().type.pack;
    const capacity = code('L9', 'packCapacity', { range: { min: 5, max: 30, step: 1 }, encoding: line('Ah') });
    expect(target('L9', withCode(capacity))?.raw).toBe(Math.round(capacityAh));
  });

  it('that is not verified to act gets a target and a note that nothing is claimed', () => {
    const { findings } = compile(withCode(code('L9', 'brightness', { encoding: line(''), effect: 'unverified' })));
    expect(findings).toContainEqual(expect.objectContaining({ level: 'note', label: 'L9' }));
  });

  it("that caps the speed unverified leaves the end speed to be measured, by a lead's choice", () => {
    const cap = { ...fourKey.codes[1]!, effect: 'unverified' as const };
    expect(compile(instead(cap)).findings).toContainEqual(
      expect.objectContaining({ level: 'decide', id: 'capUnverified:L2' }),
    );
  });

  it('that only scales a graphic is no limit', () => {
    expect(target('L5', instead({ ...fourKey.codes[4]!, effect: 'displayOnly' }))).toMatchObject({
      raw: null,
      because: expect.stringContaining('changes nothing on the road'),
    });
  });

  it('that nobody promised anything of stays as found', () => {
    expect(target('L9', withCode(code('L9', 'unknown', {})))?.raw).toBeNull();
  });

  it('that does not offer the choice asks a lead', () => {
    const { findings, targets } = compile(withCode(code('L9', 'cruise', { encoding: words([5, 'on']) })));
    expect(targets.at(-1)?.raw).toBeNull();
    expect(findings).toContainEqual(expect.objectContaining({ level: 'decide', label: 'L9' }));
  });

  it('for comfort takes the nearest value it has, and says so', () => {
    const over = withCode(
      code('L9', 'autoOff', { range: { min: 0, max: 4, step: 1 }, factory: 2, encoding: line('min') }),
    );
    expect(target('L9', over)?.raw).toBe(4);
    expect(compile(over).findings).toContainEqual(expect.objectContaining({ level: 'note', id: 'nearest:L9' }));
  });

  it('for a PIN never carries its digits, and is not read back', () => {
    expect(target('L9', withCode(code('L9', 'accessPin', { range: { min: 0, max: 9999, step: 1 } })))).toMatchObject({
      raw: null,
      secret: true,
      offGlass: true,
    });
    expect(
      target('L9', { ...withCode(code('L9', 'accessPin', {})), ...chosen({ pin: 'asFound' }) }),
    ).not.toHaveProperty('secret');
  });
});

describe('a locked code', () => {
  const locked = (over: Partial<Code>) => instead({ ...fourKey.codes[1]!, access: 'locked', ...over });

  it('at its target is fine', () => {
    expect(compile(locked({ factory: 25 })).findings).toEqual([]);
  });

  it('above the limit stops, with what it would do on the road', () => {
    expect(compile(locked({ factory: 30 })).findings[0]).toMatchObject({
      level: 'stop',
      says: 'L2 is locked and delivered at 30 km/h: assist would run to 30 km/h, and 25 km/h is allowed.',
    });
    expect(compile(locked({ factory: 32 })).findings[0]?.says).toContain('nothing would end assist');
  });

  it("below the limit is a lead's choice, and stays as found once chosen", () => {
    const { findings } = compile(locked({ factory: 20 }));
    expect(findings).toEqual([
      expect.objectContaining({
        level: 'decide',
        id: 'locked:L2',
        says: expect.stringContaining('end at 20 km/h instead of 25 km/h'),
      }),
    ]);
    const decision = { finding: 'locked:L2', typeId: null, words: 'slow is fine', by: 'Ines M.', on: '2026-11-25' };
    const after = compile({ ...locked({ factory: 20 }), terms: { ...inputs().terms, decisions: [decision] } });
    expect(after.findings[0]?.decided?.words).toBe('slow is fine');
    expect(after.targets[1]).toMatchObject({ raw: null, because: expect.stringContaining('slow is fine') });
  });

  it('is judged by what was read, where it was read', () => {
    expect(compile({ ...locked({ factory: 30 }), unit: { ...NO_FACTS, asFound: { L2: 25 } } }).findings).toEqual([]);
  });

  it('of comfort stays as it is, with a note', () => {
    const over = withCode(
      code('L9', 'autoOff', { range: { min: 0, max: 20, step: 1 }, access: 'locked', encoding: line('min') }),
    );
    expect(target('L9', over)).toMatchObject({ raw: null });
    expect(compile(over).findings).toEqual([expect.objectContaining({ level: 'note', id: 'locked:L9' })]);
  });

  it('that is never touched is looked at like a locked one, and stays as found', () => {
    const cut = code('L9', 'cutoffVoltage', {
      range: { min: 30, max: 44, step: 0.5 },
      factory: 41,
      access: 'never',
      encoding: line('V'),
    });
    expect(compile(withCode(cut)).findings).toEqual([
      expect.objectContaining({
        level: 'decide',
        id: 'locked:L9',
        says: expect.stringContaining('never touched and delivered at 41 V; it should be 31 V'),
      }),
    ]);
    expect(target('L9', withCode(cut))?.raw).toBeNull();
    const cap = { ...fourKey.codes[1]!, access: 'tool' as const };
    expect(compile(instead(cap)).findings[0]).toMatchObject({ level: 'stop', id: 'locked:L2' });
  });

  it('for wheel pulses asks a lead', () => {
    const { findings } = compile(withCode(code('L9', 'wheelPulses', { factory: 5, access: 'locked' })));
    expect(findings).toContainEqual(
      expect.objectContaining({
        level: 'decide',
        label: 'L9',
        says: 'L9 is locked and delivered at 5; it should be 6.',
      }),
    );
  });

  it('at the wrong voltage class says what the gauge would show', () => {
    const klass = code('L9', 'nominalVoltage', {
      range: { min: 36, max: 48, step: 12 },
      factory: 48,
      access: 'locked',
      encoding: words([36, '36'], [48, '48']),
    });
    const { findings } = compile({ ...withCode(klass), unit: { ...NO_FACTS, packV: 38.5 } });
    expect(findings).toContainEqual(
      expect.objectContaining({ level: 'stop', says: expect.stringContaining('At 38.5 V its gauge would show empty') }),
    );
  });
});

describe("a unit's own wishes", () => {
  const gentle = {
    choices: { assistLevels: 3 },
    limit: { value: 18, unit: 'km/h' as const },
    why: 'a new rider',
    by: 'Ines M.',
  };

  it('go before the house rules, with their reason, and never above the class', () => {
    const levels = withCode(code('L9', 'assistLevels', { range: { min: 3, max: 9, step: 1 } }));
    const over = { ...levels, unit: { ...NO_FACTS, override: gentle } };
    expect(target('L9', over)).toMatchObject({ raw: 3, because: expect.stringContaining('a new rider') });
    expect(target('L2', over)?.raw).toBe(18);
    expect(
      target('L2', { ...over, unit: { ...NO_FACTS, override: { ...gentle, limit: { value: 40, unit: 'km/h' } } } })
        ?.raw,
    ).toBe(25);
    expect(compile(over).findings).toContainEqual(expect.objectContaining({ level: 'note', id: 'override:unit' }));
  });
});

describe('codes that move one another', () => {
  const bound = code('L8', 'modeSpeedPercent', {
    range: { min: 20, max: 100, step: 5 },
    factory: 50,
    encoding: line('%'),
    influences: [{ kind: 'limits', code: 'L9', as: 'most' }],
  });
  const throttled = { ...stepThrough, throttleFitted: true };
  const free = { ...pedelec, throttle: 'toCap' as const };

  it('keep a target within the bound another one sets, and name the order', () => {
    const map = withCodes(fourKey, [
      ...fourKey.codes,
      bound,
      code('L9', 'throttleCap', { range: { min: 20, max: 100, step: 5 }, factory: 50, encoding: line('%') }),
    ]);
    const setup = compile({ map, type: throttled, vehicleClass: free });
    expect(setup.targets.slice(-2).map((t) => t.raw)).toEqual([50, 50]);
    expect(setup.targets.at(-1)?.because).toContain('never lies above L8');
    expect(setup.keyedAfter).toContainEqual({ label: 'L9', after: 'L8', because: 'it bounds what this one may be' });
  });

  it("have a value keyed again that another code brings back to the maker's", () => {
    const volts = code('L8', 'nominalVoltage', {
      range: { min: 36, max: 48, step: 12 },
      factory: 48,
      encoding: words([36, '36'], [48, '48']),
      influences: [{ kind: 'resets', code: 'L9' }],
    });
    const map = withCodes(fourKey, [...fourKey.codes, volts, code('L9', 'unknown', { factory: 5 })]);
    expect(target('L9', { map, unit: { ...NO_FACTS, asFound: { L9: 7 } } })).toMatchObject({
      raw: 7,
      because: expect.stringContaining('keyed again as found'),
    });
    expect(target('L9', { map })?.raw).toBeNull();
  });
});
