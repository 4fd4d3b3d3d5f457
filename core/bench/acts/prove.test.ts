import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leansOn } from '../../prove/leans-on.js';
import { compileSetup } from '../../setup/compile/compile-setup.js';
import { PARTS, type Part } from '../../setup/inputs/parts.js';
import type { Choices } from '../../setup/inputs/house-rules.js';
import { asItMustNot, asItShould } from '../../testing/proofs.js';
import { hire, inputs, pedelec, stepThrough } from '../../testing/samples.js';
import {
  allRead,
  benchOpening,
  calibrateLeftOut,
  INES,
  refusalOf,
  stateAfter,
  TEO,
  upToReadBack,
  withProofs,
  type Act,
} from '../../testing/visit-script.js';
import { benchTermsFor } from '../bench-terms.js';
import { fourKey } from '../../testing/samples.js';
import type { EvidenceData } from '../evidence.js';
import { missingForSeal } from '../proving/missing-for-seal.js';
import { dueTests, isSettled, proofOf, proofsOf } from '../proving/proving-of.js';
import type { VisitState } from '../visit-state.js';

const type = { ...stepThrough, throttleFitted: true };
const vehicleClass = { ...pedelec, endSpeedMeasured: true, cutOnBrake: true };

/** Up to Prove, of a bike whose throttle must be dead, under these house rules. */
function upToProve(choices: Partial<Choices> = {}): readonly Act[] {
  const houseRules = { ...hire, choices: { ...hire.choices, ...choices } };
  const opening: EvidenceData['opened'] = {
    ...benchOpening,
    setup: compileSetup(inputs({ type, vehicleClass, houseRules })),
    bench: benchTermsFor({ type, map: fourKey, houseRules, batch: { units: 0, sinceSurprise: null } }),
  };
  const cautions = opening.bench?.cautions ?? [];
  return [
    ['opened', opening],
    ...upToReadBack.slice(1).map((act): Act => (act[0] === 'madeSafe' ? ['madeSafe', { cautions }] : act)),
    ...allRead,
    ['readBackClosed', {}],
    calibrateLeftOut,
  ];
}

const before = upToProve();
const testOf = (id: string, state: VisitState = stateAfter(before)) => {
  const test = dueTests(state).find((each) => each.id === id);
  if (!test) throw new Error(`no test ${id}`);
  return test;
};
const good = (id: string): Act => ['proofSeen', { test: id, seen: asItShould(testOf(id)) }];
const bad = (id: string): Act => ['proofSeen', { test: id, seen: asItMustNot(testOf(id)) }];
const full: Act = ['fullRead', { packV: 41.5, isCharged: true }];
const end = (trueKmh: number, more: object = {}): Act => [
  'proofSeen',
  { test: 'end:assist', seen: { kind: 'speed', trueKmh, uKmh: 0.1, uCommon: 0, reference: 'roller', ...more } },
];
const verdict = (acts: readonly Act[], id: string) => proofOf(stateAfter(acts), testOf(id)).judgement.verdict;

