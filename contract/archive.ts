import type { DisplayMap, VisitRecord } from '@decurio/core';

/** What an archive turned out to be: everything that was checked before any of it is believed. */
export interface ArchiveReport {
  readonly id: string;
  /** The house it says it is from; empty where that signs nothing. */
  readonly origin: string;
  readonly name: string;
  readonly madeAt: string;
  readonly holds: boolean;
  readonly findings: readonly string[];
  readonly records: number;
  /** Not known here yet, taken in before, and of this house itself. */
  readonly fresh: number;
  readonly known: number;
  readonly ours: number;
  readonly files: number;
  readonly isTaken: boolean;
}

export interface ElsewhereArchive {
  readonly id: string;
  readonly origin: string;
  readonly name: string;
  readonly madeAt: string;
  readonly records: number;
  readonly takenBy: string;
  readonly takenAt: string;
}

/** A record of another house. */
export interface ElsewhereRecord {
  readonly visitId: string;
  readonly serial: string;
  readonly typeName: string;
  readonly customer: string;
  readonly orderNumber: string;
  readonly sealedAt: string;
  readonly sealedBy: string;
  readonly seal: string;
  readonly origin: string;
}

export interface ElsewhereView {
  readonly archives: readonly ElsewhereArchive[];
  readonly records: readonly ElsewhereRecord[];
}

/** One of them, whole; null where the archive brought no map of its display. */
export interface ElsewhereRecordView extends ElsewhereRecord {
  readonly record: VisitRecord;
  readonly map: DisplayMap | null;
}
