import type { Gesture } from '../map/gesture.js';
import type { Glass } from '../machine/display-state.js';

/** A gesture, or waiting until a message has passed or the menu has closed by itself. */
export type PlanGesture = Gesture | { readonly kind: 'wait'; readonly ms: number };

/** What a step is for: to power up, choose a ride mode, open, give the PIN, pass to a page, an item, change, store, leave, or let time pass. */
export type StepPurpose = 'power' | 'mode' | 'open' | 'pin' | 'page' | 'move' | 'change' | 'store' | 'close' | 'wait';

/** One step of a plan, with what the glass shows before and after it, and the code it serves. */
export interface PlanStep {
  readonly gesture: PlanGesture;
  readonly purpose: StepPurpose;
  /** The code that this step brings nearer to its target, or that is read next; null for opening and leaving. */
  readonly serves: string | null;
  /** Values that this step puts into store, those included that a change drags along. */
  readonly stores: readonly { readonly label: string; readonly raw: number }[];
  /** Time of this step at the plan's pace, a look at a new item included, ms. */
  readonly ms: number;
  readonly before: Glass;
  readonly after: Glass;
  /** What to beware of before this very press. */
  readonly caution: string | null;
}

export interface Unreachable {
  readonly label: string;
  readonly why: string;
}

export interface KeyPlan {
  readonly steps: readonly PlanStep[];
  readonly estimatedMs: number;
  /** Longest time between two presses inside the menu, ms. */
  readonly longestGapMs: number;
  /** Codes that no key sequence of this map can bring to their target, each with the reason. */
  readonly unreachable: readonly Unreachable[];
  /** Whether no cheaper sequence exists; false where codes hang together in too many ways to try them all. */
  readonly isShortest: boolean;
  /** No sequence is cheaper than this, ms: as long as the plan where that is the shortest. */
  readonly atLeastMs: number;
}

/** What is known when the plan begins: values as last seen, and where the glass stands. */
export interface PlanStart {
  readonly values: Readonly<Record<string, number>>;
  /** The code on the glass, or null while the menu is closed. */
  readonly at: string | null;
  /** Its value on the glass, where that may not be in store yet: `values` has what is. */
  readonly shown?: number;
  /** Whether its value is being edited, where a display shows that. */
  readonly focus?: 'name' | 'value';
  /** The code at which the menu closed by itself, where known: some displays open there again. */
  readonly closedAt?: string;
  /** The display is dark. */
  readonly off?: boolean;
  /** The ride mode that is on, where known. */
  readonly mode?: string;
}

/** Presses of a plan, waits left out. */
export const pressCount = (plan: Pick<KeyPlan, 'steps'>): number =>
  plan.steps.filter(({ gesture }) => gesture.kind !== 'wait').length;
