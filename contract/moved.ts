import type { MovedReason } from '@decurio/core';
import { array, number, object, string } from 'yup';
import { id as docId, text } from './documents/shapes.js';

/** Documents that units are worked out from, and that may move while they are out. */
export const MOVING_KINDS = ['rulePack', 'vehicleType', 'houseRules', 'displayMap'] as const;
export type MovingKind = (typeof MOVING_KINDS)[number];

/** A document of which units are out that were prepared under an earlier version. */
export interface MovedDocument {
  readonly kind: MovingKind;
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly unitsBehind: number;
}

/** A class or an authority under which units are out, and that ends. */
export interface Lapsing {
  readonly what: 'class' | 'privateLand';
  readonly title: string;
  readonly of: string;
  /** Day after which it holds no longer, as 2026-12-31. */
  readonly endsOn: string;
  readonly unitsOut: number;
}

export interface MovedView {
  readonly documents: readonly MovedDocument[];
  readonly lapsing: readonly Lapsing[];
}

/** A unit that is out and does not comply with the newer version. */
export interface UnitMoved {
  readonly visitId: string;
  readonly serial: string;
  readonly customer: string;
  readonly orderNumber: string;
  readonly reasons: readonly MovedReason[];
  /** What was decided of it under this version, by whom; null while nothing is. */
  readonly decided: { readonly what: 'stays' | 'recalled'; readonly words: string; readonly by: string } | null;
}

/** A line of the answer while units are held against a version: how many there are, how far it came, a unit, and that all was looked at. */
export type HeldLine =
  | { readonly line: 'begun'; readonly version: number; readonly name: string; readonly units: number }
  | { readonly line: 'unit'; readonly unit: UnitMoved }
  | { readonly line: 'sofar'; readonly units: number }
  | { readonly line: 'ended'; readonly units: number; readonly moved: number; readonly unreadable: number };

export const movedParams = object({
  kind: string()
    .oneOf([...MOVING_KINDS])
    .required(),
  id: docId(),
});

const MOST_AT_ONCE = 1000;

const aboutUnits = () => ({
  version: number().strict().integer().min(1).required(),
  visitIds: array(string().strict().uuid().required())
    .min(1, 'Choose the units.')
    .max(MOST_AT_ONCE, `At most ${MOST_AT_ONCE} at once.`)
    .required(),
  words: text(500).min(3, 'Say in a few words why.'),
});

/** What is decided to stay as it is, in writing. */
export const stayRequest = object(aboutUnits()).noUnknown();
export interface StayRequest {
  readonly version: number;
  readonly visitIds: readonly string[];
  readonly words: string;
}

/** Units to be called back: an order of its own for each promise among them. */
export const recallRequest = object({
  ...aboutUnits(),
  id: string().strict().uuid().required(),
  number: text(34),
  dueAt: string()
    .strict()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/, 'A day and a time, as 2026-11-26T08:00.')
    .required('When must they be ready again?'),
}).noUnknown();
export interface RecallRequest extends StayRequest {
  readonly id: string;
  readonly number: string;
  readonly dueAt: string;
}

export interface Recalled {
  readonly orders: readonly { readonly orderId: string; readonly number: string; readonly units: number }[];
  /** Units that could not be called back, with the reason. */
  readonly left: readonly { readonly serial: string; readonly says: string }[];
}
