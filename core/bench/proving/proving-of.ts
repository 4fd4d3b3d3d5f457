import { bondOf, type Standing } from '../../prove/leans-on.js';
import { judgeProof } from '../../prove/judge-proof.js';
import { endSeen } from '../../prove/judge-speed.js';
import type { Judgement, Observation, ProvingTest } from '../../prove/proving-test.js';
import { CELL_VOLTS } from '../../electrical/cell.js';
import { KM_PER_MILE } from '../../speed/speed.js';
import type { ProvingTerms } from '../bench-terms.js';
import type { FullRead, ProofLeft, VisitState } from '../visit-state.js';

/** One test of a visit as it stands. */
export interface ProofOf {
  readonly test: ProvingTest;
  /** Those that count: made with the codes and parts that are on the vehicle now, oldest first. */
  readonly seen: readonly (VisitState['proving']['seen'][number] | FromCalibrate)[];
  readonly judgement: Judgement;
  readonly left: ProofLeft | null;
  /** Something was seen of it that counts no more: a code, a part or the try moved on. */
  readonly isVoided: boolean;
}

/** Where drive ended was read at calibrate: shown speed, and the ratio by which it is true. */
export interface FromCalibrate {
  readonly from: 'calibrate';
  readonly seen: Observation;
}

/** A state before anything was proved of it: old visits too. */
type Proving = Pick<
  VisitState,
  'opened' | 'proving' | 'values' | 'readings' | 'parts' | 'calibration' | 'toRead' | 'verdicts'
>;

/** By how it was opened before proving was led through, and set up anew since: the strictest that may hold. */
const TERMS_OF_OLD: ProvingTerms = {
  runs: 'all',
  why: 'Opened before proving was led through: all of it is proved.',
  prover: 'same',
  unproved: 'never',
  signers: 'one',
};

/**
 * What is asked of proving a visit; undefined where it was set up before there were tests, and is told in words, and of
 * a spare, which is on no vehicle that could show anything.
 */
export const provingTermsOf = ({ bench, setup, isSpare }: VisitState['opened']): ProvingTerms | undefined =>
  isSpare ? undefined : (bench?.proving ?? (bench && setup.tests ? TERMS_OF_OLD : undefined));

/** Tests that this unit has to make, in order: those on a sample only where it is one of those proved in full. */
export function dueTests({ opened }: Pick<VisitState, 'opened'>): readonly ProvingTest[] {
  const terms = provingTermsOf(opened);
  if (!terms) return [];
  return (opened.setup.tests ?? []).filter(({ sampled }) => terms.runs === 'all' || sampled === 'every');
}

/** What a test is bound to as the vehicle stands now. */
export function bondNow(state: Proving, test: ProvingTest): string {
  const standing: Standing = {
    shows: (label) => state.readings[label]?.at(-1) ?? state.values[label] ?? null,
    changes: (part) => state.parts.filter((each) => each.part === part).length + (state.proving.mended[part] ?? 0),
    tries: (id) => state.proving.tries[id] ?? 0,
  };
  return bondOf(test, standing);
}

export function proofOf(state: Proving, test: ProvingTest): ProofOf {
  const bond = bondNow(state, test);
  const own = state.proving.seen.filter((each) => each.test === test.id);
  const counting = own.filter((each) => each.bond === bond);
  const before = (state.proving.tries[test.id] ?? 0) === 0 ? fromCalibrate(state, test) : [];
  const seen = [...before, ...counting];
  return {
    test,
    seen,
    judgement: judgeProof(
      test,
      seen.map((each) => each.seen),
      state.opened.pack,
    ),
    left: state.proving.left.find((each) => each.test === test.id) ?? null,
    isVoided: own.length > counting.length && counting.length === 0,
  };
}

/** Every due test as it stands, in order. */
export const proofsOf = (state: Proving): readonly ProofOf[] => dueTests(state).map((test) => proofOf(state, test));

/** Shown, or left out in writing. */
export const isSettled = ({ judgement, left }: ProofOf): boolean => judgement.verdict === 'shows' || left !== null;

/** Where drive fell to zero at calibrate is used again: with the one cap there is, as keyed now, on a full pack. */
function fromCalibrate({ calibration, values, opened }: Proving, { id, watch }: ProvingTest): readonly FromCalibrate[] {
  const { result, driveEnds } = calibration;
  const cap = opened.setup.targets.find((target) => target.function === 'speedCap');
  const isIt =
    id === 'end:assist' || (id === 'end:throttle' && opened.setup.tests?.every((test) => test.id !== 'end:assist'));
  if (!isIt || watch.kind !== 'speed' || result?.how !== 'runs' || !cap) return [];
  const { k, u } = result.ratio;
  return driveEnds
    .filter(({ capRaw, onFullPack }) => capRaw === values[cap.label] && onFullPack === true)
    .map(({ shown, unit }) => ({
      from: 'calibrate',
      seen: {
        kind: 'speed',
        trueKmh: (shown * (unit === 'mph' ? KM_PER_MILE : 1)) / k,
        uKmh: ROUNDED_U * (unit === 'mph' ? KM_PER_MILE : 1),
        uCommon: u / k,
        reference: 'calibrate',
      },
    }));
}

