import { describe, expect, it } from 'vitest';
import { fourKey } from '../../testing/samples.js';
import { codesFromTable } from './codes-from-table.js';
import { compareTable } from './compare-table.js';

const table = (...rows: readonly Record<string, string>[]) => codesFromTable(rows).codes;
const asIs = [
  { code: 'L1', function: 'units', min: '11', max: '12', factory: '12' },
  { code: 'L2', function: 'speed cap', min: '10', max: '32', factory: '30' },
  { code: 'L3', min: '31', max: '33', factory: '33' },
  { code: 'L4', min: '29', max: '34', step: '0.1', factory: '31', access: 'locked' },
  { code: 'L5', min: '5', max: '20', factory: '15' },
];

describe("a map against the maker's table", () => {
  it('has nothing to say where both agree; what the paper does not name counts for nothing', () => {
    expect(compareTable(fourKey, table(...asIs))).toEqual([]);
  });

  it('names a locked code that the paper calls settable, another range, another meaning', () => {
    const paper = table(
      asIs[0]!,
      { ...asIs[1]!, function: 'throttle cap', max: '40' },
      asIs[2]!,
      { ...asIs[3]!, access: '' },
      { ...asIs[4]!, factory: '14' },
    );
    expect(compareTable(fourKey, paper)).toEqual([
      {
        label: 'L2',
        kind: 'differs',
        says: 'the paper calls it throttle cap, the map speed cap; the paper says 10 to 40, the display 10 to 32.',
      },
      { label: 'L4', kind: 'differs', says: 'locked, although the paper says it can be set.' },
      { label: 'L5', kind: 'differs', says: 'delivered at 14 by the paper, 15 as seen.' },
    ]);
  });

  it('names codes that one of them lacks', () => {
    const paper = table(...asIs.slice(1), { code: 'L9', function: 'cruise', min: '0', max: '1' });
    expect(compareTable(fourKey, paper).map((d) => [d.label, d.kind])).toEqual([
      ['L1', 'onlyOnDisplay'],
      ['L9', 'onlyInTable'],
    ]);
  });
});
