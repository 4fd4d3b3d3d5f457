import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Code, DisplayMap } from '../display/map/display-map.js';
import { compileSetup } from '../setup/compile/compile-setup.js';
import { draftOf } from '../setup/compile/compile-setup.js';
import { provingInputsOf } from '../setup/compile/proving-inputs.js';
import type { SetupInputs } from '../setup/inputs/setup-inputs.js';
import type { VehicleClass } from '../setup/inputs/vehicle-class.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';
import { demoMaps } from '../testing/demo-maps.js';
import { demoTypes, shippedClasses } from '../testing/demo-types.js';
import { tap } from '../display/map/gesture.js';
import { code, fourKey, hire, inputs, line, pedelec, stepThrough, withCodes, words } from '../testing/samples.js';
import { ANSWERED_FOR, coverageOf } from './coverage.js';
import { judgeProof } from './judge-proof.js';
import { orderProofs, setUpsOf } from './order-proofs.js';

const carries = (each: Code, what: readonly string[]): boolean =>
  what.includes(each.function) ||
  (each.encoding.kind === 'pair' &&
    (what.includes(each.encoding.first.function) || what.includes(each.encoding.second.function)));

/** Nothing a rider's safety or the law hangs on is left unsaid. */
function nothingUnsaid(asked: SetupInputs): void {
  const { tests = [], notProved = [] } = compileSetup(asked);
  const said = new Set([...tests.flatMap(({ proves }) => proves.labels), ...notProved.map(({ label }) => label)]);
  const { map, type } = asked;
  for (const each of map.codes)
    if (each.access !== 'absent' && carries(each, ANSWERED_FOR))
      expect(said.has(each.label), `${map.id} ${each.label} ${each.function}`).toBe(true);
  const ids = tests.map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  for (const { wheel, cutsMotor } of type.brakes) if (cutsMotor) expect(ids).toContain(`brake:${wheel}`);
  for (const fitting of type.fittings)
    expect(ids, fitting).toContain(fitting === 'speedometer' ? 'units' : `fitted:${fitting}`);
  if (type.throttleFitted) expect(ids).toContain('throttle:standing');
  expect(ids).toContain('rest');
  for (const { because } of notProved) expect(because).not.toBe('');
  const { clauses } = coverageOf(provingInputsOf(draftOf(asked)), tests);
  for (const { says, by, because } of clauses) expect(by.length > 0 || because !== '', says).toBe(true);
  // What a class wants cut, dead or ended is tried, not talked away, wherever there is anything to try.
  const clause = (says: string) => clauses.find((each) => each.says === says);
  if (asked.vehicleClass.throttle === 'none' && type.throttleFitted) expect(clause('no throttle')?.by).not.toEqual([]);
  if (asked.vehicleClass.cutOnBrake && type.brakes.some(({ cutsMotor }) => cutsMotor))
    expect(clause('each brake lever ends drive')?.by).not.toEqual([]);
  expect(setUpsOf(tests)).toBe(setUpsOf(orderProofs([...tests].reverse())));
  for (const { watch } of tests) {
    if (watch.kind !== 'outcome') continue;
    expect(watch.right.length).toBeGreaterThan(0);
    const named = watch.outcomes.map(({ id }) => id);
    expect(named).toEqual(expect.arrayContaining([...watch.right]));
    expect(named.length).toBeGreaterThanOrEqual(2);
    expect(named.length).toBeLessThanOrEqual(4);
    for (const { says } of watch.outcomes) expect(says).not.toMatch(/pass|fail|correct|good|ok\b/i);
  }
}

describe('what is proved and what is not, of everything that ships', () => {
  const types = demoTypes();
  const maps = new Map(demoMaps().map((map) => [map.id, map]));
  const classes = shippedClasses();

  it('leaves nothing unsaid, for every map on every type that carries it, under every class', () => {
    let tried = 0;
    for (const type of types)
      for (const id of type.maps)
        for (const vehicleClass of classes) {
          const map = maps.get(id);
          if (!map || (vehicleClass.kind !== 'any' && vehicleClass.kind !== type.kind)) continue;
          nothingUnsaid(inputs({ type, map, vehicleClass }));
          tried++;
        }
    expect(tried).toBeGreaterThan(200);
  });

  it('does not give the right outcome away by its place', () => {
    const places = new Set<number>();
    for (const type of types) {
      const map = maps.get(type.maps[0] ?? '');
      if (!map) continue;
      for (const { watch } of compileSetup(inputs({ type, map })).tests ?? [])
        if (watch.kind === 'outcome')
          places.add(watch.outcomes.findIndex(({ id: each }) => watch.right.includes(each)));
    }
    expect(places.size).toBeGreaterThanOrEqual(3);
  });
});

