import type { Actor } from '../bench/evidence.js';
import { STORAGE_DAYS, type StorageAdvice } from '../electrical/storage.js';
import { hashOf } from '../ledger/canonical-json.js';
import type { Drift, ReturnRead } from '../ledger/drift.js';
import { sealedForm, type PersonalKind } from '../ledger/personal.js';
import { refuse, type Result, ok } from '../result.js';
import { keptIn } from './go-out.js';

/** Papers that leave with a unit, or with its order. */
export const PAPERS = {
  certificate: 'Configuration certificate',
  label: 'Class label',
  riderCard: 'Rider card',
  tag: 'Unit tag',
  odometerLetter: 'Odometer letter',
  deliveryNote: 'Delivery note',
} as const;
export type PaperKind = keyof typeof PAPERS;

/** A signature as it was drawn: strokes of points, each from 0 to 1 of the width and height of the field. */
export type Strokes = readonly (readonly (readonly [x: number, y: number])[])[];

/** What each kind of entry says. No digits of a PIN, ever. */
export interface HandoverData {
  /** `sha256` of the PDF as it was made. */
  readonly paperMade: { readonly paper: PaperKind; readonly language: string | null; readonly sha256: string };
  readonly labelFixed: {
    readonly where: string;
    readonly photo?: { readonly photoId: string; readonly sha256: string };
  };
  readonly pinTold: { readonly opens: 'menu' | 'start'; readonly to: string; readonly toSha256?: string };
  readonly wentAlong: { readonly things: readonly string[] };
  /** What the rider or whoever collects it was shown, in the words of the list. */
  readonly riderShown: { readonly items: readonly string[] };
  /** Its pack measured as it is put away or stands so, and what that asks for, as the server worked it out. */
  readonly packStored: { readonly packV: number } & Partial<StorageAdvice>;
  /** Out of storage again: its pack measured, and charged for whoever gets it. */
  readonly packTaken: { readonly packV: number };
  /** It is back, and was read: what it shows now, and what that amounts to, as the server worked it out. */
  readonly cameBack: {
    readonly values: ReturnRead['values'];
    readonly asksPin: boolean | null;
    readonly errors: readonly string[];
    readonly drifts?: readonly Drift[];
    readonly mayGoOut?: boolean;
    readonly says?: string;
  };
  /** A spare display that went on a vehicle, as the record of that says too. Written by the server. */
  readonly fitted: { readonly serial: string; readonly visitId: string };
  readonly received: {
    readonly name: string;
    readonly nameSha256?: string;
    /** None once the signature is erased. */
    readonly strokes: Strokes;
    readonly strokesSha256?: string;
  };
  /** Taken without a signature, and who saw it. */
  readonly unsigned: { readonly name: string; readonly nameSha256?: string; readonly words: string };
}
export type HandoverKind = keyof HandoverData;

/** What each kind says of persons, kept apart from the chain: `to` by `toSha256`, and so on. */
export const HANDOVER_PERSONAL: {
  readonly [K in HandoverKind]: Readonly<Partial<Record<keyof HandoverData[K], PersonalKind>>>;
} = {
  paperMade: {},
  labelFixed: {},
  pinTold: { to: 'receiver' },
  wentAlong: {},
  riderShown: {},
  packStored: {},
  packTaken: {},
  cameBack: {},
  fitted: {},
  received: { name: 'receiver', strokes: 'signature' },
  unsigned: { name: 'receiver' },
};

export type HandoverEntryOf<K extends HandoverKind> = {
  readonly id: string;
  readonly visitId: string;
  readonly seq: number;
  readonly kind: K;
  /** ISO 8601 in UTC, by the server's clock. */
  readonly at: string;
  readonly by: Actor;
  readonly data: HandoverData[K];
  readonly prevHash: string;
  readonly hash: string;
};
export type HandoverEntry = { [K in HandoverKind]: HandoverEntryOf<K> }[HandoverKind];
/** What a bench may write. */
export type NewHandover = {
  [K in HandoverKind]: { readonly id: string; readonly kind: K; readonly data: HandoverData[K] };
}[HandoverKind];

/** How a unit stands that was put away: every time its pack was measured, oldest first. */
export interface Storage {
  readonly since: string;
  readonly readings: readonly (HandoverData['packStored'] & { readonly at: string; readonly by: string })[];
  /** When its pack is to be measured again, ISO 8601. */
  readonly measureAt: string;
}

/** What a handing over amounts to. */
export interface HandoverState {
  readonly seq: number;
  readonly headHash: string;
  readonly papers: readonly HandoverData['paperMade'][];
  readonly label: HandoverData['labelFixed'] | null;
  readonly pins: readonly HandoverData['pinTold'][];
  readonly things: readonly string[];
  readonly shown: readonly string[];
  /** Put away for more than some weeks: null where it is not. */
  readonly storage: Storage | null;
  /** How it was last read when it came back; null where it never was. */
  readonly back:
    (HandoverData['cameBack'] & { readonly at: string; readonly by: string; readonly from: string }) | null;
  /** Who has it now; null while it is in the house. */
  readonly out: {
    readonly to: string;
    readonly at: string;
    readonly by: string;
    /** It is a spare, and went on a vehicle of that serial. */
    readonly isVehicle: boolean;
    /** Null where whoever took it did not sign; then in words why. */
    readonly strokes: Strokes | null;
    readonly words: string;
  } | null;
}

