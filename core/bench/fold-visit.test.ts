import { describe, expect, it } from 'vitest';
import {
  allKeyed,
  allRead,
  checkedIn,
  cleanVisit,
  deedsOf,
  INES,
  keyed,
  opened,
  opening,
  read,
  refusalOf,
  restarted,
  soundCheckIn,
  stateAfter,
  type Act,
} from '../testing/visit-script.js';
import { foldVisit } from './fold-visit.js';

const upToRead: readonly Act[] = [opened, checkedIn, ...allKeyed, restarted];
const upToSignOff: readonly Act[] = [...upToRead, ...allRead, ['readBackClosed', {}]];

describe('a visit', () => {
  it('goes through its steps to the seal', () => {
    expect(stateAfter([opened]).step).toBe('checkIn');
    expect(stateAfter([opened, checkedIn]).step).toBe('keyIn');
    expect(stateAfter([opened, checkedIn, ...allKeyed]).step).toBe('restart');
    expect(stateAfter(upToRead).step).toBe('readBack');
    expect(stateAfter(upToSignOff).step).toBe('signOff');
    const sealed = stateAfter(cleanVisit);
    expect(sealed.step).toBeNull();
    expect(sealed.done.map((d) => d.step)).toEqual(['checkIn', 'keyIn', 'restart', 'readBack', 'signOff']);
  });

  it('asks for the codes whose factory value is not their target, in menu order', () => {
    expect(stateAfter([opened]).toKey).toEqual(['L1', 'L2', 'L3', 'L5']);
  });

  it.each<[string, readonly Act[], string]>([
    ['begins with its opening entry', [checkedIn], 'notOpened'],
    ['is not opened twice', [opened, opened], 'openedTwice'],
    ['keeps the order of its steps', [opened, restarted], 'wrongStep'],
    [
      'does not close key-in with codes left',
      [opened, checkedIn, keyed('L1', 12, 11), ['keyInClosed', {}]],
      'leftToKey',
    ],
    ['takes no other value than the target', [opened, checkedIn, keyed('L2', 30, 26)], 'notTarget'],
    ['does not key a code twice in a round', [opened, checkedIn, keyed('L1', 12, 11), keyed('L1', 12, 11)], 'notToKey'],
    ['knows its codes', [opened, checkedIn, keyed('L9', 1, 2)], 'unknownCode'],
    ['does not close read-back with codes unread', [...upToRead, read('L1', 11), ['readBackClosed', {}]], 'leftToRead'],
    ['does not read an agreed code again', [...upToRead, read('L1', 11), read('L1', 11)], 'notToRead'],
    ['takes nothing once sealed', [...cleanVisit, ['held', { reason: 'other', words: 'late' }]], 'sealed'],
  ])('%s', (_says, acts, code) => {
    expect(refusalOf(acts)).toBe(code);
  });

  it('refuses entries with a gap, and none at all', () => {
    const deeds = deedsOf([opened, checkedIn]);
    expect(foldVisit([{ ...deeds[0]!, seq: 2 }])).toMatchObject({ ok: false, problem: { code: 'outOfSequence' } });
    expect(foldVisit([deeds[0]!, { ...deeds[1]!, seq: 3 }])).toMatchObject({
      ok: false,
      problem: { code: 'outOfSequence' },
    });
    expect(foldVisit([])).toMatchObject({ ok: false, problem: { code: 'empty' } });
  });

  it('refuses an entry of another visit', () => {
    const [first, second] = deedsOf([opened, checkedIn]);
    expect(foldVisit([first!, { ...second!, visitId: 'v-2' }])).toMatchObject({
      ok: false,
      problem: { code: 'otherVisit' },
    });
  });
});

describe('keying', () => {
  const before: readonly Act[] = [opened, checkedIn];

  it('needs no key for a code seen at its target, and one for a code seen elsewhere', () => {
    expect(stateAfter([...before, ['codeSeen', { label: 'L2', raw: 25 }]]).toKey).toEqual(['L1', 'L3', 'L5']);
    const seen = stateAfter([...before, keyed('L1', 12, 11), ['codeSeen', { label: 'L1', raw: 12 }]]);
    expect(seen.toKey).toEqual(['L1', 'L2', 'L3', 'L5']);
    expect(seen.values['L1']).toBe(12);
  });

  it('leaves a code that does not move, and read-back then holds the unit', () => {
    const acts: readonly Act[] = [
      ...before,
      keyed('L1', 12, 11),
      ['codeStuck', { label: 'L2', raw: 30 }],
      keyed('L3', 33, 31),
      keyed('L5', 15, 12),
      ['keyInClosed', {}],
      restarted,
      read('L1', 11),
      read('L2', 30),
      read('L2', 30),
      read('L3', 31),
      read('L4', 31),
      read('L5', 12),
      ['readBackClosed', {}],
    ];
    const state = stateAfter(acts);
    expect(state.held).toMatchObject({ reason: 'code', words: 'L2 shows 30, must be 25, and does not change.' });
    expect(state.step).toBe('keyIn');
    expect(refusalOf([...acts, keyed('L2', 30, 25)])).toBe('held');
    expect(stateAfter([...acts, ['released', { words: 'display replaced' }, INES]])).toMatchObject({
      held: null,
      toKey: ['L2'],
    });
  });

  it('holds at once when a locked code differs from its target', () => {
    const state = stateAfter([
      ...upToRead,
      read('L1', 11),
      read('L2', 25),
      read('L3', 31),
      read('L4', 32),
      read('L4', 32),
      read('L5', 12),
      ['readBackClosed', {}],
    ]);
    expect(state.held?.words).toContain('L4 shows 32, must be 31');
    expect(state.toKey).toEqual([]);
  });
});

