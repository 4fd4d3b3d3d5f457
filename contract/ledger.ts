import {
  COMPARISONS,
  FUNCTIONS,
  PROOF_OUTCOMES,
  WHEREABOUTS,
  type DisplayMap,
  type Evidence,
  type LedgerQuestion,
  type LifeEvent,
  type StateKind,
  type StatesCompared,
} from '@decurio/core';
import { object, string } from 'yup';
import type { ElsewhereRecord } from './archive.js';

const day = () => string().matches(/^\d{4}-\d{2}-\d{2}$/, 'must be a day such as 2026-03-01');
const names = (of: object): string[] => Object.keys(of);

/** A question to the ledger as its address carries it. */
export const ledgerQuestionQuery = object({
  after: string().strict().max(200),
  search: string().trim().max(60),
  where: string().oneOf(names(WHEREABOUTS)),
  serial: string().trim().max(40),
  order: string().trim().max(40),
  customer: string().trim().max(120),
  type: string().trim().max(60),
  map: string().matches(/^[a-z0-9-]{1,60}$/, 'No display map has such an id.'),
  className: string().trim().max(120),
  code: string().oneOf(names(FUNCTIONS)),
  is: string().oneOf(names(COMPARISONS)),
  value: string().trim().max(40),
  from: day(),
  to: day(),
  by: string().uuid(),
  worked: string().uuid(),
  finding: string().oneOf(['accepted', 'unproved']),
  words: string().trim().max(80),
  proof: string()
    .trim()
    .max(80)
    .matches(/^[ -~]*$/, 'No test has such an id.'),
  proved: string().oneOf(names(PROOF_OUTCOMES)),
}).noUnknown();

/** What one code of a sealed unit was left at, in the list of an answer. */
export interface LedgerAnswerCode {
  readonly label: string;
  readonly shown: string;
  readonly says: string;
}

const stateKey = () => string().matches(/^(found|left|back-[1-9]\d{0,3})$/, 'must be found, left or back-1');

/** Two visits, and which state of each. */
export const comparedQuery = object({
  one: string().uuid().required(),
  oneAt: stateKey().required(),
  other: string().uuid().required(),
  otherAt: stateKey().required(),
}).noUnknown();

/** A page of an answer, newest first. */
export interface LedgerAnswer {
  readonly items: readonly (LedgerRow & { readonly codes: readonly LedgerAnswerCode[]; readonly isOut: boolean })[];
  readonly next: string | null;
}

/** What there is to choose from, of what was ever sealed. */
export interface LedgerChoices {
  readonly customers: readonly string[];
  readonly types: readonly string[];
  readonly classes: readonly string[];
  readonly maps: readonly { readonly id: string; readonly title: string }[];
  readonly people: readonly { readonly id: string; readonly name: string }[];
  /** Everybody who worked on something sealed. */
  readonly workers: readonly { readonly id: string; readonly name: string }[];
  /** Tests that units had to pass. */
  readonly proofs: readonly { readonly test: string; readonly title: string }[];
  /** Functions of which something was read back, with the words that were read. */
  readonly codes: readonly { readonly code: string; readonly words: readonly string[] }[];
  /** Sealed visits that are still being taken in, and cannot be found yet. */
  readonly wanting: number;
}

/** How far the ledger had come at some time. */
export interface CheckpointView {
  /** Leaves of its tree: seals, and hourly heads of open visits. */
  readonly size: number;
  readonly root: string;
  readonly at: string;
}

/** A question kept under a name, for everybody of the house. */
export interface KeptQuestion {
  readonly id: string;
  readonly name: string;
  readonly question: LedgerQuestion;
  readonly keptBy: string;
}

export const keptQuestionBody = object({
  id: string().uuid().required(),
  name: string().trim().min(1).max(80).required(),
  question: ledgerQuestionQuery.required(),
}).noUnknown();

/** One visit as the ledger lists it. */
export interface LedgerRow {
  readonly visitId: string;
  readonly serial: string;
  readonly typeName: string;
  readonly orderNumber: string;
  readonly customer: string;
  readonly sealedAt: string;
  readonly sealedBy: string;
  readonly seal: string;
}

export interface LedgerRecordView extends LedgerRow {
  readonly unitId: string;
  readonly className: string;
  readonly map: DisplayMap;
  readonly evidence: readonly Evidence[];
  /** Words in letters that papers have no font for: they print as question marks. */
  readonly unprintable: readonly string[];
}

/** Outcome of holding a seal, or a whole record file, against the ledger. */
export interface SealCheck {
  readonly holds: boolean;
  readonly says: string;
  /** Everything that is not as it was sealed; the first of them stands in `says` too. */
  readonly findings: readonly string[];
  readonly visitId: string | null;
  readonly serial: string | null;
  readonly entries: number;
  readonly seal: string | null;
}

/** One of the states of a visit that can be held beside another. */
export interface NamedState {
  readonly key: string;
  readonly kind: StateKind;
  readonly at: string;
}

/** One visit in the life of a unit. */
export interface LifeVisit {
  readonly visitId: string;
  readonly unitId: string;
  readonly orderNumber: string;
  readonly customer: string;
  readonly openedAt: string;
  /** Null while it was not signed off. */
  readonly sealedAt: string | null;
  readonly sealedBy: string | null;
  /** Who has its unit; null while it is in the house. */
  readonly handedTo: string | null;
  /** Its entries are not whole: nothing of them is shown. */
  readonly isDamaged: boolean;
  readonly className: string;
  readonly display: string;
  readonly events: readonly LifeEvent[];
  readonly states: readonly NamedState[];
}

/** All visits of a serial, newest first. */
export interface UnitLife {
  readonly serial: string;
  readonly typeName: string;
  readonly visits: readonly LifeVisit[];
  /** What other houses know of this serial. */
  readonly elsewhere: readonly ElsewhereRecord[];
  /** It was here more often than is shown. */
  readonly hasMore: boolean;
}

export interface ComparedStates extends StatesCompared {
  readonly one: NamedState & { readonly visitId: string; readonly serial: string };
  readonly other: NamedState & { readonly visitId: string; readonly serial: string };
}
