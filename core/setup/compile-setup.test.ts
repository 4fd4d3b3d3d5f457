import { describe, expect, it } from 'vitest';
import { code, fourKey, hire, line, pedelec, stepThrough, words } from '../testing/samples.js';
import type { Code } from '../display/map/display-map.js';
import { compileSetup } from './compile-setup.js';
import type { SetupInputs } from './setup-inputs.js';

const base: SetupInputs = { type: stepThrough, map: fourKey, vehicleClass: pedelec, houseRules: hire, orderLimitKmh: null };
const compile = (over: Partial<SetupInputs> = {}) => compileSetup({ ...base, ...over });
const target = (label: string, over: Partial<SetupInputs> = {}) => compile(over).targets.find((t) => t.label === label);
const withCode = (one: Code) => ({ map: { ...fourKey, codes: [...fourKey.codes, one] } });

describe('a setup', () => {
  it('has a target or "as found", with its reason, for every code in menu order', () => {
    const { targets } = compile();
    expect(targets.map((t) => [t.label, t.raw])).toEqual([['L1', 11], ['L2', 25], ['L3', 31], ['L4', 31], ['L5', 12]]);
    expect(targets.every((t) => t.because.length > 0)).toBe(true);
  });

  it('takes the lower of class and order for the cap, and says which', () => {
    expect(target('L2')).toMatchObject({ raw: 25, because: '25 km/h by class' });
    expect(target('L2', { orderLimitKmh: 20 })).toMatchObject({ raw: 20, because: 'Class allows 25 km/h, the order 20, so 20' });
    expect(target('L2', { orderLimitKmh: 30 })).toMatchObject({ raw: 25, because: 'The order asks 30 km/h, the class allows 25' });
  });

  it('keeps a statute\'s own unit: 15.5 mph is 24.945 km/h, so 25 fails', () => {
    expect(target('L2', { vehicleClass: { ...pedelec, capKmh: 15.5 * 1.609344 } })?.raw).toBe(24);
  });

  it('stops where the cap cannot be set low enough, or not at all', () => {
    expect(compile({ orderLimitKmh: 6 }).findings).toContainEqual(expect.objectContaining({ level: 'stop', label: 'L2' }));
    const noCap = { map: { ...fourKey, codes: fourKey.codes.filter((c) => c.function !== 'speedCap') } };
    expect(compile(noCap).findings).toContainEqual(expect.objectContaining({ level: 'stop', label: null }));
  });

  it('asks a lead where the limit lies above what motor and pack reach', () => {
    expect(compile({ type: { ...stepThrough, attainableKmh: 22 } }).findings).toContainEqual(expect.objectContaining({ level: 'decide' }));
    expect(compile().findings).toEqual([]);
  });
});

describe('power', () => {
  it('on the rated basis gives no current: the type\'s limit stands', () => {
    expect(target('L5')).toMatchObject({ raw: 12, because: '250 W rated; type allows 12 A' });
  });

  it('stops on a rated label above the class, however low the current', () => {
    expect(compile({ type: { ...stepThrough, ratedPowerW: 500 } }).findings).toContainEqual(expect.objectContaining({ level: 'stop', label: 'L5' }));
  });

  it.each([['nominal', 15], ['full', 13]] as const)('of 750 W at 48 V is %s: %d A', (powerBasis, amps) => {
    const type = { ...stepThrough, typeLimitA: 20, controllerLimitA: 20, pack: { chemistry: 'liIon' as const, cellsInSeries: 13, labelV: 48, capacityAh: 14 } };
    expect(target('L5', { type, vehicleClass: { ...pedelec, ratedPowerW: 750, powerBasis } })?.raw).toBe(amps);
  });
});

describe('a code with two functions', () => {
  const pair = (factory: number) =>
    code('L9', 'assistLevels', {
      range: { min: 30, max: 91, step: 1 },
      factory,
      encoding: {
        kind: 'pair',
        first: { function: 'assistLevels', entries: [3, 5, 9].map((raw) => ({ raw, value: String(raw), title: `${raw} levels` })) },
        second: { function: 'zeroLevel', entries: [0, 1].map((raw) => ({ raw, value: String(raw), title: raw ? 'level 0' : 'none' })) },
      },
    });

  it('gets the target of each half, and keeps a half nobody promised anything of', () => {
    expect(target('L9', withCode(pair(91)))).toMatchObject({ raw: 51, because: 'House rule: 5 levels' });
    expect(target('L9', withCode(pair(30)))).toMatchObject({ raw: 50 });
  });
});

