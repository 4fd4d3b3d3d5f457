import type { Condition } from '../display/map/code.js';
import type { Proof } from '../prove/proof.js';
import type { NotProved, ProvingTest } from '../prove/proving-test.js';
import type { CodeFunction } from '../display/map/functions.js';
import type { ShownSpeed } from '../speed/wheel-code.js';

/** Which input spoke: shown as a word beside each step of a trail. */
export const TRAIL_SOURCES = {
  class: 'Class',
  site: 'Site',
  order: 'Order',
  type: 'Type',
  house: 'House rule',
  display: 'Display',
  unit: 'This unit',
  lead: 'Lead',
} as const;
export type TrailSource = keyof typeof TRAIL_SOURCES;

/** One step on the way to a target. The ones marked `decided` are what it rests on. */
export interface TrailStep {
  readonly from: TrailSource;
  readonly says: string;
  readonly decided?: true;
}

/** What one code must show when the unit leaves, and why. */
export interface CodeTarget {
  readonly label: string;
  readonly function: CodeFunction;
  /** Raw digits as shown; null leaves the code as found. */
  readonly raw: number | null;
  /** Shown by the display, not changeable by its keys. */
  readonly locked: boolean;
  /** Never on the glass in the course of the work: not on this display, for a tool alone, secret, or on a page nobody enters. */
  readonly offGlass?: true;
  /** The display lists it only while another code has one of these values. */
  readonly shownIf?: Condition;
  /** A PIN by policy: kept encrypted, keyed at hand over, never in the record. */
  readonly secret?: true;
  /** One sentence or a few, in words a customer could be shown. */
  readonly because: string;
  /** How it came about, in order. Left out where the reason says it all. */
  readonly trail?: readonly TrailStep[];
}

/** `stop`: cannot be released. `decide`: a lead chooses, in writing. `note`: to be known. */
export interface Finding {
  readonly level: 'stop' | 'decide' | 'note';
  /** The same finding on other units of the order has the same id. Records of the first release have none. */
  readonly id?: string;
  /** The code it is about, or null for the whole unit. */
  readonly label: string | null;
  readonly says: string;
  /** A lead's choice, where one was made. */
  readonly decided?: { readonly words: string; readonly by: string; readonly on: string };
}

/** A code that has to be keyed after another, since storing that one moves it. */
export interface KeyedAfter {
  readonly label: string;
  readonly after: string;
  readonly because: string;
}

/** What the promise asks of wheel code and cap. */
export interface SpeedTerms {
  /** True km/h, the same in the unit it was laid down in, and the sentence that led there; null where nothing limits. */
  readonly limit: { readonly kmh: number; readonly words: string; readonly says: string } | null;
  /** Stated by the rule itself, relative; it loosens only the worst case. */
  readonly tolerance: number;
  readonly shown: ShownSpeed;
  /** Approved as it is: compared and restored, never fitted. */
  readonly isFixed: boolean;
  /** House rules let a trim of the pulses fit the wheel. */
  readonly mayTrim: boolean;
  /** Without any cap, on a full pack, on the level, km/h. */
  readonly attainableKmh: number;
  /** Per turn, as counted on the type. */
  readonly pulses: number;
  readonly tyre: string;
  /** Its pressure, cold, bar; left out where the type does not say. */
  readonly tyreBar?: { readonly from: number; readonly to: number };
  /** How many km/h one raw step of each cap means, by label. */
  readonly kmhPerRaw: Readonly<Record<string, number>>;
}

/** What an order means for a unit: a target for every code in menu order, each with its reason, and findings. */
export interface Setup {
  readonly targets: readonly CodeTarget[];
  /** Stops first, then what a lead decides, then notes. */
  readonly findings: readonly Finding[];
  /** Lowest of class, site, order and type limits, km/h true speed. */
  readonly limitKmh: number;
  /** What a rider could reach at worst with these targets, km/h; left out where nothing caps it. */
  readonly worst?: { readonly kmh: number; readonly says: string };
  /** What calibrating has to keep to. Records of before it was led through have none. */
  readonly speed?: SpeedTerms;
  /** What the vehicle itself has to show, in the order of least movement. Records of before it was led through have none. */
  readonly tests?: readonly ProvingTest[];
  /** Codes that are read back and not proved, with the reason. */
  readonly notProved?: readonly NotProved[];
  /** What records of before that asked for, in words alone; the first of them have it as sentences, under another name. */
  readonly proves?: readonly Proof[];
  readonly keyedAfter?: readonly KeyedAfter[];
}

export const targetOf = (setup: Setup, label: string): CodeTarget | undefined =>
  setup.targets.find((target) => target.label === label);

/** Whether a lead still has to choose. */
export const isOpen = (finding: Finding): boolean => finding.level === 'decide' && finding.decided === undefined;
