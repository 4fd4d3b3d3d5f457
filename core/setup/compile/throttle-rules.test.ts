import { describe, expect, it } from 'vitest';
import { code, fourKey, hire, inputs, pedelec, stepThrough, withCodes, words } from '../../testing/samples.js';
import { compileSetup } from './compile-setup.js';
import { PLAIN_TERMS } from '../inputs/order-terms.js';
import type { SetupInputs } from '../inputs/setup-inputs.js';

const throttled = { ...stepThrough, throttleFitted: true };
const free = { ...pedelec, throttle: 'toCap' as const };
const compile = (over: Partial<SetupInputs> = {}) => compileSetup(inputs({ type: throttled, ...over }));
const target = (label: string, over: Partial<SetupInputs> = {}) => compile(over).targets.find((t) => t.label === label);
const ids = (over: Partial<SetupInputs> = {}) => compile(over).findings.map(({ level, id }) => `${level} ${id}`);
const start = code('L9', 'standstillStart', {
  range: { min: 1, max: 3, step: 1 },
  factory: 2,
  encoding: words([1, 'rolling'], [2, 'live'], [3, 'pedalFirst']),
});
const withStart = withCodes(fourKey, [...fourKey.codes, start]);
const chosen = (standstillStart: 'live' | 'rolling' | 'pedalFirst') => ({
  houseRules: { ...hire, choices: { ...hire.choices, standstillStart } },
});
const noMode = withCodes(
  fourKey,
  fourKey.codes.filter((c) => c.label !== 'L3'),
);

describe('a drive mode', () => {
  it('follows the class, the order and what is fitted', () => {
    expect(target('L3', { vehicleClass: free })?.raw).toBe(33);
    expect(target('L3')?.raw).toBe(31);
    expect(target('L3', { vehicleClass: free, type: stepThrough })?.raw).toBe(31);
    expect(target('L3', { vehicleClass: free, terms: { ...PLAIN_TERMS, throttle: 'none' } })).toMatchObject({
      raw: 31,
      because: expect.stringContaining('order wants no throttle'),
    });
  });

  it('stops where a throttle is fitted, the class forbids it and no pedal mode exists', () => {
    const map = withCodes(
      fourKey,
      fourKey.codes.map((c) => (c.label === 'L3' ? { ...c, encoding: words([32, 'throttle'], [33, 'both']) } : c)),
    );
    expect(ids({ map })).toContain('stop noPedalMode:L3');
  });

  it('locked with the throttle on is a stop under such a class', () => {
    const map = withCodes(
      fourKey,
      fourKey.codes.map((c) => (c.label === 'L3' ? { ...c, access: 'locked' as const } : c)),
    );
    expect(ids({ map })).toContain('stop locked:L3');
  });
});

describe('a throttle that no code switches off', () => {
  it("is unplugged, by a lead's word, and proved dead", () => {
    expect(ids({ map: noMode })).toContain('decide unplugThrottle:unit');
    const test = compile({ map: noMode }).tests?.find(({ id }) => id === 'throttle:standing');
    expect(test).toMatchObject({ isNeverLeftOut: true, cure: { way: 'part', part: 'throttle' } });
    expect(test?.first).toContain('Draw the throttle from its connector');
  });

  it('is proved dead without unplugging where a code answers for it', () => {
    const test = compile().tests?.find(({ id }) => id === 'throttle:standing');
    expect(test).toMatchObject({ first: null, isNeverLeftOut: true, watch: { right: ['still'] } });
    const may = compile({ vehicleClass: free }).tests?.find(({ id }) => id === 'throttle:standing');
    expect(may).toMatchObject({ isNeverLeftOut: false, watch: { right: ['runs'] } });
  });
});

describe('contradictions', () => {
  it('a start that seems to make the throttle dead is explained', () => {
    expect(ids({ map: withStart, vehicleClass: free })).toContain('note seemsDead:L9');
    expect(ids({ map: withStart, vehicleClass: free, ...chosen('pedalFirst') })).toContain('note seemsDead:L9');
    expect(ids({ map: withStart, vehicleClass: free, ...chosen('live') })).toEqual([]);
  });

  it("a throttle that waits for pedals nobody reads is a lead's choice", () => {
    const map = withCodes(
      withStart,
      withStart.codes.map((c) => (c.label === 'L3' ? { ...c, encoding: words([32, 'throttle'], [31, 'pedal']) } : c)),
    );
    expect(ids({ map, vehicleClass: free, ...chosen('pedalFirst') })).toContain('decide neverStarts:L9');
  });

  it('pedal-only with a live start is named as moot', () => {
    expect(ids({ map: withStart, ...chosen('live') })).toContain('note startMoot:L9');
  });
});

describe('drive from standstill', () => {
  it('that the class forbids goes to rolling, and the house rule gives way', () => {
    const strict = { ...free, throttleFrom: 'rolling' as const };
    expect(target('L9', { map: withStart, vehicleClass: strict, ...chosen('live') })).toMatchObject({ raw: 1 });
    expect(ids({ map: withStart, vehicleClass: strict, ...chosen('live') })).toContain('note houseAgainstClass:unit');
  });

  it("that places see differently is a lead's choice, and so is a display that does not say", () => {
    const asks = { ...free, throttleFrom: 'decide' as const };
    expect(ids({ map: withStart, vehicleClass: asks, ...chosen('live') })).toContain('decide liveStart:L9');
    expect(ids({ map: withStart, vehicleClass: asks })).not.toContain('decide liveStart:L9');
    expect(ids({ vehicleClass: asks })).toContain('decide startUnknown:unit');
  });
});
