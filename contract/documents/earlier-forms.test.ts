import { describe, expect, it } from 'vitest';
import { STANDARD_CHOICES, type HouseRules, type RulePack, type VehicleType } from '@decurio/core';
import { pedelec, stepThrough } from '../../core/testing/samples.js';
import { documentSchemas } from '../library.js';
import { inTodaysForm } from './earlier-forms.js';

const without = (document: object, ...fields: readonly string[]): object =>
  Object.fromEntries(Object.entries(document).filter(([field]) => !fields.includes(field)));

const type = {
  ...without(stepThrough, 'brakes', 'fittings', 'massKg', 'certificates', 'numbers', 'checkList'),
  format: 'decurio-vehicle-type/2',
  brakeCutoffs: 'rear',
  lights: true,
  signals: true,
};
const rules = {
  format: 'decurio-house-rules/2',
  id: 'hire',
  name: 'Hire',
  customer: null,
  choices: { ...without(STANDARD_CHOICES, 'startPin'), pin: 'perOrder' },
};
const pack = {
  format: 'decurio-rule-pack/2',
  id: 'isel',
  name: 'Isel',
  place: 'Isel',
  classes: [
    {
      id: 'throttle-20',
      title: 'throttle to 20 mph',
      kind: 'bike',
      regime: 'set',
      limit: { value: 20, unit: 'mph' },
      ratedPowerW: 750,
      powerBasis: 'nominal',
      throttle: 'toCap',
      throttleTo: null,
      startAid: null,
      walk: 'forbidden',
      walkTo: null,
      liveStart: 'forbidden',
      walkingMode: null,
      settingsOutOfReach: true,
      needsSpeedometer: true,
      endSpeedMeasured: true,
      tolerance: 0,
      labelFields: ['class'],
      ageNote: 'From 16 years.',
      source: 'letter 4',
      note: '',
      checked: pedelec.checked,
    },
  ],
};

describe('a document of the second form', () => {
  it.each([
    ['vehicleType', type],
    ['rulePack', pack],
    ['houseRules', rules],
  ] as const)('comes to a sound %s of today', (kind, document) => {
    const upgraded = inTodaysForm(document);
    expect(documentSchemas[kind].validateSync(upgraded, { strict: true })).toEqual(upgraded);
  });

  it('keeps what it said, and asks nothing that it did not ask', () => {
    expect((inTodaysForm(type) as VehicleType).brakes).toEqual([
      { wheel: 'front', how: 'unknown', cutsMotor: false },
      { wheel: 'rear', how: 'unknown', cutsMotor: true },
    ]);
    expect((inTodaysForm(type) as VehicleType).fittings).toEqual([
      'frontLight',
      'rearLight',
      'indicators',
      'speedometer',
    ]);
    expect((inTodaysForm(pack) as RulePack).classes[0]).toMatchObject({
      power: [{ watts: 750, basis: 'nominal', is: 'atMost' }],
      limitIs: 'atMost',
      throttleFrom: 'rolling',
      cruise: 'allowed',
      fittings: ['speedometer'],
      riderNote: 'From 16 years.',
      brakes: 0,
      checked: pedelec.checked,
    });
    expect((inTodaysForm(rules) as HouseRules).choices).toMatchObject({ pin: 'perOrder', startPin: 'perOrder' });
  });

  it.each([null, 4, 'text', {}, { format: 7 }, { format: 'decurio-rule-pack/2', classes: [null] }, stepThrough])(
    'that is none is handed back as it is (%#)',
    (document) => {
      expect(inTodaysForm(document)).toBe(document);
    },
  );
});
