import type { StepId, StorageAdvice, UnitOverride } from '@decurio/core';
import { object, string, type InferType } from 'yup';

export interface OrderView {
  readonly id: string;
  readonly number: string;
  readonly customer: string;
  readonly place: string;
  readonly className: string;
  readonly classChecked: string;
  /** Lowest of what site and order ask, km/h; null for none. */
  readonly limitKmh: number | null;
  readonly privateLand: { readonly label: string; readonly endsOn: string } | null;
  readonly dueAt: string;
  readonly takenAt: string;
  readonly units: number;
  readonly sealed: number;
  readonly held: number;
}

/** An authority for private land that has ended or soon will, with how many units are out under it. */
export interface EndingAuthority {
  readonly id: string;
  readonly number: string;
  readonly customer: string;
  readonly label: string;
  readonly endsOn: string;
  readonly hasEnded: boolean;
  readonly sealed: number;
}

/** A unit that is put away: since when, what its pack showed last and asks for, and when it is due again. */
export interface StoredUnit {
  readonly since: string;
  readonly packV: number;
  readonly act: StorageAdvice['act'];
  readonly measureAt: string;
}

/** One unit as Line shows it. */
export interface LineUnit {
  readonly id: string;
  readonly serial: string;
  readonly typeName: string;
  /** A display on no vehicle, keyed to be kept ready. */
  readonly isSpare: boolean;
  readonly status: 'waiting' | 'open' | 'held' | 'sealed' | 'withdrawn';
  readonly step: StepId | null;
  /** Ten letters, one per step: d done, l left out, n now, h held here, t to do, x not part of the visit. */
  readonly ladder: string;
  readonly heldReason: string | null;
  readonly heldWords: string | null;
  readonly worker: string | null;
  readonly station: string | null;
  readonly visitId: string | null;
  /** Why it came back although it was done, or null. */
  readonly returnedWhy: string | null;
  /** Why it looks odd among its family; null where it does not. */
  readonly odd: string | null;
  /** What it stands aside for, and until when, ISO 8601; null where it does not, or nobody knows. */
  readonly waits: string | null;
  readonly waitsUntil: string | null;
  /** Who has it, since when; null while it is in the house. */
  readonly handedTo: string | null;
  readonly handedOverAt: string | null;
  /** How its pack stood when it was last measured, where the unit is put away; null where it is not. */
  readonly stored: StoredUnit | null;
  /** What it is to have otherwise than its order, or null. */
  readonly own: UnitOverride | null;
}

export interface LineView {
  readonly order: OrderView;
  readonly units: readonly LineUnit[];
}

export const pageQuery = object({
  after: string().strict().max(200),
  search: string().trim().max(60),
}).noUnknown();
export type PageQuery = InferType<typeof pageQuery>;

/** A spare display that is keyed, signed off and on no vehicle yet. */
export interface SpareView {
  /** The number on it. */
  readonly serial: string;
  readonly visitId: string;
  readonly sealedAt: string;
  readonly orderNumber: string;
  /** What it was read back at, raw by code label. */
  readonly values: Readonly<Record<string, number>>;
}
