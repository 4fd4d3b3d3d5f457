import { describe, expect, it } from 'vitest';
import { visitRemarks } from './visit-remarks.js';
import {
  allKeyed,
  allRead,
  benchOpened,
  benchOpening,
  upToSignOff,
  checkedIn,
  found,
  foundAsDelivered,
  INES,
  keyed,
  madeSafe,
  read,
  refusalOf,
  restarted,
  soundCheckIn,
  stateAfter,
  TEO,
  upToKeyIn,
  upToReadBack,
  type Act,
} from '../testing/visit-script.js';

const withTerms = (terms: Partial<NonNullable<typeof benchOpening.bench>>): Act => [
  'opened',
  { ...benchOpening, bench: { ...benchOpening.bench!, ...terms } },
];
const after = (opened: Act, acts: readonly Act[]): readonly Act[] => [opened, ...acts.slice(1)];
const photo = (subject: 'display' | 'ratingPlate' | 'serial'): Act => [
  'photographed',
  { photoId: `p-${subject}`, subject, sha256: 'a'.repeat(64), words: '' },
];
/** L3 stays where it was, whatever is keyed. */
const lockedRead: readonly Act[] = [
  read('L1', 11),
  read('L2', 25),
  read('L3', 33),
  read('L3', 33),
  read('L4', 31),
  read('L5', 12),
];
const stuck: readonly Act[] = [
  ...upToKeyIn,
  keyed('L1', 12, 11),
  keyed('L2', 30, 25),
  ['codeStuck', { label: 'L3', raw: 33 }],
  keyed('L5', 15, 12),
  ['keyInClosed', {}],
  restarted,
  ...lockedRead,
];
const part = (name: 'display' | 'controller' | 'motor' | 'tyre' | 'pack', more: object = {}): Act => [
  'partReplaced',
  { part: name, words: 'Changed.', oldOdometerKm: null, newOdometerKm: null, packV: null, ...more },
];

const heldForLock: readonly Act[] = [...stuck, ['readBackClosed', {}]];
const released = (decision: NonNullable<Parameters<typeof releasedWith>[0]>): Act => releasedWith(decision);
function releasedWith(
  decision:
    | { way: 'goOn' }
    | { way: 'accept'; labels: string[] }
    | { way: 'sendBack'; to: 'checkIn' | 'asFound' | 'keyIn' | 'readBack' | 'signOff' },
): Act {
  return ['released', { words: 'Looked at it myself.', decision }, INES];
}

describe('a visit of all its steps', () => {
  it('goes from check in to the seal', () => {
    const sealed = stateAfter([...upToSignOff, ['signedOff', { words: '' }]]);
    expect(sealed.step).toBeNull();
    expect(sealed.done.map((d) => d.step)).toEqual([
      'checkIn',
      'makeSafe',
      'asFound',
      'keyIn',
      'restart',
      'readBack',
      'calibrate',
      'prove',
      'signOff',
    ]);
    expect(sealed.byHand.map(({ step, done }) => [step, done])).toEqual([['calibrate', false]]);
  });

  it('takes a step done by hand only with words that say how', () => {
    const upToCalibrate = [...upToReadBack, ...allRead, ['readBackClosed', {}]] as const;
    expect(refusalOf([...upToCalibrate, ['stepByHand', { step: 'calibrate', done: true, words: ' ' }]])).toBe(
      'sayHowDone',
    );
    expect(refusalOf([...upToCalibrate, ['stepByHand', { step: 'prove', done: false, words: '' }]])).toBe('wrongStep');
  });
});

describe('photographs', () => {
  const opened = withTerms({ photos: { checkIn: ['display', 'serial'], readBack: ['display'] } });

  it('are asked for where house rules want them, each at its step', () => {
    expect(refusalOf([opened, photo('display'), checkedIn])).toBe('photosMissing');
    const read = [...after(opened, upToReadBack), ...allRead];
    const withFirst = [read[0]!, photo('display'), photo('serial'), ...read.slice(1)];
    expect(stateAfter(withFirst).photos.map((p) => p.during)).toEqual(['checkIn', 'checkIn']);
    expect(refusalOf([...withFirst, ['readBackClosed', {}]])).toBe('photosMissing');
    expect(
      stateAfter([
        ...withFirst,
        ['photographed', { photoId: 'p-2', subject: 'display', sha256: 'b'.repeat(64), words: '' }],
        ['readBackClosed', {}],
      ]).step,
    ).toBe('calibrate');
  });

  it('do not keep an unsafe pack from being stopped at once', () => {
    expect(stateAfter([opened, ['checkedIn', { ...soundCheckIn, packCondition: 'unsafe' }]]).held?.reason).toBe('pack');
  });

  it('are kept once', () => {
    expect(refusalOf([opened, photo('display'), photo('display')])).toBe('photographedAlready');
  });
});

