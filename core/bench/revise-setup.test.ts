import { describe, expect, it } from 'vitest';
import { compileSetup } from '../setup/compile/compile-setup.js';
import { PLAIN_TERMS } from '../setup/inputs/order-terms.js';
import type { SetupInputs } from '../setup/inputs/setup-inputs.js';
import { fourKey, inputs, stepThrough, withCodes } from '../testing/samples.js';
import {
  allKeyed,
  allRead,
  checkedIn,
  INES,
  keyed,
  opened,
  opening,
  read,
  refusalOf,
  restarted,
  stateAfter,
  type Act,
} from '../testing/visit-script.js';

const revised = (over: Partial<SetupInputs>): Act => {
  const {
    order,
    versions: { type, rulePack, houseRules },
    pack,
  } = opening;
  return [
    'setupRevised',
    {
      why: 'the site allows less',
      order,
      versions: { type, rulePack, houseRules },
      pack,
      setup: compileSetup(inputs(over)),
    },
    INES,
  ];
};
const slower = revised({ terms: { ...PLAIN_TERMS, siteLimit: { value: 20, unit: 'km/h' } } });
const readBackDone: readonly Act[] = [...allRead, ['readBackClosed', {}]];

describe('a setup worked out anew', () => {
  it('before key-in changes what is to be keyed', () => {
    const state = stateAfter([opened, checkedIn, slower]);
    expect(state).toMatchObject({ step: 'keyIn', round: 1, toKey: ['L1', 'L2', 'L3', 'L5'] });
    expect(state.opened.setup.targets[1]?.raw).toBe(20);
    expect(refusalOf([opened, checkedIn, slower, keyed('L2', 30, 25)])).toBe('notTarget');
  });

  it('asks again for a code that was keyed to the old target, and for no other', () => {
    expect(stateAfter([opened, checkedIn, keyed('L1', 12, 11), keyed('L2', 30, 25), slower]).toKey).toEqual([
      'L2',
      'L3',
      'L5',
    ]);
  });

  it('in the middle of read-back presumes what the glass showed, not what was keyed', () => {
    const misses = [read('L2', 30), read('L2', 30)];
    const state = stateAfter([opened, checkedIn, ...allKeyed, restarted, read('L1', 11), ...misses, slower]);
    expect(state).toMatchObject({ step: 'keyIn', toKey: ['L2'] });
    expect([state.values['L2'], state.atRoundStart['L2']]).toEqual([30, 30]);
    expect(Object.keys(state)).not.toContain('known');
  });

  it('brings a unit that was read back to key-in, with only the code that moved', () => {
    const state = stateAfter([opened, checkedIn, ...allKeyed, restarted, ...readBackDone, slower]);
    expect(state).toMatchObject({ step: 'keyIn', round: 2, toKey: ['L2'], toRead: ['L2'], held: null });
    expect(state.values['L2']).toBe(25);
    const again = stateAfter([
      opened,
      checkedIn,
      ...allKeyed,
      restarted,
      ...readBackDone,
      slower,
      keyed('L2', 25, 20),
      ['keyInClosed', {}],
      restarted,
      read('L2', 20),
      ['readBackClosed', {}],
    ]);
    expect(again.step).toBe('signOff');
    expect(again.verdicts.every((v) => v.verdict === 'agrees')).toBe(true);
  });

  it('in the middle of read-back keeps what was read and still stands', () => {
    const state = stateAfter([opened, checkedIn, ...allKeyed, restarted, read('L1', 11), read('L2', 25), slower]);
    expect(state).toMatchObject({ step: 'keyIn', toRead: ['L2', 'L3', 'L4', 'L5'] });
  });

  it('that changes nothing for this unit leaves it where it was', () => {
    expect(stateAfter([opened, checkedIn, ...allKeyed, restarted, ...readBackDone, revised({})])).toMatchObject({
      step: 'signOff',
      round: 1,
    });
  });

  it('holds where a locked code is now wrong, and where the new setup cannot be released', () => {
    const cells = { ...stepThrough, pack: { ...stepThrough.pack, cellsInSeries: 11 } };
    const locked = stateAfter([opened, checkedIn, ...allKeyed, restarted, ...readBackDone, revised({ type: cells })]);
    expect(locked.held?.reason).toBe('setup');
    const noCap = withCodes(
      fourKey,
      fourKey.codes.map((c) => (c.label === 'L2' ? { ...c, source: 'hearsay' as const } : c)),
    );
    expect(stateAfter([opened, revised({ map: noCap })]).held?.reason).toBe('setup');
    expect(stateAfter([opened, revised({ map: noCap }), revised({})]).held).toBeNull();
  });

  it('leaves another hold as it is', () => {
    expect(stateAfter([opened, ['held', { reason: 'damage', words: 'bent fork' }], slower]).held?.reason).toBe(
      'damage',
    );
  });
});

describe('a unit withdrawn from its order', () => {
  it('takes no more entries', () => {
    const acts: readonly Act[] = [opened, checkedIn, ['withdrawn', { words: 'sold' }, INES]];
    expect(stateAfter(acts)).toMatchObject({ step: null, withdrawn: 'sold' });
    expect(refusalOf([...acts, keyed('L1', 12, 11)])).toBe('withdrawn');
  });
});

describe("a lead's choice that is missing", () => {
  const asks = { type: { ...stepThrough, attainableKmh: 22 } };
  const upToSignOff = (setup = compileSetup(inputs(asks))): readonly Act[] => [
    ['opened', { ...opening, setup }],
    checkedIn,
    ...allKeyed,
    restarted,
    ...readBackDone,
  ];

  it('keeps a unit from being signed off until it is made', () => {
    expect(refusalOf([...upToSignOff(), ['signedOff', { words: '' }]])).toBe('undecided');
    const decisions = [
      { finding: 'aboveAttainable:unit', typeId: null, words: 'a slow type', by: 'Ines M.', on: '2026-11-25' },
    ];
    const decided = compileSetup(inputs({ ...asks, terms: { ...PLAIN_TERMS, decisions } }));
    expect(stateAfter([...upToSignOff(decided), ['signedOff', { words: '' }]]).step).toBeNull();
  });
});
