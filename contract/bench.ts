import type { CheckStanding, DisplayMap, Evidence, EvidenceData, EvidenceKind, HoldReason, LabelledPack } from '@decurio/core';
import { HOLD_REASONS } from '@decurio/core';
import { array, boolean, number, object, string, type InferType, type ObjectSchema } from 'yup';
import type { LineUnit } from './orders.js';

const label = () => string().strict().min(1).max(12).required();
const raw = () => number().strict().min(-99999, 'is not a value a display shows').max(99999, 'is not a value a display shows').required();
const words = (most: number) => string().strict().max(most).defined();
const nothing = object({}).noUnknown();

/** What a client may write; the others carry a setup or end a visit, and the server writes them. */
export type WrittenKind = Exclude<EvidenceKind, 'opened' | 'displayFound' | 'setupRevised' | 'withdrawn'>;

/** Data of each kind of entry, as a person at a bench can write it. */
export const evidenceSchemas = {
  checkedIn: object({
    revisionConfirmed: boolean().strict().oneOf([true] as const, 'Confirm the display revision first.').required(),
    odometerKm: number().strict().min(0, 'An odometer does not read below zero.').max(999999).nullable().defined(),
    packV: number().strict().min(0, 'Volts by meter, not below zero.').max(120, 'Above 120 V no pack of this trade reads.').required('Measure the pack and type its volts.'),
    packCondition: string().oneOf(['sound', 'unsafe'] as const).required(),
    tyreBar: number().strict().min(0, 'Not below zero.').max(10, 'Above 10 bar no such tyre is pumped.').nullable().defined(),
    cablesFree: boolean().strict().required(),
    clampSound: boolean().strict().required(),
    accessories: words(200),
    damage: words(1000),
  }).noUnknown(),
  codeSeen: object({ label: label(), raw: raw() }).noUnknown(),
  codeKeyed: object({ label: label(), fromRaw: raw(), raw: raw(), presses: number().strict().integer().min(0).max(999).required() }).noUnknown(),
  codeStuck: object({ label: label(), raw: raw() }).noUnknown(),
  keyInClosed: nothing,
  restarted: object({ acts: array(string().strict().max(160).required()).min(1).max(20).required() }).noUnknown(),
  codeRead: object({ label: label(), raw: raw().nullable().defined() }).noUnknown(),
  readBackClosed: nothing,
  held: object({
    reason: string().oneOf(Object.keys(HOLD_REASONS) as HoldReason[]).required(),
    words: string().strict().trim().min(3, 'Say in a few words why.').max(500).required('Say in a few words why.'),
  }).noUnknown(),
  released: object({ words: string().strict().trim().min(3, 'Say in writing why it may go on.').max(500).required() }).noUnknown(),
  undone: object({ voids: string().strict().uuid().required() }).noUnknown(),
  signedOff: object({ words: words(500), classChecked: string().strict().max(200).required('Say which check of the class it is signed under.') }).noUnknown(),
} satisfies { [K in WrittenKind]: ObjectSchema<object> };

/** An entry as a client sends it; who wrote it comes from the session. */
export const newEvidenceRequest = object({
  id: string().strict().uuid().required(),
  /** The seq this entry is to have: one more than the newest the client saw. */
  seq: number().strict().integer().min(2).required(),
  kind: string().oneOf(Object.keys(evidenceSchemas) as WrittenKind[]).required(),
  at: string().strict().matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/, 'must be a time in UTC, ISO 8601').required(),
  data: object().required(),
}).noUnknown();

export type NewEvidence = { [K in WrittenKind]: { id: string; seq: number; kind: K; at: string; data: EvidenceData[K] } }[WrittenKind];

export const openVisitRequest = object({
  visitId: string().strict().uuid().required(),
  entryId: string().strict().uuid().required(),
  at: string().strict().matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/, 'must be a time in UTC, ISO 8601').required(),
}).noUnknown();
export type OpenVisitRequest = InferType<typeof openVisitRequest>;

/** Everything the bench needs for one unit. */
export interface BenchView {
  readonly unit: LineUnit;
  readonly orderId: string;
  readonly orderNumber: string;
  readonly customer: string;
  readonly className: string;
  readonly classChecked: string;
  /** Whether the class may be signed off under today. */
  readonly classStanding: CheckStanding;
  readonly privateLand: { readonly label: string; readonly endsOn: string } | null;
  readonly notes: string;
  readonly type: { readonly id: string; readonly title: string; readonly pack: LabelledPack; readonly cautions: readonly string[]; readonly cutPower: string };
  readonly map: DisplayMap;
  /** Maps of displays that may be fitted instead and look alike, the present one included; one alone where nothing is to be asked. */
  readonly lookAlikes: readonly DisplayMap[];
  /** What the unit of this batch before it turned out to carry. */
  readonly batch: { readonly mapId: string; readonly serial: string } | null;
  /** The unit's newest visit, oldest entry first; empty where none was opened. */
  readonly evidence: readonly Evidence[];
}

export interface UnitFound {
  readonly id: string;
  readonly serial: string;
  readonly orderId: string;
  readonly orderNumber: string;
  readonly status: LineUnit['status'];
  readonly visitId: string | null;
}
