import { speedWords, type Speed } from '../../speed/speed.js';
import type { OrderTerms } from './order-terms.js';

/** All that an order promises of its units; decisions taken on the way are none of it. */
export interface OrderPromise {
  readonly customer: string;
  readonly place: string;
  readonly rulePackId: string;
  readonly classId: string;
  readonly className: string;
  readonly houseRulesId: string;
  /** Local day and time, as 2026-11-27T16:00. */
  readonly dueAt: string;
  readonly notes: string;
  readonly terms: OrderTerms;
}

/** One thing that is promised otherwise, as a person reads it. */
export interface PromiseDifference {
  readonly what:
    | 'customer'
    | 'place'
    | 'class'
    | 'house rules'
    | 'due'
    | 'notes'
    | 'site limit'
    | 'order limit'
    | 'throttle'
    | 'private land';
  readonly was: string;
  readonly is: string;
}

/** Where two promises differ, in the order of the form. Compared by what they are, not by their words. */
export function promiseDifferences(was: OrderPromise, is: OrderPromise): readonly PromiseDifference[] {
  const same = (of: (promise: OrderPromise) => unknown): boolean => JSON.stringify(of(was)) === JSON.stringify(of(is));
  const rows: readonly (readonly [PromiseDifference['what'], (one: OrderPromise) => unknown, Words?])[] = [
    ['customer', ({ customer }) => customer],
    ['place', ({ rulePackId }) => rulePackId, ({ place }) => place],
    ['class', ({ classId }) => classId, ({ className }) => className],
    ['house rules', ({ houseRulesId }) => houseRulesId],
    ['due', ({ dueAt }) => dueAt, ({ dueAt }) => dueAt.replace('T', ' ')],
    ['notes', ({ notes }) => notes, ({ notes }) => notes || 'none'],
    ['site limit', ({ terms }) => inOrder(terms.siteLimit), ({ terms }) => limitWords(terms.siteLimit)],
    ['order limit', ({ terms }) => inOrder(terms.orderLimit), ({ terms }) => limitWords(terms.orderLimit)],
    ['throttle', ({ terms }) => terms.throttle, ({ terms }) => throttleWords(terms)],
    ['private land', ({ terms }) => land(terms), ({ terms }) => landWords(terms)],
  ];
  return rows.flatMap(([what, of, words = (one: OrderPromise) => String(of(one))]) =>
    same(of) ? [] : [{ what, was: words(was), is: words(is) }],
  );
}

type Words = (promise: OrderPromise) => string;

const inOrder = (speed: Speed | null): readonly [number, string] | null => speed && [speed.value, speed.unit];
const limitWords = (speed: Speed | null): string => (speed === null ? 'none' : speedWords(speed));
const throttleWords = ({ throttle }: OrderTerms): string =>
  throttle === 'none' ? 'none wanted' : 'as class and type allow';

/** Who gave the authority is not promised anew with every amendment. */
const land = ({ privateLand }: OrderTerms): unknown =>
  privateLand && Object.entries({ ...privateLand, authorityBy: '' }).toSorted(([a], [b]) => (a < b ? -1 : 1));
const landWords = ({ privateLand }: OrderTerms): string =>
  privateLand
    ? `until ${privateLand.endsOn}${privateLand.isUncapped ? ', uncapped' : ''}, label "${privateLand.label}"`
    : 'no';
