import type { Actor, EvidenceData, HoldReason } from './evidence.js';
import { judgeReadback, type CodeVerdict } from './judge-readback.js';
import type { StepId } from './steps.js';

export interface StepDone {
  readonly step: StepId;
  readonly at: string;
  readonly by: Actor;
}

/** What a visit's evidence amounts to. Everything a screen shows or a server accepts follows from it. */
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
  readonly held: { readonly reason: HoldReason; readonly words: string; readonly at: string; readonly by: Actor } | null;
  /** 1 at first; one more each time read-back sends the unit back to key-in. */
  readonly round: number;
  /** Raw values by label: as delivered, until seen or keyed. */
  readonly known: Readonly<Record<string, number>>;
  /** `known` as it was when this round of key-in began. */
  readonly atRoundStart: Readonly<Record<string, number>>;
  /** Labels whose value was met on the glass or keyed, so that `known` is no presumption. */
  readonly witnessed: ReadonlySet<string>;
  /** Codes still to be keyed in this round, in menu order. */
  readonly toKey: readonly string[];
  readonly keyedThisRound: readonly string[];
  readonly stuck: ReadonlySet<string>;
  /** Codes to be read back in this round, in menu order. */
  readonly toRead: readonly string[];
  readonly readings: Readonly<Record<string, readonly (number | null)[]>>;
  /** Verdict per code over all rounds: a code read again counts by its newest round. */
  readonly verdicts: readonly CodeVerdict[];
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
  verdicts: judgeReadback(state.opened.setup, state.readings, state.stuck),
});
