import { describe, expect, it } from 'vitest';
import { PLAIN_TERMS, type VehicleClass } from '@decurio/core';
import type { OrderPageView } from '@decurio/contract';
import { doubtsAbout, nothingPromised, promisedOf, type Promised } from './promise.js';

const now = '2026-11-25T08:00';
const checked = { by: 'Ines M.', authority: 'office', source: 'letter', on: '2026-10-01', expiresOn: '2027-10-01' };
const miles = { limit: { value: 20, unit: 'mph' }, checked } as VehicleClass;
const promised = (over: Partial<Promised['terms']> = {}, dueAt = '2026-12-01T08:00'): Promised => ({
  ...nothingPromised(),
  dueAt,
  terms: { ...nothingPromised().terms, ...over },
});
const ids = (one: Promised, vehicleClass: VehicleClass | undefined = miles) =>
  doubtsAbout(one, vehicleClass, now).map(({ id }) => id);

describe('what is asked once', () => {
  it('is nothing where nothing is odd', () => {
    expect(ids(promised())).toEqual([]);
    expect(ids(promised({ orderLimit: { value: 15, unit: 'mph' } }))).toEqual([]);
  });

  it('is a due time that is past, even before a class is chosen', () => {
    expect(doubtsAbout(promised({}, '2026-11-24T08:00'), undefined, now).map(({ id }) => id)).toEqual(['due']);
  });

  it('is a class nobody checked, or whose check ran out', () => {
    expect(ids(promised(), { ...miles, checked: null })).toEqual(['check']);
    expect(
      doubtsAbout(promised(), { ...miles, checked: { ...checked, expiresOn: '2026-11-24' } }, now)[0]?.says,
    ).toContain('ran out on 2026-11-24');
  });

  it('is a figure that makes sense in both units, with the mend', () => {
    const asked = promised({ siteLimit: { value: 25, unit: 'km/h' } });
    const [doubt] = doubtsAbout(asked, miles, now);
    expect(doubt?.mends?.words).toBe('It is 25 mph (40.234 km/h)');
    expect(doubt?.mends?.as(asked).terms.siteLimit).toEqual({ value: 25, unit: 'mph' });
  });

  it('is a limit above the class, which goes first', () => {
    expect(ids(promised({ orderLimit: { value: 40, unit: 'mph' } }))).toEqual(['orderLimit above']);
  });
});

describe('an order to be amended', () => {
  it('leaves out who gave the authority: whoever amends answers for it', () => {
    const land = {
      authorityBy: 'Ines M.',
      acknowledgement: 'letter 7',
      endsOn: '2027-01-01',
      label: 'Yard only',
      isUncapped: true,
    };
    const view = {
      order: { customer: 'Harbour Works', dueAt: '2026-12-01T08:00' },
      terms: { ...PLAIN_TERMS, privateLand: land },
      notes: 'n',
      rulePackId: 'p',
      classId: 'c',
      houseRulesId: 'h',
    } as unknown as OrderPageView;
    expect(promisedOf(view)).toEqual({
      customer: 'Harbour Works',
      dueAt: '2026-12-01T08:00',
      notes: 'n',
      rulePackId: 'p',
      classId: 'c',
      houseRulesId: 'h',
      terms: {
        siteLimit: null,
        orderLimit: null,
        throttle: 'asClass',
        privateLand: { acknowledgement: 'letter 7', endsOn: '2027-01-01', label: 'Yard only', isUncapped: true },
      },
    });
  });
});
