import { describe, expect, it } from 'vitest';
import { houseRulesSchema, rulePackSchema } from '@decurio/contract';
import { STANDARD_CHOICES } from '@decurio/core';
import { slipsIn } from './slips.js';

describe('slips in a document', () => {
  it('stand at the field a form knows, the first one of each', () => {
    const slips = slipsIn(rulePackSchema, {
      format: 'decurio-rule-pack/3',
      id: 'A b',
      name: '',
      place: 'x',
      classes: [{ limit: { value: 0, unit: 'km/h' } }],
    });
    expect(slips).toMatchObject({
      id: 'Lower-case letters, digits and hyphens.',
      name: 'This cannot be empty.',
      'classes.0.limit.value': 'A speed above zero.',
      'classes.0.title': 'This cannot be empty.',
    });
  });

  it('are none in a sound one', () => {
    expect(
      slipsIn(houseRulesSchema, {
        format: 'decurio-house-rules/4',
        id: 'hire',
        name: 'Hire',
        customer: null,
        choices: STANDARD_CHOICES,
      }),
    ).toEqual({});
  });
});
