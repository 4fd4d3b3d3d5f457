import { EntitySchema } from 'typeorm';
import type {
  AccountRow,
  SessionRow,
  LibraryRow,
  IntakeRow,
  OrderRow,
  UnitRow,
  VisitRow,
  EvidenceRow,
  SealHeadRow,
  HandoverRow,
  PhotoRow,
  ChangeRow,
  DisputeRow,
  OrderChangeRow,
  PinRow,
  PinLookRow,
} from './rows.js';

export type * from './rows.js';

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
    nameSha256: { type: 'char', length: 64 },
    lockedAt: { type: 'datetime', precision: 3, nullable: true },
    isPasswordForOnce: { type: 'boolean' },
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
    revision: { type: 'int' },
    revisionWords: { type: 'longtext', nullable: true },
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
    waits: { type: 'varchar', length: 200, nullable: true },
    waitsUntil: { type: 'varchar', length: 40, nullable: true },
    provedAt: { type: 'datetime', precision: 3, nullable: true },
    proofsFailed: { type: 'int' },
    handedTo: { type: 'varchar', length: 120, nullable: true },
    handedOverAt: { type: 'datetime', precision: 3, nullable: true },
    stored: { type: 'varchar', length: 300, nullable: true },
    isSpare: { type: 'boolean' },
    ownWishes: { type: 'longtext', nullable: true },
    returnedWhy: { type: 'varchar', length: 500, nullable: true },
    odd: { type: 'varchar', length: 300, nullable: true },
    lastVisitId: { ...uuid, nullable: true },
    revision: { type: 'int' },
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

export const Handovers = new EntitySchema<HandoverRow>({
  name: 'handover_entry',
  columns: {
    id: { ...uuid, primary: true },
    visitId: uuid,
    seq: { type: 'int' },
    kind: { type: 'varchar', length: 20 },
    body: { type: 'mediumtext' },
    at: { type: 'datetime', precision: 3 },
  },
});

export const SealHeads = new EntitySchema<SealHeadRow>({
  name: 'seal_head',
  columns: {
    n: { type: 'bigint', primary: true },
    visitId: uuid,
    seq: { type: 'int' },
    hash: { type: 'char', length: 64 },
    why: { type: 'varchar', length: 8 },
    at: { type: 'datetime', precision: 3 },
    prevHash: { type: 'char', length: 64 },
    rowHash: { type: 'char', length: 64 },
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
    opens: { type: 'varchar', length: 5 },
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

export const ENTITIES = [
  Accounts,
  Sessions,
  Library,
  Intakes,
  Orders,
  Units,
  Visits,
  EvidenceLog,
  SealHeads,
  Handovers,
  Photos,
  Changes,
  Disputes,
  OrderChanges,
  Pins,
  PinLooks,
];