describe('make safe', () => {
  it('wants every caution acknowledged', () => {
    expect(refusalOf([benchOpened, checkedIn, ['madeSafe', { cautions: benchOpening.bench!.cautions.slice(1) }]])).toBe(
      'cautionsLeft',
    );
  });

  it('is asked again after a hold, and before hands go on', () => {
    const heldOnce: readonly Act[] = [
      ...upToKeyIn,
      ['held', { reason: 'parts', words: 'Lever on order.' }],
      ['released', { words: 'Lever came.' }, INES],
    ];
    expect(refusalOf([...heldOnce, keyed('L1', 12, 11)])).toBe('notSafe');
    expect(stateAfter([...heldOnce, madeSafe, keyed('L1', 12, 11)])).toMatchObject({ step: 'keyIn', isSafe: true });
    expect(refusalOf([...heldOnce, madeSafe, madeSafe])).toBe('safeAlready');
  });
});

describe('a stand', () => {
  const at = (act: Act, station: string, by = TEO): Act => [act[0], act[1], by, station] as Act;

  it('keeps its unit until another takes it over knowingly', () => {
    expect(refusalOf([...upToKeyIn, at(keyed('L1', 12, 11), 'bay 2')])).toBe('otherStand');
    expect(refusalOf([...upToKeyIn, at(['takenOver', { from: 'bay 7' }], 'bay 2')])).toBe('movedOn');
    const taken = [...upToKeyIn, at(['takenOver', { from: 'bay 1' }], 'bay 2', INES)];
    expect(stateAfter(taken)).toMatchObject({ stand: { station: 'bay 2', by: INES }, isSafe: false });
    expect(refusalOf([...taken, keyed('L1', 12, 11)])).toBe('otherStand');
    expect(stateAfter([...taken, at(madeSafe, 'bay 2'), at(keyed('L1', 12, 11), 'bay 2')]).keyedThisRound).toEqual([
      'L1',
    ]);
  });

  it('lets anybody hold, and a lead release and sign, from elsewhere', () => {
    expect(
      stateAfter([...upToKeyIn, at(['held', { reason: 'other', words: 'Wait for me.' }], 'office')]).held?.reason,
    ).toBe('other');
    expect(refusalOf([...upToKeyIn, at(['undone', { voids: 'e-9' }], 'office')])).toBe('otherStand');
  });
});

