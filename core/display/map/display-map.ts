import { KM_PER_MILE } from '../../speed/speed.js';
import type { Code, Condition } from './code.js';
import type { EditRules } from './edit-rules.js';
import type { Gesture } from './gesture.js';
import type { PinRules, StartPin } from './pin-rules.js';

export type { EditRules } from './edit-rules.js';
export type { PinKeys, PinRules, StartPin } from './pin-rules.js';
export type {
  Access,
  Code,
  Condition,
  Doubt,
  Encoding,
  Influence,
  MeaningSource,
  PairHalf,
  Sentinel,
  TableEntry,
} from './code.js';

/** One physical key of a display. `label` is what is printed on it. */
export interface DisplayKey {
  readonly id: string;
  readonly label: string;
}

/** How a display is switched on and off, and what it wakes to. */
export interface PowerRules {
  /** What comes before the key, such as the pack's own switch. */
  readonly first: string;
  /** Null where the unit has no key for it, and is switched by `first` alone. */
  readonly on: Gesture | null;
  readonly off: Gesture | null;
  /** Whether `off` works inside the menu. */
  readonly offInMenu: boolean;
  /** What the glass shows for a moment at power-up, where it tells anything. */
  readonly shows?: string;
  /** Asked for when it is switched on, where the display has such a PIN. */
  readonly pin?: StartPin;
}

/** What a rider reaches while riding: levels, and modes with menu lists of their own. */
export interface RideRules {
  readonly levels: {
    readonly up: Gesture;
    readonly down: Gesture;
    readonly most: number;
    /** A code that sets how many there are, where one does. */
    readonly mostBy?: string;
    /** `asLeft`: as it was when power went. A code's label: what that code says. */
    readonly wakesAt: number | 'asLeft' | { readonly code: string };
  } | null;
  readonly modes: {
    readonly gesture: Gesture;
    readonly list: readonly { readonly id: string; readonly title: string }[];
    readonly wakesIn: string;
  } | null;
  readonly acts?: readonly RideAct[];
}

/**
 * Something else a rider does on the main page by a gesture: none of it starts the motor. `needs`: what must be so first,
 * in words one can look at. `onlyIf`: it does nothing unless a code has one of these values. `icon`: lit while it is on.
 */
export interface RideAct {
  readonly title: string;
  readonly gesture: Gesture;
  readonly does: 'resetsCounter' | 'turbo' | 'motors' | 'lights';
  readonly needs?: string;
  readonly onlyIf?: Condition;
  readonly icon?: string;
  /** `liftsCaps`: nothing that is keyed ends drive while it is on. */
  readonly speed: 'unchanged' | 'liftsCaps' | 'lowers';
}

/** A way into the menu. `page` may be `ofMode`: the list of the ride mode that is on. */
export interface Opening {
  readonly gesture: Gesture;
  readonly from: 'riding' | 'off';
  readonly page: string;
}

/** What stands on a line of a page: a code, a way to another page, or a way out. */
export type PageItem =
  | { readonly code: string }
  /** Listed only while a code has one of these values, as a sub-list of own steps is. `ofMode`: the list of the ride mode. */
  | { readonly page: string; readonly title: string; readonly shownIf?: Condition }
  | { readonly back: string; readonly title: string }
  | { readonly exit: true; readonly title: string };

export interface MenuPage {
  readonly id: string;
  readonly title: string;
  readonly items: readonly PageItem[];
  /** What `next` does on the last item; the menu's rule when left out. */
  readonly afterLast?: 'wrap' | 'leave' | 'stop';
  /** The ride mode whose list this is. */
  readonly mode?: string;
  /** Entered only once the PIN was given, where that is asked for at entries and not on opening the menu. */
  readonly asksPin?: true;
  /** Why nobody enters it: motor, phase and protection pages of the maker. */
  readonly neverEnter?: string;
}

/** A gesture that passes from one page to the first item of another. */
export interface PageTurn {
  readonly gesture: Gesture;
  readonly from: string;
  readonly to: string;
}

/**
 * When a changed value is stored: with every change, when another item is shown, when the edit ends, by a gesture of
 * its own, or all at once on leaving. `message` stays on the glass meanwhile and no key counts.
 */
export interface StoreRules {
  readonly on: 'change' | 'move' | 'endOfEdit' | 'gesture' | 'leave';
  readonly by?: Gesture;
  /** An edit that ends by itself after so long without a press, the menu staying open; what is shown is stored, or dropped. */
  readonly pause?: { readonly ms: number; readonly does: 'store' | 'drop' };
  readonly message?: { readonly text: string; readonly ms: number };
}

/** What happens without a press. */
export interface IdleRules {
  readonly browseMs: number;
  readonly editMs: number;
  readonly pinMs: number;
  /** What closing by itself does to a change that is not stored yet. */
  readonly unstored: 'keep' | 'drop';
  /** Where the menu opens after it closed by itself. */
  readonly reopensAt: 'first' | 'same';
}

