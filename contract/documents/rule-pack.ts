import {
  FITTINGS,
  inKmh,
  type Fitting,
  type PackedClass,
  type RulePack,
  type Speed,
  type VehicleClass,
} from '@decurio/core';
import { array, type MixedSchema, type Schema } from 'yup';
import { amount, day, id, oneOf, orNull, positive, speed, strictly, text, whole, words, yesNo } from './shapes.js';

const speedOrNull = () => orNull(speed()) as unknown as MixedSchema<Speed | null>;

export const classCheckSchema = strictly({
  by: text(80),
  authority: text(120),
  source: text(400),
  on: day(),
  expiresOn: day(),
}).test(
  'order',
  'It ends before it was checked.',
  (check: { on?: unknown; expiresOn?: unknown } | null) =>
    check === null || !((check.expiresOn as string) < (check.on as string)),
);

const bound = () => oneOf('atMost', 'under');
const leave = () => oneOf('allowed', 'decide', 'forbidden');
const asked = () => oneOf('no', 'yes', 'decide');

/** What a vehicle carries, each once. */
export const fittings = () =>
  array(oneOf(...(Object.keys(FITTINGS) as Fitting[])))
    .required()
    .test('once', 'Each once.', (list) => new Set(list).size === list.length);

/** A paper that a class asks for. */
export const certificateFields = {
  of: oneOf('battery', 'electrical', 'vehicle'),
  standard: text(80),
} as const;
const certificateAsked = () => strictly(certificateFields);

/** A class alone, as its form edits it. */
export const vehicleClassSchema = strictly({
  id: id(),
  title: text(80),
  kind: oneOf('bike', 'scooter', 'any'),
  regime: oneOf('set', 'lowerOnly', 'checkOnly', 'privateLand'),
  limit: speedOrNull().test('named', 'A class for public roads names its limit.', function named(limit) {
    return limit !== null || (this.parent as VehicleClass).regime === 'privateLand';
  }),
  limitIs: bound(),
  power: array(strictly({ watts: positive(20_000), basis: oneOf('rated', 'nominal', 'full', 'peak'), is: bound() }))
    .max(4, 'At most four limits of power.')
    .required(),
  throttle: oneOf('none', 'toCap', 'toSpeed', 'asOrdered', 'asApproved'),
  throttleTo: speedOrNull().test(
    'fits',
    'Name the speed at which the throttle ends, not above the limit.',
    function fits(to) {
      const { throttle, limit } = this.parent as VehicleClass;
      return throttle === 'toSpeed'
        ? to !== null && within(to, limit ?? null)
        : to === null || to === undefined || within(to, limit ?? null);
    },
  ),
  throttleFrom: oneOf('standstill', 'decide', 'rolling', 'pedalling'),
  startAid: orNull(speed()),
  walk: leave(),
  walkTo: orNull(speed()),
  cruise: leave(),
  walkingMode: orNull(speed()),
  assistFactor: orNull(positive(20)),
  taper: yesNo(),
  cutOnBrake: yesNo(),
  cutOnPedalStop: orNull(strictly({ withinS: orNull(positive(10)) })),
  settingsOutOfReach: yesNo(),
  mayChange: words(160),
  changeMakesMaker: yesNo(),
  brakes: amount().integer('A whole number.').min(0, 'Not below zero.').max(4, 'At most four.'),
  fittings: fittings(),
  greatestMassKg: orNull(positive(1000)),
  leastAge: orNull(whole(99)),
  helmet: asked(),
  licence: asked(),
  plate: asked(),
  insurance: asked(),
  riderNote: words(300),
  certificates: array(certificateAsked()).max(6, 'At most six papers.').required(),
  places: array(strictly({ where: text(120), limit: speed(), keptBy: oneOf('rider', 'code', 'module') }))
    .max(12, 'At most twelve places.')
    .required(),
  labelFields: array(text(60)).required(),
  labelLetterMm: orNull(positive(50)),
  endSpeedMeasured: yesNo(),
  tolerance: amount().min(0, 'Not below zero.').max(0.2, 'As a share: 0.1 for ten per cent, at most 0.2.'),
  doubts: array(strictly({ about: text(60), question: text(300) }))
    .max(20, 'At most twenty questions.')
    .required(),
  ask: words(160),
  source: text(400),
  note: words(800),
  checked: orNull(classCheckSchema),
  follows: orNull(id()),
}) as unknown as Schema<PackedClass>;

const within = (to: Speed, limit: Speed | null): boolean => limit === null || inKmh(to) <= inKmh(limit) * (1 + 1e-9);

/** `decurio-rule-pack/3`. */
export const rulePackSchema = strictly({
  format: oneOf('decurio-rule-pack/3'),
  id: id(),
  name: text(60),
  place: text(60),
  parent: orNull(strictly({ id: id(), version: whole(1_000_000) })),
  classes: array(vehicleClassSchema)
    .min(1, 'A rule pack holds at least one class.')
    .required()
    .test(
      'unique',
      'Two classes have the same id.',
      (classes) => new Set(classes.map((each) => each?.id)).size === classes.length,
    )
    .test('follows', 'A class follows one of a parent, and this pack names none.', function follows(classes) {
      const { parent } = this.parent as { readonly parent?: unknown };
      return parent !== null || !classes.some((each) => typeof each?.follows === 'string');
    }),
}) as unknown as Schema<RulePack>;