/** A figure shown to the nearest whole one: 1 / sqrt(12). */
const ROUNDED_U = 0.29;

/** Full-pack readings that one look at the meter stands for: after so many the pack may have sunk. */
export const FULL_HOLDS = 6;

/** Volts a cell rests at when it was charged to the end. */
const RESTED_FULL_V = { liIon: 4.1, lfp: 3.33, leadAcid: 2.1 } as const;

/** The least that this pack reads at rest when it is full, V. */
export const fullPackV = ({ pack }: Pick<VisitState['opened'], 'pack'>): number =>
  Math.round(RESTED_FULL_V[pack.chemistry] * pack.cellsInSeries * 10) / 10;

/** Whether a look at the meter says that the pack is full: charged to the end, and at rest not under its volts. */
export const isFull = (opened: VisitState['opened'], { packV, isCharged }: FullRead): boolean =>
  isCharged &&
  packV >= fullPackV(opened) - 1e-9 &&
  packV <= CELL_VOLTS[opened.pack.chemistry].fullV * opened.pack.cellsInSeries + 1e-9;

/** Whether tests that want a full pack may be made now; null where they may, else what is asked. */
export function fullPackAsked({
  opened,
  proving,
}: Pick<VisitState, 'opened' | 'proving'>): 'unread' | 'notFull' | 'sunken' | null {
  if (proving.full === null) return 'unread';
  if (!isFull(opened, proving.full)) return 'notFull';
  return proving.full.ridden >= FULL_HOLDS ? 'sunken' : null;
}

/**
 * How far beyond its cap drive acted in a test, in the cap's own count, km/h, by the upper bound of what was read; null
 * where it says nothing of a cap.
 */
export function overshootSeen(state: Proving, test: ProvingTest): number | null {
  const { watch, id } = test;
  if (watch.kind !== 'speed' || watch.cap === null || !id.startsWith('end:')) return null;
  const k = state.calibration.result?.ratio.k ?? 1;
  const seen = endSeen(proofOf(state, test).seen.flatMap(({ seen: each }) => (each.kind === 'speed' ? [each] : [])));
  return seen && Math.max(0, seen.upper * (watch.cap.isShare ? 1 : k) - watch.cap.kmh);
}

/** Readings that propose something of a map: fewer are one unit's chance. */
const LEAST_FOR_A_MAP = 2;
/** Nobody changes a map for less, km/h as shown. */
const TELLS_KMH = 0.3;

export interface ProvedOvershoot {
  /** Beyond the cap, negative where short of it, with its standard uncertainty, both km/h as shown. */
  readonly kmh: number;
  readonly u: number;
  /** Readings. */
  readonly count: number;
  readonly capKmh: number;
}

/** How far beyond its cap drive acted in each test that watched it end often enough, on a unit that was calibrated. */
export function provedOvershoots(state: Proving): readonly ProvedOvershoot[] {
  const k = state.calibration.result?.ratio;
  if (!k) return [];
  return dueTests(state).flatMap((test) => {
    const { watch, id } = test;
    if (watch.kind !== 'speed' || watch.cap === null || watch.cap.isShare || !id.startsWith('end:')) return [];
    const seen = endSeen(proofOf(state, test).seen.flatMap(({ seen: each }) => (each.kind === 'speed' ? [each] : [])));
    if (!seen || seen.count < LEAST_FOR_A_MAP) return [];
    const kmh = seen.kmh * k.k - watch.cap.kmh;
    const u = Math.hypot(seen.uOwn * k.k, seen.uShared * k.k, seen.kmh * k.u);
    return [{ kmh, u, count: seen.count, capKmh: watch.cap.kmh }];
  });
}

/**
 * What proving showed of how far drive acts beyond the cap, where that is other than the display's map says: a proposal
 * for whoever keeps the map; null where it agrees, or too little was read to tell.
 */
export function overshootProposed(state: Proving, mappedKmh: number | null): string | null {
  const [first] = provedOvershoots(state);
  if (!first || (mappedKmh !== null && Math.abs(first.kmh - mappedKmh) <= Math.max(TELLS_KMH, 2 * first.u)))
    return null;
  const says = first.kmh < 0 ? `${(-first.kmh).toFixed(1)} km/h short of` : `${first.kmh.toFixed(1)} km/h beyond`;
  return `Drive ended ${says} its cap of ${first.capKmh.toFixed(1)} as shown, by ${first.count} readings, sure to ${(2 * first.u).toFixed(1)}; the map says ${mappedKmh === null ? 'nothing of it' : `${mappedKmh} km/h beyond`}.`;
}
