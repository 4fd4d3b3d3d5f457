import type { Entry, EvidenceKind } from './evidence.js';
import type { StepId } from './steps.js';

/** What is true of every entry of a kind, whatever it says. */
export interface KindFacts {
  /** The one step at which it may happen; null where its own act says when. */
  readonly step: StepId | null;
  /** `person`: whoever works. `server`: it follows from another act, and no client may send it. */
  readonly writtenBy: 'person' | 'server';
  /** `bench`: only where the unit stands. `anywhere`: by whoever decides, or by the server. */
  readonly from: 'bench' | 'anywhere';
  /** Hands are on the vehicle: the cautions are acknowledged first. */
  readonly handsOn: boolean;
  /** It may happen while the unit is held. */
  readonly passesHold: boolean;
  /** It may be taken back while it is the newest. `withItsCause`: it goes when the entry before it is taken back. */
  readonly mayBeUndone: boolean | 'withItsCause';
  /** Why the setup is worked out anew by it; null where nothing in it decides a code. */
  readonly setupAnew: string | null;
  /**
   * The next step needs what the server makes of it. `whileItAnswers`: where nobody answers one may work on from what the
   * stand itself makes of it, and what the server makes of it comes later.
   */
  readonly isAwaited: boolean | 'whileItAnswers';
}

type ByPerson = KindFacts & { readonly writtenBy: 'person' };

const USUAL: ByPerson = {
  step: null,
  writtenBy: 'person',
  from: 'bench',
  handsOn: false,
  passesHold: false,
  mayBeUndone: true,
  setupAnew: null,
  isAwaited: false,
};
const handsOn = (step: StepId | null, more: Partial<Omit<KindFacts, 'writtenBy'>> = {}): ByPerson => ({
  ...USUAL,
  step,
  handsOn: true,
  ...more,
});
/** Said by whoever decides, wherever they are; it stands. */
const DECISION: ByPerson = { ...USUAL, from: 'anywhere', mayBeUndone: false };
const BY_SERVER: KindFacts & { readonly writtenBy: 'server' } = { ...DECISION, writtenBy: 'server', passesHold: true };

/** The one table of kinds: a new kind that says nothing of itself does not compile. */
export const EVIDENCE_KINDS = {
  opened: { ...BY_SERVER, passesHold: false },
  setupRevised: BY_SERVER,
  withdrawn: BY_SERVER,
  displayFound: { ...BY_SERVER, step: 'checkIn', from: 'bench', passesHold: false },
  checkedIn: { ...USUAL, step: 'checkIn' },
  packMeasured: {
    ...DECISION,
    passesHold: true,
    setupAnew: 'Pack measured again',
    isAwaited: 'whileItAnswers',
  },
  checkMade: { ...USUAL, isAwaited: 'whileItAnswers' },
  numberClash: { ...BY_SERVER, mayBeUndone: 'withItsCause' },
  noticed: { ...BY_SERVER, mayBeUndone: 'withItsCause' },
  photographed: { ...USUAL, passesHold: true },
  madeSafe: USUAL,
  asFoundRead: handsOn('asFound'),
  strayFound: handsOn('asFound'),
  pinRefused: handsOn('asFound'),
  asFoundClosed: handsOn('asFound', { setupAnew: 'Held against what was found', isAwaited: 'whileItAnswers' }),
  restoredAsFound: handsOn(null),
  codeSeen: handsOn('keyIn'),
  codeKeyed: handsOn('keyIn'),
  codeStuck: handsOn('keyIn'),
  keyInClosed: handsOn('keyIn'),
  restarted: handsOn('restart'),
  codeRead: handsOn('readBack'),
  readBackClosed: handsOn('readBack'),
  held: DECISION,
  released: { ...DECISION, passesHold: true, isAwaited: true },
  takenOver: { ...DECISION, passesHold: true },
  partReplaced: {
    ...USUAL,
    passesHold: true,
    mayBeUndone: false,
    setupAnew: 'A part was replaced',
    isAwaited: true,
  },
  wheelMeasured: { ...USUAL, setupAnew: 'Wheel measured on this unit', isAwaited: 'whileItAnswers' },
  speedRead: handsOn('calibrate'),
  speedJudged: { ...USUAL, step: 'calibrate' },
  countStands: { ...USUAL, step: 'calibrate' },
  driveEndRead: handsOn('calibrate', {
    setupAnew: 'How far drive acts beyond the cap was measured',
    isAwaited: 'whileItAnswers',
  }),
  wheelFitted: { ...USUAL, step: 'calibrate', setupAnew: 'Wheel and cap chosen by runs', isAwaited: 'whileItAnswers' },
  calibrated: { ...USUAL, step: 'calibrate', isAwaited: 'whileItAnswers' },
  outOfFamily: { ...BY_SERVER, mayBeUndone: 'withItsCause' },
  stepByHand: handsOn(null),
  proofSeen: handsOn('prove'),
  proofAgain: { ...USUAL, step: 'prove', passesHold: false },
  proofLeft: { ...USUAL, step: 'prove' },
  fullRead: handsOn('prove'),
  waitBegun: { ...USUAL, step: 'prove' },
  waitEnded: { ...USUAL, step: 'prove' },
  proved: { ...USUAL, step: 'prove' },
  wentBack: { ...USUAL, setupAnew: 'Where drive ended was measured', isAwaited: 'whileItAnswers' },
  countersigned: { ...BY_SERVER, step: 'signOff', passesHold: false },
  undone: USUAL,
  signedOff: { ...DECISION, step: 'signOff', isAwaited: true },
} as const satisfies Record<EvidenceKind, KindFacts>;

/** What is true of a kind. */
export const factsOf = (kind: EvidenceKind): KindFacts => EVIDENCE_KINDS[kind];

/** Why the setup is worked out anew by an entry, null where it is not; a code that a lead let stand counts as locked from then on. */
export const whyAnew = (entry: Pick<Entry, 'kind' | 'data'>): string | null =>
  entry.kind === 'released' && 'decision' in entry.data && entry.data.decision?.way === 'accept'
    ? 'Codes let stand as they show'
    : factsOf(entry.kind).setupAnew;

/** Kinds that a person's client may send; the server writes the others. */
export type WrittenKind = {
  [K in EvidenceKind]: (typeof EVIDENCE_KINDS)[K]['writtenBy'] extends 'person' ? K : never;
}[EvidenceKind];
