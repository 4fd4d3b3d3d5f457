import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chargeTold, restedCellV } from './open-circuit.js';
import { currentLimitFor } from './current-limit.js';
import { storageAdvice } from './storage.js';
import type { Bound, PowerBasis } from '../setup/inputs/vehicle-class.js';
import { gaugeSteps } from './gauge-steps.js';
import { certain } from '../result.js';
import { classesThatExplain, gaugeUnderEachClass } from './voltage-class.js';
import { rangeSpan } from './range-span.js';

const liIon13 = { chemistry: 'liIon', cellsInSeries: 13, labelV: 48, capacityAh: 14 } as const;
const liIon10 = { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 } as const;
const told = (...asked: Parameters<typeof chargeTold>) => {
  const charge = chargeTold(...asked);
  if (!charge) throw new Error('no charge told');
  return charge;
};
const CHEMISTRIES = ['liIon', 'lfp', 'leadAcid'] as const;

describe('the open-circuit curve', () => {
  it("meets the cell's floor and rested full", () => {
    expect([restedCellV('liIon', 0), restedCellV('liIon', 100)]).toEqual([3.0, 4.2]);
    expect([restedCellV('lfp', 0), restedCellV('lfp', 100)]).toEqual([2.8, 3.4]);
    expect([restedCellV('leadAcid', 0), restedCellV('leadAcid', 100)]).toEqual([1.95, 2.12]);
  });

  it('rises with charge, and tells the charge it was asked at', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CHEMISTRIES),
        fc.double({ min: 0, max: 99, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        (chemistry, percent, more) => {
          expect(restedCellV(chemistry, percent + more)).toBeGreaterThan(restedCellV(chemistry, percent));
          const { fromPercent, toPercent } = told(chemistry, restedCellV(chemistry, percent));
          expect(fromPercent - 1e-6).toBeLessThanOrEqual(percent);
          expect(toPercent + 1e-6).toBeGreaterThanOrEqual(percent);
        },
      ),
      { numRuns: 200, seed: 4 },
    );
  });

  it('of LFP tells no percentage between about 20 and 90', () => {
    expect(chargeTold('lfp', 3.28)).toEqual({ fromPercent: 20, toPercent: 90 });
    expect(chargeTold('lfp', 3.15)).toEqual({ fromPercent: 10, toPercent: 10 });
    expect(chargeTold('liIon', 3.7)).toEqual({ fromPercent: 50, toPercent: 50 });
  });

  it('stands at its ends beyond them', () => {
    expect(chargeTold('liIon', 4.3)).toEqual({ fromPercent: 100, toPercent: 100 });
    expect(restedCellV('liIon', -5)).toBe(3);
  });
});

describe('a limit in watts', () => {
  const inputs = { pack: liIon13, ratedW: 750, controllerA: 25, typeA: 22 } as const;
  const by = (basis: PowerBasis, is: Bound = 'atMost') => ({ ...inputs, limits: [{ watts: 750, basis, is }] });

  it('of 750 W on a 48 V pack is 15 A by the label and 13 A when full', () => {
    expect(Math.floor(certain(currentLimitFor(by('nominal'))).limitA)).toBe(15);
    expect(Math.floor(certain(currentLimitFor(by('full'))).limitA)).toBe(13);
    expect(certain(currentLimitFor(by('full')))).toMatchObject({
      nominalV: 48,
      readings: [{ nominalA: 15.625, fullA: 750 / (13 * 4.2) }],
    });
  });

  it('on the rated basis leaves no current, and stops on a label above it', () => {
    expect(certain(currentLimitFor(by('rated')))).toMatchObject({
      limitA: 22,
      decidedBy: 'type',
      stop: null,
    });
    expect(certain(currentLimitFor({ ...by('rated'), ratedW: 1000 })).stop).toContain('rated 1000 W');
  });

  it('never goes above controller or type', () => {
    expect(certain(currentLimitFor({ ...by('nominal'), typeA: 12 }))).toMatchObject({
      limitA: 12,
      decidedBy: 'type',
    });
    expect(certain(currentLimitFor({ ...by('nominal'), controllerA: 9 }))).toMatchObject({
      limitA: 9,
      decidedBy: 'controller',
    });
    expect(certain(currentLimitFor({ ...inputs, limits: [] }))).toMatchObject({
      limitA: 22,
      readings: [],
    });
  });

  it('that has to stay under is not reached: 480 W at 48 V is less than 10 A, and a label of 750 W is too much', () => {
    const under = { ...inputs, limits: [{ watts: 480, basis: 'nominal', is: 'under' }] } as const;
    expect(certain(currentLimitFor(under)).limitA).toBeLessThan(10);
    expect(certain(currentLimitFor(by('rated', 'under'))).stop).toContain('allows less than 750 W');
    expect(certain(currentLimitFor(by('rated', 'atMost'))).stop).toBeNull();
  });

  it('beside a second one keeps to the lower: a peak is held to what goes in from a full pack', () => {
    const both = { ...inputs, limits: [...by('rated').limits, { watts: 600, basis: 'peak', is: 'atMost' } as const] };
    const limit = certain(currentLimitFor(both));
    expect(limit.limitA).toBeCloseTo(600 / (13 * 4.2), 9);
    expect(limit.decides).toMatchObject({ watts: 600, basis: 'peak' });
  });
});

