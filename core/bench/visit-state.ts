import type { Observation } from '../prove/proving-test.js';
import type { Part } from '../setup/inputs/parts.js';
import type { Actor, EvidenceData, HoldReason, PhotoSubject, VersionRef } from './evidence.js';
import { judgeReadback, type Accepted, type CodeVerdict } from './judge-readback.js';
import { isAfter, type StepId } from './steps.js';
import type { Surprise } from './surprises.js';

export interface StepDone {
  readonly step: StepId;
  readonly at: string;
  readonly by: Actor;
}

/** A speed reading as it stands, with the codes it was taken under. */
export type KeptReading = EvidenceData['speedRead'] & {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly wheelRaw: number | null;
  readonly pulsesRaw: number | null;
  /** Null where it counts; who left it out and why where it does not. */
  readonly leftOut: { readonly words: string; readonly by: string } | null;
  /** Taken after wheel and cap were chosen. */
  readonly isCheck: boolean;
};

/** What is known of the unit's wheel and speed, of the wheel that is on it now. */
export interface Calibration {
  readonly wheel: EvidenceData['wheelMeasured'] | null;
  readonly readings: readonly KeptReading[];
  /** As shown, with the cap that was keyed then. */
  readonly driveEnds: readonly (EvidenceData['driveEndRead'] & { readonly capRaw: number | null })[];
  readonly fitted: (EvidenceData['wheelFitted'] & { readonly by: string }) | null;
  readonly result: EvidenceData['calibrated'] | null;
  /** It does not read as those of its family. */
  readonly outOfFamily: EvidenceData['outOfFamily'] | null;
  /** An odd ratio was looked at, and is no slip of unit or count. */
  readonly countStands: boolean;
}

export const NOT_CALIBRATED: Calibration = {
  wheel: null,
  readings: [],
  driveEnds: [],
  fitted: null,
  result: null,
  outOfFamily: null,
  countStands: false,
};

/** A test left out, as a lead wrote it. */
export type ProofLeft = EvidenceData['proofLeft'] & { readonly by: string; readonly at: string };

/** What the meter said of the pack, and how many readings were ridden on it since. */
export type FullRead = EvidenceData['fullRead'] & { readonly ridden: number };

/** What the vehicle itself was seen to do. */
export interface Proving {
  /** Everything that was seen, with what it was bound to then. */
  readonly seen: readonly {
    readonly id: string;
    readonly test: string;
    readonly seen: Observation;
    readonly bond: string;
    readonly at: string;
    readonly by: Actor;
  }[];
  /** How often a test was begun anew, and what was mended for one. */
  readonly tries: Readonly<Record<string, number>>;
  readonly again: readonly (EvidenceData['proofAgain'] & { readonly by: string })[];
  readonly mended: Readonly<Partial<Record<Part, number>>>;
  readonly left: readonly ProofLeft[];
  readonly full: FullRead | null;
  /** Where it stands aside; null while hands are on it. */
  readonly wait: (EvidenceData['waitBegun'] & { readonly since: string; readonly by: string }) | null;
  /** How far beyond the cap drive was seen to act whenever it went back for that, in the cap's own count, km/h. */
  readonly overshoots: readonly number[];
  /** Tests that did not show what they should, whatever came of it. */
  readonly failed: readonly string[];
}

export const NOT_PROVED: Proving = {
  seen: [],
  tries: {},
  again: [],
  mended: {},
  left: [],
  full: null,
  wait: null,
  overshoots: [],
  failed: [],
};

