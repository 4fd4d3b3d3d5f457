import { describe, expect, it } from 'vitest';
import { code, fourKey, inputs, line, withCodes } from '../../testing/samples.js';
import {
  benchOpening,
  checkedIn,
  madeSafe,
  TEO,
  restarted,
  stateAfter,
  deedsOf,
  refusalOf,
  type Act,
} from '../../testing/visit-script.js';
import { compileSetup } from '../../setup/compile/compile-setup.js';
import { foldVisit } from '../fold-visit.js';
import type { EvidenceData } from '../evidence.js';
import type { VisitState } from '../visit-state.js';
import { calibrationOf } from './calibration-of.js';
import { endOnBentLine } from '../../speed/ratio/bent-line.js';
import { calibratedBy, fittedBy, learntBy, overLimitKmh, whyNotClosed, whyNotLearnt } from './closing.js';
import { unitFactsOf } from './unit-facts.js';

const wheel = code('W1', 'wheelSize', { range: { min: 20, max: 29, step: 1 }, factory: 26, encoding: line('in') });
const map = {
  ...withCodes(fourKey, [...fourKey.codes, wheel]),
  speed: { rounding: 'nearest', decimals: 1, overshootKmh: 0 },
} as const;
const setup = compileSetup(inputs({ map }));
const factory = Object.fromEntries(map.codes.map((each) => [each.label, each.factory]));
const targets = Object.fromEntries(setup.targets.map(({ label, raw }) => [label, raw ?? factory[label] ?? 0]));

const opened: Act = [
  'opened',
  {
    ...benchOpening,
    factory,
    setup,
    bench: { ...benchOpening.bench!, calibrate: { runs: 'full', why: '', family: null } },
  },
];
const toCalibrate: readonly Act[] = [
  opened,
  checkedIn,
  madeSafe,
  ...map.codes.map(({ label, factory: raw }): Act => ['asFoundRead', { label, raw }]),
  ['asFoundClosed', {}],
  ...setup.targets
    .filter(({ label, raw, locked }) => raw !== null && !locked && raw !== factory[label])
    .map(({ label, raw }): Act => ['codeKeyed', { label, fromRaw: factory[label] ?? 0, raw: raw ?? 0, presses: 3 }]),
  ['keyInClosed', {}],
  restarted,
  ...setup.targets.map(({ label }): Act => ['codeRead', { label, raw: targets[label] ?? 0 }]),
  ['readBackClosed', {}],
];
const read = (trueKmh: number, shown: number, more: Partial<EvidenceData['speedRead']> = {}): Act => [
  'speedRead',
  {
    reference: 'spot',
    instrument: '',
    trueKmh,
    uKmh: 0.1,
    uCommon: 0,
    shown,
    unit: 'km/h',
    offGround: false,
    words: '',
    ...more,
  },
];
/** The display reads 3.7 % low. */
const yard: readonly Act[] = [read(9.8, 9.4), read(15.6, 15), read(20.3, 19.6), read(24.6, 23.7)];
const found = (state: VisitState) => {
  const all = calibrationOf(state, map);
  if (!all) throw new Error('no speed terms');
  return all;
};
const fitted = (state: VisitState): Act => {
  const all = found(state);
  return ['wheelFitted', fittedBy(all, all.candidates[0]!)];
};

