import { expect, it } from 'vitest';
import { amountIn } from './amount-in.js';

it.each([
  ['', null],
  ['-', null],
  ['0.', 0],
  ['0.5', 0.5],
  ['-3', -3],
  [7, 7],
  [Number.NaN, null],
])('%j is %j', (typed, amount) => {
  expect(amountIn(typed)).toBe(amount);
});