describe('proving a unit', () => {
  it('goes through its own tests and then to sign off', () => {
    const acts = withProofs(before);
    expect(stateAfter(acts).step).toBe('signOff');
    expect(acts.at(-1)?.[0]).toBe('proved');
    expect(proofsOf(stateAfter(acts)).every(isSettled)).toBe(true);
  });

  it('is not closed while something is left to show, and not in words', () => {
    expect(refusalOf([...before, ['proved', {}]])).toBe('leftToProve');
    expect(refusalOf([...before, ['stepByHand', { step: 'prove', done: true, words: 'All tried.' }]])).toBe(
      'leftToProve',
    );
  });

  it('takes what was seen as it was seen, and never in another shape', () => {
    expect(refusalOf([...before, ['proofSeen', { test: 'rest', seen: { kind: 'seconds', figure: 1 } }]])).toBe(
      'otherObservation',
    );
    expect(refusalOf([...before, ['proofSeen', { test: 'rest', seen: { kind: 'outcome', outcome: 'fine' } }]])).toBe(
      'otherObservation',
    );
    expect(refusalOf([...before, ['proofSeen', { test: 'brake:middle', seen: asItShould(testOf('rest')) }]])).toBe(
      'noSuchProof',
    );
    expect(refusalOf([...before, good('rest'), good('rest')])).toBe('proofAlready');
  });

  it('catches a brake switch that sticks, and tries again only what leans on it once it is put right', () => {
    const caught: readonly Act[] = [
      ...before,
      good('rest'),
      good('throttle:standing'),
      good('brake:rear'),
      bad('brake:front'),
    ];
    expect(verdict(caught, 'brake:front')).toBe('doesNot');
    expect(refusalOf([...caught, good('brake:front')])).toBe('proofAlready');
    const { cure } = testOf('brake:front');
    expect(cure).toMatchObject({ way: 'part', part: 'brakes' });
    const again: readonly Act[] = [
      ...caught,
      ['proofAgain', { test: 'brake:front', mended: 'brakes', words: 'switch set straight' }],
    ];
    expect(verdict(again, 'brake:front')).toBe('open');
    expect(verdict(again, 'brake:rear')).toBe('open');
    expect(verdict(again, 'rest')).toBe('shows');
    expect(verdict(again, 'throttle:standing')).toBe('shows');
    expect(stateAfter(again).proving.failed).toEqual(['brake:front']);
    expect(refusalOf([...caught, ['proofAgain', { test: 'brake:front', mended: 'brakes', words: ' ' }]])).toBe(
      'sayWhatWasMended',
    );
  });

  it('is taken back like any newest entry', () => {
    const state = stateAfter([...before, bad('rest')]);
    const undone: Act = ['undone', { voids: state.mayUndo ?? '' }];
    expect(verdict([...before, bad('rest'), undone], 'rest')).toBe('open');
  });
});

describe('a part replaced after it was proved', () => {
  it('voids exactly what leans on it, whatever part it is', () => {
    const acts = withProofs(before);
    const tests = dueTests(stateAfter(acts));
    for (const part of ['brakes', 'throttle', 'pedals', 'lights'] as const) {
      const after = stateAfter([
        ...acts,
        ['partReplaced', { part, words: 'New one.', oldOdometerKm: null, newOdometerKm: null, packV: null }],
      ]);
      expect(after.step).toBe('prove');
      const open = proofsOf(after).filter((proof) => !isSettled(proof));
      expect(open.map(({ test }) => test.id)).toEqual(leansOn(tests, { parts: [part] }));
    }
  });

  it('leaves every other test as it stands', () => {
    fc.assert(
      fc.property(fc.subarray(Object.keys(PARTS) as Part[]), fc.subarray(['L1', 'L2', 'L3']), (parts, labels) => {
        const tests = dueTests(stateAfter(before));
        const voided = new Set(leansOn(tests, { parts, labels }));
        for (const test of tests)
          expect(voided.has(test.id)).toBe(
            test.leans.parts.some((part) => parts.includes(part)) ||
              [...test.proves.labels, ...test.leans.labels].some((label) => labels.includes(label)),
          );
      }),
    );
  });
});