describe('readings of a visit', () => {
  it('say where drive would run to as keyed, and what to key instead', () => {
    const state = stateAfter([...toCalibrate, ...yard]);
    const all = found(state);
    expect(all.estimate?.k).toBeCloseTo(0.9635, 3);
    expect(all.endsNow?.kmh).toBeCloseTo(25.95, 1);
    expect(overLimitKmh(all)).toBeCloseTo(1.1, 1);
    expect([all.candidates[0]?.wheel.raw, all.candidates[0]?.cap?.raw]).toEqual([28, 25]);
    expect(all.next.isEnough).toBe(true);
    expect(whyNotClosed(all, state)).toContain('drive may run to 26.1 km/h, and 25 km/h is allowed');
  });

  it('with the wheel off the ground count for nothing, nor those that a person left out', () => {
    const state = stateAfter([...toCalibrate, read(30, 12, { offGround: true }), ...yard, read(17.6, 19.8)]);
    expect(found(state).readings).toHaveLength(5);
    const doubt = found(state).doubts[0];
    expect(doubt?.index).toBe(4);
    const id = found(state).kept[doubt?.index ?? 0]?.id ?? '';
    expect(
      refusalOf([
        ...toCalibrate,
        ...yard,
        read(17.6, 19.8),
        ['speedJudged', { reading: id, isUsed: false, words: ' ' }],
      ]),
    ).not.toBeNull();
    const left = stateAfter([
      ...toCalibrate,
      read(30, 12, { offGround: true }),
      ...yard,
      read(17.6, 19.8),
      ['speedJudged', { reading: id, isUsed: false, words: 'braking' }],
    ]);
    expect(found(left).readings).toHaveLength(4);
    expect(left.calibration.readings.at(-1)?.leftOut).toEqual({ words: 'braking', by: TEO.name });
    expect(found(left).doubts).toEqual([]);
  });

  it('in miles an hour are held against true km/h', () => {
    const miles = stateAfter([
      ...toCalibrate,
      read(16.09344, 10, { unit: 'mph' }),
      read(24.14016, 15, { unit: 'mph' }),
    ]);
    expect(found(miles).estimate?.k).toBeCloseTo(1, 6);
  });

  it('typed in the other unit are asked about, and nothing is chosen by them', () => {
    const all = found(stateAfter([...toCalibrate, read(24, 14.9), read(16, 10)]));
    expect(all.wrongCount).toEqual({ kind: 'miles', meant: 'mph' });
    expect(all.candidates).toEqual([]);
  });

  it('that do not lie on a line through zero get their end speed by the line, and no wheel value is offered', () => {
    const all = found(
      stateAfter([
        ...toCalibrate,
        ...[6, 9, 12, 15, 18, 21, 24].map((kmh) => read(kmh, Number((1.4 + 0.95 * kmh).toFixed(1)))),
      ]),
    );
    expect(all.bent?.kind).toBe('offset');
    expect(all.endsNow?.kmh).toBeCloseTo((25 - 1.4) / 0.95, 1);
    expect(all.endsNow!.worst).toBeGreaterThan(all.endsNow!.kmh);
    expect(all.candidates).toEqual([]);
  });

  it('are asked for one at a time', () => {
    expect(found(stateAfter(toCalibrate)).next).toEqual({ isEnough: false, atKmh: 24, why: 'none' });
    expect(found(stateAfter([...toCalibrate, read(12, 11.6)])).next).toMatchObject({ why: 'noneNearLimit' });
  });
});

describe('choosing', () => {
  const chosen = [...toCalibrate, ...yard];
  const before = stateAfter(chosen);
  const take = fitted(before);
  const later = (state: VisitState) => ({
    ...setup,
    ...compileSetup({ ...inputs({ map }), unit: { ...unitFactsOf(state, map), override: null } }),
  });
  const revision = (acts: readonly Act[]): Act => [
    'setupRevised',
    {
      why: 'Wheel and cap chosen by runs',
      order: benchOpening.order,
      versions: benchOpening.versions,
      pack: benchOpening.pack,
      setup: later(stateAfter(acts)),
    },
  ];
  const taken = [...chosen, take, revision([...chosen, take])];

  it('sends the unit back for just those codes, and the cap counts with the wheel', () => {
    const state = stateAfter(taken);
    expect([state.step, state.toKey, state.toRead]).toEqual(['keyIn', ['W1'], ['W1']]);
    expect(state.opened.setup.targets.find(({ label }) => label === 'W1')).toMatchObject({
      raw: 28,
      because: 'Fitted to 4 readings, and chosen by Teo R.: 28.',
    });
    expect(state.opened.setup.targets.find(({ label }) => label === 'L2')?.raw).toBe(25);
  });

  const rekeyed: readonly Act[] = [
    ...taken,
    ['codeKeyed', { label: 'W1', fromRaw: 26, raw: 28, presses: 4 }],
    ['keyInClosed', {}],
    restarted,
    ['codeRead', { label: 'W1', raw: 28 }],
    ['readBackClosed', {}],
  ];

  it('wants a check run of two readings, which are held against what was predicted', () => {
    const state = stateAfter(rekeyed);
    expect(state.step).toBe('calibrate');
    expect(whyNotClosed(found(state), state)).toContain('2 readings with the new one confirm it');
    const result = calibratedBy(found(state));
    expect(refusalOf([...rekeyed, ['calibrated', result]])).toBe('noCheckRun');
    const good = stateAfter([...rekeyed, read(12, 12.5), read(23, 23.9)]);
    expect(found(good).check).toMatchObject({ count: 2, run: { agrees: true } });
    expect(whyNotClosed(found(good), good)).toBeNull();
    const closed = stateAfter([...rekeyed, read(12, 12.5), read(23, 23.9), ['calibrated', calibratedBy(found(good))]]);
    expect(closed.step).toBe('prove');
    expect(closed.calibration.result).toMatchObject({
      how: 'runs',
      count: 6,
      provisional: '',
      ends: { kmh: expect.closeTo(24.1, 1) },
    });
  });

  it('is not closed by a check run that says something else', () => {
    const off = stateAfter([...rekeyed, read(12, 11.4), read(23, 21.9)]);
    expect(found(off).check?.run?.agrees).toBe(false);
    expect(whyNotClosed(found(off), off)).toContain('does not say what was predicted');
  });

  it('begins anew with another tyre, and the tape is refused once runs have chosen', () => {
    const tyre = stateAfter([
      ...rekeyed,
      ['partReplaced', { part: 'tyre', words: 'cut by glass', oldOdometerKm: null, newOdometerKm: null, packV: null }],
    ]);
    expect([tyre.calibration.readings, tyre.calibration.fitted, tyre.wheelFamily]).toEqual([[], null, 2]);
    expect(
      refusalOf([...taken, ['wheelMeasured', { how: 'rollOut', mm: 2050, fromMm: 2040, toMm: 2060, words: '' }]]),
    ).toBe('fittedAlready');
  });

  it('goes on from what drive was seen to do beyond the cap', () => {
    const state = stateAfter([...chosen, ['driveEndRead', { shown: 25.8, unit: 'km/h', words: '' }]]);
    expect(found(state).overshoot).toEqual({ kmh: expect.closeTo(0.8, 6), from: 'measured' });
    expect(found(state).endsNow?.kmh).toBeCloseTo(25.8 / 0.9635, 1);
    expect(unitFactsOf(state, map).overshootKmh).toBeCloseTo(0.8, 6);
  });
});

