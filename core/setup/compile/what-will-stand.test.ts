import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Access, Code, KeyedMap } from '../../display/map/display-map.js';
import { code, fourKey, hire, inputs, line, pedelec, stepThrough, withCodes, words } from '../../testing/samples.js';
import { NO_FACTS, type KnownRatio, type SetupInputs } from '../inputs/setup-inputs.js';
import type { Setup } from '../setup.js';
import { compileSetup } from './compile-setup.js';

const MM_PER_INCH = 25.4;
const LIMIT_KMH = 25;
const inchMm = (inch: number): number => Math.PI * MM_PER_INCH * inch;

interface Codes {
  readonly wheel?: Partial<Code>;
  readonly pulses?: Partial<Code>;
  readonly cap?: Partial<Code>;
  readonly overshootKmh?: number | null;
  readonly hideWheel?: boolean;
}

/** A display with a wheel code in inches, pulses and a cap, each as the case has it. */
function mapWith({ wheel = {}, pulses = {}, cap = {}, overshootKmh = 0, hideWheel = false }: Codes): KeyedMap {
  const codes = [
    code('W', 'wheelSize', { range: { min: 12, max: 29, step: 1 }, factory: 26, encoding: line('in'), ...wheel }),
    code('P', 'wheelPulses', { range: { min: 1, max: 30, step: 1 }, factory: 6, encoding: line(''), ...pulses }),
    code('C', 'speedCap', { range: { min: 5, max: 40, step: 1 }, factory: 25, encoding: line('km/h'), ...cap }),
  ];
  const map = withCodes(fourKey, codes);
  const pages = hideWheel
    ? [
        { id: 'main', title: 'Menu', items: [{ code: 'P' }, { code: 'C' }] },
        { id: 'shut', title: 'Maker', neverEnter: 'never', items: [{ code: 'W' }] },
      ]
    : map.menu.pages;
  return {
    ...map,
    menu: { ...map.menu, pages },
    speed: { rounding: 'nearest', decimals: 0, overshootKmh },
  } as KeyedMap;
}

const capOf = (setup: Setup): number | null => setup.targets.find(({ label }) => label === 'C')?.raw ?? null;
const stops = (setup: Setup): readonly string[] =>
  setup.findings.flatMap(({ level, id }) => (level === 'stop' ? [id ?? ''] : []));

describe('a cap that follows the units counts in those that will stand', () => {
  const inUnits = (units: Partial<Code>) =>
    compileSetup(
      inputs({
        map: withCodes(fourKey, [
          code('U', 'units', { encoding: words([0, 'kmh'], [1, 'mph']), range: { min: 0, max: 1, step: 1 }, ...units }),
          code('C', 'speedCap', {
            range: { min: 5, max: 40, step: 1 },
            factory: 25,
            encoding: { kind: 'line', scale: 1, unit: 'km/h', sentinels: [], follows: 'U' },
            otherRanges: [{ when: { code: 'U', in: [1] }, range: { min: 3, max: 24.8, step: 0.1 }, decimals: 1 }],
          }),
        ]),
        unit: { ...NO_FACTS, overshootKmh: 0 },
      }),
    );

  it('25 where km/h can be set, 15.5 where the display is locked to mph: 25 would be 40 km/h', () => {
    expect(capOf(inUnits({ factory: 1 }))).toBe(25);
    for (const access of ['locked', 'never', 'tool'] as const) {
      const setup = inUnits({ factory: 1, access });
      // 25 km/h are 15.53 mph.
      expect(capOf(setup)).toBe(15.5);
      expect(setup.worst?.kmh).toBeCloseTo(15.5 * 1.609344, 6);
      expect(setup.speed?.kmhPerRaw['C']).toBeCloseTo(1.609344, 6);
    }
  });
});

