import { NUMBERS, TYPE_FACTS, type NumberOf, type VehicleType } from '@decurio/core';
import { array, type Schema } from 'yup';
import { certificateFields, fittings } from './rule-pack.js';
import { amount, id, oneOf, orNull, positive, speed, strictly, text, whole, yesNo } from './shapes.js';

const volts = () => positive(150);

const pack = strictly({
  chemistry: oneOf('liIon', 'lfp', 'leadAcid'),
  cellsInSeries: whole(40),
  labelV: volts(),
  capacityAh: positive(200),
  protectionTripsV: orNull(volts()),
  profile: orNull(text(20)),
});

const span = (from: string, to: string, most: number) =>
  strictly({ [from]: positive(most), [to]: positive(most) }).test(
    'rising',
    `"${to}" lies below "${from}".`,
    (value: object | null) => value === null || isRising(value as Record<string, unknown>, from, to),
  );

const isRising = (value: Readonly<Record<string, unknown>>, from: string, to: string): boolean =>
  !(Number(value[to]) < Number(value[from]));

/** `decurio-vehicle-type/3`. */
export const vehicleTypeSchema = strictly({
  format: oneOf('decurio-vehicle-type/3'),
  id: id(),
  name: text(60),
  title: text(80),
  kind: oneOf('bike', 'scooter'),
  motors: array(
    strictly({
      place: oneOf('front', 'rear', 'mid'),
      drive: oneOf('mid', 'gearedHub', 'directHub'),
      freewheels: yesNo(),
    }),
  )
    .min(1, 'Name at least one motor.')
    .max(2, 'At most two motors.')
    .required(),
  ratedPowerW: positive(20_000),
  controllerLimitA: positive(300),
  typeLimitA: positive(300).test(
    'withinController',
    "Not above the controller's limit.",
    function withinController(value) {
      const { controllerLimitA } = this.parent as { controllerLimitA?: number };
      return controllerLimitA === undefined || value <= controllerLimitA;
    },
  ),
  controllerCutoffV: orNull(volts()),
  attainableKmh: positive(130),
  speedLimit: orNull(speed()),
  pack,
  displayStandsV: orNull(span('from', 'to', 150)),
  tyre: strictly({
    marking: text(20),
    wheelInch: positive(40),
    rolledMm: orNull(positive(4000)),
    barFrom: orNull(positive(12)),
    barTo: orNull(positive(12)),
  }),
  wheelPulses: whole(200),
  pedalMagnets: orNull(whole(64)),
  throttleFitted: yesNo(),
  brakes: array(
    strictly({
      wheel: oneOf('front', 'rear'),
      how: oneOf('disc', 'drum', 'rim', 'band', 'motor', 'unknown'),
      cutsMotor: yesNo(),
    }),
  )
    .max(4, 'At most four brakes.')
    .required(),
  fittings: fittings(),
  massKg: orNull(positive(1000)),
  certificates: array(strictly({ ...certificateFields, paper: text(80) }))
    .max(6, 'At most six papers.')
    .required(),
  numbers: array(oneOf(...(Object.keys(NUMBERS) as NumberOf[])))
    .required()
    .test('once', 'Each once.', (list) => new Set(list).size === list.length),
  checkList: orNull(id()),
  keySwitch: yesNo(),
  heavyCargo: yesNo(),
  whPerKm: orNull(span('least', 'most', 200)),
  maps: array(id()).min(1, 'Name at least one display.').required(),
  approved: array(strictly({ map: id(), label: text(12), raw: amount() })).required(),
  needsSource: array(oneOf(...TYPE_FACTS)).required(),
  cautions: array(text(200)).required(),
  cutPower: text(160),
}) as unknown as Schema<VehicleType>;
