import type { Gesture } from './gesture.js';
import type { CodeFunction } from './functions.js';
import type { EditRules } from './edit-rules.js';

/** A meaning of raw digits that stands outside the table or line, such as `99` for no cap. */
export interface Sentinel {
  readonly raw: number;
  readonly means: 'noCap' | 'off' | 'auto';
  readonly title: string;
}

/** `value` is the meaning in the vocabulary of its function, `title` what a person reads. */
export interface TableEntry {
  readonly raw: number;
  readonly value: string;
  readonly title: string;
}

/**
 * One of two functions carried by a code: its digit and what that digit means. `up` and `down` move it, where they are
 * not the keys of the edit; without `down` it only goes up. `values`: round over its end, or stopping there.
 */
export interface PairHalf {
  readonly function: CodeFunction;
  readonly entries: readonly TableEntry[];
  readonly up?: Gesture;
  readonly down?: Gesture;
  readonly values?: 'wrap' | 'stop';
}

/**
 * From raw digits to meaning.
 * `table`: words, in the order in which the keys step through them.
 * `line`: `value = raw * scale` in `unit`; `follows` names the units code with which the display changes that unit
 * (left out: the unit stands, whatever else is shown in mph); from `doubtfulFrom` on a value may mean no cap at all.
 * `pair`: two functions in one code, raw = first * 10 + second; the up key steps the first, the down key the second,
 * or the other way about where it is `turned`, or each half by keys of its own.
 * `clock`: minutes since midnight, shown as hours and minutes. `date`: days since 2000-01-01, shown as year, month, day.
 */
export type Encoding =
  | { readonly kind: 'table'; readonly entries: readonly TableEntry[] }
  | {
      readonly kind: 'line';
      readonly scale: number;
      readonly unit: string;
      readonly sentinels: readonly Sentinel[];
      readonly follows?: string;
      readonly doubtfulFrom?: number;
    }
  | { readonly kind: 'pair'; readonly first: PairHalf; readonly second: PairHalf; readonly turned?: boolean }
  | { readonly kind: 'clock' }
  | { readonly kind: 'date' };

/** Where the meaning of a code was learnt. Hearsay is shown and never becomes a target. */
export type MeaningSource = 'measured' | 'makersPaper' | 'hearsay';

/**
 * `open`: keys move it. `locked`: shown, does not move. `pin`: moves once the menu's PIN was given. `tool`: readable
 * only with a maker's tool. `never`: on the glass, and left alone. `absent`: in the paper, not on this display.
 */
export type Access = 'open' | 'locked' | 'pin' | 'tool' | 'never' | 'absent';

/**
 * What storing this code does to another: bounds its range, brings it back to the maker's value, or converts its unit:
 * to the nearest value it then has, or the next one `down`.
 */
export type Influence =
  | { readonly kind: 'limits'; readonly code: string; readonly as: 'most' | 'least' }
  | { readonly kind: 'resets'; readonly code: string }
  | { readonly kind: 'converts'; readonly code: string; readonly rounding?: 'nearest' | 'down' };

/** Holds while a code has one of these raw values. */
export interface Condition {
  readonly code: string;
  readonly in: readonly number[];
}

/** Something nobody is sure of. With `raws` of these values alone, which are then never a target; without, of the whole entry. */
export interface Doubt {
  readonly raws?: readonly number[];
  readonly says: string;
}

/** The range of a code while a units code has one of these values. */
export interface OtherRange {
  readonly when: Condition;
  readonly range: { readonly min: number; readonly max: number; readonly step: number };
  readonly decimals?: number;
  readonly factory?: number;
}

/** One entry of the menu as the display labels it. */
export interface Code {
  /** Unique in its map. */
  readonly label: string;
  /** What the glass shows where that differs, as when every ride mode has a list of its own with the same labels. */
  readonly shownAs?: string;
  readonly function: CodeFunction;
  /** Which motor it is about, where the vehicle has two and each has entries of its own. */
  readonly motor?: 'front' | 'rear';
  /** Raw range and step as shown on the glass; steps of 0.1 have `decimals` 1. */
  readonly range: { readonly min: number; readonly max: number; readonly step: number };
  readonly decimals: number;
  /** Other ranges, steps and decimals that it has in another unit; `factory`: what restoring the maker's values then leaves. */
  readonly otherRanges?: readonly OtherRange[];
  /** Raw values within the range that the keys pass over. */
  readonly skips?: readonly number[];
  /** As the maker delivers it. */
  readonly factory: number;
  readonly encoding: Encoding;
  readonly access: Access;
  readonly effect: 'acts' | 'displayOnly' | 'unverified';
  readonly actsAfter: 'once' | 'restart';
  /** Where the value lives; `controller` when left out. `profile`: each pack profile that a rider can switch to has its own. */
  readonly keptIn?: 'controller' | 'display' | 'displayWhileAttached' | 'untilPackOut' | 'profile';
  /** What a greater value does, where that differs from display to display. */
  readonly more?: 'quicker' | 'slower' | 'stronger' | 'weaker';
  /** Whether values step over the end of the range; the menu's rule when left out. */
  readonly values?: 'wrap' | 'stop';
  /** A hold that erases this entry, at any time while it is shown. */
  readonly holdErases?: { readonly gesture: Gesture; readonly says: string };
  /** An entry that does something when its raw 1 is stored: everything, or the trip, back to the maker's value. */
  readonly action?: 'restoreDefaults' | 'resetTrip';
  /** Shown only while another code has one of these raw values. */
  readonly shownIf?: Condition;
  /** Does nothing on the road while another code has one of these raw values, whatever it shows. */
  readonly deadIf?: Condition;
  /** Where this entry is changed otherwise than the menu's: a clock by digits, a switch by one press. */
  readonly edit?: EditRules;
  /** What stands on the glass instead of the digits. */
  readonly shows?: readonly { readonly raw: number; readonly text: string }[];
  readonly doubts?: readonly Doubt[];
  readonly influences?: readonly Influence[];
  /** Circumference in mm that a wheel code makes the display count with. */
  readonly wheelTable?: readonly { readonly raw: number; readonly mm: number }[];
  readonly source: MeaningSource;
  readonly note?: string;
}
