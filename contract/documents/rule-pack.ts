import { inKmh, type RulePack, type Speed, type VehicleClass } from '@decurio/core';
import { array, type MixedSchema, type Schema } from 'yup';
import { amount, day, id, oneOf, orNull, positive, speed, strictly, text, words, yesNo } from './shapes.js';

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

/** A class alone, as its form edits it. */
export const vehicleClassSchema = strictly({
  id: id(),
  title: text(80),
  kind: oneOf('bike', 'scooter', 'any'),
  regime: oneOf('set', 'lowerOnly', 'checkOnly', 'privateLand'),
  limit: speedOrNull().test('named', 'A class for public roads names its limit.', function named(limit) {
    return limit !== null || (this.parent as VehicleClass).regime === 'privateLand';
  }),
  ratedPowerW: orNull(positive(20_000)),
  powerBasis: oneOf('rated', 'nominal', 'full'),
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
  startAid: orNull(speed()),
  walk: oneOf('allowed', 'forbidden'),
  walkTo: orNull(speed()),
  liveStart: oneOf('allowed', 'decide', 'forbidden'),
  walkingMode: orNull(speed()),
  settingsOutOfReach: yesNo(),
  needsSpeedometer: yesNo(),
  endSpeedMeasured: yesNo(),
  tolerance: amount().min(0, 'Not below zero.').max(0.2, 'As a share: 0.1 for ten per cent, at most 0.2.'),
  labelFields: array(text(60)).required(),
  ageNote: words(120),
  source: text(400),
  note: words(800),
  checked: orNull(classCheckSchema),
}) as unknown as Schema<VehicleClass>;

const within = (to: Speed, limit: Speed | null): boolean => limit === null || inKmh(to) <= inKmh(limit) * (1 + 1e-9);

/** `decurio-rule-pack/2`. */
export const rulePackSchema = strictly({
  format: oneOf('decurio-rule-pack/2'),
  id: id(),
  name: text(60),
  place: text(60),
  classes: array(vehicleClassSchema)
    .min(1, 'A rule pack holds at least one class.')
    .required()
    .test(
      'unique',
      'Two classes have the same id.',
      (classes) => new Set(classes.map((each) => each?.id)).size === classes.length,
    ),
}) as unknown as Schema<RulePack>;
