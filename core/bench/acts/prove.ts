import type { Observation, ProvingTest } from '../../prove/proving-test.js';
import { kmhWords, KM_PER_MILE } from '../../speed/speed.js';
import { readAnew } from '../last-shown.js';
import {
  bondNow,
  dueTests,
  fullPackAsked,
  isSettled,
  overshootSeen,
  proofOf,
  proofsOf,
  provingTermsOf,
} from '../proving/proving-of.js';
import { refusal, type Refusal } from '../refusals.js';
import { isAfter, stepTitle } from '../steps.js';
import { judged, type VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { stoppedByPack } from './check-in.js';
import { checksMissing } from './checks.js';
import { advance, goBack, withOne } from './support.js';

const testIn = (state: VisitState, id: string): ProvingTest | undefined =>
  dueTests(state).find((test) => test.id === id);

/** One thing seen or measured. It is taken as it was seen; core judges. */
export const proofSeen: ActOf<'proofSeen'> = {
  closed: ({ opened, keyedBy }, { by }) =>
    provingTermsOf(opened)?.prover === 'other' && keyedBy.includes(by.userId) ? refusal('sameProver') : null,
  refuses: (state, { data: { test: id, seen } }) => {
    const test = testIn(state, id);
    if (!test) return refusal('noSuchProof');
    if (
      proofOf(state, test).judgement.verdict === 'doesNot' ||
      (proofOf(state, test).judgement.verdict === 'shows' && seen.kind !== 'speed')
    )
      return refusal('proofAlready', test.title);
    if (test.pack === 'full' && fullPackAsked(state) !== null) return refusal('notCharged');
    return unsound(test, seen);
  },
  then: (state, { id, at, by, data }) => {
    const test = testIn(state, data.test);
    if (!test) return state;
    const { proving } = state;
    const seen = [...proving.seen, { id, test: data.test, seen: data.seen, bond: bondNow(state, test), at, by }];
    const full =
      proving.full && test.pack === 'full' ? { ...proving.full, ridden: proving.full.ridden + 1 } : proving.full;
    const next = { ...state, proving: { ...proving, seen, full, wait: null } };
    const isAgainst = proofOf(next, test).judgement.verdict === 'doesNot';
    const judgedNext = isAgainst
      ? { ...next, proving: { ...next.proving, failed: withOne(proving.failed, test.id) } }
      : next;
    return data.seen.kind === 'gauge'
      ? stoppedByPack(judgedNext, { packV: data.seen.meterV, packCondition: 'sound' }, { at, by })
      : judgedNext;
  },
};

/** A figure a vehicle cannot reach, or that reads like the other unit, is a slip of the hand. */
const OVER_ATTAINABLE = 1.15;
const AS_MILES = { from: 0.9 / KM_PER_MILE, to: 1.1 / KM_PER_MILE };

function unsound({ watch }: ProvingTest, seen: Observation): Refusal | null {
  if (seen.kind !== watch.kind) return refusal('otherObservation');
  if (watch.kind === 'outcome' && seen.kind === 'outcome')
    return watch.outcomes.some(({ id }) => id === seen.outcome) ? null : refusal('otherObservation');
  if (watch.kind !== 'speed' || seen.kind !== 'speed') return null;
  const { attainableKmh, predictedKmh } = watch;
  const most = attainableKmh * OVER_ATTAINABLE;
  if (seen.trueKmh > most) return refusal('beyondReach', kmhWords(seen.trueKmh), kmhWords(attainableKmh));
  const share = predictedKmh === null ? 1 : seen.trueKmh / predictedKmh;
  return seen.isSure !== true && share > AS_MILES.from && share < AS_MILES.to
    ? refusal('milesMeant', kmhWords(seen.trueKmh), kmhWords(predictedKmh ?? 0))
    : null;
}

/** Begun anew, with what was put right for it: that voids what else leans on the same part. */
export const proofAgain: ActOf<'proofAgain'> = {
  refuses: (state, { data: { test: id, mended, words } }) => {
    const test = testIn(state, id);
    if (!test) return refusal('noSuchProof');
    return mended !== null && words.trim() === '' ? refusal('sayWhatWasMended') : null;
  },
  then: (state, { data, by }) => {
    const { proving } = state;
    const mended =
      data.mended === null
        ? proving.mended
        : { ...proving.mended, [data.mended]: (proving.mended[data.mended] ?? 0) + 1 };
    return begunAnew(
      {
        ...state,
        proving: { ...proving, mended, again: [...proving.again, { ...data, by: by.name }] },
      },
      data.test,
    );
  },
};

const begunAnew = (state: VisitState, test: string): VisitState => ({
  ...state,
  proving: {
    ...state.proving,
    tries: { ...state.proving.tries, [test]: (state.proving.tries[test] ?? 0) + 1 },
    left: state.proving.left.filter((each) => each.test !== test),
  },
});

/** Left out: never what keeps people safe, the rest by a lead in writing where house rules let them. */
export const proofLeft: ActOf<'proofLeft'> = {
  refuses: (state, { by, data: { test: id, words } }) => {
    const test = testIn(state, id);
    if (!test) return refusal('noSuchProof');
    if (test.isNeverLeftOut) return refusal('neverLeftOut', test.does);
    if (provingTermsOf(state.opened)?.unproved !== 'inWriting') return refusal('neverUnproved');
    if (by.role === 'technician') return refusal('leadLeavesOut');
    return words.trim() === '' ? refusal('sayWhyNotProved') : null;
  },
  then: (state, { data, by, at }) => ({
    ...state,
    proving: {
      ...state.proving,
      left: [...state.proving.left.filter(({ test }) => test !== data.test), { ...data, by: by.name, at }],
    },
  }),
};

/** The meter on the pack. Volts that would have stopped it at check in stop it here too. */
export const fullRead: ActOf<'fullRead'> = {
  then: (state, { data, at, by }) =>
    stoppedByPack(
      { ...state, proving: { ...state.proving, full: { ...data, ridden: 0 }, wait: null } },
      { packV: data.packV, packCondition: 'sound' },
      { at, by },
    ),
};

/** It stands aside, and whoever is free takes another meanwhile. Its cautions are asked again when it comes back. */
export const waitBegun: ActOf<'waitBegun'> = {
  refuses: (state, { data: { test } }) => (test === null || testIn(state, test) ? null : refusal('noSuchProof')),
  then: (state, { data, at, by }) => ({
    ...state,
    isSafe: false,
    proving: { ...state.proving, wait: { ...data, since: at, by: by.name } },
  }),
};

export const waitEnded: ActOf<'waitEnded'> = {
  closed: ({ proving }) => (proving.wait === null ? refusal('noWait') : null),
  then: (state) => ({ ...state, proving: { ...state.proving, wait: null } }),
};

/** Titles of the tests that nobody has shown or left out, in order. */
export const leftToProve = (state: VisitState): readonly string[] =>
  proofsOf(state)
    .filter((proof) => !isSettled(proof))
    .map(({ test }) => test.title.toLowerCase());

export const proved: ActOf<'proved'> = {
  closed: (state) => {
    if (!provingTermsOf(state.opened)) return refusal('noSuchProof');
    const left = leftToProve(state);
    return left.length > 0 ? refusal('leftToProve', left.join(', ')) : checksMissing(state, 'prove');
  },
  then: (state, deed) => advance({ ...state, proving: { ...state.proving, wait: null } }, 'prove', deed),
};

/** Back to where it can be mended. What did not show is tried anew; the rest stands while codes and parts do. */
export const wentBack: ActOf<'wentBack'> = {
  refuses: (state, { data: { test: id, to } }) => {
    if (!testIn(state, id)) return refusal('noSuchProof');
    const { steps } = state.opened;
    const isBehind = state.step !== null && steps.includes(to) && isAfter(state.step, to);
    return isBehind ? null : refusal('cannotGoBack', stepTitle(to).toLowerCase());
  },
  then: (state, deed) => {
    const test = testIn(state, deed.data.test);
    if (!test) return state;
    const over = deed.data.to === 'calibrate' ? overshootSeen(state, test) : null;
    const { proving } = state;
    const next = begunAnew(
      { ...state, proving: over === null ? proving : { ...proving, overshoots: [...proving.overshoots, over] } },
      test.id,
    );
    return deed.data.to === 'restart' ? restartedAnew(next, test) : goBack(next, deed.data.to);
  },
};

/** Restarted once more, and the codes that the test answers for are read anew. */
function restartedAnew(state: VisitState, test: ProvingTest): VisitState {
  const readable = state.opened.setup.targets
    .filter(({ label, offGlass }) => offGlass !== true && test.proves.labels.includes(label))
    .map(({ label }) => label);
  return judged({ ...goBack(state, 'restart'), ...readAnew(state, readable), round: state.round + 1 });
}
