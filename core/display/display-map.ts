import type { CodeFunction } from './functions.js';

/** One physical key of a display. `label` is what is printed on it. */
export interface DisplayKey {
  readonly id: string;
  readonly label: string;
}

/** A tap on one key, or keys held together for a time. */
export type Gesture =
  | { readonly kind: 'tap'; readonly key: string }
  | { readonly kind: 'hold'; readonly keys: readonly string[]; readonly ms: number };

/** A meaning of raw digits that stands outside the table or line, such as `99` for no cap. */
export interface Sentinel {
  readonly raw: number;
  readonly means: 'noCap' | 'off' | 'auto';
  readonly title: string;
}

/** From raw digits to meaning: a table of words, or a line `value = raw * scale` in `unit`. */
export type Encoding =
  | { readonly kind: 'table'; readonly entries: readonly TableEntry[] }
  | { readonly kind: 'line'; readonly scale: number; readonly unit: string; readonly sentinels: readonly Sentinel[] };

/** `value` is the meaning in the vocabulary of its function, `title` what a person reads. */
export interface TableEntry {
  readonly raw: number;
  readonly value: string;
  readonly title: string;
}

/** Where the meaning of a code was learnt. Hearsay is shown and never becomes a target. */
export type MeaningSource = 'measured' | 'makersPaper' | 'hearsay';

/** One entry of the menu as the display labels it. */
export interface Code {
  readonly label: string;
  readonly function: CodeFunction;
  /** Raw range and step as shown on the glass; steps of 0.1 have `decimals` 1. */
  readonly range: { readonly min: number; readonly max: number; readonly step: number };
  readonly decimals: number;
  /** As the maker delivers it. */
  readonly factory: number;
  readonly encoding: Encoding;
  readonly access: 'open' | 'locked';
  readonly effect: 'acts' | 'displayOnly' | 'unverified';
  readonly actsAfter: 'once' | 'restart';
  readonly source: MeaningSource;
  readonly note?: string;
}

/** How the menu is moved through and its values changed. */
export interface MenuRules {
  readonly open: Gesture;
  readonly close: Gesture;
  readonly next: string;
  readonly previous: string | null;
  /** What `next` does on the last code. */
  readonly afterLast: 'wrap' | 'leave';
  /** `live`: up and down change the shown value at once. `focus`: `select` moves between name and value first. */
  readonly edit:
    | { readonly style: 'live'; readonly up: string; readonly down: string }
    | { readonly style: 'focus'; readonly select: string; readonly up: string; readonly down: string };
  /** Whether a value steps over the end of its range to the other end. */
  readonly valuesWrap: boolean;
  /** When a changed value is stored. */
  readonly store: 'onChange' | 'onMove';
  readonly idleMs: number;
  /** What closing by itself does to a change that is not stored yet. */
  readonly onTimeout: 'keep' | 'drop';
}

/** A gesture that starts the motor, by accident too. */
export interface Danger {
  readonly gesture: Gesture;
  readonly caution: string;
}

/** One act of the power cycle; `waitMs` counts down on the bench where waiting is needed. */
export interface RestartAct {
  readonly act: string;
  readonly waitMs: number;
}

/** One display family at one revision: keys, gestures, menu, codes. Data, not code. */
export interface DisplayMap {
  readonly format: 'decurio-display-map/1';
  readonly id: string;
  readonly name: string;
  readonly revision: string;
  /** What a person can see that tells this revision from those that look alike. */
  readonly tellBy: string;
  readonly keys: readonly DisplayKey[];
  readonly powerUp: { readonly first: string; readonly gesture: Gesture };
  readonly menu: MenuRules;
  readonly restart: readonly RestartAct[];
  readonly dangers: readonly Danger[];
  readonly codes: readonly Code[];
  readonly confirmed: { readonly by: string; readonly on: string; readonly unit: string; readonly firmware: string } | null;
}

/** Name and revision as they stand on screens and papers, e.g. `Tallow four-key, revision C`. */
export const mapTitle = (map: Pick<DisplayMap, 'name' | 'revision'>): string => `${map.name}, revision ${map.revision}`;

export const findCode = (map: DisplayMap, label: string): Code | undefined =>
  map.codes.find((code) => code.label === label);

export const keyLabel = (map: DisplayMap, keyId: string): string =>
  map.keys.find((key) => key.id === keyId)?.label ?? keyId;
