import type { HoldReason, StepId } from '@decurio/core';
import { boolean, object, string } from 'yup';

/** Of which visits the quality of the work is asked: sealed on these days, both included. */
export const qualityQuery = object({
  from: string().matches(/^\d{4}-\d{2}-\d{2}$/, 'must be a day such as 2026-03-01'),
  to: string().matches(/^\d{4}-\d{2}-\d{2}$/, 'must be a day such as 2026-03-01'),
  type: string().trim().max(60),
  map: string().matches(/^[a-z0-9-]{1,60}$/, 'No display map has such an id.'),
}).noUnknown();
export type QualityQuestion = Readonly<Partial<Record<'from' | 'to' | 'type' | 'map', string>>>;

/** How a step went over many visits. */
export interface QualityOfStep {
  readonly step: StepId;
  readonly visits: number;
  /** Visits in which it was right at first. */
  readonly firstRight: number;
  /** Geometric mean of active minutes: what a usual visit takes. */
  readonly minutes: number;
}

/** How many visits were right at first in every step, of one type or display. */
export interface QualityOfKind {
  readonly name: string;
  readonly visits: number;
  readonly firstRight: number;
  readonly minutes: number;
}

/** A code that was typed otherwise than it read, or disputed: a map that invites errors. */
export interface QualityOfCode {
  readonly mapId: string;
  readonly map: string;
  readonly label: string;
  readonly visits: number;
  readonly slips: number;
  readonly disputes: number;
}

export interface QualityOfHold {
  readonly reason: HoldReason;
  readonly holds: number;
  /** Geometric mean, and all of them together. */
  readonly usualHours: number;
  readonly allHours: number;
}

/** Of somebody who agreed to it. */
export interface QualityOfPerson extends QualityOfKind {
  readonly userId: string;
}

export interface QualityView {
  readonly visits: number;
  readonly steps: readonly QualityOfStep[];
  readonly types: readonly QualityOfKind[];
  readonly displays: readonly QualityOfKind[];
  readonly codes: readonly QualityOfCode[];
  readonly holds: readonly QualityOfHold[];
  readonly persons: readonly QualityOfPerson[];
  /** People who worked on them and did not agree to be counted one by one. */
  readonly uncounted: number;
}

/** Whether one's own work may be counted for oneself, for leads to see. */
export const countedRequest = object({ agrees: boolean().strict().required() }).noUnknown();
export interface CountedView {
  readonly agrees: boolean;
}