describe('what is proved and what is not, of anything', () => {
  const onOff = words([0, 'off'], [1, 'on']);
  const anyCodes: fc.Arbitrary<readonly Code[]> = fc
    .record({
      mode: fc.constantFrom('pedal', 'throttle', 'both', null),
      start: fc.constantFrom(0, 1, 2, null),
      cruise: fc.constantFrom(0, 1, null),
      walk: fc.constantFrom(0, 1, null),
      zero: fc.constantFrom(0, 1, null),
      scope: fc.constantFrom(0, 1, null),
      regen: fc.constantFrom(0, 3, null),
      autoOff: fc.constantFrom(0, 10, null),
      cap: fc.constantFrom('open' as const, 'locked' as const, 'never' as const),
    })
    .map(({ mode, start, cruise, walk, zero, scope, regen, autoOff, cap }) => [
      code('L2', 'speedCap', {
        range: { min: 10, max: 45, step: 1 },
        factory: 30,
        encoding: line('km/h'),
        access: cap,
      }),
      ...(mode === null
        ? []
        : [
            code('L3', 'driveMode', {
              range: { min: 0, max: 2, step: 1 },
              factory: ['pedal', 'throttle', 'both'].indexOf(mode),
              encoding: words([0, 'pedal'], [1, 'throttle'], [2, 'both']),
            }),
          ]),
      ...(start === null
        ? []
        : [
            code('L4', 'standstillStart', {
              factory: start,
              encoding: words([0, 'live'], [1, 'rolling'], [2, 'pedalFirst']),
            }),
          ]),
      ...(cruise === null ? [] : [code('L5', 'cruise', { factory: cruise, encoding: onOff })]),
      ...(walk === null ? [] : [code('L6', 'walk', { factory: walk, encoding: onOff })]),
      ...(zero === null ? [] : [code('L7', 'zeroLevel', { factory: zero, encoding: onOff })]),
      ...(scope === null
        ? []
        : [code('L8', 'throttleScope', { factory: scope, encoding: words([0, 'limited'], [1, 'full']) })]),
      ...(regen === null ? [] : [code('L9', 'regen', { factory: regen, range: { min: 0, max: 5, step: 1 } })]),
      ...(autoOff === null
        ? []
        : [code('M1', 'autoOff', { factory: autoOff, range: { min: 0, max: 30, step: 1 }, encoding: line('min') })]),
    ]);
  const anyType: fc.Arbitrary<Partial<VehicleType>> = fc.record({
    throttleFitted: fc.boolean(),
    pedalMagnets: fc.constantFrom(12, null),
    kind: fc.constantFrom('bike' as const, 'scooter' as const),
    brakes: fc.array(
      fc.record({
        wheel: fc.constantFrom('front' as const, 'rear' as const),
        how: fc.constant('disc' as const),
        cutsMotor: fc.boolean(),
      }),
      { minLength: 1, maxLength: 2 },
    ),
    fittings: fc.subarray([
      'frontLight',
      'rearLight',
      'brakeLight',
      'indicators',
      'reflectors',
      'bell',
      'mirror',
    ] as const),
    motors: fc.constantFrom(
      [{ place: 'rear', drive: 'gearedHub', freewheels: true }] as const,
      [{ place: 'rear', drive: 'directHub', freewheels: false }] as const,
    ),
  });
  const anyClass: fc.Arbitrary<Partial<VehicleClass>> = fc.record({
    kind: fc.constant('any' as const),
    throttle: fc.constantFrom('none' as const, 'toCap' as const, 'toSpeed' as const, 'asApproved' as const),
    throttleTo: fc.constantFrom({ value: 12, unit: 'mph' as const }),
    throttleFrom: fc.constantFrom('standstill' as const, 'decide' as const, 'rolling' as const, 'pedalling' as const),
    walk: fc.constantFrom('allowed' as const, 'forbidden' as const, 'decide' as const),
    cruise: fc.constantFrom('allowed' as const, 'forbidden' as const),
    cutOnBrake: fc.boolean(),
    cutOnPedalStop: fc.constantFrom(null, { withinS: 2 }, { withinS: null }),
    endSpeedMeasured: fc.boolean(),
    regime: fc.constantFrom('set' as const, 'lowerOnly' as const, 'checkOnly' as const),
  });

  it('leaves nothing unsaid', () => {
    fc.assert(
      fc.property(anyCodes, anyType, anyClass, (codes, type, over) => {
        const map: DisplayMap = withCodes(fourKey, codes);
        nothingUnsaid(
          inputs({ map, type: { ...stepThrough, ...type }, vehicleClass: { ...pedelec, ...over }, houseRules: hire }),
        );
      }),
      { numRuns: 300 },
    );
  });
});

