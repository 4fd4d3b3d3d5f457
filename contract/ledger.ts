import type { DisplayMap, Evidence } from '@decurio/core';

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
