import type { Role, StepId } from '@decurio/core';
import type { DisputeKind, LibraryKind, LineUnit, OrderChangeKind } from '@decurio/contract';
import { EntitySchema } from 'typeorm';

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
  /** When its display's revision was told at check in. */
  displayFoundAt: Date | null;
  /** `UnitOverride` as JSON, or null. */
  ownWishes: string | null;
  /** Why a unit that was done came back to the line. */
  returnedWhy: string | null;
  /** The sealed visit that the next one takes up again. */
  lastVisitId: string | null;
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

/** A photograph as it was sent; its hash stands in the evidence. */
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
  /** The unit, or the order where there is one PIN for it: unique, so that nobody gets two. */
  owner: string;
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

const uuid = { type: 'char', length: 36 } as const;

export const Accounts = new EntitySchema<AccountRow>({
  name: 'account',
  columns: {
    id: { ...uuid, primary: true },
    signInName: { type: 'varchar', length: 60 },
    displayName: { type: 'varchar', length: 80 },
    role: { type: 'varchar', length: 12 },
    passwordHash: { type: 'varchar', length: 200 },
    isDemo: { type: 'boolean' },
    createdAt: { type: 'datetime', precision: 3 },
    pace: { type: 'varchar', length: 200, nullable: true },
  },
});

export const Sessions = new EntitySchema<SessionRow>({
  name: 'session',
  columns: {
    tokenHash: { type: 'char', length: 64, primary: true },
    id: uuid,
    accountId: uuid,
    station: { type: 'varchar', length: 40 },
    openedAt: { type: 'datetime', precision: 3 },
    seenAt: { type: 'datetime', precision: 3 },
    expiresAt: { type: 'datetime', precision: 3 },
  },
});

export const Library = new EntitySchema<LibraryRow>({
  name: 'library_document',
  columns: {
    kind: { type: 'varchar', length: 20, primary: true },
    docId: { type: 'varchar', length: 60, primary: true },
    version: { type: 'int', primary: true },
    name: { type: 'varchar', length: 80 },
    body: { type: 'longtext' },
    addedAt: { type: 'datetime', precision: 3 },
    addedBy: uuid,
  },
});

export const Intakes = new EntitySchema<IntakeRow>({
  name: 'intake',
  columns: {
    id: { ...uuid, primary: true },
    accountId: uuid,
    createdAt: { type: 'datetime', precision: 3 },
    body: { type: 'longtext' },
    takenOrderId: { ...uuid, nullable: true },
    unitsTaken: { type: 'int' },
  },
});

export const Orders = new EntitySchema<OrderRow>({
  name: 'customer_order',
  columns: {
    id: { ...uuid, primary: true },
    number: { type: 'varchar', length: 40 },
    customer: { type: 'varchar', length: 120 },
    place: { type: 'varchar', length: 60 },
    rulePackId: { type: 'varchar', length: 60 },
    classId: { type: 'varchar', length: 60 },
    className: { type: 'varchar', length: 80 },
    houseRulesId: { type: 'varchar', length: 60 },
    limitKmh: { type: 'double', nullable: true },
    terms: { type: 'longtext' },
    notes: { type: 'varchar', length: 1000 },
    expected: { type: 'longtext' },
    isPrivateLand: { type: 'boolean' },
    classCheck: { type: 'varchar', length: 1000, nullable: true },
    dueAt: { type: 'varchar', length: 16 },
    takenAt: { type: 'datetime', precision: 3 },
    takenBy: uuid,
    units: { type: 'int' },
    sealed: { type: 'int' },
    held: { type: 'int' },
  },
});

export const Units = new EntitySchema<UnitRow>({
  name: 'unit',
  columns: {
    id: { ...uuid, primary: true },
    orderId: uuid,
    position: { type: 'int' },
    serial: { type: 'varchar', length: 40 },
    openSerial: { type: 'varchar', length: 40, nullable: true },
    typeId: { type: 'varchar', length: 60 },
    typeName: { type: 'varchar', length: 60 },
    mapId: { type: 'varchar', length: 60 },
    status: { type: 'varchar', length: 12 },
    step: { type: 'varchar', length: 12, nullable: true },
    ladder: { type: 'char', length: 10 },
    heldReason: { type: 'varchar', length: 40, nullable: true },
    heldWords: { type: 'varchar', length: 1000, nullable: true },
    worker: { type: 'varchar', length: 80, nullable: true },
    station: { type: 'varchar', length: 40, nullable: true },
    visitId: { ...uuid, nullable: true },
    displayFoundAt: { type: 'datetime', precision: 3, nullable: true },
    foundAt: { type: 'datetime', precision: 3, nullable: true },
    surprises: { type: 'int' },
    ownWishes: { type: 'longtext', nullable: true },
    returnedWhy: { type: 'varchar', length: 500, nullable: true },
    lastVisitId: { ...uuid, nullable: true },
  },
});