describe('before anything is ridden', () => {
  it('the wheel is measured any time after check in, and decides the wheel code', () => {
    const acts: readonly Act[] = [
      opened,
      checkedIn,
      ['wheelMeasured', { how: 'rollOut', mm: 2163, fromMm: 2150, toMm: 2176, words: '5 turns' }],
    ];
    expect(unitFactsOf(stateAfter(acts), map).rolled).toEqual({ mm: 2163, fromMm: 2150, toMm: 2176 });
    expect(refusalOf([opened, acts[2]!])).toBe('wheelTooEarly');
    const rolled = compileSetup({
      ...inputs({ map }),
      unit: { ...unitFactsOf(stateAfter(acts), map), override: null },
    });
    expect(rolled.targets.find(({ label }) => label === 'W1')?.raw).toBe(28);
  });
});

describe('a unit that need not be run', () => {
  it('is closed with what its family was learnt to be; one that is to be run is not', () => {
    const family = {
      k: 1.03,
      u: 0.002,
      low: 1.02,
      high: 1.04,
      count: 11,
      wheelRaw: 28,
      pulsesRaw: null,
      nextLow: 1.025,
      nextHigh: 1.035,
    };
    const learnt: EvidenceData['calibrated'] = {
      how: 'learnt',
      ratio: family,
      atWheelRaw: 28,
      atPulsesRaw: null,
      count: 11,
      ends: null,
      checkOff: null,
      provisional: '',
    };
    const sampled = toCalibrate.with(0, [
      'opened',
      {
        ...(opened[1] as EvidenceData['opened']),
        bench: { ...benchOpening.bench!, calibrate: { runs: 'sample', why: '', family } },
      },
    ]);
    expect(stateAfter([...sampled, ['calibrated', learnt]]).step).toBe('prove');
    expect(refusalOf([...toCalibrate, ['calibrated', learnt]])).toBe('notLearnt');
    const fold = foldVisit(deedsOf(sampled));
    expect(fold.ok && unitFactsOf(fold.value, map).ratio).toMatchObject({ k: 1.03, low: 1.02, learntFrom: 11 });
  });

  it('is not closed by what its family was learnt to be where drive would run beyond the limit with the codes it shows', () => {
    const family = {
      k: 1.03,
      u: 0.004,
      low: 1.02,
      high: 1.04,
      count: 11,
      wheelRaw: 28,
      pulsesRaw: null,
      nextLow: 1.01,
      nextHigh: 1.05,
    };
    const under = (shows: number) =>
      stateAfter([
        [
          'opened',
          {
            ...benchOpening,
            factory,
            setup,
            bench: { ...benchOpening.bench!, calibrate: { runs: 'sample', why: '', family } },
          },
        ],
        ...toCalibrate
          .slice(1)
          .map((act): Act =>
            act[0] === 'asFoundRead' && act[1].label === 'W1' ? ['asFoundRead', { label: 'W1', raw: shows }] : act,
          ),
      ]);
    // The setup's target is 26; read back it shows 26, where 28 was learnt: it counts low by 26/28.
    const state = under(26);
    const learnt = learntBy(state, map);
    expect(learnt?.ends?.worst).toBeCloseTo(25 / (1.02 * (26 / 28)), 6);
    expect(learnt && whyNotLearnt(learnt, state)).toContain(
      'drive may run to 26.4 km/h with the codes that it shows, and 25 km/h is allowed',
    );
    expect(learntBy(stateAfter(toCalibrate), map)).toBeNull();
  });

  it('that look like another count may be right: somebody says so, and codes are offered', () => {
    const odd: readonly Act[] = [...toCalibrate, read(24, 14.9), read(16, 10)];
    const all = found(stateAfter([...odd, ['countStands', { words: 'looked at the glass' }]]));
    expect(all.wrongCount).toBeNull();
    expect(all.candidates.length).toBeGreaterThan(0);
    expect(refusalOf([...toCalibrate, ['countStands', { words: '' }]])).toBe('noReadings');
  });

  it('at two speeds alone cannot tell an offset from rounding: the faster of both answers counts', () => {
    const two = [6, 6.02, 5.98, 24, 24.02, 23.98].map((kmh) =>
      read(kmh, Number((1.4 + 0.95 * kmh).toFixed(1)), { uKmh: 0.02 }),
    );
    const all = found(stateAfter([...toCalibrate, ...two]));
    expect([all.bent === null, all.isTwoSpeeds]).toEqual([false, true]);
    expect(all.endsNow!.worst).toBeGreaterThanOrEqual(
      Math.max(25 / all.estimate!.low, endOnBentLine(all.bent!, 25).worst) - 1e-9,
    );
  });
});