describe('as found', () => {
  const before: readonly Act[] = [benchOpened, checkedIn, madeSafe];

  it('reads every code once, and keeps what it showed', () => {
    const state = stateAfter(upToKeyIn);
    expect(state).toMatchObject({ step: 'keyIn', found: { L1: 12, L2: 30 }, toKey: ['L1', 'L2', 'L3', 'L5'] });
    expect(refusalOf([...before, found('L1', 12), found('L1', 12)])).toBe('notToRead');
    expect(refusalOf([...before, found('L1', 12), ['asFoundClosed', {}]])).toBe('leftToRead');
  });

  it('has nothing to key for a code that shows its target already', () => {
    expect(stateAfter([...before, found('L2', 25)]).toKey).toEqual(['L1', 'L3', 'L5']);
  });

  it('notes a value that moved, and goes on', () => {
    const state = stateAfter([
      ...before,
      found('L1', 12),
      found('L2', 27),
      ...foundAsDelivered.slice(2),
      ['asFoundClosed', {}],
    ]);
    expect(state.held).toBeNull();
    expect(state.surprises).toMatchObject([{ kind: 'moved', label: 'L2', level: 'note' }]);
  });

  it.each<[string, readonly Act[], string]>([
    ['a code that is not shown', [found('L1', null), ...foundAsDelivered.slice(1)], 'L1'],
    ['a value outside the range', [found('L1', 12), found('L2', 98), ...foundAsDelivered.slice(2)], 'L2 shows 98'],
    ['a code the map does not know', [...foundAsDelivered, ['strayFound', { shown: 'L9', value: '7' }]], 'L9 at 7'],
  ])('holds the unit for %s', (_says, acts, words) => {
    expect(stateAfter([...before, ...acts, ['asFoundClosed', {}]]).held?.words).toContain(words);
  });

  it('takes what was not as expected once more, and what was as expected once', () => {
    const read = [...before, found('L1', 12), found('L2', 98), ...foundAsDelivered.slice(2)];
    const again = stateAfter([...read, found('L2', 30)]);
    expect(again).toMatchObject({ surprises: [], found: { L2: 30 }, toFind: [] });
    expect(stateAfter([...read, found('L2', 30), ['asFoundClosed', {}]]).held).toBeNull();
    expect(stateAfter([...read, found('L2', 97)]).surprises).toMatchObject([{ label: 'L2', level: 'decide' }]);
    expect(refusalOf([...read, found('L2', 30), found('L2', 27)])).toBe('notToRead');
    // Not shown after all: what was typed first is not what it stands at, and it is keyed.
    const gone = stateAfter([...before, found('L1', 12), found('L2', 25), ...foundAsDelivered.slice(2)]);
    expect(gone.toKey).not.toContain('L2');
    const unseen = stateAfter([
      ...before,
      found('L1', 12),
      found('L2', 25),
      ...foundAsDelivered.slice(2),
      found('L2', null),
    ]);
    expect(unseen).toMatchObject({ found: { L2: null }, values: { L2: 30 }, surprises: [{ kind: 'notShown' }] });
    expect(unseen.toKey).toContain('L2');
    expect(unseen.witnessed).not.toContain('L2');
    expect(refusalOf([...read, found('L1', 11)])).toBe('notToRead');
  });

  it('names many surprises by their codes', () => {
    const state = stateAfter([
      ...before,
      ...['L1', 'L2', 'L3', 'L4', 'L5'].map((label) => found(label, 998)),
      ['asFoundClosed', {}],
    ]);
    expect(state.held?.words).toBe(
      "5 readings do not fit this display's map (L1, L2, L3, L4, L5). It may be another revision.",
    );
  });

  it('holds the unit at once where an earlier PIN keeps the menu shut', () => {
    const state = stateAfter([...before, ['pinRefused', {}]]);
    expect(state).toMatchObject({
      step: 'asFound',
      held: { reason: 'code' },
      surprises: [{ kind: 'pinSet', level: 'decide' }],
    });
    expect(
      stateAfter([...before, ['pinRefused', {}], released({ way: 'goOn' }), madeSafe, found('L1', 12)]).found,
    ).toEqual({ L1: 12 });
  });

  it('reads the rest in full after a surprise in a sample', () => {
    const opened: Act = [
      'opened',
      {
        ...benchOpening,
        bench: { ...benchOpening.bench!, asFound: { reads: 'decisive', why: '' } },
        setup: {
          ...benchOpening.setup,
          targets: benchOpening.setup.targets.map((t) =>
            t.label === 'L4' ? { ...t, function: 'brightness', locked: false } : t,
          ),
        },
      },
    ];
    expect(stateAfter([opened, checkedIn, madeSafe]).toFind).toEqual(['L1', 'L2', 'L3', 'L5']);
    expect(stateAfter([opened, checkedIn, madeSafe, found('L1', 11)]).toFind).toEqual(['L2', 'L3', 'L4', 'L5']);
  });
});

describe('restoring as found', () => {
  it('brings back what was keyed, and key-in begins anew', () => {
    const labels = ['L1', 'L2', 'L3', 'L5'];
    const state = stateAfter([...upToReadBack, ['restoredAsFound', { labels }]]);
    expect(state).toMatchObject({ step: 'keyIn', round: 2, toKey: labels, values: { L1: 12, L2: 30 } });
    expect(refusalOf([...upToReadBack, ['restoredAsFound', { labels: ['L1'] }]])).toBe('notBackYet');
    expect(refusalOf([...upToKeyIn, ['restoredAsFound', { labels }]])).toBe('asFoundAlready');
  });
});

describe('a stop of the setup that comes while the unit is held', () => {
  const stop = { level: 'stop' as const, label: 'L4', says: 'L4 is locked too low.' };
  const revised: Act = [
    'setupRevised',
    {
      why: 'Held against what was found',
      order: benchOpening.order,
      versions: benchOpening.versions,
      pack: benchOpening.pack,
      setup: { ...benchOpening.setup, findings: [stop] },
    },
  ];
  const heldTwice: readonly Act[] = [...upToKeyIn, ['held', { reason: 'code', words: 'L2 is off the map.' }], revised];

  it('waits until the other hold is decided, and holds then', () => {
    expect(stateAfter(heldTwice).held).toMatchObject({ reason: 'code', words: 'L2 is off the map.' });
    expect(stateAfter([...heldTwice, released({ way: 'goOn' })]).held).toMatchObject({
      reason: 'setup',
      words: stop.says,
    });
    expect(stateAfter([...heldTwice, released({ way: 'goOn' }), released({ way: 'goOn' })]).held).toBeNull();
  });
});

