import {
  STANDARD_CHOICES,
  type Brake,
  type Choices,
  type HouseRules,
  type PackedClass,
  type RulePack,
  type VehicleClass,
  type VehicleType,
} from '@decurio/core';

/** A type as the second form had it. */
export interface SecondType extends Omit<
  VehicleType,
  'format' | 'brakes' | 'fittings' | 'massKg' | 'certificates' | 'numbers' | 'checkList'
> {
  readonly format: 'decurio-vehicle-type/2';
  readonly brakeCutoffs: 'both' | 'front' | 'rear' | 'none';
  readonly lights: boolean;
  readonly signals: boolean;
}

/** A class as the second form had it. */
export interface SecondClass extends Pick<
  VehicleClass,
  | 'id'
  | 'title'
  | 'kind'
  | 'regime'
  | 'limit'
  | 'throttle'
  | 'throttleTo'
  | 'startAid'
  | 'walkTo'
  | 'walkingMode'
  | 'settingsOutOfReach'
  | 'labelFields'
  | 'endSpeedMeasured'
  | 'tolerance'
  | 'source'
  | 'note'
  | 'checked'
> {
  readonly ratedPowerW: number | null;
  readonly powerBasis: 'rated' | 'nominal' | 'full';
  readonly walk: 'allowed' | 'forbidden';
  readonly liveStart: 'allowed' | 'decide' | 'forbidden';
  readonly needsSpeedometer: boolean;
  readonly ageNote: string;
}

export interface SecondPack extends Omit<RulePack, 'format' | 'classes' | 'parent'> {
  readonly format: 'decurio-rule-pack/2';
  readonly classes: readonly SecondClass[];
}

/** House rules as the second form had them: one PIN for menu and start. */
export interface SecondRules extends Omit<HouseRules, 'format' | 'choices'> {
  readonly format: 'decurio-house-rules/2';
  readonly choices: Omit<ThirdRules['choices'], 'startPin'>;
}

/** House rules as the third form had them: nothing was asked of proving and of a second signature. */
export interface ThirdRules extends Omit<HouseRules, 'format' | 'choices'> {
  readonly format: 'decurio-house-rules/3';
  readonly choices: Omit<Choices, 'proofs' | 'prover' | 'unproved' | 'signers'>;
}

/** House rules of the second form: a start PIN is set as the menu's was, with digits of its own. */
function rulesOfThirdForm(document: unknown): ThirdRules | null {
  const second = document as SecondRules;
  if (second.format !== 'decurio-house-rules/2') return null;
  return { ...second, format: 'decurio-house-rules/3', choices: { ...second.choices, startPin: second.choices.pin } };
}

/** House rules of the third form: what was not asked is answered as for a house that has not chosen yet. */
function rulesOfFourthForm(document: unknown): HouseRules | null {
  const third = document as ThirdRules;
  if (third.format !== 'decurio-house-rules/3') return null;
  const { proofs, prover, unproved, signers } = STANDARD_CHOICES;
  return {
    ...third,
    format: 'decurio-house-rules/4',
    choices: { ...third.choices, proofs, prover, unproved, signers },
  };
}

/** A type of the second form; what that did not ask is not known. Null where it is in a later form already. */
function typeOfThirdForm(document: unknown): VehicleType | null {
  const second = document as SecondType;
  if (second.format !== 'decurio-vehicle-type/2') return null;
  const { brakeCutoffs, lights, signals, ...rest } = second;
  const brake = (wheel: Brake['wheel']): Brake => ({
    wheel,
    how: 'unknown',
    cutsMotor: brakeCutoffs === 'both' || brakeCutoffs === wheel,
  });
  return {
    ...rest,
    format: 'decurio-vehicle-type/3',
    brakes: [brake('front'), brake('rear')],
    fittings: [
      ...(lights ? (['frontLight', 'rearLight'] as const) : []),
      ...(signals ? (['indicators'] as const) : []),
      'speedometer',
    ],
    massKg: null,
    certificates: [],
    numbers: [],
    checkList: null,
  };
}

/** A rule pack of the second form. What it did not ask stays unasked, so that who checked a class has checked all that it says. */
function packOfThirdForm(document: unknown): RulePack | null {
  const second = document as SecondPack;
  if (second.format !== 'decurio-rule-pack/2' || !Array.isArray(second.classes) || !second.classes.every(isObject))
    return null;
  return { ...second, format: 'decurio-rule-pack/3', parent: null, classes: second.classes.map(classOfThirdForm) };
}

const isObject = (value: unknown): boolean => typeof value === 'object' && value !== null;

const FROM = { allowed: 'standstill', decide: 'decide', forbidden: 'rolling' } as const;

function classOfThirdForm({
  ratedPowerW,
  powerBasis,
  liveStart,
  needsSpeedometer,
  ageNote,
  ...rest
}: SecondClass): PackedClass {
  return {
    ...rest,
    limitIs: 'atMost',
    power: ratedPowerW === null ? [] : [{ watts: ratedPowerW, basis: powerBasis, is: 'atMost' }],
    throttleFrom: FROM[liveStart],
    cruise: rest.throttle === 'none' ? 'forbidden' : 'allowed',
    assistFactor: null,
    taper: false,
    cutOnBrake: false,
    cutOnPedalStop: null,
    mayChange: '',
    changeMakesMaker: false,
    brakes: 0,
    fittings: needsSpeedometer ? ['speedometer'] : [],
    greatestMassKg: null,
    leastAge: null,
    helmet: 'no',
    licence: 'no',
    plate: 'no',
    insurance: 'no',
    riderNote: ageNote,
    certificates: [],
    places: [],
    labelLetterMm: null,
    doubts: [],
    ask: '',
    follows: null,
  };
}

const UPGRADES: Readonly<Record<string, (document: unknown) => object | null>> = {
  'decurio-vehicle-type/2': typeOfThirdForm,
  'decurio-rule-pack/2': packOfThirdForm,
  'decurio-house-rules/2': rulesOfThirdForm,
  'decurio-house-rules/3': rulesOfFourthForm,
};

/** A document of an earlier form in today's; the same one where it is in that form, or in none that is known. Whether it is sound is not looked at. */
export function inTodaysForm(document: unknown): unknown {
  const { format } = (isObject(document) ? document : {}) as { readonly format?: unknown };
  if (typeof format !== 'string' || !Object.hasOwn(UPGRADES, format)) return document;
  const upgraded = UPGRADES[format]?.(document) ?? document;
  return upgraded === document ? document : inTodaysForm(upgraded);
}