/** What a visit's evidence amounts to: plain JSON. Everything a screen shows or a server accepts follows from it. */
export interface VisitState {
  readonly visitId: string;
  readonly seq: number;
  /** The step that is next, or null once sealed. */
  readonly step: StepId | null;
  readonly opened: EvidenceData['opened'];
  readonly checkedIn: EvidenceData['checkedIn'] | null;
  /** What told the display's revision at check in, or null where nobody asked. */
  readonly displayTold: EvidenceData['displayFound']['told'] | null;
  readonly done: readonly StepDone[];
  /** The stand it is on, and who last worked on it there. */
  readonly stand: { readonly station: string; readonly by: Actor };
  /** Whether its cautions were acknowledged since it last came to a stand. */
  readonly isSafe: boolean;
  /** Notices that named it, with what they said. */
  readonly notices: readonly (VersionRef & { readonly says: string; readonly isDecided: boolean })[];
  /** Checks before delivery that were made, by id. */
  readonly checks: Readonly<Record<string, EvidenceData['checkMade'] & { readonly at: string; readonly by: string }>>;
  readonly photos: readonly {
    readonly photoId: string;
    readonly subject: PhotoSubject;
    readonly sha256: string;
    readonly words: string;
    readonly during: StepId | null;
  }[];
  /** Values read before any code was touched; null where the display does not show one. */
  readonly found: Readonly<Record<string, number | null>>;
  /** Codes still to be read as found, in menu order. */
  readonly toFind: readonly string[];
  /** What was met as found and not expected. */
  readonly surprises: readonly Surprise[];
  readonly held: {
    readonly reason: HoldReason;
    readonly words: string;
    readonly at: string;
    readonly by: Actor;
  } | null;
  /** 1 at first; one more each time read-back sends the unit back to key-in. */
  readonly round: number;
  /** Raw values by label: as delivered, until seen or keyed. */
  readonly values: Readonly<Record<string, number>>;
  /** `known` as it was when this round of key-in began. */
  readonly atRoundStart: Readonly<Record<string, number>>;
  /** Labels whose value was met on the glass or keyed, so that `known` is no presumption. */
  readonly witnessed: readonly string[];
  /** Codes still to be keyed in this round, in menu order. */
  readonly toKey: readonly string[];
  readonly keyedThisRound: readonly string[];
  readonly stuck: readonly string[];
  /** Whoever keyed in this round, by id: another may have to read back. */
  readonly keyedBy: readonly string[];
  /** Values that a lead lets stand, by label. */
  readonly accepted: Readonly<Record<string, Accepted>>;
  /** Codes to be read back in this round, in menu order. */
  readonly toRead: readonly string[];
  readonly readings: Readonly<Record<string, readonly (number | null)[]>>;
  /** Verdict per code over all rounds: a code read again counts by its newest round. */
  readonly verdicts: readonly CodeVerdict[];
  readonly calibration: Calibration;
  readonly proving: Proving;
  /** Who signed beside whoever signs off, and by which entry; null where nobody did. */
  readonly countersigned: {
    readonly seq: number;
    readonly by: Actor;
    readonly words: string;
    readonly at: string;
  } | null;
  readonly parts: readonly { readonly part: Part; readonly words: string; readonly at: string; readonly by: Actor }[];
  /** Kilometres on odometers that are not on the vehicle any more. */
  readonly carriedKm: number;
  /** 1 for the wheel it came with, one more with each change of tyre or motor: runs of one family tell nothing of the next. */
  readonly wheelFamily: number;
  /** Steps done by other means or left out, as said. */
  readonly byHand: readonly EvidenceData['stepByHand'][];
  /** The entry that an undo would take back, if any. */
  readonly mayUndo: string | null;
  /** Why it was taken out of its order before it was finished, or null. */
  readonly withdrawn: string | null;
  readonly lastAt: string;
  readonly lastBy: Actor;
  readonly lastStation: string;
}

/** The state with the verdict on every code worked out anew. */
export const judged = (state: VisitState): VisitState => ({
  ...state,
  verdicts: judgeReadback(state.opened.setup, state.readings, state.stuck, state.accepted),
});

/** Whether the cautions must be acknowledged before hands go on: it came to a stand since. */
export const needsSafety = ({ step, isSafe, opened }: VisitState): boolean =>
  step !== null && !isSafe && opened.bench !== undefined && isAfter(step, 'makeSafe') && isAfter('signOff', step);

/** Kilometres of the vehicle as far as anybody read them, whatever odometer it carries; null where none was. */
export const odometerKm = ({ checkedIn, carriedKm }: VisitState): number | null =>
  checkedIn?.odometerKm === null || checkedIn === null ? null : checkedIn.odometerKm + carriedKm;
