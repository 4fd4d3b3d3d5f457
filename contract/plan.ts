import type { Moved, StepId, Tightest, Unplaceable } from '@decurio/core';
import { array, lazy, number, object, string, type Schema } from 'yup';

/** One bar of the plan. Times are ms since 1970. */
export interface PlanBar {
  readonly unitId: string;
  readonly orderId: string;
  readonly step: StepId;
  /** What is done to it: hands at the stand, a ride in the yard, a proof, a signature; a wait, or charging. */
  readonly tone: 'stand' | 'ride' | 'prove' | 'sign' | 'wait' | 'charge';
  readonly fromMs: number;
  readonly toMs: number;
  readonly personId: string | null;
  readonly placeId: string | null;
}

export interface PlanHours {
  readonly fromMs: number;
  readonly toMs: number;
}

export interface PlanPersonView {
  readonly id: string;
  readonly name: string;
  /** Whether this is whoever asks. */
  readonly isYou: boolean;
  readonly skills: readonly string[];
  readonly hours: readonly PlanHours[];
}

export interface PlanPlaceView {
  readonly id: string;
  readonly name: string;
  readonly kind: 'yard' | 'roller' | 'post';
  readonly hours: readonly PlanHours[];
}

/** By when something is ready, ms since 1970, with so many of 100. */
export type ReadyBy = Readonly<Record<50 | 80 | 90 | 95, number>>;

export interface PlanOrderView {
  readonly id: string;
  readonly number: string;
  readonly customer: string;
  /** Null where it could not be read. */
  readonly dueMs: number | null;
  readonly left: number;
  readonly units: number;
  readonly readyMs: number | null;
  readonly readyBy: ReadyBy | null;
  /** Of 100 that it is in time. */
  readonly inTime: number | null;
  readonly tightest: Tightest | null;
}

export interface PlanUnitView {
  readonly id: string;
  readonly serial: string;
  readonly typeName: string;
  readonly orderId: string;
  readonly status: 'waiting' | 'open' | 'held';
  /** To whom it was given by a lead; null where the plan chose. */
  readonly givenTo: string | null;
}

/** Something a person should know of how the plan came about. */
export interface PlanNote {
  readonly code:
    | 'noCrew'
    | 'noShop'
    | 'nobodyThere'
    | 'noYard'
    | 'nobodySigns'
    | 'duePast'
    | 'dueUnread'
    | 'unitLong'
    | 'tooMany'
    | 'clocksMove'
    | 'heldReckoned'
    | 'nothingSeen';
  readonly says: string;
}

/** What moved when the plan was made anew, and what set it off. */
export interface PlanMoves {
  readonly atMs: number;
  readonly why: string;
  readonly moved: readonly (Omit<Moved, 'from' | 'to'> & {
    readonly from: { readonly personId: string | null; readonly atMs: number } | null;
    readonly to: { readonly personId: string | null; readonly atMs: number } | null;
  })[];
}

/** The plan as everybody sees it. */
export interface PlanView {
  readonly revision: number;
  readonly madeAtMs: number;
  /** The house's zone: hours of the day are read in it. */
  readonly zone: string;
  readonly people: readonly PlanPersonView[];
  readonly places: readonly PlanPlaceView[];
  readonly orders: readonly PlanOrderView[];
  readonly units: readonly PlanUnitView[];
  readonly bars: readonly PlanBar[];
  readonly unplaced: readonly { readonly unitId: string; readonly why: Unplaceable }[];
  /** How far from the best there can be it is at most, as a share. */
  readonly gap: number;
  /** Seconds that all orders together are late at most beyond the least there can be. */
  readonly beyondS: number;
  readonly moves: PlanMoves | null;
  readonly notes: readonly PlanNote[];
  /** What whoever asks does next, with the reason. */
  readonly nextForYou: readonly NextUnit[];
}

export interface NextUnit {
  readonly unitId: string;
  readonly serial: string;
  readonly step: StepId;
  readonly atMs: number;
  readonly because: string;
}

const ms = () => number().strict().integer().min(0).max(8e15);
const idText = () => string().strict().max(60);

const changes = {
  stays: { personId: idText().required(), untilMs: ms().required() },
  leaves: { personId: idText().required(), fromMs: ms().required(), untilMs: ms().required() },
  opens: { placeId: idText().required(), untilMs: ms().required() },
  shuts: { placeId: idText().required(), fromMs: ms().required(), untilMs: ms().required() },
  due: { orderId: string().uuid().required(), dueMs: ms().required() },
  proved: {
    vehicle: string().oneOf(['bike', 'scooter']).required(),
    at: string().oneOf(['yard', 'roller']).required(),
  },
  follow: { orderId: string().uuid().required(), units: number().strict().integer().min(1).max(3000).required() },
  takes: {
    typeId: idText().required(),
    units: number().strict().integer().min(1).max(300).required(),
    dueMs: ms().required(),
  },
  give: { unitId: string().uuid().required(), personId: idText().nullable().defined() },
} as const;

