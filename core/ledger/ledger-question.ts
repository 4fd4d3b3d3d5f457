import { FUNCTIONS, type CodeFunction } from '../display/map/functions.js';
import type { LeftProof } from './left-with.js';

export const COMPARISONS = { over: 'over', under: 'under', at: 'at', means: 'meaning' } as const;
export type Comparison = keyof typeof COMPARISONS;

/** Where a unit is, or how it stands to what left. `newest`: as it left last, wherever it is. */
export const WHEREABOUTS = {
  newest: 'wherever they are',
  out: 'that are out',
  house: 'that are in the house',
  back: 'that came back',
  moved: 'that came back unlike how they left',
  every: 'in every visit, earlier ones too',
} as const;
export type Whereabouts = keyof typeof WHEREABOUTS;

/** A question to the ledger, all of whose parts must hold; plain words, so that a link says the same as a call. */
export interface LedgerQuestion {
  readonly where?: Whereabouts;
  /** Any part of a serial. */
  readonly serial?: string;
  readonly order?: string;
  readonly customer?: string;
  readonly type?: string;
  /** Id of a display map. */
  readonly map?: string;
  readonly className?: string;
  /** What a code was left at: its function, how it compares, and with what. */
  readonly code?: CodeFunction;
  readonly is?: Comparison;
  readonly value?: string;
  /** Days, both included. */
  readonly from?: string;
  readonly to?: string;
  /** Account of the person who signed it off. */
  readonly by?: string;
  /** Account of somebody who worked on it. */
  readonly worked?: string;
  /** Something was accepted in writing, or left unproved. */
  readonly finding?: 'accepted' | 'unproved';
  /** Any part of what was found or decided of it. */
  readonly words?: string;
  /** A test that it had to pass, by id, and what came of it. */
  readonly proof?: string;
  readonly proved?: ProofOutcome;
}

/** What came of a test as a unit left. */
export const PROOF_OUTCOMES = {
  shows: 'proved',
  left: 'left out in writing',
  doesNot: 'not shown',
  open: 'open',
} as const satisfies Record<LeftProof['verdict'], string>;
export type ProofOutcome = keyof typeof PROOF_OUTCOMES;

const LEDGER_QUESTION_FIELDS = [
  'where',
  'serial',
  'order',
  'customer',
  'type',
  'map',
  'className',
  'code',
  'is',
  'value',
  'from',
  'to',
  'by',
  'worked',
  'finding',
  'words',
  'proof',
  'proved',
] as const satisfies readonly (keyof LedgerQuestion)[];

/** The question that named fields hold; what is empty, or no part of one, is left out. */
export const questionFrom = (field: (name: keyof LedgerQuestion) => unknown): LedgerQuestion =>
  Object.fromEntries(
    LEDGER_QUESTION_FIELDS.flatMap((name) => {
      const value = field(name);
      return typeof value === 'string' && value.trim() !== '' ? [[name, value.trim()]] : [];
    }),
  );

/** What functions count in when the ledger compares them; words where they have no unit. */
const UNITS: Partial<Record<CodeFunction, string>> = {
  speedCap: 'km/h',
  throttleCap: 'km/h',
  modeSpeedPercent: 'km/h',
  currentLimit: 'A',
  cutoffVoltage: 'V',
  taperVoltage: 'V',
  packCapacity: 'Ah',
};

export const unitOfFunction = (what: CodeFunction): string => UNITS[what] ?? '';

export const isCodeFunction = (name: string): name is CodeFunction => Object.hasOwn(FUNCTIONS, name);