describe('the steps of a gauge', () => {
  it('of five bars on ten cells are fifths of the charge', () => {
    const { steps, emptyV, fullV } = certain(gaugeSteps({ pack: liIon10, bars: 5, goesOutAt: 'edge' }));
    expect(steps).toEqual([
      { bar: 2, packV: 35.5 },
      { bar: 3, packV: 36.5 },
      { bar: 4, packV: 37.7 },
      { bar: 5, packV: 39.6 },
    ]);
    expect([emptyV, fullV]).toEqual([30, 41.2]);
  });

  it('lie lower by the sag while riding, and higher where a bar goes out in its middle', () => {
    const rest = certain(gaugeSteps({ pack: liIon10, bars: 5, goesOutAt: 'edge' }));
    const riding = certain(gaugeSteps({ pack: liIon10, bars: 5, goesOutAt: 'edge', sag: { cruisingA: 6, ohm: 0.2 } }));
    riding.steps.forEach(({ packV }, i) => expect(packV).toBeCloseTo((rest.steps[i]?.packV ?? 0) - 1.2, 6));
    const centred = certain(gaugeSteps({ pack: liIon10, bars: 5, goesOutAt: 'centre' }));
    centred.steps.forEach(({ packV }, i) => expect(packV).toBeGreaterThan(rest.steps[i]?.packV ?? 0));
  });

  it('rise from empty to full for every chemistry and count', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CHEMISTRIES),
        fc.integer({ min: 4, max: 24 }),
        fc.integer({ min: 2, max: 10 }),
        (chemistry, cellsInSeries, bars) => {
          const { steps, emptyV, fullV } = certain(
            gaugeSteps({
              pack: { chemistry, cellsInSeries, labelV: 1, capacityAh: 1 },
              bars,
              goesOutAt: 'edge',
            }),
          );
          const all = [emptyV, ...steps.map((step) => step.packV), fullV];
          expect(all).toEqual([...all].sort((a, b) => a - b));
          expect(steps).toHaveLength(bars - 1);
        },
      ),
      { numRuns: 150, seed: 5 },
    );
  });
});

it('a range is a span with its assumptions: 36 V, 13 Ah, four fifths, 8 to 12 Wh a km', () => {
  expect(certain(rangeSpan({ pack: liIon10, usableShare: 0.8, whPerKm: { least: 8, most: 12 } }))).toMatchObject({
    fromKm: 31,
    toKm: 46,
    usableWh: 374.40000000000003,
  });
  expect(certain(rangeSpan({ pack: liIon10, usableShare: 0.8, whPerKm: { least: 8, most: 12 } })).assumes).toHaveLength(
    3,
  );
});

describe('what rounding must not eat', () => {
  it('is a whole kilometre: 29 and 69 were told for 30 and 70', () => {
    const span = (labelV: number, capacityAh: number, share: number, use: number) =>
      certain(
        rangeSpan({
          pack: { ...liIon10, labelV, capacityAh },
          usableShare: share,
          whPerKm: { least: use, most: use },
        }),
      ).fromKm;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200 }),
        fc.constantFrom(24, 36, 48, 52, 60),
        fc.constantFrom(0.7, 0.8, 0.9, 1),
        fc.integer({ min: 50, max: 200 }),
        (km, labelV, share, tenths) => {
          const use = tenths / 10;
          expect(span(labelV, (km * use) / (labelV * share), share, use)).toBe(km);
        },
      ),
    );
  });
});

