import type {
  CheckStanding,
  ClassCheck,
  DisplayMap,
  Evidence,
  EvidenceData,
  Finding,
  HoldReason,
  LabelledPack,
  Part,
  PhotoSubject,
  ReferenceKind,
  SetupGround,
  WheelMeasure,
  WrittenKind,
} from '@decurio/core';
import { HOLD_REASONS, PARTS, PHOTO_SUBJECTS, REFERENCES, SENT_BACK_TO, WHEEL_MEASURES } from '@decurio/core';
import { mixed, array, boolean, number, object, string, type InferType, type ObjectSchema } from 'yup';
import { classCheckSchema } from './documents/rule-pack.js';
import { orNull } from './documents/shapes.js';
import { instant } from './instant.js';
import { MOST_ENTRIES } from './limits.js';
import type { LineUnit } from './orders.js';
import type { ErrorBody } from './problem.js';
import { provingSchemas } from './proving.js';

const label = () => string().strict().min(1).max(12).required();
const MOST_CODES = 400;
/** What a display shows, raw by code label. */
const rawByCode = () =>
  mixed<Readonly<Record<string, number>>>(
    (value): value is Readonly<Record<string, number>> =>
      typeof value === 'object' &&
      value !== null &&
      !Array.isArray(value) &&
      Object.keys(value).length <= MOST_CODES &&
      Object.entries(value).every(([label, shown]) => label.length <= 12 && Number.isFinite(shown)),
  )
    .typeError('Its values are figures by code.')
    .required();
const raw = () =>
  number()
    .strict()
    .min(-99999, 'is not a value a display shows')
    .max(99999, 'is not a value a display shows')
    .required();
const words = (most: number) => string().strict().max(most).defined();
const nothing = object({}).noUnknown();
const packVolts = () =>
  number().strict().min(0, 'Volts by meter, not below zero.').max(120, 'Above 120 V no pack of this trade reads.');
const packCondition = () => string().oneOf(['sound', 'unsafe'] as const);
const PACK_UNSEEN = 'Look at the pack: is it sound, or swollen, wet, hot or damaged?';
const mm = () =>
  number()
    .strict()
    .min(300, 'No wheel of such a vehicle rolls under 300 mm a turn.')
    .max(3000, 'No wheel of such a vehicle rolls over 3,000 mm a turn.')
    .required();
const speed = (what: string) =>
  number()
    .strict()
    .moreThan(0, `${what} is above zero.`)
    .max(150, `${what}: above 150 no such vehicle goes.`)
    .required(`${what} is missing.`);
const ratio = () =>
  object({
    k: number().strict().moreThan(0).max(50).required(),
    u: number().strict().min(0).max(10).required(),
    low: number().strict().required(),
    high: number().strict().required(),
  })
    .noUnknown()
    .required();

