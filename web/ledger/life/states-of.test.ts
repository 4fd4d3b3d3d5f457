import { expect, it } from 'vitest';
import type { LifeVisit, UnitLife } from '@decurio/contract';
import { beInZone } from '../../ui/house-zone.js';
import { statesOf } from './states-of.js';

const visit = (visitId: string, states: LifeVisit['states']): LifeVisit => ({
  visitId,
  unitId: 'u',
  orderNumber: '1',
  customer: 'Sample',
  openedAt: '2026-03-01T08:00:00Z',
  sealedAt: null,
  sealedBy: null,
  handedTo: null,
  isDamaged: false,
  className: '',
  display: '',
  events: [],
  states,
});

it('offers every state over all visits, oldest first, and says whose where there are two units', () => {
  beInZone('UTC');
  const life: UnitLife = {
    serial: 'S26-0001',
    typeName: 'Sample',
    hasMore: false,
    elsewhere: [],
    visits: [
      visit('b', [{ key: 'left', kind: 'left', at: '2026-05-01T10:00:00Z' }]),
      visit('a', [
        { key: 'found', kind: 'found', at: '2026-03-01T08:00:00Z' },
        { key: 'back-1', kind: 'back', at: '2026-04-01T08:00:00Z' },
      ]),
    ],
  };
  expect(statesOf(life)).toEqual([
    { id: 'a.found', title: 'as found, 1 Mar 2026 08:00' },
    { id: 'a.back-1', title: 'as it came back, 1 Apr 2026 08:00' },
    { id: 'b.left', title: 'as it left, 1 May 2026 10:00' },
  ]);
  expect(statesOf(life, true)[2]?.title).toBe('S26-0001 as it left, 1 May 2026 10:00');
});