describe('reading back', () => {
  it('asks a first disagreement again, and believes the second reading', () => {
    const once = stateAfter([...upToRead, read('L1', 12)]);
    expect(once.verdicts[0]).toMatchObject({ verdict: 'notRead', readings: [12] });
    expect(stateAfter([...upToRead, read('L1', 12), read('L1', 11)]).verdicts[0]?.verdict).toBe('agrees');
    expect(stateAfter([...upToRead, read('L1', 12), read('L1', 12)]).verdicts[0]?.verdict).toBe('differs');
  });

  it('sends the unit back to key-in with only the codes that differ, then reads only those', () => {
    const back: readonly Act[] = [
      ...upToRead,
      read('L1', 11),
      read('L2', 26),
      read('L2', 26),
      read('L3', 31),
      read('L4', 31),
      read('L5', 12),
      ['readBackClosed', {}],
    ];
    const state = stateAfter(back);
    expect(state).toMatchObject({ step: 'keyIn', round: 2, toKey: ['L2'], toRead: ['L2'], held: null });
    expect(state.values['L2']).toBe(26);
    expect(state.verdicts.map((v) => v.verdict)).toEqual(['agrees', 'notRead', 'agrees', 'agrees', 'agrees']);
    expect(state.done.map((d) => d.step)).toEqual(['checkIn']);
    const again = stateAfter([
      ...back,
      keyed('L2', 26, 25),
      ['keyInClosed', {}],
      restarted,
      read('L2', 25),
      ['readBackClosed', {}],
    ]);
    expect(again.step).toBe('signOff');
    expect(again.verdicts.every((v) => v.verdict === 'agrees')).toBe(true);
  });

  it('holds a unit on which a code with a target is not shown', () => {
    const state = stateAfter([
      ...upToRead,
      read('L1', 11),
      read('L2', null),
      read('L2', null),
      read('L3', 31),
      read('L4', 31),
      read('L5', 12),
      ['readBackClosed', {}],
    ]);
    expect(state.held?.words).toBe('L2 is not shown.');
  });
});

describe('holding', () => {
  it('stops on a swollen pack, and on volts that no such pack has', () => {
    expect(stateAfter([opened, ['checkedIn', { ...soundCheckIn, packCondition: 'unsafe' }]]).held?.reason).toBe('pack');
    expect(stateAfter([opened, ['checkedIn', { ...soundCheckIn, packV: 46.9 }]]).held?.words).toContain(
      '12, 13, 14 or 15 cells',
    );
    expect(stateAfter([opened, ['checkedIn', { ...soundCheckIn, packV: 29 }]]).held).toBeNull();
  });

  it('is ended by a lead alone, in writing', () => {
    const held: readonly Act[] = [opened, ['held', { reason: 'damage', words: 'bent fork' }]];
    expect(refusalOf([...held, ['released', { words: 'fork changed' }]])).toBe('needsLead');
    expect(stateAfter([...held, ['released', { words: 'fork changed' }, INES]]).held).toBeNull();
    expect(refusalOf([opened, ['released', { words: 'nothing' }, INES]])).toBe('notHeld');
  });

  it('keeps a unit with a stop in its setup from being begun or signed off', () => {
    const stop = { level: 'stop' as const, label: null, says: 'No cap can be set.' };
    const bad: Act = ['opened', { ...opening, setup: { ...opening.setup, findings: [stop] } }];
    expect(stateAfter([bad]).held).toMatchObject({ reason: 'setup', words: 'No cap can be set.' });
    const released: readonly Act[] = [bad, ['released', { words: 'go on and look' }, INES], ...upToSignOff.slice(1)];
    expect(refusalOf([...released, ['signedOff', { words: '' }]])).toBe('stop');
  });
});

describe('taking back', () => {
  it('voids the newest act and keeps it in the log', () => {
    const state = stateAfter([opened, checkedIn, keyed('L1', 12, 11), ['undone', { voids: 'e-3' }]]);
    expect(state.toKey).toContain('L1');
    expect(state.seq).toBe(4);
    expect(state.mayUndo).toBe('e-2');
  });

  it('walks back act by act, and a mistyped meter reading with its hold', () => {
    const typo: readonly Act[] = [opened, ['checkedIn', { ...soundCheckIn, packV: 398 }]];
    expect(stateAfter(typo).held).not.toBeNull();
    expect(stateAfter([...typo, ['undone', { voids: 'e-2' }]])).toMatchObject({ held: null, step: 'checkIn' });
  });

  it('takes back neither an older act nor the opening', () => {
    expect(refusalOf([opened, checkedIn, keyed('L1', 12, 11), ['undone', { voids: 'e-2' }]])).toBe('notUndoable');
    expect(refusalOf([opened, ['undone', { voids: 'e-1' }]])).toBe('notUndoable');
    expect(refusalOf([...cleanVisit, ['undone', { voids: `e-${cleanVisit.length}` }]])).toBe('notUndoable');
  });
});
