import type { ClassCheck } from '../setup/inputs/vehicle-class.js';
import type { Setup } from '../setup/setup.js';
import type { ReferenceKind } from '../speed/references/true-speed.js';
import type { SpeedUnit } from '../speed/speed.js';
import type { LabelledPack, NumberOf } from '../setup/inputs/vehicle-type.js';
import type { Part } from '../setup/inputs/parts.js';
import type { Observation } from '../prove/proving-test.js';
import type { BenchTerms } from './bench-terms.js';
import type { StepId } from './steps.js';

export type Role = 'technician' | 'lead' | 'owner';

/** Who did it, as they were then. */
export interface Actor {
  readonly userId: string;
  /** Kept apart from the chain, which covers it by `nameSha256`; entries of the first releases have it inside. */
  readonly name: string;
  readonly nameSha256?: string;
  readonly role: Role;
}

export const HOLD_REASONS = {
  pack: 'Pack',
  code: 'Code',
  damage: 'Damage',
  parts: 'Parts',
  setup: 'Setup',
  notice: 'Notice',
  proof: 'Proof',
  other: 'Other',
} as const;

export type HoldReason = keyof typeof HOLD_REASONS;

/** A document of the library at the version a visit used. */
export interface VersionRef {
  readonly id: string;
  readonly version: number;
  readonly name: string;
}

/** What a class asks beside its codes, as papers tell it: of whoever rides, of the label, and of the tyres. */
export interface AskedBeside {
  readonly rider: readonly string[];
  readonly label: readonly string[];
  readonly labelLetterMm: number | null;
  /** Cold, bar; null where the type does not say. */
  readonly tyreBar: { readonly from: number; readonly to: number } | null;
}

/** What the order says of this unit, as papers repeat it. */
export interface OrderOfVisit {
  readonly number: string;
  readonly customer: string;
  readonly className: string;
  readonly classChecked: string;
  /** Visits of before it was asked have none. */
  readonly asks?: AskedBeside;
  /** What the label says where it may leave public roads' limits, and until when. */
  readonly privateLand?: { readonly label: string; readonly endsOn: string; readonly authorityBy: string };
}

/** What a photograph shows. */
export const PHOTO_SUBJECTS = {
  display: 'Display',
  ratingPlate: 'Rating plate',
  serial: 'Serial',
  damage: 'Damage',
} as const;
export type PhotoSubject = keyof typeof PHOTO_SUBJECTS;

/**
 * What a lead decides on a held unit. `goOn`: the cause is gone. `accept`: the codes named stay as they show.
 * `sendBack`: the unit goes back to a step.
 */
export type HoldDecision =
  | { readonly way: 'goOn' }
  | { readonly way: 'accept'; readonly labels: readonly string[] }
  | { readonly way: 'sendBack'; readonly to: StepId };

/** Ways to learn how far a wheel rolls before anything is ridden. */
export const WHEEL_MEASURES = {
  marking: 'Tyre marking',
  tape: 'Tape, without load',
  rollOut: 'Rolled out under load',
} as const;
export type WheelMeasure = keyof typeof WHEEL_MEASURES;

/** A ratio with its 95 % interval, and the standard deviation behind that. */
export interface RatioFound {
  readonly k: number;
  readonly u: number;
  readonly low: number;
  readonly high: number;
}

export interface WheelFitted {
  /** With the codes that were keyed then. */
  readonly ratio: RatioFound;
  readonly atWheelRaw: number | null;
  readonly atPulsesRaw: number | null;
  readonly count: number;
  readonly wheelRaw: number | null;
  readonly pulsesRaw: number | null;
  readonly capRaw: number | null;
  /** What it should read once they are keyed. */
  readonly predicted: RatioFound;
}