describe('what one unit has to show', () => {
  const ids = (over: Partial<VehicleClass>, type: Partial<VehicleType> = {}, map: DisplayMap = fourKey) =>
    (
      compileSetup(inputs({ map, type: { ...stepThrough, ...type }, vehicleClass: { ...pedelec, ...over } })).tests ??
      []
    ).map(({ id }) => id);

  it('follows from what is fitted and what is set', () => {
    expect(ids({}, { throttleFitted: false })).not.toContain('throttle:standing');
    expect(ids({}, { throttleFitted: true })).toEqual(
      expect.arrayContaining(['throttle:standing', 'throttle:rolling']),
    );
    expect(ids({ throttle: 'toCap' }, { throttleFitted: true })).toContain('end:assist');
    expect(ids({}, { pedalMagnets: null })).not.toContain('assist:ends');
  });

  it('ends drive at the highest level that a rider reaches, not the highest there could be', () => {
    const levels = code('Lv', 'assistLevels', {
      range: { min: 3, max: 5, step: 1 },
      factory: 5,
      encoding: line('levels'),
    });
    const map: DisplayMap = {
      ...withCodes(fourKey, [...fourKey.codes, levels]),
      ride: { levels: { up: tap('up'), down: tap('down'), most: 5, wakesAt: 1 }, modes: null },
    };
    const title = (assistLevels: number): string | undefined => {
      const houseRules = { ...hire, choices: { ...hire.choices, assistLevels } };
      const { tests = [] } = compileSetup(inputs({ map, type: stepThrough, vehicleClass: pedelec, houseRules }));
      return tests.find(({ id }) => id === 'end:assist')?.title;
    };
    expect(title(5)).toBe('Where drive ends: level 5');
    expect(title(3)).toBe('Where drive ends: level 3');
  });

  it('has the fastest combination twice, the others once, and each under its own limit', () => {
    const limpet = demoMaps().find(({ id }) => id === 'limpet-modes');
    const petrel = demoTypes().find(({ id }) => id === 'petrel-10');
    const scooter = shippedClasses().find(({ id }) => id === 'scooter-20');
    if (!limpet || !petrel || !scooter) throw new Error('the demo scenario lacks its scooter');
    const setup = compileSetup(inputs({ map: limpet, type: petrel, vehicleClass: scooter }));
    const ends = (setup.tests ?? []).filter(({ id }) => id.startsWith('end:'));
    expect(ends.map(({ id }) => id).toSorted()).toEqual(['end:throttle:city', 'end:throttle:eco', 'end:throttle:fast']);
    const least = ends.map(({ watch }) => (watch.kind === 'speed' ? watch.least : 0));
    expect(least).toEqual([2, 1, 1]);
    const predicted = ends.map(({ watch }) => (watch.kind === 'speed' ? (watch.predictedKmh ?? 0) : 0));
    expect(predicted[0]).toBe(Math.max(...predicted));
    expect(ends.every(({ pack, at }) => pack === 'full' && at === 'yard')).toBe(true);
  });

  it('stands in as few set-ups as there are, what is left alone last', () => {
    const { tests = [] } = compileSetup(inputs({ map: demoMaps().find(({ id }) => id === 'tallow-four-key')! }));
    expect(setUpsOf(tests)).toBe(
      new Set(tests.map(({ at, pack, waitsMin }) => `${at} ${pack} ${waitsMin !== null}`)).size,
    );
    expect(tests.at(-1)?.waitsMin).toBeGreaterThan(0);
  });

  it('asks whether both motors drive of a type that has two, and of no other', () => {
    const two = {
      ...stepThrough,
      motors: (['front', 'rear'] as const).map((place) => ({ place, drive: 'gearedHub' as const, freewheels: true })),
    };
    const asked = (type: typeof stepThrough) => compileSetup(inputs({ type })).tests?.find(({ id }) => id === 'motors');
    expect(asked(stepThrough)).toBeUndefined();
    const test = asked(two)!;
    expect(test).toMatchObject({ at: 'stand', cure: { way: 'part', part: 'motor' } });
    expect(test.cautions.join(' ')).toMatch(/both wheels/i);
    expect(judgeProof(test, [{ kind: 'outcome', outcome: 'both' }], two.pack).verdict).toBe('shows');
    expect(judgeProof(test, [{ kind: 'outcome', outcome: 'one' }], two.pack).verdict).toBe('doesNot');
  });

  it('wants a stopping distance where a lead had motor braking made weaker', () => {
    const braking = withCodes(fourKey, [
      ...fourKey.codes,
      code('L9', 'regen', { range: { min: 0, max: 5, step: 1 }, factory: 3, encoding: line('') }),
    ]);
    const direct = {
      ...stepThrough,
      motors: [{ place: 'rear' as const, drive: 'directHub' as const, freewheels: false }],
    };
    const weaker = { choices: { motorBraking: 'weak' as const }, limit: null, why: 'stiff leg', by: 'Ines M.' };
    const at = (override: typeof weaker | null) =>
      (compileSetup(inputs({ map: braking, type: direct, unit: { ...inputs().unit, override } })).tests ?? []).map(
        ({ id }) => id,
      );
    expect(at(weaker)).toContain('stops');
    expect(at(null)).not.toContain('stops');
    expect(at(null)).toContain('regen');
  });
});
