import { expect, it } from 'vitest';
import { FUNCTIONS, functionsCalled, functionTitle, type CodeFunction } from './functions.js';

const ALL = Object.keys(FUNCTIONS) as CodeFunction[];

it('finds a function by its title and by what papers call it', () => {
  for (const name of ALL) expect(functionsCalled(functionTitle(name).toUpperCase())).toContain(name);
  expect(functionsCalled('auto off')).toEqual(['autoOff']);
  expect(functionsCalled(' Battery volt')).toEqual(['nominalVoltage']);
  expect(functionsCalled('')).toEqual(ALL);
  expect(functionsCalled('teapot')).toEqual([]);
});
