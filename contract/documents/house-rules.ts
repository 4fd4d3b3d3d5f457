import { HOUSE_CHOICES, type Choices, type HouseRules } from '@decurio/core';
import type { Schema } from 'yup';
import { amount, id, oneOf, orNull, strictly, text } from './shapes.js';

const choices = strictly(
  Object.fromEntries(
    HOUSE_CHOICES.map(({ choice, answers, number }) => [
      choice,
      answers
        ? oneOf(...answers.map((answer) => String(answer.value)))
        : amount()
            .min(number?.min ?? 0, `Not below ${number?.min}.`)
            .max(number?.max ?? 100, `At most ${number?.max} ${number?.unit}.`),
    ]),
  ),
) as unknown as Schema<Choices>;

/** `decurio-house-rules/4`: an answer to every question of `HOUSE_CHOICES`. */
export const houseRulesSchema = strictly({
  format: oneOf('decurio-house-rules/4'),
  id: id(),
  name: text(60),
  customer: orNull(text(120)),
  choices,
}) as unknown as Schema<HouseRules>;
