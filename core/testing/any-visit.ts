import fc from 'fast-check';
import { CHECK_READINGS } from '../speed/choose/check-readings.js';
import { targetOf } from '../setup/setup.js';
import { admit } from '../bench/decide.js';
import type { Actor, Entry, EvidenceData, EvidenceKind } from '../bench/evidence.js';
import { foldAll, type Fold } from '../bench/fold-visit.js';
import { toRestore } from '../bench/acts/as-found.js';
import { isAgainst } from '../bench/judge-readback.js';
import type { VisitState } from '../bench/visit-state.js';
import { dueTests } from '../bench/proving/proving-of.js';
import { asItMustNot, nextProof } from './proofs.js';
import { benchOpening, INES, soundCheckIn, TEO, type Act } from './visit-script.js';

const STATIONS = ['bay 1', 'bay 2'] as const;

/** A visit that people worked on at random: what was taken, and what was refused where. */
export interface Walk {
  readonly deeds: readonly Entry[];
  readonly fold: Fold;
  readonly refused: readonly { readonly deed: Entry; readonly at: VisitState }[];
}

/** Acts that somebody might do at this state, right or wrong. */
export function likelyActs(state: VisitState): readonly Act[] {
  const { setup, bench } = state.opened;
  const labels = setup.targets.map(({ label }) => label);
  const next = state.toKey[0] ?? labels[0] ?? 'L1';
  const unread = state.toRead.find((label) => !state.readings[label]) ?? state.toRead[0] ?? labels[0] ?? 'L1';
  const find = state.toFind[0] ?? 'L1';
  const target = (label: string): number => targetOf(setup, label)?.raw ?? state.values[label] ?? 0;
  const against = state.verdicts.filter(isAgainst).map(({ label }) => label);
  const reading = (trueKmh: number, k: number): EvidenceData['speedRead'] => ({
    reference: 'roller',
    instrument: '105 mm',
    trueKmh,
    uKmh: 0.05,
    uCommon: 0.002,
    shown: Math.round(10 * trueKmh * k) / 10,
    unit: 'km/h',
    offGround: false,
    words: '',
  });
  const proof = nextProof(state);
  const test = dueTests(state)[state.seq % Math.max(1, dueTests(state).length)];
  const ratio = { k: 1.02, u: 0.005, low: 1.01, high: 1.03 };
  return [
    ['checkedIn', soundCheckIn],
    ['checkedIn', { ...soundCheckIn, packCondition: 'unsafe' }],
    ['madeSafe', { cautions: bench?.cautions ?? [] }],
    ['asFoundRead', { label: find, raw: state.opened.factory[find] ?? 0 }],
    ['asFoundRead', { label: find, raw: null }],
    ['asFoundClosed', {}],
    ['strayFound', { shown: 'L99', value: '7' }],
    ['pinRefused', {}],
    ['restoredAsFound', { labels: toRestore(state).map(({ label }) => label) }],
    ['codeSeen', { label: next, raw: target(next) + 1 }],
    ['codeKeyed', { label: next, fromRaw: state.values[next] ?? 0, raw: target(next), presses: 2 }],
    ['codeStuck', { label: next, raw: state.values[next] ?? 0 }],
    ['keyInClosed', {}],
    ['restarted', { acts: ['Off and on.'], unplugged: true }],
    ['codeRead', { label: unread, raw: target(unread) }],
    ['codeRead', { label: unread, raw: target(unread) + 1 }],
    ['codeRead', { label: unread, raw: null }],
    ['readBackClosed', {}],
    ['wheelMeasured', { how: 'rollOut', mm: 2070, fromMm: 2060, toMm: 2080, words: '' }],
    ...[10, 17, 24].map((kmh): Act => ['speedRead', reading(kmh, 1.03)]),
    ['speedJudged', { reading: state.calibration.readings[0]?.id ?? 'none', isUsed: false, words: 'a bump' }],
    ['driveEndRead', { shown: 25.5, unit: 'km/h', words: '' }],
    ['countStands', { words: '' }],
    [
      'wheelFitted',
      {
        ratio,
        atWheelRaw: 26,
        atPulsesRaw: null,
        count: CHECK_READINGS,
        wheelRaw: 27,
        pulsesRaw: null,
        capRaw: 25,
        predicted: ratio,
      },
    ],
    [
      'calibrated',
      {
        how: 'runs',
        ratio,
        atWheelRaw: null,
        atPulsesRaw: null,
        count: 3,
        ends: null,
        checkOff: null,
        provisional: '',
      },
    ],
    ['stepByHand', { step: 'calibrate', done: false, words: '' }],
    ['stepByHand', { step: 'prove', done: true, words: 'Ridden in the yard.' }],
    ...(proof ? [proof] : []),
    ['fullRead', { packV: 41.6, isCharged: true }],
    ...(test
      ? ([
          ['proofSeen', { test: test.id, seen: asItMustNot(test) }],
          ['proofAgain', { test: test.id, mended: test.cure.part, words: 'put right' }],
          ['proofLeft', { test: test.id, words: 'no yard today' }, INES],
          ['wentBack', { test: test.id, to: 'restart', words: '' }],
          ['wentBack', { test: test.id, to: 'calibrate', words: '' }],
        ] satisfies readonly Act[])
      : []),
    ['waitBegun', { test: null, words: 'Charging to full.', dueAt: null }],
    ['waitEnded', {}],
    ['proved', {}],
    ['countersigned', { words: '' }, INES],
    ['held', { reason: 'other', words: 'Waits for a part.' }],
    ['released', { words: 'Looked at.' }, INES],
    ['released', { words: 'Stays.', decision: { way: 'accept', labels: against } }, INES],
    ['released', { words: 'Again.', decision: { way: 'sendBack', to: 'keyIn' } }, INES],
    ['released', { words: 'Again.', decision: { way: 'sendBack', to: 'checkIn' } }, INES],
    ['takenOver', { from: state.stand.station }],
    ['partReplaced', { part: 'tyre', words: 'Worn through.', oldOdometerKm: null, newOdometerKm: null, packV: null }],
    ['partReplaced', { part: 'display', words: 'Cracked.', oldOdometerKm: 12, newOdometerKm: 0, packV: null }],
    ['undone', { voids: state.mayUndo ?? 'none' }],
    ['signedOff', { words: '' }, INES],
    ['withdrawn', { words: 'Sold elsewhere.' }, INES],
  ];
}

