import type { StepId } from '../../bench/steps.js';

/** A stretch in which somebody is there or something is open; whole seconds from the problem's start, `toS` not included. */
export interface OpenTime {
  readonly fromS: number;
  readonly toS: number;
}

/** What a person may do: hands on at a stand, ride and prove, answer for a unit. */
export const SKILLS = { bench: 'works at a stand', ride: 'rides and proves', sign: 'signs off' } as const;
export type Skill = keyof typeof SKILLS;

export interface PlanPerson {
  readonly id: string;
  readonly name: string;
  readonly skills: readonly Skill[];
  /** Without breaks, in order of time, apart from each other. */
  readonly hours: readonly OpenTime[];
}

/** What takes one vehicle, or one pack, at a time. */
export type PlaceKind = 'yard' | 'roller' | 'post';

export interface PlanPlace {
  readonly id: string;
  readonly name: string;
  readonly kind: PlaceKind;
  readonly hours: readonly OpenTime[];
  /** Of a post: the packs it takes, as tasks name them; null for all, and of anything else. */
  readonly packs: readonly string[] | null;
}

/** What is to be done at a unit, one after the other. Lengths are whole seconds. */
export type PlanTask = HandsTask | WaitTask | ChargeTask;

interface AnyTask {
  /** Its own among all tasks of the problem. */
  readonly id: string;
  readonly step: StepId;
  readonly lengthS: number;
}

export interface HandsTask extends AnyTask {
  readonly kind: 'hands';
  readonly skill: Skill;
  /** `aside`: wherever it stands, and no stand is taken by it: what is signed. */
  readonly at: 'stand' | 'aside' | 'yard' | 'roller';
  /** Persons who may not: whoever keyed where somebody else has to read. */
  readonly notBy: readonly string[];
  /** An earlier task of the unit; whoever does that may not do this. */
  readonly apartFrom: string | null;
}

/** It restarts or is watched; it stays where it stands, and nobody's hands are on it. */
export interface WaitTask extends AnyTask {
  readonly kind: 'wait';
}

/** Its pack is charged at a post; it is off the stand, and in nobody's hands. */
export interface ChargeTask extends AnyTask {
  readonly kind: 'charge';
  readonly pack: string;
}

export interface PlanUnit {
  readonly id: string;
  readonly name: string;
  readonly orderId: string;
  /** Units of one kind need no set-up between them: type and display. */
  readonly kind: string;
  readonly arrivesS: number;
  /** Who has it or is to have it; null where that is the plan's to say. */
  readonly owner: string | null;
  /** It stands at a stand in its owner's hands already. */
  readonly inHand: boolean;
  /** Units that have to be done before it is begun. */
  readonly after: readonly string[];
  readonly tasks: readonly PlanTask[];
}

export interface PlanOrder {
  readonly id: string;
  readonly name: string;
  /** Null where nothing was promised. */
  readonly dueS: number | null;
  /** What a second of lateness counts, above 0. */
  readonly weight: number;
}

/** The work of some days, with all that it needs. Plain data; second 0 is now. */
export interface PlanProblem {
  readonly people: readonly PlanPerson[];
  readonly places: readonly PlanPlace[];
  /** Vehicles that can stand at stands at once, at least 1. */
  readonly stands: number;
  /** Units that one person has in hand at once, at least 1. */
  readonly weave: number;
  /** Seconds it takes a person to go on at another kind of unit, and at another place. */
  readonly setupS: { readonly kind: number; readonly place: number };
  readonly orders: readonly PlanOrder[];
  readonly units: readonly PlanUnit[];
}

/** Why a unit cannot be laid out. */
export type Unplaceable =
  /** Nobody who is there has the skill a step of it needs. */
  | 'noSkill'
  /** Whoever has the skill may not: somebody else has to. */
  | 'nobodyElse'
  /** The place it needs is not there, or never open. */
  | 'noPlace'
  /** No post takes its pack. */
  | 'noPost'
  /** It waits for units that wait for it. */
  | 'waitsInCircle'
  /** It waits for a unit that cannot be laid out. */
  | 'waitsForUnplaced'
  /** People and places are there, but never long enough before the horizon. */
  | 'noTime';

/** One task with its time; the tasks of a plan stand in order of their start. */
export interface PlannedTask {
  readonly id: string;
  readonly unitId: string;
  readonly step: StepId;
  readonly kind: PlanTask['kind'];
  readonly startS: number;
  readonly endS: number;
  readonly personId: string | null;
  readonly placeId: string | null;
  /** It is longer than anybody is there at a stretch, and goes on after breaks. */
  readonly isSplit: boolean;
}

export interface PlannedOrder {
  readonly orderId: string;
  /** When the last of its units that can be laid out is done; null where it has none. */
  readonly readyS: number | null;
  /** Seconds after it was due; 0 where it is in time. */
  readonly lateS: number;
}

/** How good a plan is; the smaller, the better, and the former goes before the latter. */
export interface PlanCost {
  /** Units that could not be laid out. */
  readonly unplaced: number;
  /** Seconds late of all orders, each times its weight. */
  readonly lateS: number;
  /** Seconds until each unit is done, over all: the work in hand, and on the floor. */
  readonly workS: number;
  /** How often somebody goes to another place or another kind of unit. */
  readonly changes: number;
}

export interface DayPlan {
  readonly tasks: readonly PlannedTask[];
  readonly orders: readonly PlannedOrder[];
  readonly unplaced: readonly { readonly unitId: string; readonly why: Unplaceable }[];
  readonly cost: PlanCost;
}