describe('a map that nobody confirmed', () => {
  it('lets nothing leave', () => {
    expect(compile({ map: { ...fourKey, confirmed: null } }).findings).toContainEqual(expect.objectContaining({ level: 'stop', label: null, says: expect.stringContaining('is a draft') }));
  });
});

describe('a cap that follows the units', () => {
  it('counts in miles where the house shows miles, and the limit is kept', () => {
    const cap = code('L2', 'speedCap', { range: { min: 6, max: 45, step: 1 }, factory: 30, encoding: { kind: 'line', scale: 1, unit: 'km/h', sentinels: [], follows: 'L1', doubtfulFrom: 44 } });
    const map = { ...fourKey, codes: fourKey.codes.map((c) => (c.label === 'L2' ? cap : c)) };
    expect(target('L2', { map, houseRules: { ...hire, choices: { ...hire.choices, units: 'mph' } } })?.raw).toBe(15);
    expect(target('L2', { map })?.raw).toBe(25);
    expect(target('L2', { map, orderLimitKmh: 45, vehicleClass: { ...pedelec, capKmh: 45 } })?.raw).toBe(43);
  });
});

describe('a code', () => {
  it.each([['never', 'Never touched'], ['tool', "maker's tool"], ['absent', 'In the paper']] as const)('that is %s stays as found', (access, words) => {
    expect(target('L9', withCode(code('L9', 'walk', { access })))).toMatchObject({ raw: null, because: expect.stringContaining(words) });
  });

  it('known by hearsay stays as found', () => {
    expect(target('L9', withCode(code('L9', 'walk', { encoding: words([5, 'off']), source: 'hearsay' })))).toMatchObject({ raw: null });
  });

  it('that is not verified to act gets a note that nothing is claimed', () => {
    const { findings } = compile(withCode(code('L9', 'brightness', { encoding: line(''), effect: 'unverified' })));
    expect(findings).toContainEqual(expect.objectContaining({ level: 'note', label: 'L9' }));
  });

  it('that nobody promised anything of stays as found', () => {
    expect(target('L9', withCode(code('L9', 'unknown', {})))?.raw).toBeNull();
  });

  it('that does not offer the choice asks a lead', () => {
    const { findings, targets } = compile(withCode(code('L9', 'cruise', { encoding: words([5, 'on']) })));
    expect(targets.at(-1)?.raw).toBeNull();
    expect(findings).toContainEqual(expect.objectContaining({ level: 'decide', label: 'L9' }));
  });

  it('that is locked away from its target asks a lead', () => {
    const { findings } = compile(withCode(code('L9', 'wheelPulses', { factory: 5, access: 'locked' })));
    expect(findings).toContainEqual(expect.objectContaining({ level: 'decide', label: 'L9', says: 'L9 is locked and delivered at 5; it should be 6.' }));
  });

  it('for the cut-off is the cell floor and the margin, times the cells', () => {
    expect(target('L4')).toMatchObject({ raw: 31, because: '3.1 V a cell, 10 cells' });
    const lfp = { ...stepThrough, pack: { chemistry: 'lfp' as const, cellsInSeries: 12, labelV: 36, capacityAh: 10 } };
    expect(target('L4', { type: lfp })?.raw).toBe(31.2);
  });

  it('for the drive mode stops where the class forbids a throttle and no pedal mode exists', () => {
    const map = { ...fourKey, codes: fourKey.codes.map((c) => (c.label === 'L3' ? { ...c, encoding: words([32, 'throttle'], [33, 'both']) } : c)) };
    expect(compile({ map }).findings).toContainEqual(expect.objectContaining({ level: 'stop', label: 'L3' }));
  });

  it('for the drive mode follows the class and what is fitted', () => {
    const free = { ...pedelec, throttle: 'toCap' as const };
    expect(target('L3', { vehicleClass: free })?.raw).toBe(31);
    expect(target('L3', { vehicleClass: free, type: { ...stepThrough, throttleFitted: true } })?.raw).toBe(33);
  });
});
