import type { Actor, Entry, EvidenceData, EvidenceKind } from '../bench/evidence.js';
import { admit } from '../bench/decide.js';
import { foldAll, type Fold } from '../bench/fold-visit.js';
import type { Refusal } from '../bench/refusals.js';
import type { VisitState } from '../bench/visit-state.js';
import { benchTermsFor } from '../bench/bench-terms.js';
import { STEPS_OFFERED } from '../bench/steps.js';
import { compileSetup } from '../setup/compile/compile-setup.js';
import { nextProof } from './proofs.js';
import { fourKey, inputs, pedelec, stepThrough } from './samples.js';

export const TEO: Actor = { userId: 'u-teo', name: 'Teo R.', role: 'technician' };
export const INES: Actor = { userId: 'u-ines', name: 'Ines M.', role: 'lead' };

export const setup = compileSetup(inputs());

/** As the first releases opened a visit: five steps, and nothing more asked. */
export const opening: EvidenceData['opened'] = {
  serial: 'S26-0001',
  order: { number: '1', customer: 'Sample', className: pedelec.title, classChecked: 'not checked' },
  steps: ['checkIn', 'keyIn', 'restart', 'readBack', 'signOff'],
  versions: {
    type: { id: 'step-through', version: 1, name: 'Sample 26' },
    map: { id: 'four-key', version: 1, name: 'Sample four-key', revision: 'A' },
    rulePack: { id: 'starter', version: 1, name: 'Starter' },
    houseRules: { id: 'hire', version: 1, name: 'Hire' },
  },
  pack: stepThrough.pack,
  factory: Object.fromEntries(fourKey.codes.map((code) => [code.label, code.factory])),
  setup,
};

export const soundCheckIn: EvidenceData['checkedIn'] = {
  revisionConfirmed: true,
  odometerKm: 3,
  packV: 39.8,
  packCondition: 'sound',
  tyreBar: 2.8,
  cablesFree: true,
  clampSound: true,
  accessories: '',
  damage: '',
};

/** As visits open today, read as found in full. */
export const benchOpening: EvidenceData['opened'] = {
  ...opening,
  steps: STEPS_OFFERED,
  bench: benchTermsFor({
    type: stepThrough,
    map: fourKey,
    houseRules: inputs().houseRules,
    batch: { units: 0, sinceSurprise: null },
  }),
};

export type Act = { [K in EvidenceKind]: readonly [K, EvidenceData[K], Actor?, string?] }[EvidenceKind];

/** Deeds of one visit from a short list of acts, numbered and a second apart. */
export function deedsOf(acts: readonly Act[]): Entry[] {
  return acts.map(([kind, data, by = TEO, station = 'bay 1'], i) => ({
    id: `e-${i + 1}`,
    visitId: 'v-1',
    seq: i + 1,
    kind,
    at: new Date(Date.UTC(2026, 10, 24, 9, 0, i)).toISOString(),
    by,
    station,
    data,
  })) as Entry[];
}

/** The visit with these acts, one after another, or the first that is refused. */
export function foldOf(
  acts: readonly Act[],
): { readonly refused: Refusal } | { readonly refused: null; readonly fold: Fold } {
  const [first, ...rest] = deedsOf(acts);
  const opening = foldAll(first ? [first] : []);
  if (!opening.ok) return { refused: opening.problem };
  let fold = opening.value;
  for (const deed of rest) {
    const next = admit(fold, deed);
    if (next.refused) return next;
    fold = next.fold;
  }
  return { refused: null, fold };
}

/** State after these acts; throws where one is refused. */
export function stateAfter(acts: readonly Act[]): VisitState {
  const outcome = foldOf(acts);
  if (outcome.refused) throw new Error(`${outcome.refused.code}: ${outcome.refused.message}`);
  return outcome.fold.state;
}

/** Code of the refusal that these acts end in, or null. */
export const refusalOf = (acts: readonly Act[]): string | null => foldOf(acts).refused?.code ?? null;

export const keyed = (label: string, fromRaw: number, raw: number): Act => [
  'codeKeyed',
  { label, fromRaw, raw, presses: 3 },
];
export const read = (label: string, raw: number | null): Act => ['codeRead', { label, raw }];

export const opened: Act = ['opened', opening];
export const checkedIn: Act = ['checkedIn', soundCheckIn];
/** The four codes of the sample that differ from their factory values. */
export const allKeyed: readonly Act[] = [
  keyed('L1', 12, 11),
  keyed('L2', 30, 25),
  keyed('L3', 33, 31),
  keyed('L5', 15, 12),
  ['keyInClosed', {}],
];
export const restarted: Act = ['restarted', { acts: ['Off and on.'] }];
export const allRead: readonly Act[] = [read('L1', 11), read('L2', 25), read('L3', 31), read('L4', 31), read('L5', 12)];
export const cleanVisit: readonly Act[] = [
  opened,
  checkedIn,
  ...allKeyed,
  restarted,
  ...allRead,
  ['readBackClosed', {}],
  ['signedOff', { words: '' }],
];

export const benchOpened: Act = ['opened', benchOpening];
export const madeSafe: Act = ['madeSafe', { cautions: benchOpening.bench?.cautions ?? [] }];
export const found = (label: string, raw: number | null): Act => ['asFoundRead', { label, raw }];
/** Read as found, as delivered. */
export const foundAsDelivered: readonly Act[] = fourKey.codes.map((code) => found(code.label, code.factory));
export const upToKeyIn: readonly Act[] = [benchOpened, checkedIn, madeSafe, ...foundAsDelivered, ['asFoundClosed', {}]];
export const upToReadBack: readonly Act[] = [...upToKeyIn, ...allKeyed, restarted];
export const calibrateLeftOut: Act = ['stepByHand', { step: 'calibrate', done: false, words: '' }];
/** Acts, and then whatever proves a vehicle in order, until nothing is left to prove. */
export function withProofs(acts: readonly Act[]): readonly Act[] {
  const next = nextProof(stateAfter(acts));
  return next === null ? acts : withProofs([...acts, next]);
}
/** From read back to where it is signed off. */
export const upToSignOff: readonly Act[] = withProofs([
  ...upToReadBack,
  ...allRead,
  ['readBackClosed', {}],
  calibrateLeftOut,
]);
