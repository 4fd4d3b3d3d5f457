import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainValues } from '../../display/map/raw-value.js';
import { demoMap } from '../../testing/demo-maps.js';
import { code, fourKey, hire, inputs, line, pedelec, stepThrough, withCodes } from '../../testing/samples.js';
import { compileSetup } from './compile-setup.js';
import { PLAIN_TERMS, type OrderTerms } from '../inputs/order-terms.js';
import { NO_FACTS, type SetupInputs } from '../inputs/setup-inputs.js';

const compile = (over: Partial<SetupInputs> = {}) => compileSetup(inputs(over));
const target = (label: string, over: Partial<SetupInputs> = {}) => compile(over).targets.find((t) => t.label === label);
const terms = (over: Partial<OrderTerms>): { terms: OrderTerms } => ({ terms: { ...PLAIN_TERMS, ...over } });
const kmh = (value: number) => ({ value, unit: 'km/h' as const });
const mph = (value: number) => ({ value, unit: 'mph' as const });
const measured = (k: number, low = k) => ({ unit: { ...NO_FACTS, ratio: { k, low, atWheelRaw: null } } });

describe('the speed cap', () => {
  it('is the lowest of class, site, order and type, and says how it came about', () => {
    expect(target('L2')).toMatchObject({ raw: 25, because: '25 km/h: the class.' });
    expect(target('L2', terms({ siteLimit: kmh(20) }))).toMatchObject({
      raw: 20,
      because: '25 km/h: the class. The site allows 20 km/h, so 20 km/h.',
    });
    expect(target('L2', terms({ orderLimit: kmh(30) }))?.because).toBe(
      '25 km/h: the class. The order asks 30 km/h; 25 km/h stands.',
    );
    expect(target('L2', { type: { ...stepThrough, speedLimit: kmh(18) } })?.raw).toBe(18);
  });

  it('marks in its trail which input decided', () => {
    const trail = target('L2', terms({ siteLimit: kmh(20), orderLimit: kmh(22) }))?.trail ?? [];
    expect(trail.slice(0, 3).map((step) => [step.from, step.decided ?? false])).toEqual([
      ['class', false],
      ['site', true],
      ['order', false],
    ]);
    expect(trail.slice(3).map((step) => step.says)).toEqual([
      expect.stringContaining('how true this display counts: provisional'),
    ]);
    expect(target('L2', measured(1))?.trail?.some((step) => step.says.includes('how true'))).toBe(false);
  });

  it('keeps one step of the display from the limit until it was measured how far drive acts beyond it', () => {
    const speed = (decimals: number, overshootKmh: number | null) => ({
      map: { ...fourKey, speed: { rounding: 'unknown' as const, decimals, overshootKmh } },
    });
    expect(target('L2', speed(0, null))).toMatchObject({
      raw: 24,
      because: expect.stringContaining('Drive may act 1 km/h beyond the cap, so 24.'),
    });
    expect(target('L2', speed(0, null))?.trail?.at(-1)?.says).toContain('one step of the display, 1 km/h');
    expect(target('L2', speed(1, null))?.raw).toBe(24);
    expect(target('L2', speed(0, 0))?.raw).toBe(25);
    expect(target('L2', { ...speed(0, null), unit: { ...NO_FACTS, overshootKmh: 0 } })?.raw).toBe(25);
    expect(target('L2', { ...speed(0, null), unit: { ...NO_FACTS, overshootKmh: 1.4 } })?.raw).toBe(23);
  });

  it("keeps the statute's own unit: 15.5 mph is 24.945 km/h, so 25 fails", () => {
    const over = { vehicleClass: { ...pedelec, limit: mph(15.5) } };
    expect(target('L2', over)?.raw).toBe(24);
    expect(target('L2', over)?.because).toBe('15.5 mph (24.945 km/h): the class. The code steps by 1 km/h, so 24.');
  });

  it('goes lower where the display counts low, and never above the limit where it counts high', () => {
    const over = { ...terms({ siteLimit: kmh(20) }), ...measured(0.96) };
    expect(target('L2', over)).toMatchObject({
      raw: 19,
      because: '25 km/h: the class. The site allows 20 km/h, so 20 km/h. The display counts 4 % low, so 19.',
    });
    expect(target('L2', measured(1.08))).toMatchObject({
      raw: 25,
      because: '25 km/h: the class. As it was run, the display counts 8 % high: 25 stays within 25 km/h.',
    });
    expect(target('L2', measured(1, 0.97))).toMatchObject({
      raw: 24,
      because: '25 km/h: the class. The display may count up to 3 % low, so 24.',
    });
    const map = { ...fourKey, speed: { rounding: 'nearest' as const, decimals: 0, overshootKmh: 0.3 } };
    expect(target('L2', { map, ...measured(1) })?.because).toBe(
      '25 km/h: the class. The display counts true and drive acts 0.3 km/h beyond the cap, so 24.',
    );
    expect(target('L2', { map, ...measured(0.98) })?.because).toBe(
      '25 km/h: the class. The display counts 2 % low and drive acts 0.3 km/h beyond the cap, so 24.',
    );
  });

  it('goes lower where the wheel value that was chosen makes the display count low', () => {
    const map = withCodes(fourKey, [
      ...fourKey.codes,
      code('L9', 'wheelSize', { range: { min: 16, max: 29, step: 1 }, encoding: line('in') }),
    ]);
    const type = { ...stepThrough, tyre: { ...stepThrough.tyre, rolledMm: 2110 } };
    const nearest = { houseRules: { ...hire, choices: { ...hire.choices, shownSpeed: 'nearest' as const } } };
    expect(target('L9', { map, type, ...nearest })?.raw).toBe(26);
    expect(target('L2', { map, type, ...nearest })).toMatchObject({
      raw: 24,
      because: expect.stringContaining('counts 1.7 % low'),
    });
    expect(target('L2', { map, type })?.raw).toBe(25);
  });

  it('takes what the map says drive still does beyond the cap off', () => {
    const map = { ...fourKey, speed: { rounding: 'truncated' as const, decimals: 0, overshootKmh: 1 } };
    expect(target('L2', { map })?.raw).toBe(24);
  });

  it('stops where it cannot be set low enough', () => {
    expect(compile(terms({ orderLimit: kmh(6) })).findings).toContainEqual(
      expect.objectContaining({ level: 'stop', id: 'tooLow:L2' }),
    );
  });

  it('keeps to a limit in miles where the code follows the units shown', () => {
    const cap = code('L2', 'speedCap', {
      range: { min: 6, max: 45, step: 1 },
      factory: 30,
      encoding: { kind: 'line', scale: 1, unit: 'km/h', sentinels: [], follows: 'L1', doubtfulFrom: 44 },
    });
    const map = withCodes(
      fourKey,
      fourKey.codes.map((c) => (c.label === 'L2' ? cap : c)),
    );
    const miles = { ...hire, choices: { ...hire.choices, units: 'mph' as const } };
    expect(target('L2', { map, houseRules: miles })?.raw).toBe(15);
    expect(target('L2', { map })?.raw).toBe(25);
    expect(
      target('L2', { map, vehicleClass: { ...pedelec, limit: kmh(45) }, type: { ...stepThrough, attainableKmh: 60 } })
        ?.raw,
    ).toBe(43);
  });

  it('never lets a vehicle pass the limit, whatever the display counts', () => {
    const limits = fc.double({ min: 11, max: 31, noNaN: true });
    fc.assert(
      fc.property(
        limits,
        fc.double({ min: 0.85, max: 1.15, noNaN: true }),
        fc.double({ min: 0, max: 0.05, noNaN: true }),
        (limit, k, spread) => {
          const raw = target('L2', {
            vehicleClass: { ...pedelec, limit: kmh(limit) },
            ...measured(k, k - spread),
          })?.raw;
          if (raw === null || raw === undefined)
            return plainValues(fourKey.codes[1]!).every((value) => value / (k - spread) > limit);
          return raw / (k - spread) <= limit * (1 + 1e-9) && raw <= limit * (1 + 1e-9) && raw !== 32;
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('caps per ride mode', () => {
  const kick = {
    ...stepThrough,
    kind: 'scooter' as const,
    throttleFitted: true,
    pedalMagnets: null,
    ratedPowerW: 500,
    attainableKmh: 50,
    controllerLimitA: 30,
    typeLimitA: 30,
    pack: {
      chemistry: 'liIon' as const,
      cellsInSeries: 16,
      labelV: 60,
      capacityAh: 20,
      protectionTripsV: null,
      profile: null,
    },
  };
  const street = {
    ...pedelec,
    kind: 'scooter' as const,
    limit: kmh(20),
    power: [{ watts: 500, basis: 'rated' as const, is: 'atMost' as const }],
    throttle: 'toCap' as const,
  };
  const setup = compileSetup(inputs({ type: kick, map: demoMap('limpet-modes'), vehicleClass: street }));
  const raw = (label: string) => setup.targets.find((t) => t.label === label)?.raw;

  it('count in per cent of the uncapped speed on a full pack, less what drive does beyond them; a slow mode stays slow', () => {
    expect([raw('eco S1'), raw('city S1'), raw('fast S1')]).toEqual([35, 35, 35]);
    const quick = compileSetup(
      inputs({ type: kick, map: demoMap('limpet-modes'), vehicleClass: { ...street, limit: kmh(30) } }),
    );
    expect(quick.targets.filter((t) => t.function === 'modeSpeedPercent').map((t) => t.raw)).toEqual([50, 55, 55]);
  });

  it('hold in the worst combination: turbo is off wherever the vehicle could outrun the limit', () => {
    expect([raw('eco S7'), raw('city S7'), raw('fast S7')]).toEqual([0, 0, 0]);
    expect(setup.worst).toMatchObject({ kmh: 17.5 });
    expect(setup.findings.filter((f) => f.level === 'stop')).toEqual([]);
  });

  it('stop where one mode cannot be kept', () => {
    const map = demoMap('limpet-modes');
    const stuck = {
      ...map,
      codes: map.codes.map((c) => (c.label === 'fast S7' ? { ...c, access: 'locked' as const } : c)),
    };
    const { findings } = compileSetup(inputs({ type: kick, map: stuck, vehicleClass: street }));
    expect(findings[0]).toMatchObject({
      level: 'stop',
      id: 'worstReach:unit',
      says: expect.stringContaining('turbo on, drive ends at 50 km/h'),
    });
    expect(findings).toContainEqual(expect.objectContaining({ level: 'decide', id: 'locked:fast S7' }));
    const lost = {
      ...map,
      codes: map.codes.map((c) => (c.label === 'fast S1' ? { ...c, source: 'hearsay' as const } : c)),
    };
    expect(compileSetup(inputs({ type: kick, map: lost, vehicleClass: street })).findings).toContainEqual(
      expect.objectContaining({ level: 'stop', id: 'noCap:unit' }),
    );
  });
});

describe('private land', () => {
  const land = {
    authorityBy: 'Ines M.',
    acknowledgement: 'letter 7',
    endsOn: '2026-12-31',
    label: 'Private land only',
    isUncapped: true,
  };
  const off = { ...pedelec, kind: 'any' as const, regime: 'privateLand' as const, limit: null, ratedPowerW: null };
  const inWriting = { houseRules: { ...hire, choices: { ...hire.choices, uncapped: 'inWriting' as const } } };

  it('is uncapped only by authority, order and house rule together', () => {
    expect(target('L2', { vehicleClass: off, ...inWriting, ...terms({ privateLand: land }) })?.raw).toBe(32);
    expect(compile({ vehicleClass: off, ...terms({ privateLand: land }) }).findings).toContainEqual(
      expect.objectContaining({ level: 'stop', id: 'uncappedNever:unit' }),
    );
    expect(compile({ vehicleClass: off, ...inWriting }).findings).toContainEqual(
      expect.objectContaining({ level: 'stop', id: 'noAuthority:unit' }),
    );
    expect(compile({ ...terms({ privateLand: land }) }).findings).toContainEqual(
      expect.objectContaining({ level: 'stop', id: 'privateConflict:unit' }),
    );
  });

  it('ends on its day, and keeps a limit that somebody named', () => {
    expect(
      compile({ vehicleClass: off, ...inWriting, ...terms({ privateLand: { ...land, endsOn: '2026-11-24' } }) })
        .findings,
    ).toContainEqual(expect.objectContaining({ level: 'stop', id: 'authorityOver:unit' }));
    expect(
      target('L2', { vehicleClass: off, ...inWriting, ...terms({ privateLand: land, siteLimit: kmh(18) }) })?.raw,
    ).toBe(18);
  });
});

describe('a class that keeps its vehicles as they were approved', () => {
  it('compares and restores, and changes nothing', () => {
    const approved = { ...pedelec, regime: 'checkOnly' as const, limit: kmh(45) };
    const type = { ...stepThrough, attainableKmh: 50, approved: [{ map: 'four-key', label: 'L2', raw: 28 }] };
    const setup = compile({ vehicleClass: approved, type });
    expect(setup.targets.map((t) => t.raw)).toEqual([11, 28, 33, 31, 15]);
    expect(compile({ vehicleClass: approved, type, ...terms({ siteLimit: kmh(20) }) }).findings).toContainEqual(
      expect.objectContaining({ level: 'stop', id: 'approvedAbove:L2' }),
    );
  });

  it('or lowers and restores, and never raises', () => {
    const lower = { ...pedelec, regime: 'lowerOnly' as const };
    expect(target('L2', { vehicleClass: lower })?.raw).toBe(25);
    const made = { ...stepThrough, approved: [{ map: 'four-key', label: 'L2', raw: 22 }] };
    expect(target('L2', { vehicleClass: lower, type: made })).toMatchObject({
      raw: 22,
      because: expect.stringContaining('never raised'),
    });
    expect(target('L2', { vehicleClass: lower, type: made, ...terms({ siteLimit: kmh(15) }) })?.raw).toBe(15);
  });
});

describe('a throttle with a cap of its own', () => {
  const throttled = { ...stepThrough, throttleFitted: true };
  const own = withCodes(fourKey, [
    ...fourKey.codes,
    code('L9', 'throttleCap', { range: { min: 5, max: 45, step: 1 }, encoding: line('km/h') }),
  ]);
  const third = { ...pedelec, limit: mph(28), throttle: 'toSpeed' as const, throttleTo: mph(20), ratedPowerW: 750 };

  it("ends at its own limit, in the statute's unit", () => {
    expect(target('L9', { map: own, type: throttled, vehicleClass: third })).toMatchObject({
      raw: 32,
      because: expect.stringContaining('20 mph'),
    });
  });

  it('is a stop on a display with one cap for both', () => {
    expect(
      compile({ type: throttled, vehicleClass: { ...third, limit: kmh(31), throttleTo: kmh(20) } }).findings,
    ).toContainEqual(expect.objectContaining({ level: 'stop', id: 'throttleTooFast:unit' }));
  });
});