describe('a cap that counts otherwise', () => {
  const withCap = (unit: string, over: Partial<Parameters<typeof inputs>[0]> = {}) => {
    const codes = fourKey.codes.map((each) =>
      each.label === 'L2' ? { ...each, range: { min: 5, max: 100, step: 1 }, factory: 30, encoding: line(unit) } : each,
    );
    const other = {
      ...withCodes(fourKey, [...codes, wheel]),
      speed: { rounding: 'nearest', decimals: 1, overshootKmh: 0 },
    } as const;
    const own = compileSetup(inputs({ map: other, ...over }));
    const state = stateAfter([...toCalibrate, ...yard]);
    const known = { ...state.values, L2: own.targets.find(({ label }) => label === 'L2')?.raw ?? 0 };
    return calibrationOf({ ...state, values: known, opened: { ...state.opened, setup: own } }, other)!;
  };

  it('in miles under a statute in miles is held against it in its own unit', () => {
    const all = withCap('mph', { vehicleClass: { ...inputs().vehicleClass, limit: { value: 15.5, unit: 'mph' } } });
    expect(all.codes.capKmh).toBeCloseTo(15 * 1.609344, 6);
    expect(all.question?.limitKmh).toBeCloseTo(24.944832, 6);
    expect(all.endsNow?.kmh).toBeCloseTo((15 * 1.609344) / 0.9635, 1);
    expect([all.candidates[0]?.wheel.raw, all.candidates[0]?.cap?.raw]).toEqual([28, 15]);
  });

  it('in per cent of what motor and pack attain ends drive there, whatever the display shows', () => {
    const all = withCap('%');
    expect(all.codes.capCounts).toBe('share');
    expect(all.endsNow).toEqual({ kmh: all.codes.capKmh, least: all.codes.capKmh, worst: all.codes.capKmh });
    expect(overLimitKmh(all)).toBe(0);
    expect(all.candidates[0]?.cap).toBeNull();
  });

  it('that cannot be met at all is said with the nearest that can be had', () => {
    const all = withCap('km/h', { vehicleClass: { ...inputs().vehicleClass, limit: { value: 4, unit: 'km/h' } } });
    expect(all.candidates.every(({ cap }) => cap === null)).toBe(true);
  });
});

describe('a code that a setup would never set', () => {
  it.each([[{ source: 'hearsay' as const }], [{ access: 'locked' as const }]])(
    'such as a wheel code of %j is not offered',
    (over) => {
      const state = stateAfter([...toCalibrate, ...yard]);
      const other = { ...map, codes: map.codes.map((each) => (each.label === 'W1' ? { ...each, ...over } : each)) };
      expect(calibrationOf(state, other)?.candidates.map(({ wheel: { raw } }) => raw)).toEqual([26]);
    },
  );
});
