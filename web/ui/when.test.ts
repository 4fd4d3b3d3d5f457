import { expect, it } from 'vitest';
import { lateBy } from './when.js';

it.each([
  [0, 'now'],
  [1, 'by 1 min'],
  [59, 'by 59 min'],
  [61, 'by 1 h'],
  [47 * 60 + 59, 'by 47 h'],
  [48 * 60, 'by 2 days'],
  [400 * 24 * 60, 'by 400 days'],
])('an order that is %i minutes late is late %s', (minutes, words) => expect(lateBy(minutes)).toBe(words));