describe('a cap counts with the wheel that will stand, not with the one that was wished for', () => {
  const rolled = { ...NO_FACTS, rolled: { mm: 2163, fromMm: 2163, toMm: 2163 } };
  const stuckAt20 = (access: Access) =>
    compileSetup(inputs({ map: mapWith({ wheel: { access, factory: 20 } }), unit: rolled }));

  it.each(['locked', 'never', 'tool'] as const)(
    'where it is %s at 20 in and 2163 mm are rolled: 18, for 25 would run to 34 km/h',
    (access) => {
      expect(LIMIT_KMH * (2163 / inchMm(20))).toBeCloseTo(33.9, 1);
      expect(capOf(stuckAt20(access))).toBe(18);
    },
  );

  it('where its page is never entered', () => {
    expect(
      capOf(compileSetup(inputs({ map: mapWith({ wheel: { factory: 20 }, hideWheel: true }), unit: rolled }))),
    ).toBe(18);
  });

  it('where a marking alone is known, and the wheel that stands is none that it can mean', () => {
    const setup = compileSetup(inputs({ map: mapWith({ wheel: { access: 'locked', factory: 20 } }) }));
    // 47-559 rolls 2,051 mm, 2,092 at most.
    expect(Math.floor((LIMIT_KMH * inchMm(20)) / 2092)).toBe(19);
    expect(capOf(setup)).toBe(19);
    expect(capOf(compileSetup(inputs({ map: mapWith({}) })))).toBe(25);
  });

  it('by a learnt ratio too, and pulses that will not be set as they were when it was learnt', () => {
    const learnt: KnownRatio = { k: 1, low: 0.99, atWheelRaw: 26, atPulsesRaw: 6, learntFrom: 8 };
    const at = (codes: Codes) =>
      capOf(compileSetup(inputs({ map: mapWith(codes), unit: { ...NO_FACTS, ratio: learnt } })));
    // Free to choose, the wheel is set so that the display never counts low.
    expect(at({})).toBe(25);
    expect(at({ wheel: { access: 'locked', factory: 24 } })).toBe(22);
    expect(at({ pulses: { access: 'locked', factory: 7 } })).toBe(Math.floor(LIMIT_KMH * 0.99 * (27 / 26) * (6 / 7)));
  });

  it('and where the cap itself does not move, what it lets through is looked at against the ground', () => {
    const setup = compileSetup(
      inputs({
        map: mapWith({ cap: { access: 'locked', factory: 25 } }),
        unit: { ...NO_FACTS, ratio: { k: 0.9, low: 0.88, atWheelRaw: null } },
      }),
    );
    expect(stops(setup)).toContain('trueReach:unit');
    expect(setup.findings.find(({ id }) => id === 'trueReach:unit')?.says).toContain('28.4 km/h against the ground');
  });
});

/** The slowest that display and wheel may be, by what is known, worked out beside the code under test. */
type Known =
  | {
      readonly by: 'runs' | 'learnt';
      readonly k: number;
      readonly low: number;
      readonly atWheel: number;
      readonly atPulses: number;
    }
  | { readonly by: 'rolled'; readonly mm: number; readonly toMm: number }
  | { readonly by: 'type'; readonly mm: number };

const ACCESS: readonly Access[] = ['open', 'locked', 'pin', 'tool', 'never', 'absent'];
const access = fc.constantFrom(...ACCESS);
const source = fc.constantFrom('measured' as const, 'hearsay' as const);
const known: fc.Arbitrary<Known> = fc.oneof(
  fc
    .record({
      by: fc.constantFrom('runs' as const, 'learnt' as const),
      k: fc.double({ min: 0.4, max: 2.5, noNaN: true }),
      share: fc.double({ min: 0.9, max: 1, noNaN: true }),
      atWheel: fc.integer({ min: 12, max: 29 }),
      atPulses: fc.integer({ min: 1, max: 12 }),
    })
    .map(({ by, k, share, atWheel, atPulses }) => ({ by, k, low: k * share, atWheel, atPulses })),
  fc.integer({ min: 900, max: 2400 }).map((mm) => ({ by: 'rolled' as const, mm, toMm: mm * 1.01 })),
  fc.integer({ min: 900, max: 2400 }).map((mm) => ({ by: 'type' as const, mm })),
);