describe('where drive ends', () => {
  const fullTried: readonly Act[] = [...before, full];

  it('is tried on a full pack alone, and the meter is asked again after some readings', () => {
    expect(refusalOf([...before, end(24.2)])).toBe('notCharged');
    expect(refusalOf([...before, ['fullRead', { packV: 41.5, isCharged: false }], end(24.2)])).toBe('notCharged');
    expect(refusalOf([...before, ['fullRead', { packV: 39.9, isCharged: true }], end(24.2)])).toBe('notCharged');
    const six = Array.from({ length: 6 }, () => end(24.9, { uKmh: 0.6 }));
    expect(refusalOf([...fullTried, ...six])).toBeNull();
    expect(refusalOf([...fullTried, ...six, end(24.9)])).toBe('notCharged');
    expect(refusalOf([...fullTried, ...six, full, end(24.9)])).toBeNull();
  });

  it('ends where the meter shows a pack that must not be powered, and no word lets it go on', () => {
    for (const packV of [43.2, 24, 1]) {
      const read: readonly Act[] = [...before, ['fullRead', { packV, isCharged: true }]];
      expect(stateAfter(read).held).toMatchObject({ reason: 'pack' });
      expect(refusalOf([...read, ['released', { words: 'It will do.' }, INES]])).toBe('packStops');
      const gauge: Act = ['proofSeen', { test: 'gauge', seen: { kind: 'gauge', meterV: packV, shown: 3 } }];
      expect(stateAfter([...before, gauge]).held).toMatchObject({ reason: 'pack' });
    }
    expect(stateAfter([...before, ['fullRead', { packV: 38, isCharged: false }]]).held).toBeNull();
  });

  it('asks the meter anew of another pack, and of one that was out on a run meanwhile', () => {
    const pack: Act = [
      'partReplaced',
      { part: 'pack', words: 'New one.', oldOdometerKm: null, newOdometerKm: null, packV: 37, packCondition: 'sound' },
    ];
    expect(stateAfter(fullTried).proving.full).not.toBeNull();
    expect(stateAfter([...fullTried, pack]).proving.full).toBeNull();
    const back: Act = ['wentBack', { test: 'end:assist', to: 'calibrate', words: '' }];
    expect(stateAfter([...fullTried, end(26.2), back]).proving.full).toBeNull();
  });

  it('refuses what the vehicle cannot reach, and asks where it reads like miles', () => {
    expect(refusalOf([...fullTried, end(60)])).toBe('beyondReach');
    expect(refusalOf([...fullTried, end(15.4)])).toBe('milesMeant');
    expect(refusalOf([...fullTried, end(15.4, { isSure: true })])).toBeNull();
  });

  it('too far goes back to calibrate, and a lower cap is worked out from what was seen', () => {
    const tooFast: readonly Act[] = [...fullTried, end(26.2)];
    expect(verdict(tooFast, 'end:assist')).toBe('doesNot');
    const back = stateAfter([...tooFast, ['wentBack', { test: 'end:assist', to: 'calibrate', words: '' }]]);
    expect(back.step).toBe('calibrate');
    // Cap 25, upper bound about 26.4: drive acts 1.4 beyond it.
    expect(back.proving.overshoots[0]).toBeCloseTo(1.36, 1);
    expect(verdict([...tooFast, ['wentBack', { test: 'end:assist', to: 'calibrate', words: '' }]], 'end:assist')).toBe(
      'open',
    );
  });

  it('reads a code anew after a restart where that may be the cure', () => {
    const caught: readonly Act[] = [...before, bad('throttle:standing')];
    const back = stateAfter([...caught, ['wentBack', { test: 'throttle:standing', to: 'restart', words: '' }]]);
    expect(back).toMatchObject({ step: 'restart', toRead: ['L3'] });
    expect(back.readings).not.toHaveProperty('L3');
  });
});

describe('what house rules say of it', () => {
  it('a test left out is a lead’s, in writing, where they allow it; never what keeps people safe', () => {
    const left = (acts: readonly Act[], words: string, by = TEO): string | null =>
      refusalOf([...acts, ['proofLeft', { test: 'end:assist', words }, by]]);
    expect(left(before, 'no yard', INES)).toBe('neverUnproved');
    const may = upToProve({ unproved: 'inWriting' });
    expect(left(may, 'no yard')).toBe('leadLeavesOut');
    expect(left(may, ' ', INES)).toBe('sayWhyNotProved');
    expect(left(may, 'no yard', INES)).toBeNull();
    expect(refusalOf([...may, ['proofLeft', { test: 'brake:front', words: 'no time' }, INES]])).toBe('neverLeftOut');
  });

  it('another pair of hands proves where they ask for it', () => {
    expect(refusalOf([...upToProve({ prover: 'other' }), good('rest')])).toBe('sameProver');
    const seen = good('rest') as Extract<Act, readonly ['proofSeen', ...unknown[]]>;
    expect(refusalOf([...upToProve({ prover: 'other' }), [seen[0], seen[1], INES]])).toBeNull();
  });

  it('prove every unit in full, or the rest of it on a sample', () => {
    const terms = (proofs: Choices['proofs'], units: number, sinceSurprise: number | null = null) =>
      benchTermsFor({
        type,
        map: fourKey,
        houseRules: { ...hire, choices: { ...hire.choices, proofs } },
        batch: { units: 0, sinceSurprise: null },
        proved: { units, sinceSurprise },
      }).proving?.runs;
    expect([0, 2, 3, 6, 7].map((units) => terms('sample', units))).toEqual(['all', 'all', 'safety', 'safety', 'all']);
    expect(terms('sample', 5, 0)).toBe('all');
    expect(terms('every', 5)).toBe('all');
    const sampled = stateAfter(before);
    const few = dueTests({
      opened: {
        ...sampled.opened,
        bench: { ...sampled.opened.bench!, proving: { ...sampled.opened.bench!.proving!, runs: 'safety' } },
      },
    });
    expect(few.every(({ sampled: each }) => each === 'every')).toBe(true);
    expect(few.map(({ id }) => id)).toEqual(
      expect.arrayContaining(['rest', 'brake:front', 'end:assist', 'throttle:standing']),
    );
    expect(few.map(({ id }) => id)).not.toContain('gauge');
  });

  it('want two people’s names, and never the same one twice', () => {
    const acts = withProofs(upToProve({ signers: 'two' }));
    const signed: Act = ['signedOff', { words: '' }];
    expect(refusalOf([...acts, signed])).toBe('secondMissing');
    expect(refusalOf([...acts, ['countersigned', { words: '' }, TEO], signed])).toBe('secondMissing');
    expect(refusalOf([...acts, ['countersigned', { words: '' }, INES], signed])).toBeNull();
  });

  it('want what the second person saw: whatever is written after their name voids it', () => {
    const second: Act = ['countersigned', { words: '' }, INES];
    const acts: readonly Act[] = [...withProofs(upToProve({ signers: 'two' })), second];
    const photo: Act = ['photographed', { photoId: 'p9', subject: 'damage', sha256: '0'.repeat(64), words: '' }];
    const signed: Act = ['signedOff', { words: '' }];
    expect(stateAfter([...acts, signed]).countersigned?.by.name).toBe(INES.name);
    expect(refusalOf([...acts, photo, signed])).toBe('secondMissing');
    expect(refusalOf([...acts, photo, second, signed])).toBeNull();
  });
});

