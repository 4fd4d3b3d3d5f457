import { STANDARD_CHOICES, type Motor } from '@decurio/core';
import type { SecondClass, SecondPack, SecondRules, SecondType } from '@decurio/contract';

interface FirstType extends Omit<SecondType, 'format' | 'motors' | 'tyre' | 'pack'> {
  readonly format: string;
  readonly motor: string;
  readonly tyre: { readonly marking: string; readonly wheelInch: number };
  readonly pack: Pick<SecondType['pack'], 'chemistry' | 'cellsInSeries' | 'labelV' | 'capacityAh'>;
}

/** A type as the first release stored it, in today's form; what it did not say is not known. Null where it is in that form already. */
export function upgradeType(document: unknown): SecondType | null {
  const first = document as FirstType;
  if (first.format !== 'decurio-vehicle-type/1') return null;
  const { motor, ...rest } = first;
  return {
    ...rest,
    format: 'decurio-vehicle-type/2',
    motors: [motorOf(motor)],
    controllerCutoffV: null,
    speedLimit: null,
    pack: { ...first.pack, protectionTripsV: null, profile: null },
    displayStandsV: null,
    tyre: { ...first.tyre, rolledMm: null, barFrom: null, barTo: null },
    brakeCutoffs: 'both',
    lights: true,
    signals: false,
    keySwitch: false,
    heavyCargo: false,
    whPerKm: null,
    approved: [],
    needsSource: [],
  };
}

function motorOf(words: string): Motor {
  const place = /front/i.test(words) ? 'front' : /mid/i.test(words) ? 'mid' : 'rear';
  const drive = place === 'mid' ? 'mid' : /direct/i.test(words) ? 'directHub' : 'gearedHub';
  return { place, drive, freewheels: drive !== 'directHub' };
}

interface FirstClass {
  readonly id: string;
  readonly title: string;
  readonly kind: 'bike' | 'scooter';
  readonly capKmh: number;
  readonly ratedPowerW: number | null;
  readonly powerBasis: SecondClass['powerBasis'];
  readonly throttle: 'none' | 'asOrdered' | 'toCap';
  readonly throttleToKmh: number;
  readonly source: string;
  readonly note: string;
}
interface FirstPack extends Omit<SecondPack, 'format' | 'classes'> {
  readonly format: string;
  readonly classes: readonly FirstClass[];
  readonly checked: {
    readonly by: string;
    readonly authority: string;
    readonly on: string;
    readonly expiresOn: string;
  } | null;
}

/** A rule pack of the first release: who checked it stood for all of its classes. */
export function upgradeRulePack(document: unknown): SecondPack | null {
  const first = document as FirstPack;
  if (first.format !== 'decurio-rule-pack/1') return null;
  const { checked, classes, ...rest } = first;
  const check = checked && { ...checked, source: checked.authority };
  return { ...rest, format: 'decurio-rule-pack/2', classes: classes.map((each) => upgradeClass(each, check)) };
}

function upgradeClass({ capKmh, throttleToKmh, ...rest }: FirstClass, checked: SecondClass['checked']): SecondClass {
  return {
    ...rest,
    regime: 'set',
    limit: { value: capKmh, unit: 'km/h' },
    throttleTo: null,
    startAid: throttleToKmh > 0 ? { value: throttleToKmh, unit: 'km/h' } : null,
    walk: 'allowed',
    walkTo: null,
    liveStart: 'allowed',
    walkingMode: null,
    settingsOutOfReach: false,
    needsSpeedometer: false,
    endSpeedMeasured: false,
    tolerance: 0,
    labelFields: [],
    ageNote: '',
    checked,
  };
}

interface FirstRules extends Omit<SecondRules, 'format' | 'choices' | 'customer'> {
  readonly format: string;
  readonly choices: Pick<
    SecondRules['choices'],
    'standstillStart' | 'cruise' | 'assistStart' | 'assistLevels' | 'autoOffMin' | 'cutoffMarginVPerCell' | 'units'
  > & { readonly walk: 'on' | 'off'; readonly brightness: number };
}

/** House rules of the first release: its nine answers, and the defaults for the questions it did not ask. */
export function upgradeHouseRules(document: unknown): SecondRules | null {
  const first = document as FirstRules;
  if (first.format !== 'decurio-house-rules/1') return null;
  const { choices, ...rest } = first;
  return {
    ...rest,
    format: 'decurio-house-rules/2',
    customer: null,
    choices: {
      ...STANDARD_CHOICES,
      ...choices,
      pin: 'asFound',
      brightness: choices.brightness >= 4 ? 'full' : 'middle',
    },
  };
}
