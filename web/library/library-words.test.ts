import { describe, expect, it } from 'vitest';
import type { VehicleClass, VehicleType } from '@decurio/core';
import { NEW_TYPE } from './types/new-type.js';
import { whatFollows } from './types/type-words.js';
import { classRows } from './rules/class-words.js';
import { NEW_CLASS } from './rules/new-pack.js';

const type = (over: object): VehicleType => ({
  ...NEW_TYPE,
  ratedPowerW: 250,
  typeLimitA: 12,
  controllerLimitA: 15,
  pack: { ...NEW_TYPE.pack, labelV: 36, cellsInSeries: 10, capacityAh: 13 },
  tyre: { ...NEW_TYPE.tyre, marking: '47-559' },
  ...over,
});
const says = (over: object): readonly string[] =>
  whatFollows(type(over)).map(({ kind, says: words }) => `${kind}: ${words}`);

describe('what follows from a type', () => {
  it('is worked out from what is typed so far', () => {
    expect(says({})).toEqual([
      'note: A meter reads 30.0 V when empty and 42.0 V right after a full charge.',
      'note: With a tenth of a volt per cell to spare the ride ends at 31 V.',
      'note: By its marking a turn is about 2051 mm, between 1990 and 2092.',
    ]);
    expect(whatFollows(NEW_TYPE)).toEqual([]);
  });

  it.each([
    [{ pack: { ...type({}).pack, cellsInSeries: 11 } }, 'care: A 36 V pack usually has 10 cells in series, not 11'],
    [{ displayStandsV: { from: 20, to: 40 } }, 'care: The display stands 40 V; this pack has 42.0 V when full.'],
    [{ pack: { ...type({}).pack, protectionTripsV: 33 } }, 'care: The pack protects itself at 33 V'],
    [{ tyre: { ...type({}).tyre, rolledMm: 1800 } }, 'care: Rolled out 1800 mm is outside what a 47-559 tyre rolls.'],
    [{ tyre: { ...type({}).tyre, marking: '10 x 2.5' } }, 'note: "10 x 2.5" is no marking such as 47-559'],
    [{ typeLimitA: 40, controllerLimitA: 60 }, 'care: 40 A at 36 V draws 1440 W for a motor rated 250 W.'],
    [{ typeLimitA: 18 }, 'care: The type cannot allow more current than its controller gives.'],
    [{ whPerKm: { least: 8, most: 12 } }, 'note: On four fifths of a charge it goes 31 to 46 km.'],
  ])('%# is said', (over, words) => {
    expect(says(over).some((row) => row.startsWith(words))).toBe(true);
  });

  it('puts what is odd first', () => {
    expect(whatFollows(type({ displayStandsV: { from: 20, to: 40 } }))[0]?.kind).toBe('care');
  });
});

describe('a class, line by line', () => {
  const rows = (over: Partial<VehicleClass>) => Object.fromEntries(classRows({ ...NEW_CLASS, ...over }));

  it("says what it limits in the statute's unit, and leaves out what it does not say", () => {
    const class3 = rows({
      limit: { value: 28, unit: 'mph' },
      throttle: 'toSpeed',
      throttleTo: { value: 20, unit: 'mph' },
      power: [{ watts: 750, basis: 'rated', is: 'atMost' }],
      fittings: ['speedometer'],
      tolerance: 0.1,
    });
    expect(class3).toMatchObject({
      'Assist ends': '28 mph (45.062 km/h)',
      Throttle: 'to 20 mph (32.187 km/h)',
      Power: "750 W, counted as the motor's rated label",
      'On the vehicle': 'speedometer',
      Also: 'end speed is measured; tolerance 10 %',
    });
    expect(class3).not.toHaveProperty('Slow mode');
    expect(class3).not.toHaveProperty('Label');
  });

  it('says nothing of a start without a throttle, and of a class for private land that it names no limit', () => {
    expect(rows({ throttle: 'none', startAid: { value: 6, unit: 'km/h' } })).toMatchObject({
      Throttle: 'none; start-up aid to 6 km/h',
    });
    expect(rows({ throttle: 'none' })).not.toHaveProperty('Throttle drives');
    expect(rows({ regime: 'privateLand' })['Assist ends']).toBe("the type's or the site's limit");
  });
});
