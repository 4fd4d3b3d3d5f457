import {
  PAPERS,
  type HandoverEntry,
  type HandoverKind,
  type HandoverState,
  type NewHandover,
  type PaperKind,
} from '@decurio/core';
import { array, boolean, mixed, number, object, string, type InferType, type ObjectSchema } from 'yup';
import { orNull } from './documents/shapes.js';
import { instant } from './instant.js';

const words = (most: number) => string().strict().trim().max(most).defined();
const sha256 = () =>
  string()
    .strict()
    .matches(/^[0-9a-f]{64}$/)
    .required();
const volts = () =>
  number()
    .strict()
    .min(0, 'Volts by meter, 0 or more.')
    .max(1000, 'No pack here has as many volts.')
    .required('Type what the meter reads.');
/** Raw digits by label, or null where the glass does not list it; no more than a map has codes. */
function isReadValues(value: unknown): value is Record<string, number | null> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  const entries = Object.entries(value);
  return (
    entries.length <= 200 &&
    entries.every(
      ([label, raw]) => label.length <= 12 && (raw === null || (typeof raw === 'number' && Math.abs(raw) < 1e9)),
    )
  );
}

const share = () => number().strict().min(0).max(1).required();

/** Data of each kind of entry of a handing over. */
export const handoverSchemas = {
  paperMade: object({
    paper: string()
      .oneOf(Object.keys(PAPERS) as PaperKind[])
      .required(),
    language: orNull(string().strict().max(5).defined()),
    sha256: sha256(),
  }).noUnknown(),
  labelFixed: object({
    where: words(80).min(1, 'Say where it sits.'),
    photo: object({ photoId: string().strict().uuid().required(), sha256: sha256() })
      .noUnknown()
      .optional()
      .default(undefined),
  }).noUnknown(),
  pinTold: object({
    opens: string()
      .oneOf(['menu', 'start'] as const)
      .required(),
    to: words(80)
      .min(1, 'Say to whom; the digits stand nowhere.')
      .test('noDigits', 'Whom, not which: the digits of a PIN stand in no record.', (to) => !/\d{3,}/.test(to)),
  }).noUnknown(),
  wentAlong: object({ things: array(words(80).min(1)).max(30).defined() }).noUnknown(),
  riderShown: object({ items: array(words(300).min(1)).max(40).defined() }).noUnknown(),
  packStored: object({ packV: volts() }).noUnknown(),
  packTaken: object({ packV: volts() }).noUnknown(),
  cameBack: object({
    values: mixed<Record<string, number | null>>(isReadValues).required('Send what was read, by code.'),
    asksPin: orNull(boolean().strict()),
    errors: array(words(12).min(1)).max(20).defined(),
  }).noUnknown(),
  received: object({
    name: words(80).min(1, 'Type the name of whoever receives it.'),
    strokes: array(array(array(share()).length(2).required()).max(2000, 'That is more than a signature.').required())
      .max(200, 'That is more than a signature.')
      .defined(),
  }).noUnknown(),
  unsigned: object({
    name: words(80).min(1, 'Type who took it.'),
    words: words(300).min(3, 'Say in a few words why.'),
  }).noUnknown(),
} satisfies { [K in Exclude<HandoverKind, 'fitted'>]: ObjectSchema<object> };

type SentKind = keyof typeof handoverSchemas;

/** An entry as a client sends it; who wrote it and when comes from the server. */
export const handoverRequest = object({
  id: string().strict().uuid().required(),
  kind: string()
    .oneOf(Object.keys(handoverSchemas) as SentKind[])
    .required(),
  data: object().required(),
}).noUnknown();
export type HandoverRequest = Extract<NewHandover, { kind: SentKind }>;

/** What was handed over with a unit so far. */
export interface HandoverView {
  /** Of its visit: what the chain begins with. */
  readonly seal: string;
  readonly entries: readonly HandoverEntry[];
  readonly state: HandoverState;
}

/** A unit that left is taken up again: prepared anew in its order. */
export const takeUpRequest = object({
  id: string().strict().uuid().required(),
  why: words(300).min(3, 'Say in a few words why.'),
}).noUnknown();
export type TakeUpRequest = InferType<typeof takeUpRequest>;

/** A second person's signature on the stand of the first. */
export const countersignRequest = object({
  id: string().strict().uuid().required(),
  seq: number().strict().integer().min(2).required(),
  at: instant(),
  name: string().strict().min(1).max(60).required('Type your sign-in name.'),
  password: string().strict().min(1).max(200).required('Type your password.'),
  words: words(300),
}).noUnknown();
export type CountersignRequest = InferType<typeof countersignRequest>;
