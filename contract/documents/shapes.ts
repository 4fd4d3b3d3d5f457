import type { Speed } from '@decurio/core';
import { boolean, number, object, string, type ObjectShape, type Schema } from 'yup';

/** Pieces that documents of the library share. Every message says what to do. */
export const id = () =>
  string()
    .strict()
    .matches(/^[a-z0-9-]{1,60}$/, 'Lower-case letters, digits and hyphens.')
    .required('Name an id.');
export const text = (most: number) =>
  string()
    .strict()
    .max(most, `At most ${most} letters.`)
    .trim('No spaces at the ends.')
    .required('This cannot be empty.');
export const words = (most: number) =>
  string()
    .strict()
    .typeError('Text, or nothing at all.')
    .max(most, `At most ${most} letters.`)
    .defined('Leave it empty rather than out.');
export const amount = () => number().strict().typeError('Type a number.').required('Type a number.');
export const positive = (most: number) =>
  amount().positive('Above zero.').max(most, `At most ${most}: look at the unit once more.`);
export const whole = (most: number) => positive(most).integer('A whole number.');
export const yesNo = () => boolean().strict().typeError('Yes or no.').required('Yes or no.');
export const oneOf = <T extends string>(...values: readonly T[]) =>
  string()
    .strict()
    .oneOf(values, `One of: ${values.join(', ')}.`)
    .required(`One of: ${values.join(', ')}.`);
export const day = () =>
  string()
    .strict()
    .matches(/^\d{4}-\d\d-\d\d$/, 'A day such as 2026-12-31.')
    .test('calendar', 'There is no such day.', isDay)
    .required('A day such as 2026-12-31.');

function isDay(value: string | undefined): boolean {
  const at = new Date(`${value}T00:00:00Z`);
  return !Number.isNaN(at.getTime()) && at.toISOString().slice(0, 10) === value;
}

export const strictly = <T extends ObjectShape>(fields: T) =>
  object(fields)
    .noUnknown('${unknown} does not belong here.')
    .strict()
    .typeError('Fields in curly brackets.')
    .required('This part is missing.');

/** Null, or what `schema` says; never left out. */
export const orNull = <S extends Schema>(schema: S): S => (schema as unknown as { nullable: () => S }).nullable();

/** A speed in the unit it was laid down in. Faster than 130 km/h no such vehicle is limited to. */
export const speed = () =>
  strictly({
    value: amount().positive('A speed above zero.').max(130, 'No such vehicle is limited to more than 130.'),
    unit: oneOf('km/h', 'mph'),
  }) as unknown as Schema<Speed>;
