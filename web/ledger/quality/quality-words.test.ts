import { expect, it } from 'vitest';
import { hoursWords, minutesWords, percentOf } from './quality-words.js';

it('says figures as one reads them', () => {
  expect([percentOf(93, 100), percentOf(2, 3), percentOf(0, 0)]).toEqual(['93 %', '67 %', '–']);
  expect([minutesWords(0.75), minutesWords(6.42)]).toEqual(['45 s', '6.4 min']);
  expect([hoursWords(0.66), hoursWords(5.55), hoursWords(210.4)]).toEqual(['40 min', '5.5 h', '210 h']);
});