describe('figures that are none', () => {
  const none = [NaN, Infinity, -Infinity, -1];
  const liIon = { least: 8, most: 12 };
  it('are refused with a code, by every function at the front door', () => {
    for (const bad of none) {
      const noFigure = { ok: false, problem: { code: 'noFigure' } };
      expect(rangeSpan({ pack: { ...liIon10, capacityAh: bad }, usableShare: 0.8, whPerKm: liIon })).toMatchObject(
        noFigure,
      );
      expect(rangeSpan({ pack: liIon10, usableShare: bad, whPerKm: liIon })).toMatchObject(noFigure);
      expect(rangeSpan({ pack: liIon10, usableShare: 0.8, whPerKm: { least: bad, most: 12 } })).toMatchObject(noFigure);
      expect(gaugeSteps({ pack: liIon10, bars: bad, goesOutAt: 'edge' })).toMatchObject(noFigure);
      expect(gaugeSteps({ pack: liIon10, bars: 5, goesOutAt: 'edge', cutoffV: bad })).toMatchObject(noFigure);
      expect(
        gaugeSteps({ pack: liIon10, bars: 5, goesOutAt: 'edge', sag: { cruisingA: bad, ohm: 0.1 } }),
      ).toMatchObject(noFigure);
      const nominal = (power: number) => [{ watts: power, basis: 'nominal', is: 'atMost' } as const];
      const watts = { pack: liIon10, limits: nominal(250), ratedW: 250, controllerA: 15, typeA: 12 } as const;
      expect(currentLimitFor({ ...watts, limits: nominal(bad) })).toMatchObject(noFigure);
      expect(currentLimitFor({ ...watts, controllerA: bad })).toMatchObject(noFigure);
      expect(currentLimitFor({ ...watts, typeA: bad })).toMatchObject(noFigure);
      expect(chargeTold('liIon', bad)).toBeNull();
      expect(gaugeUnderEachClass('liIon', bad)).toEqual([]);
      expect(classesThatExplain('liIon', 48, bad)).toEqual([]);
      expect(classesThatExplain('liIon', bad, 50)).toEqual([]);
    }
    expect(() => restedCellV('liIon', NaN)).toThrow(RangeError);
    expect(rangeSpan({ pack: liIon10, usableShare: 1.2, whPerKm: liIon })).toMatchObject({ ok: false });
    expect(rangeSpan({ pack: liIon10, usableShare: 0.8, whPerKm: { least: 12, most: 8 } })).toMatchObject({
      ok: false,
    });
  });
});

describe('a pack that is put away', () => {
  const of = (chemistry: 'liIon' | 'lfp' | 'leadAcid', cellsInSeries: number, packV: number) =>
    certain(storageAdvice({ chemistry, cellsInSeries, labelV: 36, capacityAh: 13 }, packV));

  it('is half full where it is lithium, and full where it is lead', () => {
    expect(of('liIon', 10, 37)).toEqual({ fromV: 36.5, toV: 37.7, act: 'store' });
    expect(of('leadAcid', 18, 38)).toMatchObject({ fromV: 37.9, toV: 38.2, act: 'store' });
  });

  it.each([
    ['liIon', 10, 41.5, 'use'],
    ['liIon', 10, 35, 'charge'],
    ['liIon', 10, 29, 'stop'],
    ['liIon', 10, 43, 'stop'],
    ['lfp', 12, 39.4, 'measureCharge'],
    ['lfp', 12, 38, 'charge'],
    ['leadAcid', 18, 36.5, 'charge'],
  ] as const)('%s of %d cells at %d V: %s', (chemistry, cells, volts, act) => {
    expect(of(chemistry, cells, volts).act).toBe(act);
  });

  it('is refused where a figure is none', () => {
    expect(storageAdvice({ chemistry: 'liIon', cellsInSeries: 0, labelV: 36, capacityAh: 13 }, 37)).toMatchObject({
      ok: false,
    });
    expect(storageAdvice({ chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 }, NaN)).toMatchObject({
      ok: false,
    });
  });
});
