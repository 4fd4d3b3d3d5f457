import { expect, it } from 'vitest';
import type { UnitMoved } from '@decurio/contract';
import { byCustomer } from './by-customer.js';

const unit = (serial: string, customer: string, grade: 'outOfClass' | 'harmless', isDecided = false): UnitMoved => ({
  visitId: serial,
  serial,
  customer,
  orderNumber: '1',
  reasons: [{ grade, says: grade === 'outOfClass' ? 'Too fast.' : 'Dimmer.' }],
  decided: isDecided ? { what: 'stays', words: 'so be it', by: 'Ines M.' } : null,
});

it('puts whoever has the most units out of class first, each reason once with its units', () => {
  const groups = byCustomer([
    unit('A1', 'Alder', 'harmless'),
    unit('A2', 'Alder', 'harmless'),
    unit('B1', 'Birch', 'outOfClass'),
    unit('B2', 'Birch', 'harmless', true),
  ]);
  expect(groups.map(({ customer }) => customer)).toEqual(['Birch', 'Alder']);
  expect(groups[0]?.open.map(({ serial }) => serial)).toEqual(['B1']);
  expect(groups[0]?.settled).toMatchObject([
    { what: 'stays', by: 'Ines M.', words: 'so be it', units: [{ serial: 'B2' }] },
  ]);
  expect(groups[0]?.reasons.map(({ says, serials }) => [says, serials])).toEqual([
    ['Too fast.', ['B1']],
    ['Dimmer.', ['B2']],
  ]);
  expect(groups[1]?.reasons).toEqual([{ says: 'Dimmer.', isGrave: false, serials: ['A1', 'A2'] }]);
});