interface Choice {
  readonly which: number;
  /** `straight`: the next thing to do, so that walks get far. `any`: something that may be done. `wild`: whatever it is. */
  readonly how: 'straight' | 'any' | 'wild';
  readonly station: (typeof STATIONS)[number];
  readonly lead: boolean;
}

/** What leads from check in to the seal. */
const STRAIGHT_ON: readonly ((act: Act) => boolean)[] = [
  ([kind, data]) => kind === 'checkedIn' && data.packCondition === 'sound',
  ([kind, data]) => kind === 'asFoundRead' && data.raw !== null,
  ([kind, , by]) => kind === 'released' && by === INES,
  ([kind]) =>
    ['madeSafe', 'asFoundClosed', 'codeKeyed', 'keyInClosed', 'restarted', 'codeRead', 'readBackClosed'].includes(kind),
  ([kind]) => ['stepByHand', 'fullRead', 'proofSeen', 'proofAgain', 'proved', 'signedOff'].includes(kind),
];

/** Choices of a walk; the more of them are straight on, of a hundred, the farther it gets. */
export const anyChoices = (straight = 75, minLength = 1): fc.Arbitrary<readonly Choice[]> =>
  fc.array(
    fc.record({
      which: fc.nat(9_999),
      how: fc
        .integer({ min: 0, max: 99 })
        .map((n) => (n >= 100 - straight ? 'straight' : n % 3 === 0 ? 'wild' : 'any')),
      station: fc.integer({ min: 0, max: 39 }).map((n) => STATIONS[n === 39 ? 1 : 0]),
      lead: fc.boolean(),
    }),
    { minLength, maxLength: 90 },
  );

/** Walks a visit by choices: what may follow is done, what may not is noted. */
export function walk(choices: readonly Choice[], opening: EvidenceData['opened'] = benchOpening): Walk {
  const first = deedOf(['opened', opening], 1, TEO, STATIONS[0]);
  const begun = foldAll([first]);
  if (!begun.ok) throw new Error(begun.problem.message);
  let fold = begun.value;
  const deeds: Entry[] = [first];
  const refused: Walk['refused'][number][] = [];
  for (const choice of choices) {
    const acts = likelyActs(fold.state);
    const by = choice.lead ? INES : TEO;
    const made = (i: number): Entry => {
      const act = acts[i % acts.length];
      if (!act) throw new Error('no acts');
      return deedOf(act, fold.state.seq + 1, act[2] ?? by, choice.station);
    };
    const on = acts.flatMap((act, i) => (STRAIGHT_ON.some((is) => is(act)) ? [made(i)] : []));
    const tries = { straight: on, any: acts.map((_, i) => made(choice.which + i)), wild: [made(choice.which)] }[
      choice.how
    ];
    for (const deed of tries) {
      const next = admit(fold, deed);
      if (next.refused) {
        refused.push({ deed, at: fold.state });
        continue;
      }
      fold = next.fold;
      deeds.push(deed);
      break;
    }
  }
  return { deeds, fold, refused };
}

export const deedOf = ([kind, data]: Act, seq: number, by: Actor, station: string): Entry =>
  ({
    id: `e-${seq}`,
    visitId: 'v-1',
    seq,
    kind,
    at: new Date(Date.UTC(2026, 10, 24, 9, 0, seq)).toISOString(),
    by,
    station,
    data,
  }) as { [K in EvidenceKind]: Entry }[EvidenceKind];
