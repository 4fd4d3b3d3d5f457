import { QUANTITIES, type QuantityId, type TrialPlan, type TrialRun } from '@decurio/core';
import { array, number, object, string, type InferType } from 'yup';
import { id as docId } from './documents/shapes.js';

const uuid = () => string().strict().uuid().required();
const raw = () => number().strict().required();

/** Most runs that one trial keeps. */
export const MOST_RUNS = 200;

export const newTrialRequest = object({
  id: uuid(),
  mapId: docId(),
  mapVersion: number().strict().integer().min(1).required(),
  label: string().strict().min(1).max(12).required('Choose the code first.'),
  values: array(raw())
    .min(2, 'Two values at least: one alone shows nothing.')
    .max(4, 'Four values at most: more would take a day.')
    .test('once', 'Each value once.', (values) => new Set(values).size === (values ?? []).length)
    .required(),
  quantity: string()
    .oneOf(Object.keys(QUANTITIES) as QuantityId[])
    .required(),
  each: number()
    .strict()
    .integer('A whole number.')
    .min(2, 'Two runs of each at least.')
    .max(20, 'Twenty of each at first; more can be added.')
    .required(),
  matters: number()
    .strict()
    .moreThan(0, 'More than nothing.')
    .max(10_000)
    .required('Say which difference would matter.'),
  seed: number().strict().integer().min(0).max(2_147_483_647).required(),
  unit: string().strict().trim().min(1, 'Say on which unit, by its serial.').max(40).required(),
}).noUnknown();
export interface NewTrial extends TrialPlan {
  readonly id: string;
  readonly mapId: string;
  readonly mapVersion: number;
  readonly unit: string;
}

export const trialRunRequest = object({
  /** 1 for the first: what is sent twice stands once. */
  n: number().strict().integer().min(1).max(MOST_RUNS).required(),
  raw: raw(),
  measured: number().strict().min(0, 'Not below zero.').max(100_000).required('Type what was measured.'),
}).noUnknown();
export type NewTrialRun = InferType<typeof trialRunRequest>;

export const takeRunBackRequest = object({
  n: number().strict().integer().min(1).max(MOST_RUNS).required(),
}).noUnknown();
export type TakeRunBack = InferType<typeof takeRunBackRequest>;

export const moreRunsRequest = object({
  /** How many runs of each are drawn already. */
  drawn: number().strict().integer().min(2).required(),
  each: number().strict().integer().min(1).max(60).required(),
}).noUnknown();
export type MoreRuns = InferType<typeof moreRunsRequest>;

export const endTrialRequest = object({
  words: string().strict().trim().min(3, 'Say in a few words what follows.').max(300).required(),
  /** The version of the map that was written by it; null where it changed nothing. */
  version: number().strict().integer().min(1).nullable().defined(),
}).noUnknown();
export type EndTrial = InferType<typeof endTrialRequest>;

/** A trial as it stands: whether a code of a display does anything. */
export interface TrialView {
  readonly id: string;
  readonly mapId: string;
  readonly mapVersion: number;
  readonly unit: string;
  readonly plan: TrialPlan;
  /** Further runs of each, drawn after the first. */
  readonly more: readonly number[];
  /** In the order in which they were made. */
  readonly runs: readonly (TrialRun & { readonly at: string; readonly by: string })[];
  readonly openedAt: string;
  readonly openedBy: string;
  readonly ended: {
    readonly at: string;
    readonly by: string;
    readonly words: string;
    readonly version: number | null;
  } | null;
}