export interface Calibrated {
  readonly how: 'runs' | 'learnt';
  readonly ratio: RatioFound;
  readonly atWheelRaw: number | null;
  readonly atPulsesRaw: number | null;
  readonly count: number;
  /** Where drive should end against the ground, km/h; null where nothing caps it. */
  readonly ends: { readonly kmh: number; readonly worst: number } | null;
  /** Measured less predicted, as a share, where a check run was ridden. */
  readonly checkOff: number | null;
  /** Why it may have to be looked at again; empty where nothing is open. */
  readonly provisional: string;
}

/** What each kind of evidence says. Raw values are digits as the display shows them. */
export interface EvidenceData {
  readonly opened: {
    readonly serial: string;
    readonly order: OrderOfVisit;
    readonly steps: readonly StepId[];
    /** A display on no vehicle, keyed to be kept ready. */
    readonly isSpare?: true;
    readonly versions: {
      readonly type: VersionRef;
      readonly map: VersionRef & { readonly revision: string };
      readonly rulePack: VersionRef;
      readonly houseRules: VersionRef;
    };
    readonly pack: LabelledPack;
    /** As the maker delivers them, raw by code label: what key-in presumes until a value is seen. */
    readonly factory: Readonly<Record<string, number>>;
    readonly setup: Setup;
    /** What the bench asks of this visit; visits of the first releases have none, and none of it is asked of them. */
    readonly bench?: BenchTerms;
    /** The visit that this one takes up again, whose readings stand for what the unit shows now. */
    readonly follows?: {
      readonly visitId: string;
      readonly why: string;
      /** It was out on private land alone, and is brought back under a class. */
      readonly fromPrivateLand?: { readonly label: string; readonly endsOn: string };
    };
  };
  /** Order, rules or a unit's own wishes changed: the setup worked out anew. Written by the server. */
  readonly setupRevised: {
    readonly why: string;
    /** The entry it follows from, where the server wrote it because of one. */
    readonly cause?: string;
    readonly order: OrderOfVisit;
    readonly versions: { readonly type: VersionRef; readonly rulePack: VersionRef; readonly houseRules: VersionRef };
    readonly pack: LabelledPack;
    readonly setup: Setup;
  };
  /** Taken out of its order before it was finished. Written by the server. */
  readonly withdrawn: { readonly words: string };
  /** Which display it turned out to be, and what told so; the setup is worked out anew for it. Written by the server. */
  readonly displayFound: {
    readonly told: readonly { readonly asks: string; readonly says: string }[];
    readonly map: VersionRef & { readonly revision: string };
    readonly factory: Readonly<Record<string, number>>;
    readonly setup: Setup;
    readonly bench?: BenchTerms;
  };
  readonly checkedIn: {
    readonly revisionConfirmed: true;
    readonly odometerKm: number | null;
    /** Volts between the pack's terminals, by meter. */
    readonly packV: number;
    readonly packCondition: 'sound' | 'unsafe';
    readonly tyreBar: number | null;
    readonly cablesFree: boolean;
    readonly clampSound: boolean;
    readonly accessories: string;
    readonly damage: string;
  };
  /** The pack looked at and measured once more, by meter, at rest. */
  readonly packMeasured: {
    readonly packV: number;
    readonly packCondition: 'sound' | 'unsafe';
    readonly words: string;
  };
  /** One check before delivery, of those that the opening names. `figure`, `text` and `tool` as that check asks for them. */
  readonly checkMade: {
    readonly check: string;
    readonly outcome: 'good' | 'notGood' | 'notFitted';
    readonly figure: number | null;
    readonly text: string;
    readonly tool: string;
    readonly words: string;
    /** Said with one key for several plain looks: the same person had gone through them one by one in this shift. */
    readonly together?: true;
  };
  /** A number scanned here is noted at another unit too. Written by the server. */
  readonly numberClash: {
    readonly of: NumberOf;
    readonly number: string;
    readonly serial: string;
    /** The entry it follows from. */
    readonly cause?: string;
  };
  /** A notice names this unit. Written by the server. */
  readonly noticed: { readonly notice: VersionRef; readonly says: string; readonly cause?: string };
  /** A photograph that was kept; `sha256` of the bytes as they are stored. */
  readonly photographed: {
    readonly photoId: string;
    readonly subject: PhotoSubject;
    readonly sha256: string;
    readonly words: string;
  };
  /** Every caution that applies, each acknowledged. */
  readonly madeSafe: {
    readonly cautions: readonly string[];
    /** Acknowledged with one key: the same person had gone through them one by one in this shift. */
    readonly together?: true;
  };
  /** A code read before any was touched; null where the display does not show it. */
  readonly asFoundRead: { readonly label: string; readonly raw: number | null };
  /** A code on the glass that this display's map does not know: its label and value as shown. */
  readonly strayFound: { readonly shown: string; readonly value: string };
  /** The PIN as delivered does not open the menu: an earlier one is set. */
  readonly pinRefused: Record<string, never>;
  readonly asFoundClosed: Record<string, never>;
  /** Codes brought back to what they were found at; the setup is keyed anew after it. */
  readonly restoredAsFound: { readonly labels: readonly string[] };
  /** A value met on the glass while keying, other than presumed. */
  readonly codeSeen: { readonly label: string; readonly raw: number };
  readonly codeKeyed: {
    readonly label: string;
    readonly fromRaw: number;
    readonly raw: number;
    readonly presses: number;
  };
  /** A code that shows a value and does not move. */
  readonly codeStuck: { readonly label: string; readonly raw: number };
  readonly keyInClosed: Record<string, never>;
  /** `unplugged`: the display was taken off its plug and put back meanwhile. */
  readonly restarted: {
    readonly acts: readonly string[];
    readonly unplugged?: boolean;
    /** Said with one key: the same person had gone through them one by one in this shift. */
    readonly together?: true;
  };
  /** One blind reading; null where the display does not show the code. */
  readonly codeRead: { readonly label: string; readonly raw: number | null };
  readonly readBackClosed: Record<string, never>;
  readonly held: { readonly reason: HoldReason; readonly words: string };
  readonly released: { readonly words: string; readonly decision?: HoldDecision };
  /** Taken over from the stand it was on, knowingly. */
  readonly takenOver: { readonly from: string };
  /** `old` and `newOdometerKm` where a display was changed, `packV` where a pack was. */
  readonly partReplaced: {
    readonly part: Part;
    readonly words: string;
    readonly oldOdometerKm: number | null;
    readonly newOdometerKm: number | null;
    readonly packV: number | null;
    /** Of a new pack; the first releases did not ask. */
    readonly packCondition?: 'sound' | 'unsafe';
    /** The spare that went on as the new display, with what its record says it shows, raw by code label. */
    readonly spare?: {
      readonly serial: string;
      readonly visitId: string;
      readonly values: Readonly<Record<string, number>>;
    };
  };
  /** How far its wheel rolls in a turn, with the 95 % range, mm. */
  readonly wheelMeasured: {
    readonly how: WheelMeasure;
    readonly mm: number;
    readonly fromMm: number;
    readonly toMm: number;
    readonly words: string;
  };
  /** A shown speed beside a true one. `shown` in the display's own unit; off the ground it tells nothing of the road. */
  readonly speedRead: {
    readonly reference: ReferenceKind;
    /** Which one, where there are several: readings of one share its error. */
    readonly instrument: string;
    readonly trueKmh: number;
    /** Standard deviation of this reading, km/h. */
    readonly uKmh: number;
    /** Standard deviation of what all of its readings share, as a share of the speed. */
    readonly uCommon: number;
    readonly shown: number;
    readonly unit: SpeedUnit;
    readonly offGround: boolean;
    readonly words: string;
  };
  /** A reading left out by a person, or taken in again. */
  readonly speedJudged: { readonly reading: string; readonly isUsed: boolean; readonly words: string };
  /** The ratio is odd, and somebody looked: unit and count are as typed. */
  readonly countStands: { readonly words: string };
  /** Where drive really fell to zero, as shown. */
  readonly driveEndRead: {
    readonly shown: number;
    readonly unit: SpeedUnit;
    readonly words: string;
    /** Charged to the end and rested: it then counts where drive ends is proved. */
    readonly onFullPack?: true;
  };
  /** Wheel value, pulses and cap chosen by the runs; the setup is worked out anew by it. */
  readonly wheelFitted: WheelFitted;
  /** Done: by its own runs, or learnt from others of its family. */
  readonly calibrated: Calibrated;
  /** It was run and does not read as those of its family: its ratio, and where theirs are, with the same codes. Written by the server. */
  readonly outOfFamily: {
    readonly k: number;
    readonly count: number;
    readonly low: number;
    readonly high: number;
    /** The entry it follows from. */
    readonly cause?: string;
  };
  /** A step that was done by other means, or left out, in the technician's words. */
  readonly stepByHand: { readonly step: 'calibrate' | 'prove'; readonly done: boolean; readonly words: string };
  /** One thing seen or measured for one test of the setup. */
  readonly proofSeen: { readonly test: string; readonly seen: Observation };
  /** A test is begun anew: what was seen of it before stays in the log and counts no more. `mended`: what was put right for it. */
  readonly proofAgain: { readonly test: string; readonly mended: Part | null; readonly words: string };
  /** A test left out by a lead, in writing. */
  readonly proofLeft: { readonly test: string; readonly words: string };
  /** The pack by meter, at rest, and whether its own charger ended since it last ran. */
  readonly fullRead: { readonly packV: number; readonly isCharged: boolean };
  /** It stands aside: charging, or being watched for a test. `dueAt`: when it is worth another look, ISO 8601; null where nobody knows. */
  readonly waitBegun: { readonly test: string | null; readonly words: string; readonly dueAt: string | null };
  readonly waitEnded: Record<string, never>;
  /** Every test of it is shown or left out. */
  readonly proved: Record<string, never>;
  /** Back to where it can be mended: another cap, or codes read again after a restart. */
  readonly wentBack: { readonly test: string; readonly to: 'calibrate' | 'restart' | 'prove'; readonly words: string };
  /** A second person signs beside the first, on the same stand. Written by the server, which has seen the password. */
  readonly countersigned: { readonly words: string };
  /** Takes back the entry it names; both stay in the log. */
  readonly undone: { readonly voids: string };
  /** `check`: who checked the class and when, as the screen had it when it was signed; the first releases kept the sentence. */
  readonly signedOff: {
    readonly words: string;
    readonly check?: ClassCheck | null;
    readonly classChecked?: string;
  };
}

export type EvidenceKind = keyof EvidenceData;

/** What happened, before it is chained: enough to fold. */
export type EntryOf<K extends EvidenceKind> = {
  /** Made by the client, so that sending twice is harmless. */
  readonly id: string;
  readonly visitId: string;
  /** 1 for the first entry of a visit, then without a gap. */
  readonly seq: number;
  readonly kind: K;
  /** ISO 8601 in UTC, when it was done. */
  readonly at: string;
  readonly by: Actor;
  readonly station: string;
  readonly data: EvidenceData[K];
};
export type Entry = { [K in EvidenceKind]: EntryOf<K> }[EvidenceKind];

/** What the server says of an entry as it takes it. Entries of the first releases have none of it. */
export interface Received {
  /** ISO 8601 in UTC, by the server's clock: what order and seal go by. `at` is what the stand said. */
  readonly receivedAt: string;
  /** How far the stand's clock was ahead of the server's, seconds; negative behind. Absent where they agreed. */
  readonly clockOffS?: number;
}

/** A deed in its visit's chain. Hashes are lower-case hex SHA-256. */
export type Evidence = Entry & Partial<Received> & { readonly prevHash: string; readonly hash: string };
