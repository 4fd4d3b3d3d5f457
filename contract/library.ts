import {
  fullMap,
  parseDisplayMap,
  type CheckList,
  type Crew,
  type Shop,
  type FleetNotice,
  type DisplayMap,
  type HouseRules,
  type RulePack,
  type VehicleType,
} from '@decurio/core';
import { mixed, object, string, type InferType, type Schema } from 'yup';
import { checkListSchema } from './documents/check-list.js';
import { crewSchema, shopSchema } from './documents/crew.js';
import { houseRulesSchema } from './documents/house-rules.js';
import { noticeSchema } from './documents/notice.js';
import { rulePackSchema } from './documents/rule-pack.js';
import { vehicleTypeSchema } from './documents/vehicle-type.js';

/** What the library keeps, each under an id, in numbered versions that never change. */
export interface LibraryDocuments {
  readonly displayMap: DisplayMap;
  readonly vehicleType: VehicleType;
  readonly rulePack: RulePack;
  readonly houseRules: HouseRules;
  readonly checkList: CheckList;
  readonly notice: FleetNotice;
  readonly crew: Crew;
  readonly shop: Shop;
}
export type LibraryKind = keyof LibraryDocuments;
export const LIBRARY_KINDS: readonly LibraryKind[] = [
  'displayMap',
  'vehicleType',
  'rulePack',
  'houseRules',
  'checkList',
  'notice',
  'crew',
  'shop',
];

const displayMapSchema = mixed<DisplayMap>()
  .required()
  .test('displayMap', (value, context) => {
    const parsed = parseDisplayMap(value);
    if (parsed.ok) return true;
    const first = parsed.problems[0];
    return context.createError({
      message: parsed.problems.map((p) => `${p.path ?? ''}: ${p.message}`).join(' '),
      ...(first?.path ? { path: first.path } : {}),
    });
  });

export const documentSchemas = {
  displayMap: displayMapSchema,
  vehicleType: vehicleTypeSchema,
  rulePack: rulePackSchema,
  houseRules: houseRulesSchema,
  checkList: checkListSchema,
  notice: noticeSchema,
  crew: crewSchema,
  shop: shopSchema,
} as const satisfies { [K in LibraryKind]: Schema<LibraryDocuments[K]> };

/** A sound document as the library keeps it: whole, whatever its writer left out. */
export const asKept = <K extends LibraryKind>(kind: K, document: LibraryDocuments[K]): LibraryDocuments[K] =>
  kind === 'displayMap' ? (fullMap(document) as LibraryDocuments[K]) : document;

export const newDocumentRequest = object({
  kind: string()
    .oneOf(LIBRARY_KINDS as LibraryKind[])
    .required(),
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