describe('another pair of eyes', () => {
  it('is wanted at read-back where house rules say so', () => {
    const acts = after(withTerms({ otherReader: true }), upToReadBack);
    expect(refusalOf([...acts, read('L1', 11)])).toBe('sameReader');
    expect(stateAfter([...acts, [...read('L1', 11).slice(0, 2), INES] as unknown as Act]).readings['L1']).toEqual([11]);
  });
});

describe('the unplug check', () => {
  it('is part of the restart where house rules ask it', () => {
    const acts = after(withTerms({ unplugCheck: true }), [...upToKeyIn, ...allKeyed]);
    expect(refusalOf([...acts, restarted])).toBe('notUnplugged');
    expect(stateAfter([...acts, ['restarted', { acts: ['Off and on.'], unplugged: true }]]).step).toBe('readBack');
  });
});

describe('what a lead decides on a code that does not move', () => {
  it('waits at the read-back with its verdict', () => {
    expect(stateAfter(heldForLock)).toMatchObject({
      step: 'readBack',
      held: { reason: 'code', words: 'L3 shows 33, must be 31, and does not change.' },
    });
  });

  it('to accept it: the verdict says so, and the unit goes on', () => {
    const state = stateAfter([...heldForLock, released({ way: 'accept', labels: ['L3'] }), madeSafe]);
    expect(state.verdicts.find((v) => v.label === 'L3')?.verdict).toBe('accepted');
    expect(state.accepted['L3']).toEqual({
      raw: 33,
      words: 'Looked at it myself.',
      by: INES.name,
      on: expect.stringMatching(/^\d{4}-\d\d-\d\d$/),
    });
    expect(
      stateAfter([...heldForLock, released({ way: 'accept', labels: ['L3'] }), madeSafe, ['readBackClosed', {}]]).step,
    ).toBe('calibrate');
    expect(refusalOf([...heldForLock, released({ way: 'accept', labels: ['L1'] })])).toBe('notAgainst');
    expect(refusalOf([...heldForLock, released({ way: 'accept', labels: [] })])).toBe('nothingAccepted');
  });

  it('to send it back to be keyed, with that code alone', () => {
    expect(stateAfter([...heldForLock, released({ way: 'sendBack', to: 'keyIn' })])).toMatchObject({
      step: 'keyIn',
      round: 2,
      toKey: ['L3'],
      toRead: ['L3'],
    });
    expect(stateAfter([...heldForLock, released({ way: 'sendBack', to: 'asFound' })])).toMatchObject({
      step: 'asFound',
      readings: {},
      found: {},
    });
    expect(stateAfter([...heldForLock, released({ way: 'sendBack', to: 'checkIn' })])).toMatchObject({
      step: 'checkIn',
      checkedIn: null,
    });
    expect(refusalOf([...heldForLock, released({ way: 'sendBack', to: 'signOff' })])).toBe('notBack');
  });

  it('that its cause is gone: it is read once more', () => {
    const again = [...heldForLock, released({ way: 'goOn' }), madeSafe];
    expect(stateAfter(again)).toMatchObject({ step: 'readBack', toRead: ['L3'] });
    expect(stateAfter([...again, read('L3', 31), ['readBackClosed', {}]]).step).toBe('calibrate');
  });

  it('but never that an unsafe pack goes on', () => {
    const unsafe: readonly Act[] = [benchOpened, ['checkedIn', { ...soundCheckIn, packCondition: 'unsafe' }]];
    expect(refusalOf([...unsafe, released({ way: 'goOn' })])).toBe('packStops');
    const changed = [...unsafe, part('pack', { packV: 40.1, packCondition: 'sound' })] as readonly Act[];
    expect(stateAfter([...changed, released({ way: 'goOn' })])).toMatchObject({
      held: null,
      checkedIn: { packV: 40.1, packCondition: 'sound' },
    });
  });
});