export const Visits = new EntitySchema<VisitRow>({
  name: 'visit',
  columns: {
    id: { ...uuid, primary: true },
    unitId: uuid,
    serial: { type: 'varchar', length: 40 },
    typeName: { type: 'varchar', length: 60 },
    orderNumber: { type: 'varchar', length: 40 },
    customer: { type: 'varchar', length: 120 },
    mapId: { type: 'varchar', length: 60 },
    mapVersion: { type: 'int' },
    lastSeq: { type: 'int' },
    headHash: { type: 'char', length: 64 },
    openedAt: { type: 'datetime', precision: 3 },
    sealedAt: { type: 'datetime', precision: 3, nullable: true },
    sealedBy: { type: 'varchar', length: 80, nullable: true },
  },
});

export const EvidenceLog = new EntitySchema<EvidenceRow>({
  name: 'evidence',
  columns: {
    id: { ...uuid, primary: true },
    visitId: uuid,
    seq: { type: 'int' },
    kind: { type: 'varchar', length: 20 },
    body: { type: 'longtext' },
    receivedAt: { type: 'datetime', precision: 3 },
  },
});

export const Photos = new EntitySchema<PhotoRow>({
  name: 'photo',
  columns: {
    id: { ...uuid, primary: true },
    visitId: uuid,
    sha256: { type: 'char', length: 64 },
    body: { type: 'mediumblob' },
    bytes: { type: 'int' },
    widthPx: { type: 'int' },
    heightPx: { type: 'int' },
    byName: { type: 'varchar', length: 80 },
    takenAt: { type: 'datetime', precision: 3 },
  },
});

export const Changes = new EntitySchema<ChangeRow>({
  name: 'line_change',
  columns: {
    id: { type: 'bigint', primary: true, generated: 'increment' },
    orderId: uuid,
    unitId: { ...uuid, nullable: true },
    seq: { type: 'int' },
    at: { type: 'datetime', precision: 3 },
  },
});

export const Disputes = new EntitySchema<DisputeRow>({
  name: 'dispute',
  columns: {
    id: { ...uuid, primary: true },
    mapId: { type: 'varchar', length: 60 },
    mapVersion: { type: 'int' },
    label: { type: 'varchar', length: 12, nullable: true },
    kind: { type: 'varchar', length: 20 },
    says: { type: 'varchar', length: 500 },
    serial: { type: 'varchar', length: 40, nullable: true },
    raisedBy: { type: 'varchar', length: 80 },
    raisedAt: { type: 'datetime', precision: 3 },
    settledBy: { type: 'varchar', length: 80, nullable: true },
    settledAt: { type: 'datetime', precision: 3, nullable: true },
    settledWords: { type: 'varchar', length: 500, nullable: true },
  },
});

export const OrderChanges = new EntitySchema<OrderChangeRow>({
  name: 'order_change',
  columns: {
    id: { ...uuid, primary: true },
    orderId: uuid,
    kind: { type: 'varchar', length: 20 },
    at: { type: 'datetime', precision: 3 },
    byName: { type: 'varchar', length: 80 },
    reason: { type: 'varchar', length: 500 },
    body: { type: 'longtext' },
  },
});

export const Pins = new EntitySchema<PinRow>({
  name: 'pin',
  columns: {
    id: { ...uuid, primary: true },
    orderId: uuid,
    unitId: { ...uuid, nullable: true },
    owner: uuid,
    sealedDigits: { type: 'varchar', length: 200 },
    madeAt: { type: 'datetime', precision: 3 },
  },
});

export const PinLooks = new EntitySchema<PinLookRow>({
  name: 'pin_look',
  columns: {
    id: { ...uuid, primary: true },
    pinId: uuid,
    byName: { type: 'varchar', length: 80 },
    at: { type: 'datetime', precision: 3 },
    why: { type: 'varchar', length: 300 },
  },
});

export const ENTITIES = [Accounts, Sessions, Library, Intakes, Orders, Units, Visits, EvidenceLog, Photos, Changes, Disputes, OrderChanges, Pins, PinLooks];