/** One thing that could be otherwise, as a person says it. */
export type AskedChange =
  | { readonly kind: 'stays'; readonly personId: string; readonly untilMs: number }
  | { readonly kind: 'leaves'; readonly personId: string; readonly fromMs: number; readonly untilMs: number }
  | { readonly kind: 'opens'; readonly placeId: string; readonly untilMs: number }
  | { readonly kind: 'shuts'; readonly placeId: string; readonly fromMs: number; readonly untilMs: number }
  | { readonly kind: 'due'; readonly orderId: string; readonly dueMs: number }
  | { readonly kind: 'proved'; readonly vehicle: 'bike' | 'scooter'; readonly at: 'yard' | 'roller' }
  | { readonly kind: 'follow'; readonly orderId: string; readonly units: number }
  | { readonly kind: 'give'; readonly unitId: string; readonly personId: string | null }
  /** One more order of so many units of a type, there from now on. */
  | { readonly kind: 'takes'; readonly typeId: string; readonly units: number; readonly dueMs: number };

const change = lazy((value: unknown) => {
  const kind = (value as { readonly kind?: unknown } | null)?.kind;
  const fields = typeof kind === 'string' && Object.hasOwn(changes, kind) ? changes[kind as keyof typeof changes] : {};
  return object({ kind: string().oneOf(Object.keys(changes)).required(), ...fields })
    .noUnknown()
    .required();
}) as unknown as Schema<AskedChange>;

/** Scenarios to hold against each other, each a few changes. */
export const whatIfRequest = object({
  revision: number().strict().integer().min(0).required(),
  scenarios: array(array(change).min(1).max(8).required()).min(1).max(6).required(),
  look: string()
    .oneOf(['atOnce', 'careful'] as const)
    .required(),
}).noUnknown();
export interface WhatIfRequest {
  readonly revision: number;
  readonly scenarios: readonly (readonly AskedChange[])[];
  /** `atOnce`: how it would be laid out, while somebody drags; `careful`: with the chances of every order. */
  readonly look: 'atOnce' | 'careful';
}

export interface ScenarioOrder {
  readonly orderId: string;
  readonly readyMs: number | null;
  readonly readyBy: ReadyBy | null;
  readonly inTime: number | null;
}

/** How orders would stand; chances are null where they were not asked for. */
export interface Scenario {
  readonly orders: readonly ScenarioOrder[];
  /** Orders that would be taken in, under ids of their own, as they were asked. */
  readonly tried: readonly ScenarioOrder[];
  readonly moved: PlanMoves['moved'];
  readonly unplaced: number;
}

/** Changes that are kept, seen on this revision of the plan. */
export const keepChangesRequest = object({
  revision: number().strict().integer().min(0).required(),
  changes: array(change).min(1).max(8).required(),
}).noUnknown();
export interface KeepChangesRequest {
  readonly revision: number;
  readonly changes: readonly AskedChange[];
}

/** What is offered: so many units of types, with their displays, and by when. */
export const offerRequest = object({
  units: array(
    object({
      typeId: idText().required(),
      mapId: idText().nullable().defined(),
      count: number().strict().integer().min(1).max(2000).required(),
    }).noUnknown(),
  )
    .min(1)
    .max(12)
    .required(),
  wanted: string()
    .strict()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/, 'A day and time such as 2026-12-03T15:00.')
    .nullable()
    .defined(),
  arrives: string()
    .strict()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/, 'A day and time such as 2026-12-03T15:00.')
    .nullable()
    .defined(),
}).noUnknown();
export interface OfferRequest {
  /** A display of null is the first that the type may carry. */
  readonly units: readonly { readonly typeId: string; readonly mapId: string | null; readonly count: number }[];
  readonly wanted: string | null;
  readonly arrives: string | null;
}

/** What can be promised of it. */
export interface OfferView {
  /** Behind all that was promised: makes nothing later. */
  readonly behind: ReadyBy | null;
  readonly wanted: {
    readonly inTime: number | null;
    readonly readyBy: ReadyBy | null;
    readonly pushes: readonly {
      readonly number: string;
      readonly customer: string;
      readonly lateS: { readonly before: number; readonly after: number };
      readonly inTime: { readonly before: number | null; readonly after: number | null };
    }[];
  } | null;
}

/** What places beside Plan show of it. */
export interface PlanOutlook {
  readonly orders: readonly OrderForecastView[];
  readonly nextForYou: readonly NextUnit[];
}

export interface OrderForecastView {
  readonly orderId: string;
  readonly readyBy: ReadyBy | null;
  readonly inTime: number | null;
  readonly dueMs: number | null;
}

export const afterwardsQuery = object({
  from: string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, 'must be a day such as 2026-03-01')
    .required(),
  to: string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, 'must be a day such as 2026-03-01')
    .required(),
}).noUnknown();
export interface AfterwardsQuery {
  readonly from: string;
  readonly to: string;
}

/** What was planned and what came of it. */
export interface AfterwardsView {
  readonly steps: readonly {
    readonly step: StepId;
    readonly units: number;
    /** Minutes a unit, on the average. */
    readonly planned: number;
    readonly real: number;
  }[];
  readonly orders: readonly {
    readonly number: string;
    readonly customer: string;
    readonly saidAtMs: number;
    readonly said: ReadyBy;
    /** When its last unit was sealed; null where some are not. */
    readonly readyMs: number | null;
  }[];
}