/** Data of each kind of entry, as a person at a bench can write it. */
export const evidenceSchemas = {
  checkedIn: object({
    revisionConfirmed: boolean()
      .strict()
      .oneOf([true] as const, 'Confirm the display revision first.')
      .required(),
    odometerKm: number().strict().min(0, 'An odometer does not read below zero.').max(999999).nullable().defined(),
    packV: packVolts().required('Measure the pack and type its volts.'),
    packCondition: packCondition().required(PACK_UNSEEN),
    tyreBar: number()
      .strict()
      .min(0, 'Not below zero.')
      .max(10, 'Above 10 bar no such tyre is pumped.')
      .nullable()
      .defined(),
    cablesFree: boolean().strict().required(),
    clampSound: boolean().strict().required(),
    accessories: words(200),
    damage: words(1000),
  }).noUnknown(),
  packMeasured: object({
    packV: packVolts().required('Measure the pack and type its volts.'),
    packCondition: packCondition().required(PACK_UNSEEN),
    words: words(200),
  }).noUnknown(),
  checkMade: object({
    check: string().strict().max(60).required(),
    outcome: string()
      .oneOf(['good', 'notGood', 'notFitted'] as const)
      .required(),
    figure: number().strict().min(0, 'Not below zero.').max(1000).nullable().defined(),
    text: words(60),
    tool: words(40),
    words: words(300),
    together: boolean().strict().oneOf([true]).optional(),
  }).noUnknown(),
  photographed: object({
    photoId: string().strict().uuid().required(),
    subject: string()
      .oneOf(Object.keys(PHOTO_SUBJECTS) as PhotoSubject[])
      .required(),
    sha256: string()
      .strict()
      .matches(/^[0-9a-f]{64}$/)
      .required(),
    words: words(200),
  }).noUnknown(),
  madeSafe: object({
    cautions: array(string().strict().max(500).required()).max(60).defined(),
    together: boolean().strict().oneOf([true]).optional(),
  }).noUnknown(),
  asFoundRead: object({ label: label(), raw: raw().nullable().defined() }).noUnknown(),
  strayFound: object({
    shown: string().strict().trim().min(1, 'Type the label as the glass shows it.').max(12).required(),
    value: string().strict().trim().min(1, 'Type the value as the glass shows it.').max(12).required(),
  }).noUnknown(),
  pinRefused: nothing,
  asFoundClosed: nothing,
  restoredAsFound: object({ labels: array(label()).max(99).defined() }).noUnknown(),
  codeSeen: object({ label: label(), raw: raw() }).noUnknown(),
  codeKeyed: object({
    label: label(),
    fromRaw: raw(),
    raw: raw(),
    presses: number().strict().integer().min(0).max(999).required(),
  }).noUnknown(),
  codeStuck: object({ label: label(), raw: raw() }).noUnknown(),
  keyInClosed: nothing,
  restarted: object({
    acts: array(string().strict().max(160).required()).max(20).required(),
    unplugged: boolean().strict().optional(),
    together: boolean().strict().oneOf([true]).optional(),
  }).noUnknown(),
  codeRead: object({ label: label(), raw: raw().nullable().defined() }).noUnknown(),
  readBackClosed: nothing,
  held: object({
    reason: string()
      .oneOf(Object.keys(HOLD_REASONS) as HoldReason[])
      .required(),
    words: string().strict().trim().min(3, 'Say in a few words why.').max(500).required('Say in a few words why.'),
  }).noUnknown(),
  released: object({
    words: string().strict().trim().min(3, 'Say in writing why.').max(500).required('Say in writing why.'),
    decision: object({
      way: string()
        .oneOf(['goOn', 'accept', 'sendBack'] as const)
        .required(),
      labels: array(label())
        .max(99)
        .when('way', {
          is: 'accept',
          then: (labels) => labels.min(1, 'Say which codes are accepted.').required('Say which codes are accepted.'),
        }),
      to: string()
        .oneOf([...SENT_BACK_TO])
        .when('way', { is: 'sendBack', then: (to) => to.required('Say to which step it goes back.') }),
    })
      .noUnknown()
      .default(undefined)
      .optional(),
  }).noUnknown(),
  takenOver: object({ from: string().strict().min(1).max(40).required() }).noUnknown(),
  partReplaced: object({
    part: string()
      .oneOf(Object.keys(PARTS) as Part[], 'Say which part.')
      .required(),
    words: string().strict().trim().min(3, 'Say in a few words what was changed and why.').max(500).required(),
    oldOdometerKm: number().strict().min(0, 'Not below zero.').max(999999).nullable().defined(),
    newOdometerKm: number().strict().min(0, 'Not below zero.').max(999999).nullable().defined(),
    packV: packVolts().nullable().defined(),
    packCondition: packCondition().optional(),
    spare: object({
      serial: string().strict().max(40).required(),
      visitId: string().strict().uuid().required(),
      values: rawByCode(),
    })
      .noUnknown()
      .optional()
      .default(undefined),
  }).noUnknown(),
  wheelMeasured: object({
    how: string()
      .oneOf(Object.keys(WHEEL_MEASURES) as WheelMeasure[])
      .required(),
    mm: mm(),
    fromMm: mm(),
    toMm: mm(),
    words: words(200),
  }).noUnknown(),
  speedRead: object({
    reference: string()
      .oneOf(Object.keys(REFERENCES) as ReferenceKind[])
      .required(),
    instrument: string().strict().max(60).defined(),
    trueKmh: speed('True speed'),
    uKmh: number().strict().min(0).max(200).required(),
    uCommon: number().strict().min(0).max(0.5).required(),
    shown: speed('Shown speed'),
    unit: string()
      .oneOf(['km/h', 'mph'] as const)
      .required(),
    offGround: boolean().strict().required(),
    words: words(200),
  }).noUnknown(),
  speedJudged: object({
    reading: string().strict().uuid().required(),
    isUsed: boolean().strict().required(),
    words: words(200),
  }).noUnknown(),
  countStands: object({ words: words(200) }).noUnknown(),
  driveEndRead: object({
    shown: speed('Shown speed'),
    unit: string()
      .oneOf(['km/h', 'mph'] as const)
      .required(),
    words: words(200),
    onFullPack: boolean().strict().oneOf([true]).optional(),
  }).noUnknown(),
  wheelFitted: object({
    ratio: ratio(),
    atWheelRaw: raw().nullable().defined(),
    atPulsesRaw: raw().nullable().defined(),
    count: number().strict().integer().min(1).max(2000).required(),
    wheelRaw: raw().nullable().defined(),
    pulsesRaw: raw().nullable().defined(),
    capRaw: raw().nullable().defined(),
    predicted: ratio(),
  }).noUnknown(),
  calibrated: object({
    how: string()
      .oneOf(['runs', 'learnt'] as const)
      .required(),
    ratio: ratio(),
    atWheelRaw: raw().nullable().defined(),
    atPulsesRaw: raw().nullable().defined(),
    count: number().strict().integer().min(0).max(2000).required(),
    ends: object({ kmh: number().strict().required(), worst: number().strict().required() })
      .noUnknown()
      .nullable()
      .defined(),
    checkOff: number().strict().min(-1).max(10).nullable().defined(),
    provisional: words(500),
  }).noUnknown(),
  stepByHand: object({
    step: string()
      .oneOf(['calibrate', 'prove'] as const)
      .required(),
    done: boolean().strict().required(),
    words: words(500),
  }).noUnknown(),
  ...provingSchemas,
  undone: object({ voids: string().strict().uuid().required() }).noUnknown(),
  signedOff: object({
    words: words(500),
    check: orNull(classCheckSchema),
  }).noUnknown(),
} satisfies { [K in WrittenKind]: ObjectSchema<object> };

