import type { OrderTerms, UnitFacts, UnitOverride } from '@decurio/core';
import { array, boolean, number, object, string, type InferType, type Schema } from 'yup';
import { id as docId, orNull, strictly, text, words } from './documents/shapes.js';
import { askedTermsSchema, overrideSchema, type AskedTerms } from './documents/order-terms.js';
import { INTAKE_LIMITS } from './intakes.js';
import type { OrderView } from './orders.js';

const uuid = () => string().strict().uuid().required();
export const SERIAL_SHAPE = /^[A-Za-z0-9][A-Za-z0-9._/-]*$/;
const serial = () =>
  string()
    .strict()
    .trim()
    .max(INTAKE_LIMITS.serialLength, `A serial has at most ${INTAKE_LIMITS.serialLength} characters.`)
    .matches(SERIAL_SHAPE, 'Letters, digits, hyphen, point, slash and underscore; as on the frame.')
    .required('Scan or type the serial.');
const dueAt = () =>
  string()
    .strict()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/, 'A day and a time, as 2026-11-26T08:00.')
    .required('When must it be ready?');
const reason = () => text(500).min(3, 'Say in a few words why.');

/** Units of a type that are known to come and have not been scanned yet. */
export interface ExpectedUnits {
  readonly typeId: string;
  readonly typeName: string;
  /** Which display they carry; the type's first where check in tells it. */
  readonly mapId: string;
  readonly count: number;
}

export const newUnitSchema = strictly({
  serial: serial(),
  typeId: docId(),
  mapId: orNull(docId()),
  isSpare: boolean().strict().oneOf([true]).optional(),
}) as unknown as Schema<NewUnit>;
export interface NewUnit {
  readonly serial: string;
  readonly typeId: string;
  /** Null: the one the type carries, or the one check in tells. */
  readonly mapId: string | null;
  /** A display on no vehicle, to be keyed and kept ready; its serial is the number on it. */
  readonly isSpare?: true;
}

/** What is promised of an order, by hand or by amendment. */
const promised = () => ({
  customer: text(120),
  rulePackId: docId(),
  classId: docId(),
  houseRulesId: docId(),
  dueAt: dueAt(),
  notes: words(1000),
  terms: askedTermsSchema,
});

/** An order taken in by hand. */
export const newOrderRequest = object({
  id: uuid(),
  number: text(40),
  ...promised(),
  units: array(newUnitSchema).max(1000, 'More than a thousand at once come by file.').required(),
  expected: array(
    strictly({
      typeId: docId(),
      mapId: orNull(docId()),
      count: number().strict().integer('A whole number.').min(1, 'At least one.').max(INTAKE_LIMITS.rows).required(),
    }),
  )
    .max(50)
    .required(),
}).noUnknown();
export interface NewOrderRequest {
  readonly id: string;
  readonly number: string;
  readonly customer: string;
  readonly rulePackId: string;
  readonly classId: string;
  readonly houseRulesId: string;
  readonly dueAt: string;
  readonly notes: string;
  readonly terms: AskedTerms;
  readonly units: readonly NewUnit[];
  readonly expected: readonly { readonly typeId: string; readonly mapId: string | null; readonly count: number }[];
}

/** What may be amended; all of it as it is to be from now on. */
export const amendRequest = object({ id: uuid(), reason: reason(), ...promised() }).noUnknown();
export interface AmendRequest extends Pick<
  NewOrderRequest,
  'id' | 'customer' | 'rulePackId' | 'classId' | 'houseRulesId' | 'dueAt' | 'notes' | 'terms'
> {
  readonly reason: string;
}

export const decideRequest = object({ id: uuid(), finding: text(60), typeId: docId(), words: reason() }).noUnknown();
export type DecideRequest = InferType<typeof decideRequest>;

export const addUnitsRequest = object({
  id: uuid(),
  units: array(newUnitSchema).min(1).max(500).required(),
}).noUnknown();
export interface AddUnitsRequest {
  readonly id: string;
  readonly units: readonly NewUnit[];
}

export const withdrawRequest = object({
  id: uuid(),
  reason: reason(),
  unitIds: array(uuid()).min(1, 'Choose the units first.').max(500).required(),
}).noUnknown();
export type WithdrawRequest = InferType<typeof withdrawRequest>;

export const recompileRequest = object({ id: uuid(), reason: reason() }).noUnknown();
export type RecompileRequest = InferType<typeof recompileRequest>;

export const wishesRequest = object({ id: uuid(), wishes: orNull(overrideSchema) }).noUnknown();
export interface WishesRequest {
  readonly id: string;
  readonly wishes: Omit<UnitOverride, 'by'> | null;
}

export type OrderChangeKind =
  'taken' | 'amended' | 'decided' | 'unitsAdded' | 'withdrawn' | 'recompiled' | 'wishes' | 'followed';

export interface OrderChangeView {
  readonly kind: OrderChangeKind;
  readonly at: string;
  readonly by: string;
  readonly reason: string;
  /** Sentences on what it was and what it is. */
  readonly says: readonly string[];
}

/** What an act on an order did to its units. */
export interface OrderActed {
  /** Open visits whose setup was worked out anew. */
  readonly revised: number;
  /** Units that were done and came back to the line, with what differs. */
  readonly returned: readonly { readonly serial: string; readonly says: string }[];
  /** Units that stayed as they were although the act meant them, with what kept them. */
  readonly stayed?: readonly { readonly serial: string; readonly says: string }[];
}

/** One order as its page shows it. */
export interface OrderPageView {
  readonly order: OrderView;
  readonly terms: OrderTerms;
  readonly notes: string;
  readonly rulePackId: string;
  readonly classId: string;
  readonly houseRulesId: string;
  /** Units by type and display as they stand. */
  readonly groups: readonly {
    readonly typeId: string;
    readonly typeName: string;
    readonly mapId: string;
    readonly units: number;
    readonly sealed: number;
  }[];
  readonly expected: readonly ExpectedUnits[];
  /** What others of each type and display taught: with it a setup is worked out before any unit of the order is touched. */
  readonly learnt: readonly {
    readonly typeId: string;
    readonly mapId: string;
    readonly facts: Pick<UnitFacts, 'ratio' | 'familyOvershootKmh'>;
  }[];
  readonly changes: readonly OrderChangeView[];
}