describe('a unit opened before proving was led through', () => {
  const old: readonly Act[] = before.map((act): Act =>
    act[0] === 'opened' ? ['opened', { ...act[1], bench: { ...act[1].bench!, proving: undefined! } }] : act,
  );

  it('proves all that its setup asks for, whoever proves, and leaves nothing out', () => {
    expect(dueTests(stateAfter(old))).toEqual(dueTests(stateAfter(before)));
    expect(refusalOf([...old, ['stepByHand', { step: 'prove', done: false, words: 'No yard.' }]])).toBe('leftToProve');
    expect(refusalOf([...old, ['proofLeft', { test: 'end:assist', words: 'No yard.' }, INES]])).toBe('neverUnproved');
  });

  it('says it in words where its setup is older too', () => {
    const older = old.map((act): Act =>
      act[0] === 'opened' ? ['opened', { ...act[1], setup: { ...act[1].setup, tests: undefined! } }] : act,
    );
    expect(dueTests(stateAfter(older))).toEqual([]);
    expect(refusalOf([...older, ['proved', {}]])).toBe('noSuchProof');
    expect(refusalOf([...older, ['stepByHand', { step: 'prove', done: true, words: 'All tried.' }]])).toBeNull();
  });
});

describe('a unit that stands aside', () => {
  it('is asked its cautions again when hands are back on it', () => {
    const waiting: Act = ['waitBegun', { test: null, words: 'Charging to full.', dueAt: '2026-11-24T11:00:00.000Z' }];
    expect(stateAfter([...before, waiting]).proving.wait?.words).toBe('Charging to full.');
    expect(refusalOf([...before, waiting, good('rest')])).toBe('notSafe');
    const cautions = stateAfter(before).opened.bench?.cautions ?? [];
    expect(stateAfter([...before, waiting, ['madeSafe', { cautions }], good('rest')]).proving.wait).toBeNull();
    expect(refusalOf([...before, ['waitEnded', {}]])).toBe('noWait');
  });
});

it('what keeps a unit from its seal is listed whole, each with its way there', () => {
  const state = stateAfter(before);
  const missing = missingForSeal({ ...state, step: 'signOff' }, TEO);
  expect(new Set(missing.map(({ way }) => way))).toEqual(
    new Set(['prove', ...(state.opened.setup.findings.some(({ level }) => level !== 'note') ? ['order'] : [])]),
  );
  expect(missing.filter(({ way }) => way === 'prove').map(({ test }) => test)).toEqual(
    dueTests(state).map(({ id }) => id),
  );
});