/** An entry as a client sends it; who wrote it comes from the session. */
export const newEvidenceRequest = object({
  id: string().strict().uuid().required(),
  /** The seq this entry is to have: one more than the newest the client saw. */
  seq: number().strict().integer().min(2).required(),
  kind: string()
    .oneOf(Object.keys(evidenceSchemas) as WrittenKind[])
    .required(),
  at: instant(),
  data: object().required(),
}).noUnknown();

/** Entries of one visit that waited at a stand, oldest first. */
export const newEntriesRequest = object({
  entries: array(newEvidenceRequest).min(1, 'Nothing to add.').max(MOST_ENTRIES, 'Too many at once.').required(),
}).noUnknown();
export interface NewEntriesRequest {
  readonly entries: readonly NewEvidence[];
}

export type NewEvidence = {
  [K in WrittenKind]: { id: string; seq: number; kind: K; at: string; data: EvidenceData[K] };
}[WrittenKind];

export const openVisitRequest = object({
  visitId: string().strict().uuid().required(),
  entryId: string().strict().uuid().required(),
  at: instant(),
}).noUnknown();
export type OpenVisitRequest = InferType<typeof openVisitRequest>;

/** Everything the bench needs for one unit. */
export interface BenchView {
  readonly unit: LineUnit;
  readonly orderId: string;
  readonly orderNumber: string;
  readonly customer: string;
  readonly className: string;
  /** As a person reads it. */
  readonly classChecked: string;
  /** Who checked the legal values of the class, and when; what a sign off names. */
  readonly classCheck: ClassCheck | null;
  /** Whether the class may be signed off under today. */
  readonly classStanding: CheckStanding;
  readonly privateLand: { readonly label: string; readonly endsOn: string } | null;
  readonly notes: string;
  readonly type: {
    readonly id: string;
    readonly title: string;
    readonly pack: LabelledPack;
    readonly cautions: readonly string[];
    readonly cutPower: string;
  };
  readonly map: DisplayMap;
  /** Maps of displays that may be fitted instead and look alike, the present one included; one alone where nothing is to be asked. */
  readonly lookAlikes: readonly DisplayMap[];
  /** What the unit of this batch before it turned out to carry. */
  readonly batch: { readonly mapId: string; readonly serial: string } | null;
  /** The unit's newest visit, oldest entry first; empty where none was opened. */
  readonly evidence: readonly Evidence[];
  /** What the setup of the open visit is worked out anew from, by a stand that hears no server too; null where none is open. */
  readonly ground: SetupGround | null;
  /** Of a unit held at its read-back: what it would mean to let the codes stand as they show. */
  readonly ifAccepted: readonly Finding[];
}

/** What an entry brought: itself, and what the server wrote because of it. */
export interface EntryTaken {
  readonly entry: Evidence;
  readonly followed: readonly Evidence[];
}

export interface EntriesTaken {
  readonly taken: readonly EntryTaken[];
  /** Why the entry after these was not taken; none of those behind it was. */
  readonly refused: (ErrorBody['error'] & { readonly status: number }) | null;
}

export interface PhotoKept {
  readonly id: string;
  /** Of the bytes as they are stored. */
  readonly sha256: string;
  readonly bytes: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** That a unit, or an order itself where `unitId` is null, moved; `seq` is the unit's newest entry. */
export interface ChangeSeen {
  readonly id: number;
  readonly orderId: string;
  readonly unitId: string | null;
  readonly seq: number;
}

export interface UnitFound {
  readonly id: string;
  readonly serial: string;
  readonly orderId: string;
  readonly orderNumber: string;
  readonly status: LineUnit['status'];
  readonly visitId: string | null;
  /** Who has it; null while it is in the house. */
  readonly handedTo: string | null;
}
