import type { DisplayMap, Pace } from '@decurio/core';
import { array, number, object, string, type InferType } from 'yup';
import { id as docId } from './documents/shapes.js';
import { instant } from './instant.js';

const words = (least: number, most: number, ask: string) =>
  string().strict().trim().min(least, ask).max(most).required(ask);

/** One version of a document, as its history shows it. */
export interface VersionView {
  readonly version: number;
  readonly addedAt: string;
  readonly addedBy: string;
  /** Of a display map: against which unit it was confirmed, or null for a draft. */
  readonly confirmed: DisplayMap['confirmed'];
}

export const confirmMapRequest = object({
  version: number().strict().integer().min(1).required(),
  unit: words(1, 40, 'Say on which unit it was checked, by its serial.'),
  firmware: words(1, 40, 'Say which firmware that unit shows, or "not shown".'),
}).noUnknown();
export type ConfirmMapRequest = InferType<typeof confirmMapRequest>;

export const DISPUTE_KINDS = {
  doesNotChange: 'A code will not change',
  otherRange: 'A code has another range',
  notShown: 'A code is not there',
  overshoot: 'Drive acts otherwise beyond the cap',
  other: 'Something else',
} as const;
export type DisputeKind = keyof typeof DISPUTE_KINDS;

export const newDisputeRequest = object({
  id: string().strict().uuid().required(),
  mapId: docId(),
  mapVersion: number().strict().integer().min(1).required(),
  label: string().strict().max(12).nullable().defined(),
  kind: string()
    .oneOf(Object.keys(DISPUTE_KINDS) as DisputeKind[])
    .required(),
  says: words(3, 500, 'Say in a few words what the display does.'),
  serial: string().strict().max(40).nullable().defined(),
}).noUnknown();
export type NewDispute = InferType<typeof newDisputeRequest>;

export const settleDisputeRequest = object({ words: words(3, 500, 'Say in writing how it was settled.') }).noUnknown();
export type SettleDispute = InferType<typeof settleDisputeRequest>;

/** Something a bench met that a map does not say. */
export interface DisputeView {
  readonly id: string;
  readonly mapId: string;
  readonly mapVersion: number;
  readonly label: string | null;
  readonly kind: DisputeKind;
  readonly says: string;
  readonly serial: string | null;
  readonly by: string;
  readonly at: string;
  readonly settled: { readonly by: string; readonly at: string; readonly words: string } | null;
}

const ms = (least: number, most: number) => number().strict().min(least).max(most).required();
export const paceRequest = object({
  tapMs: ms(50, 5_000),
  holdExtraMs: ms(0, 5_000),
  lookMs: ms(50, 20_000),
}).noUnknown();

/** The pace that practice has learnt of the person signed in; null before there is one. */
export interface PaceView {
  readonly pace: Pace | null;
}

/** What a person answered when asked which display it is; the server works the setup out anew for `mapId`. */
export const displayFoundRequest = object({
  id: string().strict().uuid().required(),
  seq: number().strict().integer().min(2).required(),
  at: instant(),
  mapId: docId(),
  told: array(
    object({ asks: string().strict().max(160).required(), says: string().strict().max(60).required() })
      .noUnknown()
      .required(),
  )
    .max(12)
    .required(),
}).noUnknown();
export type DisplayFoundRequest = InferType<typeof displayFoundRequest>;
