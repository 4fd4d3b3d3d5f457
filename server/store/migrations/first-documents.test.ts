import { describe, expect, it } from 'vitest';
import { documentSchemas, inTodaysForm } from '@decurio/contract';
import { upgradeHouseRules, upgradeRulePack, upgradeType } from './first-documents.js';

const type = {
  format: 'decurio-vehicle-type/1',
  id: 'samphire-26',
  name: 'Samphire 26',
  title: 'Samphire 26 step-through',
  kind: 'bike',
  motor: 'geared hub, rear',
  ratedPowerW: 250,
  controllerLimitA: 15,
  typeLimitA: 12,
  attainableKmh: 31,
  pack: { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 },
  tyre: { marking: '47-559', wheelInch: 26 },
  wheelPulses: 6,
  pedalMagnets: 12,
  throttleFitted: false,
  maps: ['tallow-four-key'],
  cautions: [],
  cutPower: 'Pack key to OFF.',
};
const pack = {
  format: 'decurio-rule-pack/1',
  id: 'eu',
  name: 'EU',
  place: 'Port Isel',
  classes: [
    {
      id: 'pedelec-25',
      title: 'pedal assist',
      kind: 'bike',
      capKmh: 25,
      ratedPowerW: 250,
      powerBasis: 'rated',
      throttle: 'none',
      throttleToKmh: 6,
      source: 'general knowledge',
      note: '',
    },
  ],
  checked: { by: 'Ines M.', authority: 'harbour office', on: '2026-10-01', expiresOn: '2027-10-01' },
};
const rules = {
  format: 'decurio-house-rules/1',
  id: 'hire',
  name: 'Hire',
  choices: {
    standstillStart: 'live',
    walk: 'off',
    cruise: 'off',
    assistStart: 'gentle',
    assistLevels: 3,
    autoOffMin: 10,
    brightness: 3,
    cutoffMarginVPerCell: 0.2,
    units: 'mph',
  },
};

describe('documents of the first release', () => {
  it.each([
    ['vehicleType', upgradeType(type)],
    ['rulePack', upgradeRulePack(pack)],
    ['houseRules', upgradeHouseRules(rules)],
  ] as const)('come to a sound %s', (kind, upgraded) => {
    const today = inTodaysForm(upgraded);
    expect(documentSchemas[kind].validateSync(today, { strict: true })).toEqual(today);
  });

  it('keep what they said, and claim nothing they did not', () => {
    expect(upgradeType(type)).toMatchObject({
      motors: [{ place: 'rear', drive: 'gearedHub', freewheels: true }],
      displayStandsV: null,
      tyre: { rolledMm: null },
    });
    expect(upgradeType({ ...type, motor: 'direct hub, front' })?.motors).toEqual([
      { place: 'front', drive: 'directHub', freewheels: false },
    ]);
    expect(upgradeRulePack(pack)?.classes[0]).toMatchObject({
      limit: { value: 25, unit: 'km/h' },
      startAid: { value: 6, unit: 'km/h' },
      checked: { by: 'Ines M.', source: 'harbour office' },
    });
    expect(upgradeHouseRules(rules)?.choices).toMatchObject({
      standstillStart: 'live',
      assistLevels: 3,
      brightness: 'middle',
      pin: 'asFound',
      units: 'mph',
      cutoffMarginVPerCell: 0.2,
    });
  });

  it("are left alone where they are in today's form", () => {
    expect(upgradeType({ ...type, format: 'decurio-vehicle-type/2' })).toBeNull();
    expect(upgradeRulePack({ ...pack, format: 'decurio-rule-pack/2' })).toBeNull();
    expect(upgradeHouseRules({ ...rules, format: 'decurio-house-rules/2' })).toBeNull();
  });
});
