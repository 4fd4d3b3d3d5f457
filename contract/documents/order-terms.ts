import type { Choices, OrderTerms, PrivateLand, UnitOverride } from '@decurio/core';
import { HOUSE_CHOICES } from '@decurio/core';
import { mixed, number, object, string, type Schema } from 'yup';
import { day, oneOf, orNull, speed, strictly, text, yesNo } from './shapes.js';

export const privateLandSchema = strictly({
  authorityBy: text(80),
  acknowledgement: text(200),
  endsOn: day(),
  label: text(80),
  isUncapped: yesNo(),
}) as unknown as Schema<PrivateLand>;

/** What a person may set of an order's terms; who gave the authority and what a lead decided comes from the session. */
export const askedTermsSchema = strictly({
  siteLimit: orNull(speed()),
  orderLimit: orNull(speed()),
  throttle: oneOf('asClass', 'none'),
  privateLand: orNull(strictly({ acknowledgement: text(200), endsOn: day(), label: text(80), isUncapped: yesNo() })),
}) as unknown as Schema<AskedTerms>;

export type AskedTerms = Pick<OrderTerms, 'siteLimit' | 'orderLimit' | 'throttle'> & {
  readonly privateLand: Omit<PrivateLand, 'authorityBy'> | null;
};

/** Some answers of the house rules, for one unit. */
export const someChoicesSchema = object(
  Object.fromEntries(
    HOUSE_CHOICES.map(({ choice, answers, number: limits }) => [
      choice,
      answers
        ? string()
            .strict()
            .oneOf(answers.map((answer) => String(answer.value)))
        : number()
            .strict()
            .min(limits?.min ?? 0)
            .max(limits?.max ?? 100),
    ]),
  ),
).noUnknown() as unknown as Schema<Partial<Choices>>;

export const overrideSchema = strictly({
  choices: mixed<Partial<Choices>>()
    .required()
    .test('choices', 'An answer that is not one of the house rules.', (value) =>
      someChoicesSchema.isValidSync(value, { strict: true }),
    ),
  limit: orNull(speed()),
  why: text(300).min(3, 'Say in a few words why.'),
}) as unknown as Schema<Omit<UnitOverride, 'by'>>;
