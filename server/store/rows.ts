import type { PersonalKind, Role, StepId } from '@decurio/core';
import type { DisputeKind, LibraryKind, LineUnit, OrderChangeKind } from '@decurio/contract';

export interface AccountRow {
  id: string;
  signInName: string;
  displayName: string;
  role: Role;
  passwordHash: string;
  isDemo: boolean;
  createdAt: Date;
  /** Learnt by practice, as JSON; null before there is one. */
  pace: string | null;
  /** By which records cover the shown name. */
  nameSha256: string;
  /** Since when it signs nobody in; null while it does. */
  lockedAt: Date | null;
  isPasswordForOnce: boolean;
}

/** Something said of a person, apart from every chain; `salt` and `says` are null once it is erased. */
export interface PersonalRow {
  sha256: string;
  kind: PersonalKind;
  /** The account or the visit that it belongs to. */
  subject: string;
  salt: string | null;
  /** As JSON. */
  says: string | null;
  /** Retention counts from here: when it was said; of a name, when its bearer last signed in. */
  at: Date;
  erasedAt: Date | null;
  erasedBy: string | null;
  why: string | null;
}

export interface SessionRow {
  /** SHA-256 of the cookie's token: a stolen table signs nobody in. */
  tokenHash: string;
  id: string;
  accountId: string;
  station: string;
  openedAt: Date;
  seenAt: Date;
  expiresAt: Date;
}

export interface LibraryRow {
  kind: LibraryKind;
  docId: string;
  version: number;
  name: string;
  body: string;
  addedAt: Date;
  addedBy: string;
}

export interface IntakeRow {
  id: string;
  accountId: string;
  createdAt: Date;
  /** The checked order and its good rows as JSON. */
  body: string;
  takenOrderId: string | null;
  unitsTaken: number;
}

export interface OrderRow {
  id: string;
  number: string;
  customer: string;
  place: string;
  rulePackId: string;
  classId: string;
  className: string;
  houseRulesId: string;
  /** Lowest of what site and order ask, km/h, for lists; `terms` says it in full. */
  limitKmh: number | null;
  /** `OrderTerms` as JSON. */
  terms: string;
  notes: string;
  /** `ClassCheck` of its class in the newest rule pack as JSON, or null; written whenever the pack moves. */
  classCheck: string | null;
  /** Units still to arrive, `ExpectedUnits[]` as JSON. */
  expected: string;
  isPrivateLand: boolean;
  /** Wall-clock time at the depot, without a zone. */
  dueAt: string;
  takenAt: Date;
  takenBy: string;
  units: number;
  sealed: number;
  held: number;
  /** Counts changes of what was promised; units follow it. */
  revision: number;
  /** `RevisionWords` of the newest as JSON, or null before there is one. */
  revisionWords: string | null;
}

export interface UnitRow {
  id: string;
  orderId: string;
  position: number;
  serial: string;
  /** The serial while the unit is in an open order, null once it left: unique, so no serial is prepared twice at once. */
  openSerial: string | null;
  typeId: string;
  typeName: string;
  /** A display on no vehicle, keyed to be kept ready. */
  isSpare: boolean;
  mapId: string;
  status: LineUnit['status'];
  step: StepId | null;
  ladder: string;
  heldReason: string | null;
  heldWords: string | null;
  worker: string | null;
  station: string | null;
  visitId: string | null;
  /** When it was read as found, and how many surprises that brought. */
  foundAt: Date | null;
  surprises: number;
  /** What it stands aside for, and until when, ISO 8601. */
  waits: string | null;
  waitsUntil: string | null;
  /** When it was proved, and how many of its tests did not show what they should at first. */
  provedAt: Date | null;
  proofsFailed: number;
  /** Who has it, since when; null while it is in the house. */
  handedTo: string | null;
  handedOverAt: Date | null;
  /** `StoredUnit` as JSON while it is put away, or null. */
  stored: string | null;
  /** When its display's revision was told at check in. */
  displayFoundAt: Date | null;
  /** `UnitOverride` as JSON, or null. */
  ownWishes: string | null;
  /** Why a unit that was done came back to the line. */
  returnedWhy: string | null;
  /** Why it reads otherwise than its family. */
  odd: string | null;
  /** The sealed visit that the next one takes up again. */
  lastVisitId: string | null;
  /** The revision of its order by which it was set up. */
  revision: number;
}

export interface VisitRow {
  id: string;
  unitId: string;
  serial: string;
  typeName: string;
  orderNumber: string;
  customer: string;
  mapId: string;
  mapVersion: number;
  lastSeq: number;
  headHash: string;
  openedAt: Date;
  sealedAt: Date | null;
  sealedBy: string | null;
}

/** Append-only: the application's database user may select and insert here, nothing else. */
export interface EvidenceRow {
  id: string;
  visitId: string;
  seq: number;
  kind: string;
  /** The whole entry as canonical JSON, byte for byte what was hashed plus its hash. */
  body: string;
  receivedAt: Date;
}

/** Append-only: what was handed over with a unit, chained from its seal on. */
export interface HandoverRow {
  id: string;
  visitId: string;
  seq: number;
  kind: string;
  /** The whole entry as canonical JSON. */
  body: string;
  at: Date;
}

/** Append-only: how far a visit had come at some time, chained through the house. */
export interface SealHeadRow {
  /** 1, 2, 3 ... without a gap. */
  n: number;
  visitId: string;
  seq: number;
  hash: string;
  why: 'sealed' | 'open' | 'upgrade';
  at: Date;
  prevHash: string;
  rowHash: string;
}

/** A photograph as it is kept; its hash stands in the evidence. */
export interface PhotoRow {
  id: string;
  visitId: string;
  sha256: string;
  body: Buffer;
  bytes: number;
  widthPx: number;
  heightPx: number;
  byName: string;
  takenAt: Date;
}

/** That a unit or order moved, for screens that look on. Kept for a day. */
export interface ChangeRow {
  id: string;
  orderId: string;
  unitId: string | null;
  /** The unit's newest entry, 0 where the order itself moved. */
  seq: number;
  at: Date;
}

export interface DisputeRow {
  id: string;
  mapId: string;
  mapVersion: number;
  label: string | null;
  kind: DisputeKind;
  says: string;
  serial: string | null;
  raisedBy: string;
  raisedAt: Date;
  settledBy: string | null;
  settledAt: Date | null;
  settledWords: string | null;
}

/** What was changed of an order, and why. Read only ever as a list. */
export interface OrderChangeRow {
  id: string;
  orderId: string;
  kind: OrderChangeKind;
  at: Date;
  byName: string;
  reason: string;
  /** What it was and what it is, as JSON. */
  body: string;
}

export interface PinRow {
  id: string;
  orderId: string;
  /** Null for the PIN of the whole order. */
  unitId: string | null;
  /** The unit, or the order where there is one PIN for it: unique for what it opens, so that nobody gets two. */
  owner: string;
  opens: 'menu' | 'start';
  sealedDigits: string;
  madeAt: Date;
}

export interface PinLookRow {
  id: string;
  pinId: string;
  byName: string;
  at: Date;
  why: string;
}
