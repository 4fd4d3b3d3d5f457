import type { FamilyRun, SamplingAdvice } from '@decurio/core';
import { object, string, type InferType } from 'yup';

/** Units of one type, display revision and tyre, and what the ones that were run tell. */
export interface LearntFamily {
  readonly typeId: string;
  readonly typeTitle: string;
  readonly mapId: string;
  readonly mapName: string;
  readonly revision: string;
  readonly tyre: string;
  /** Where its tyre batch began; null where all that was ever run counts. */
  readonly since: { readonly words: string; readonly by: string; readonly at: string } | null;
  /** Oldest first, as if each had been run with the codes of the newest. */
  readonly runs: readonly FamilyRun[];
  readonly advice: SamplingAdvice;
  /** Where drive was seen to act farther beyond its cap than the map says, on units of this type and display, the farthest first; and what a lead left out of them. */
  readonly overshoots: readonly SeenOvershoot[];
  /** The wheel value that the ratios count with. */
  readonly wheelRaw: number | null;
  readonly wheelMm: number | null;
}

/** Of one unit: where drive ended beyond its cap, km/h as the display shows them. */
export interface SeenOvershoot {
  readonly visitId: string;
  readonly serial: string;
  readonly kmh: number;
  readonly leftOut: { readonly words: string; readonly by: string } | null;
}

export const newBatchRequest = object({
  typeId: string()
    .strict()
    .matches(/^[a-z0-9-]{1,60}$/)
    .required(),
  tyre: string().strict().min(1).max(60).required(),
  words: string()
    .strict()
    .trim()
    .min(3, 'Say in a few words what is new: a delivery, another maker, another pressure.')
    .max(200)
    .required(),
}).noUnknown();
/** Leaves what one unit showed out of what its family is learnt from, with the reason; empty words take it in again. */
export const leaveOutRequest = object({
  visitId: string().strict().uuid().required(),
  words: string()
    .strict()
    .trim()
    .max(200)
    .defined()
    .test(
      'why',
      'Say in a few words why it is no measure of the others: a flat tyre, another wheel.',
      (words) => words === '' || words.length >= 3,
    ),
}).noUnknown();
export type LeaveOutRequest = InferType<typeof leaveOutRequest>;

export type NewBatchRequest = InferType<typeof newBatchRequest>;