function inputsFor(what: Known, map: KeyedMap, tolerance: number): SetupInputs {
  const type = what.by === 'type' ? { ...stepThrough, tyre: { ...stepThrough.tyre, rolledMm: what.mm } } : stepThrough;
  const ratio: KnownRatio | null =
    what.by === 'runs' || what.by === 'learnt'
      ? {
          k: what.k,
          low: what.low,
          atWheelRaw: what.atWheel,
          atPulsesRaw: what.atPulses,
          ...(what.by === 'learnt' ? { learntFrom: 8 } : {}),
        }
      : null;
  const rolled = what.by === 'rolled' ? { mm: what.mm, fromMm: what.mm * 0.99, toMm: what.toMm } : null;
  return inputs({
    map,
    type: { ...type, attainableKmh: 60 },
    vehicleClass: { ...pedelec, tolerance },
    houseRules: hire,
    unit: { ...NO_FACTS, ratio, rolled },
  });
}

/** What a unit shows once it is keyed by this setup. */
function shown(setup: Setup, map: KeyedMap, label: string): number {
  const it = map.codes.find((each) => each.label === label);
  const target = setup.targets.find((each) => each.label === label);
  const moves = it?.access === 'open' || it?.access === 'pin';
  return moves && target?.raw !== null && target?.raw !== undefined ? target.raw : (it?.factory ?? 0);
}

function lowestRatio(what: Known, wheelInch: number, pulses: number): number {
  if (what.by === 'runs' || what.by === 'learnt')
    return what.low * (wheelInch / what.atWheel) * (what.atPulses / pulses);
  const rolls = what.by === 'rolled' ? what.toMm : what.by === 'type' ? what.mm : 0;
  return (inchMm(wheelInch) / rolls) * (stepThrough.wheelPulses / pulses);
}

describe('whatever can be keyed and whatever is known', () => {
  it('the true worst end speed of what will stand is within the limit, or there is a stop', () => {
    let bounded = 0;
    fc.assert(
      fc.property(
        known,
        access,
        access,
        access,
        source,
        fc.integer({ min: 12, max: 29 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 5, max: 40 }),
        fc.constantFrom(null, 0, 0.4, 1),
        fc.constantFrom(0, 0.05),
        (what, wheelAccess, pulseAccess, capAccess, wheelSource, wheelAt, pulsesAt, capAt, overshootKmh, tolerance) => {
          const map = mapWith({
            wheel: { access: wheelAccess, factory: wheelAt, source: wheelSource },
            pulses: { access: pulseAccess, factory: pulsesAt },
            cap: { access: capAccess, factory: capAt },
            overshootKmh,
          });
          const setup = compileSetup(inputsFor(what, map, tolerance));
          if (stops(setup).length > 0) return;
          // Nothing that is not known to cap may be built on.
          expect(capAccess === 'tool' || capAccess === 'absent').toBe(false);
          const worst =
            (shown(setup, map, 'C') + (overshootKmh ?? 0)) /
            lowestRatio(what, shown(setup, map, 'W'), shown(setup, map, 'P'));
          expect(worst).toBeLessThanOrEqual(LIMIT_KMH * (1 + tolerance) * (1 + 1e-6));
          bounded++;
        },
      ),
      { numRuns: 3_000, seed: 12 },
    );
    expect(bounded).toBeGreaterThan(500);
  });
});

describe('the same inputs', () => {
  it('give the same setup, whatever was worked out before', () => {
    const unitOf = (rolledMm: number, found: number) => ({
      ...NO_FACTS,
      asFound: { W: found },
      rolled: { mm: rolledMm, fromMm: rolledMm, toMm: rolledMm },
    });
    const map = mapWith({ wheel: { access: 'locked' } });
    const shared = inputs({ map });
    const cases = [unitOf(2163, 20), unitOf(2075, 26), unitOf(1600, 20), NO_FACTS, { ...NO_FACTS, asFound: { W: 20 } }];
    const alone = cases.map((unit) => compileSetup(structuredClone({ ...shared, unit })));
    fc.assert(
      fc.property(fc.shuffledSubarray([0, 1, 2, 3, 4, 0, 1, 2, 3, 4], { minLength: 10 }), (order) => {
        for (const i of order) expect(compileSetup({ ...shared, unit: cases[i]! })).toEqual(alone[i]);
      }),
      { numRuns: 30, seed: 4 },
    );
    expect(alone.map(capOf)).toEqual([18, 24, 24, 25, 19]);
  });
});
