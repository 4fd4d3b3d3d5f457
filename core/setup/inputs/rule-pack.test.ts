import { describe, expect, it } from 'vitest';
import { pedelec } from '../../testing/samples.js';
import { followParent, ownFields, type PackedClass, type RulePack } from './rule-pack.js';
import { riderRules, toldToRider } from './rider-rules.js';

const packed = (over: Partial<PackedClass> = {}): PackedClass => ({ ...pedelec, follows: null, ...over });
const country: RulePack = {
  format: 'decurio-rule-pack/3',
  id: 'country',
  name: 'Country',
  place: 'Country',
  parent: null,
  classes: [packed(), packed({ id: 'other', title: 'other' })],
};
const state: RulePack = {
  ...country,
  id: 'state',
  place: 'State',
  parent: { id: 'country', version: 1 },
  classes: [packed({ follows: pedelec.id, leastAge: 16 }), packed({ id: 'own', title: 'own' })],
};

describe('a pack that follows another', () => {
  it('names what is its own', () => {
    expect(ownFields(state.classes[0]!, country)).toEqual(['leastAge']);
    expect(ownFields(state.classes[1]!, country)).toEqual([]);
  });

  it('takes over what changed there, keeps what is its own, and loses the check of what changed', () => {
    const newer = {
      ...country,
      classes: country.classes.map((each) => ({ ...each, leastAge: 14, helmet: 'yes' as const })),
    };
    const { pack, changes } = followParent(state, country, newer, 2);
    expect(changes).toEqual([{ classId: pedelec.id, field: 'helmet', was: 'no', is: 'yes' }]);
    expect(pack.parent).toEqual({ id: 'country', version: 2 });
    expect(pack.classes[0]).toMatchObject({ helmet: 'yes', leastAge: 16, checked: null });
    expect(pack.classes[1]).toEqual(state.classes[1]);
  });

  it('keeps its check where nothing of it changed, and a class that the parent dropped as it is', () => {
    const same = followParent(state, country, country, 2).pack.classes[0];
    expect(same?.checked).toEqual(pedelec.checked);
    const dropped = followParent(state, country, { ...country, classes: [] }, 2);
    expect(dropped.changes).toEqual([]);
    expect(dropped.pack.classes[0]).toEqual({ ...state.classes[0], follows: null });
  });
});

describe('what a rider is told', () => {
  it('is what the class asks, with what is not sure said to be so', () => {
    const asks = {
      ...pedelec,
      leastAge: 16,
      helmet: 'yes' as const,
      insurance: 'decide' as const,
      riderNote: 'One rider',
      places: [{ where: 'Promenade', limit: { value: 6, unit: 'km/h' as const }, keptBy: 'code' as const }],
    };
    expect(riderRules(asks)).toEqual(['from 16 years', 'helmet', 'insurance: not sure', 'One rider']);
    expect(toldToRider(asks)).toEqual([
      'Whoever rides it: from 16 years, helmet, insurance: not sure. Ask the harbour office where it says "not sure".',
      'One rider.',
      'Promenade: at most 6 km/h, in the slow mode.',
    ]);
    expect(toldToRider(pedelec)).toEqual([]);
  });
});
