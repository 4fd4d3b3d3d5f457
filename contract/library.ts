import { parseDisplayMap, type DisplayMap, type HouseRules, type RulePack, type VehicleType } from '@decurio/core';
import { array, boolean, mixed, number, object, string, type InferType } from 'yup';

/** What the library keeps, each under an id, in numbered versions that never change. */
export interface LibraryDocuments {
  readonly displayMap: DisplayMap;
  readonly vehicleType: VehicleType;
  readonly rulePack: RulePack;
  readonly houseRules: HouseRules;
}
export type LibraryKind = keyof LibraryDocuments;
export const LIBRARY_KINDS: readonly LibraryKind[] = ['displayMap', 'vehicleType', 'rulePack', 'houseRules'];

const id = () => string().strict().matches(/^[a-z0-9-]{1,60}$/, 'must be lower-case letters, digits and hyphens').required();
const text = (most: number) => string().strict().max(most).required();
const positive = () => number().strict().positive().required();

export const vehicleTypeSchema = object({
  format: string().oneOf(['decurio-vehicle-type/1'] as const).required(),
  id: id(),
  name: text(60),
  title: text(80),
  kind: string().oneOf(['bike', 'scooter'] as const).required(),
  motor: text(80),
  ratedPowerW: positive(),
  controllerLimitA: positive(),
  typeLimitA: positive(),
  attainableKmh: positive(),
  pack: object({
    chemistry: string().oneOf(['liIon', 'lfp', 'leadAcid'] as const).required(),
    cellsInSeries: positive().integer().max(40),
    labelV: positive(),
    capacityAh: positive(),
  }).noUnknown().required(),
  tyre: object({ marking: text(20), wheelInch: positive() }).noUnknown().required(),
  wheelPulses: positive().integer(),
  pedalMagnets: positive().integer(),
  throttleFitted: boolean().strict().required(),
  maps: array(id()).min(1).required(),
  cautions: array(text(200)).required(),
  cutPower: text(160),
}).noUnknown();

const vehicleClassSchema = object({
  id: id(),
  title: text(80),
  kind: string().oneOf(['bike', 'scooter'] as const).required(),
  capKmh: positive(),
  ratedPowerW: number().strict().positive().nullable().defined(),
  powerBasis: string().oneOf(['rated', 'nominal', 'full'] as const).required(),
  throttle: string().oneOf(['none', 'asOrdered', 'toCap'] as const).required(),
  throttleToKmh: number().strict().min(0).required(),
  source: text(400),
  note: text(800),
}).noUnknown();

export const rulePackSchema = object({
  format: string().oneOf(['decurio-rule-pack/1'] as const).required(),
  id: id(),
  name: text(60),
  place: text(60),
  classes: array(vehicleClassSchema.required()).min(1).required(),
  checked: object({ by: text(80), authority: text(200), on: text(10), expiresOn: text(10) }).noUnknown().nullable().defined(),
}).noUnknown();

export const houseRulesSchema = object({
  format: string().oneOf(['decurio-house-rules/1'] as const).required(),
  id: id(),
  name: text(60),
  choices: object({
    standstillStart: string().oneOf(['rolling', 'live', 'pedalFirst'] as const).required(),
    walk: string().oneOf(['on', 'off'] as const).required(),
    cruise: string().oneOf(['on', 'off'] as const).required(),
    assistStart: string().oneOf(['gentle', 'middle', 'strong'] as const).required(),
    assistLevels: positive().integer(),
    autoOffMin: number().strict().min(0).required(),
    brightness: positive(),
    cutoffMarginVPerCell: number().strict().min(0).max(1).required(),
    units: string().oneOf(['kmh', 'mph'] as const).required(),
  }).noUnknown().required(),
}).noUnknown();

const displayMapSchema = mixed<DisplayMap>().required().test('displayMap', (value, context) => {
  const parsed = parseDisplayMap(value);
  if (parsed.ok) return true;
  const first = parsed.problems[0];
  return context.createError({ message: parsed.problems.map((p) => `${p.path ?? ''}: ${p.message}`).join(' '), ...(first?.path ? { path: first.path } : {}) });
});

export const documentSchemas = {
  displayMap: displayMapSchema,
  vehicleType: vehicleTypeSchema,
  rulePack: rulePackSchema,
  houseRules: houseRulesSchema,
} as const;

export const newDocumentRequest = object({
  kind: string().oneOf(LIBRARY_KINDS as LibraryKind[]).required(),
  document: mixed<object>().required(),
}).noUnknown();
export type NewDocumentRequest = InferType<typeof newDocumentRequest>;

/** One document of the library at one version, as lists show it. */
export interface LibraryEntry<K extends LibraryKind = LibraryKind> {
  readonly kind: K;
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly addedAt: string;
  readonly document: LibraryDocuments[K];
}