describe('a part replaced', () => {
  const done = upToSignOff;
  it('display: everything about codes starts again, and kilometres are carried forward', () => {
    expect(stateAfter([...done, part('display', { oldOdometerKm: 412, newOdometerKm: 0 })])).toMatchObject({
      step: 'checkIn',
      checkedIn: null,
      found: {},
      readings: {},
      carriedKm: 412,
      toKey: ['L1', 'L2', 'L3', 'L5'],
      done: [],
    });
  });

  it('controller: back to as found; motor: restarted and read again, on another wheel', () => {
    expect(stateAfter([...done, part('controller')])).toMatchObject({ step: 'asFound', readings: {}, wheelFamily: 1 });
    expect(stateAfter([...done, part('motor')])).toMatchObject({ step: 'restart', readings: {}, wheelFamily: 2 });
  });

  it('tyre: calibrated again, and what was read stands', () => {
    const state = stateAfter([...done, part('tyre')]);
    expect(state).toMatchObject({ step: 'calibrate', wheelFamily: 2, byHand: [] });
    expect(state.verdicts.every((v) => v.verdict === 'agrees')).toBe(true);
  });

  it('pack: measured, restarted, read again; one of another voltage is held', () => {
    expect(refusalOf([...done, part('pack')])).toBe('packNotMeasured');
    expect(refusalOf([...done, part('pack', { packV: 40.2 })])).toBe('packNotLookedAt');
    const sound = { packV: 40.2, packCondition: 'sound' };
    expect(stateAfter([...done, part('pack', sound)])).toMatchObject({
      step: 'restart',
      checkedIn: { packV: 40.2 },
    });
    expect(stateAfter([...done, part('pack', { ...sound, packV: 52 })]).held?.reason).toBe('pack');
    expect(stateAfter([...done, part('pack', { ...sound, packV: 18 })]).held?.words).toContain('Never charge');
    expect(stateAfter([...done, part('pack', { packV: 40, packCondition: 'unsafe' })]).held?.reason).toBe('pack');
  });

  it('before its step came leaves the unit where it is; before check in there is nothing to compare', () => {
    expect(stateAfter([...upToKeyIn, part('tyre')]).step).toBe('keyIn');
    expect(refusalOf([benchOpened, part('tyre')])).toBe('notCheckedIn');
  });
});

describe('a pack that was drawn out too far', () => {
  const at = (packV: number): readonly Act[] => [benchOpened, ['checkedIn', { ...soundCheckIn, packV }]];
  const measured = (packV: number, packCondition: 'sound' | 'unsafe' = 'sound'): Act => [
    'packMeasured',
    { packV, packCondition, words: 'two hours on its own charger, watched' },
  ];

  it.each([0.3, 18, 26, 43])('holds its unit at %d V, and no word of a lead lets it go on', (packV) => {
    expect(stateAfter(at(packV)).held?.reason).toBe('pack');
    expect(refusalOf([...at(packV), released({ way: 'goOn' })])).toBe('packStops');
  });

  it('does not hold it where it is merely empty, and says so', () => {
    expect(stateAfter(at(31)).held).toBeNull();
  });

  it('is measured again, and released then', () => {
    const charged = [...at(26), measured(38.2)];
    expect(stateAfter(charged)).toMatchObject({ held: { reason: 'pack' }, checkedIn: { packV: 38.2 } });
    expect(stateAfter([...charged, released({ way: 'goOn' })]).held).toBeNull();
    expect(refusalOf([...at(26), measured(27), released({ way: 'goOn' })])).toBe('packStops');
    expect(refusalOf([...at(26), measured(38.2, 'unsafe'), released({ way: 'goOn' })])).toBe('packStops');
  });

  it('is noticed whenever it is measured, and not before check in', () => {
    expect(stateAfter([...upToKeyIn, measured(20)]).held?.words).toContain('Ruined');
    expect(refusalOf([benchOpened, measured(38)])).toBe('notCheckedIn');
  });

  it('went on in visits of before that rule, which are read as they were', () => {
    const kept = Object.entries(benchOpening.bench!).filter(([key]) => key !== 'packRule');
    const bench = Object.fromEntries(kept) as unknown as NonNullable<(typeof benchOpening)['bench']>;
    const before: Act = ['opened', { ...benchOpening, bench }];
    expect(stateAfter([before, ['checkedIn', { ...soundCheckIn, packV: 26 }]])).toMatchObject({
      held: null,
      step: 'makeSafe',
    });
  });
});

describe('what was seen at check in', () => {
  const seen = (more: object): readonly Act[] => [benchOpened, ['checkedIn', { ...soundCheckIn, ...more }] as Act];

  it.each([
    [{ cablesFree: false }, 'A cable is pinched, or nobody looked'],
    [{ clampSound: false }, 'The display clamp is overtightened'],
  ])('%j holds the unit, a lead decides in writing, and the papers say it', (more, words) => {
    expect(stateAfter(seen(more)).held).toMatchObject({ reason: 'damage', words: expect.stringContaining(words) });
    const on = stateAfter([...seen(more), released({ way: 'goOn' })]);
    expect(on.held).toBeNull();
    expect(visitRemarks(on).join(' ')).toMatch(/At check in (a cable was not free|the display clamp was not sound)/);
  });

  it('of a pack goes before it', () => {
    expect(stateAfter(seen({ cablesFree: false, packCondition: 'unsafe' })).held?.reason).toBe('pack');
  });
});
