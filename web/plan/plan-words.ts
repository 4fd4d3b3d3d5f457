import type { AskedChange, PlanOrderView, PlanView } from '@decurio/contract';
import { riskOf, type Tightest, type Unplaceable } from '@decurio/core';
import { whenSoon } from '../ui/when.js';

/** `15:10`, or with its day where that is another. */
export const clockOf = (ms: number): string => whenSoon(ms);

/** May not be in time, or cannot be laid out at all. */
export const isAtRisk = ({ inTime, readyBy, left }: PlanOrderView): boolean =>
  left > 0 && (readyBy === null || riskOf(inTime) !== null);

export const isPast = ({ dueMs }: PlanOrderView, { madeAtMs }: Pick<PlanView, 'madeAtMs'>): boolean =>
  dueMs !== null && dueMs < madeAtMs;

const HELD_UP_BY = {
  people: 'Hands hold it up',
  yard: 'The yard holds it up',
  roller: 'The roller holds it up',
  post: 'Charging holds it up',
} as const;

/** `The yard holds it up: 5 h 40 of its 6 h are taken.` */
export const tightWords = ({ of, takenS, openS }: Tightest): string =>
  `${HELD_UP_BY[of]}: ${hoursWords(takenS)} of ${hoursWords(openS)} are taken until then.`;

export function hoursWords(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${String(rest).padStart(2, '0')}`;
}

export const WHY_UNPLACED: Readonly<Record<Unplaceable, string>> = {
  noSkill: 'nobody who is there may do one of its steps',
  nobodyElse: 'a second person is asked for, and there is none',
  noPlace: 'the place it needs is not there, or never open',
  noPost: 'no post takes its pack',
  waitsInCircle: 'it waits for units that wait for it',
  waitsForUnplaced: 'it waits for one that cannot be laid out',
  noTime: 'there is not enough time for it in three weeks',
};

export const MOVED_WHY = {
  gone: 'not to be planned any more',
  new: 'came in',
  personAway: 'whoever had it is not there then',
  placeShut: 'its place is shut then',
  chosen: 'given',
  arrivesLater: 'comes later',
  follows: 'makes room',
} as const;

const nameIn = (all: readonly { readonly id: string; readonly name: string }[], id: string | null): string =>
  all.find((each) => each.id === id)?.name ?? 'nobody';

/** A change as a person says it. */
export function changeWords(change: AskedChange, plan: PlanView): string {
  switch (change.kind) {
    case 'stays':
      return `${nameIn(plan.people, change.personId)} stays until ${clockOf(change.untilMs)}`;
    case 'leaves':
      return `${nameIn(plan.people, change.personId)} goes home at ${clockOf(change.fromMs)}`;
    case 'opens':
      return `${nameIn(plan.places, change.placeId)} open until ${clockOf(change.untilMs)}`;
    case 'shuts':
      return `${nameIn(plan.places, change.placeId)} shut from ${clockOf(change.fromMs)}`;
    case 'due':
      return `${orderNumber(plan, change.orderId)} due ${clockOf(change.dueMs)}`;
    case 'proved':
      return `${change.vehicle === 'bike' ? 'Bikes' : 'Scooters'} proved ${change.at === 'yard' ? 'in the yard' : 'on the roller'}`;
    case 'follow':
      return `${change.units === 1 ? 'One unit' : `${change.units} units`} of ${orderNumber(plan, change.orderId)} ${change.units === 1 ? 'follows' : 'follow'} later`;
    case 'takes':
      return `${change.units === 1 ? 'One unit' : `${change.units} units`} more, due ${clockOf(change.dueMs)}`;
    case 'give':
      return change.personId === null
        ? `${serialOf(plan, change.unitId)} left to the plan`
        : `${serialOf(plan, change.unitId)} to ${nameIn(plan.people, change.personId)}`;
  }
}

export const serialOf = (plan: Pick<PlanView, 'units'>, unitId: string): string =>
  plan.units.find(({ id }) => id === unitId)?.serial ?? 'a unit that is done';

export const orderNumber = (plan: Pick<PlanView, 'orders'>, orderId: string): string =>
  plan.orders.find(({ id }) => id === orderId)?.number ?? '';

/** What is kept with the plan; the rest is agreed elsewhere, and said where. */
export const isKeepable = (change: AskedChange): boolean => keptElsewhere(change) === null;

/** What else has to be done for a change that the plan cannot keep by itself. */
export const keptElsewhere = ({ kind }: AskedChange): string | null =>
  kind === 'due'
    ? 'When it is due was promised: amend the order.'
    : kind === 'follow'
      ? 'Agree it with the customer, then take the units out of the order.'
      : kind === 'takes'
        ? 'An order is taken in under Orders.'
        : null;
