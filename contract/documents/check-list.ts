import type { Check, CheckAsks, CheckList } from '@decurio/core';
import { array, lazy, type Schema } from 'yup';
import { id, oneOf, positive, strictly, text, whole } from './shapes.js';

const torque = strictly({ kind: oneOf('torque'), fromNm: positive(200), toNm: positive(200) }).test(
  'rising',
  '"toNm" lies below "fromNm".',
  (asks: object | null) => asks === null || !(Number((asks as Torque).toNm) < Number((asks as Torque).fromNm)),
);
type Torque = Extract<CheckAsks, { readonly kind: 'torque' }>;

const ASKS = {
  look: strictly({ kind: oneOf('look') }),
  torque,
  pressure: strictly({ kind: oneOf('pressure') }),
  stops: strictly({ kind: oneOf('stops'), least: whole(200) }),
} as const;

/** Each kind of check has fields of its own; an unknown kind is told so by `look`'s. */
const asks = lazy((value: unknown) => {
  const kind = (typeof value === 'object' && value !== null ? value : {}) as { readonly kind?: unknown };
  return typeof kind.kind === 'string' && Object.hasOwn(ASKS, kind.kind)
    ? ASKS[kind.kind as keyof typeof ASKS]
    : strictly({ kind: oneOf(...(Object.keys(ASKS) as (keyof typeof ASKS)[])) });
});

const check = strictly({
  id: id(),
  title: text(60),
  how: text(240),
  step: oneOf('checkIn', 'prove'),
  of: oneOf('every', 'sample'),
  asks: asks as unknown as Schema<CheckAsks>,
}) as unknown as Schema<Check>;

/** `decurio-check-list/1`. */
export const checkListSchema = strictly({
  format: oneOf('decurio-check-list/1'),
  id: id(),
  name: text(60),
  kind: oneOf('bike', 'scooter', 'any'),
  checks: array(check)
    .min(1, 'A list holds at least one check.')
    .max(60, 'At most sixty checks.')
    .required()
    .test(
      'unique',
      'Two checks have the same id.',
      (checks) => new Set(checks.map((each) => each?.id)).size === checks.length,
    ),
}) as unknown as Schema<CheckList>;