/** How the menu is moved through and its values changed. */
export interface MenuRules {
  readonly opens: readonly Opening[];
  readonly pin: PinRules | null;
  /** Leaves from anywhere; null where only an Exit entry, the end of the list or waiting leaves. */
  readonly close: Gesture | null;
  readonly pages: readonly MenuPage[];
  readonly turns: readonly PageTurn[];
  readonly next: Gesture;
  readonly previous: Gesture | null;
  readonly afterLast: 'wrap' | 'leave' | 'stop';
  /** Takes a page, Back or Exit entry. */
  readonly pick: Gesture | null;
  readonly edit: EditRules;
  readonly values: 'wrap' | 'stop';
  /** Steps again and again while the key is held. */
  readonly repeat: { readonly delayMs: number; readonly everyMs: number } | null;
  readonly store: StoreRules;
  readonly idle: IdleRules;
}

/** For units set through an app or a service connection: what is done instead of pressing keys, in order. */
export interface InstructionChannel {
  readonly via: string;
  readonly connect: readonly string[];
  readonly choose: string;
  readonly write: readonly string[];
  readonly reconnect: readonly string[];
  /** Pack profiles that a rider can switch: each is checked. */
  readonly profiles: readonly string[];
  /** A version to have first. */
  readonly firmware?: string;
  /** Whether what is written stays for good (left out), or only while the thing that wrote it stays attached. */
  readonly lasts?: 'forGood' | 'whileAttached';
  /** How what stands there is read through the same channel; left out where it is read on the glass. */
  readonly readOut?: readonly string[];
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
  /** What it amounts to, where something else hangs on that; nobody reads it out of the words. */
  readonly does?: 'leavesMenu' | 'unplugsDisplay';
}

/** A sign lit while riding when a code has one of these values, and what it proves. */
export interface RidingIcon {
  readonly title: string;
  readonly proves: string;
  readonly litIf: { readonly code: string; readonly in: readonly number[] };
}

/** How the display shows speed. `overshootKmh`: how far above the cap, in shown km/h, drive still acts; null unknown. */
export interface SpeedShown {
  readonly rounding: 'nearest' | 'truncated' | 'unknown';
  readonly decimals: number;
  readonly overshootKmh: number | null;
}

/** Step of the speed that a display shows, km/h; whole figures where its map does not say. */
export const shownStepKmh = ({ speed }: Pick<DisplayMap, 'speed'>, inMiles: boolean): number =>
  10 ** -(speed?.decimals ?? 0) * (inMiles ? KM_PER_MILE : 1);

/** How the battery gauge counts its bars: `edge`, a bar goes out at the end of its share of the charge; `centre`, in the middle of it. */
export interface GaugeRules {
  readonly barGoesOutAt: 'edge' | 'centre';
}

/** Something a person can see that tells this revision from those that look alike. */
export interface Tell {
  /** The question, such as `Letter on the sticker at the back`. */
  readonly fact: string;
  readonly shows: string;
}

/** One display family at one revision: keys, gestures, menu, codes. Data, not code. */
export interface DisplayMap {
  readonly format: 'decurio-display-map/2';
  readonly id: string;
  readonly name: string;
  readonly revision: string;
  /** Maps of one family look alike from outside. */
  readonly family?: string;
  readonly tellBy: string;
  readonly tells?: readonly Tell[];
  readonly keys: readonly DisplayKey[];
  readonly power: PowerRules;
  readonly ride?: RideRules;
  readonly icons?: readonly RidingIcon[];
  readonly speed?: SpeedShown;
  /** Bars go out at the edge of their share where nothing is said. */
  readonly gauge?: GaugeRules;
  /** Null for a unit that is set by instruction. */
  readonly menu: MenuRules | null;
  readonly instructions?: InstructionChannel;
  readonly restart: readonly RestartAct[];
  readonly dangers: readonly Danger[];
  readonly codes: readonly Code[];
  readonly notes?: string;
  /** Against which real unit the map was confirmed; null for a draft, under which nothing is released. */
  readonly confirmed: {
    readonly by: string;
    readonly on: string;
    readonly unit: string;
    readonly firmware: string;
  } | null;
}

/** A map whose display is set by its keys. */
export type KeyedMap = DisplayMap & { readonly menu: MenuRules };

export const isKeyed = (map: DisplayMap): map is KeyedMap => map.menu !== null;

/** Name and revision as they stand on screens and papers, e.g. `Tallow four-key, revision C`. */
export const mapTitle = (map: Pick<DisplayMap, 'name' | 'revision'>): string => `${map.name}, revision ${map.revision}`;

export const findCode = (map: DisplayMap, label: string): Code | undefined =>
  map.codes.find((code) => code.label === label);

/** What the glass shows for a code. */
export const glassLabel = (code: Code): string => code.shownAs ?? code.label;

export const keyLabel = (map: DisplayMap, keyId: string): string =>
  map.keys.find((key) => key.id === keyId)?.label ?? keyId;