/** Before anything was handed over: it begins with the seal of its visit. */
export const notHandedOver = (seal: string): HandoverState => ({
  seq: 0,
  headHash: seal,
  papers: [],
  label: null,
  pins: [],
  things: [],
  shown: [],
  storage: null,
  back: null,
  out: null,
});

type Bare = { [K in HandoverKind]: Omit<HandoverEntryOf<K>, 'prevHash' | 'hash'> }[HandoverKind];

/** Chains an entry to the hash of the one before it, the visit's seal for the first. */
export function chainHandover({ id, visitId, seq, kind, at, by, data }: Bare, prevHash: string): HandoverEntry {
  const body = { id, visitId, seq, kind, at, by, data, prevHash };
  return { ...body, hash: hashOf(asChained(body as HandoverEntry)) } as HandoverEntry;
}

/** An entry as its chain covers it, and as it is stored: without what is kept apart of persons. */
export const asChained = (entry: HandoverEntry): Partial<HandoverEntry> =>
  ({
    ...entry,
    by: sealedForm(entry.by, ['name']),
    data: sealedForm(entry.data, Object.keys(HANDOVER_PERSONAL[entry.kind])),
  }) as Partial<HandoverEntry>;

/** The state after one more entry. It does not judge. */
function after(state: HandoverState, entry: HandoverEntry): HandoverState {
  const next = { ...state, seq: entry.seq, headHash: entry.hash };
  switch (entry.kind) {
    case 'paperMade':
      return { ...next, papers: [...state.papers, entry.data] };
    case 'labelFixed':
      return { ...next, label: entry.data };
    case 'pinTold':
      return { ...next, pins: [...state.pins, entry.data] };
    case 'wentAlong':
      return { ...next, things: entry.data.things };
    case 'riderShown':
      return { ...next, shown: entry.data.items };
    case 'packStored':
      return { ...next, storage: stored(state.storage, entry) };
    case 'packTaken':
      return { ...next, storage: null };
    case 'cameBack':
      return {
        ...next,
        back: { ...entry.data, at: entry.at, by: entry.by.name, from: state.out?.to ?? '' },
        out: null,
      };
    case 'fitted':
      return {
        ...next,
        out: { to: entry.data.serial, isVehicle: true, at: entry.at, by: entry.by.name, strokes: null, words: '' },
      };
    case 'received':
      return {
        ...next,
        out: {
          to: entry.data.name,
          isVehicle: false,
          at: entry.at,
          by: entry.by.name,
          strokes: entry.data.strokes,
          words: '',
        },
      };
    case 'unsigned':
      return {
        ...next,
        out: {
          to: entry.data.name,
          isVehicle: false,
          at: entry.at,
          by: entry.by.name,
          strokes: null,
          words: entry.data.words,
        },
      };
  }
}

const DAY_MS = 86_400_000;

function stored(before: Storage | null, { data, at, by }: HandoverEntryOf<'packStored'>): Storage {
  return {
    since: before?.since ?? at,
    readings: [...(before?.readings ?? []), { ...data, at, by: by.name }],
    measureAt: new Date(Date.parse(at) + STORAGE_DAYS * DAY_MS).toISOString(),
  };
}

/**
 * Folds the entries of a handing over, oldest first, and checks that each follows from the seal on.
 * @returns refused, with the number of the first entry that does not: `missing`, `brokenChain` or `changed`
 */
export function foldHandover(seal: string, entries: readonly HandoverEntry[]): Result<HandoverState> {
  let state = notHandedOver(seal);
  for (const [i, entry] of entries.entries()) {
    if (entry.seq !== i + 1) return refuse('missing', `Entry ${i + 1} of the handing over is missing.`);
    if (entry.prevHash !== state.headHash)
      return refuse('brokenChain', `Entry ${entry.seq} of the handing over does not follow the one before it.`);
    if (chainHandover(entry, entry.prevHash).hash !== entry.hash)
      return refuse('changed', `Entry ${entry.seq} of the handing over was changed after it was written.`);
    state = after(state, entry);
  }
  return ok(state);
}

/** Fewer points than these are a dot, no signature. */
const LEAST_POINTS = 8;

/** Why an entry may not follow; null where it may. Once it is out nothing more is said of it here but that it came back. */
export function decideHandover(state: HandoverState, { kind, data }: NewHandover): string | null {
  if (kind === 'cameBack') {
    if (state.out === null) return 'It is in the house: it was not handed over since.';
    return state.out.isVehicle ? `It is fitted to ${state.out.to}: read that vehicle.` : null;
  }
  const goesOut = kind === 'received' || kind === 'unsigned';
  const kept = goesOut ? keptIn(state) : null;
  if (kept?.reason === 'cameBackWrong') return kept.says;
  if (state.out !== null) return `It was handed over to ${state.out.to} already.`;
  if (kind === 'packTaken') return state.storage === null ? 'It is not in storage.' : null;
  if (kept) return kept.says;
  if (kind === 'received') {
    if (data.name.trim() === '') return 'Type the name of whoever receives it.';
    if (data.strokes.reduce((sum, stroke) => sum + stroke.length, 0) < LEAST_POINTS)
      return 'Sign in the field, or say that it was taken without a signature.';
  }
  if (kind === 'unsigned' && (data.name.trim() === '' || data.words.trim() === ''))
    return 'Type who took it, and in a few words why it is not signed.';
  return null;
}
