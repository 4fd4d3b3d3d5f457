import {
  glassLabel,
  type Code,
  type Condition,
  type DisplayMap,
  type KeyedMap,
  type MenuPage,
  type PageItem,
} from '../map/display-map.js';
import { pagesListing } from '../map/pages-listing.js';
import { codeNow } from '../map/range-in-unit.js';
import { formatRaw, nearestValue, valuesInOrder } from '../map/raw-value.js';

export type RawValues = Readonly<Record<string, number>>;

/** Nothing that is shown and not stored: one and the same, so that what follows from values is worked out once. */
export const ALL_STORED: RawValues = Object.freeze({});

/** Where a display stands. `item` counts the lines of the page from 0, hidden ones included. */
export type Screen =
  | { readonly kind: 'off' }
  | { readonly kind: 'riding' }
  | PinScreen
  | MenuScreen
  | { readonly kind: 'message'; readonly text: string; readonly leftMs: number; readonly then: Screen };

export interface PinScreen {
  readonly kind: 'pin';
  /** For what: the menu, an entry or a page of it, or riding at all. */
  readonly asks: 'menu' | 'start';
  readonly digits: readonly number[];
  readonly at: number;
  /** What stands on the glass once it was given. */
  readonly then: MenuScreen | { readonly kind: 'riding' };
  /** What stood there before, inside the menu. */
  readonly from?: MenuScreen;
}

export interface MenuScreen {
  readonly kind: 'menu';
  readonly page: string;
  readonly item: number;
  readonly focus: 'name' | 'value';
  /** Which digit is being counted, where values are edited digit by digit. */
  readonly digit: number;
  /** The digits as they stand meanwhile; they need not make a value that the code takes. */
  readonly digits?: readonly number[];
}

/**
 * State of a display between two inputs. `stored` is what the menu holds, `inForce` what the vehicle obeys: codes that
 * act after a restart differ between the two until power is cycled. `unstored` are shown changes not stored yet.
 * `idleMs` counts since the last input.
 */
export interface DisplayState {
  readonly screen: Screen;
  readonly level: number;
  readonly mode: string | null;
  /** Whether this opening of the menu was given the right PIN, or needs none. */
  readonly unlocked: boolean;
  /** Wrong PINs in a row. */
  readonly wrongPins: number;
  readonly unstored: RawValues;
  readonly stored: RawValues;
  readonly inForce: RawValues;
  readonly idleMs: number;
  /** Where the menu opens again after it closed by itself. */
  readonly resume: { readonly page: string; readonly item: number } | null;
  /** Actions that were run since this display was laid on the bench, by label. */
  readonly ran: readonly string[];
  /** Acts on the main page that are on, by title, and those done that leave nothing on. */
  readonly on: readonly string[];
  readonly acted: readonly string[];
  /** Whether a press has started the motor since this display was laid on the bench. */
  readonly motorStarted: boolean;
}

/** What the glass shows. `label` names the code in the map, `shows` is what stands on the glass. */
export type Glass =
  | { readonly kind: 'off' }
  | {
      readonly kind: 'riding';
      readonly level: number | null;
      readonly mode: string | null;
      readonly icons: readonly string[];
    }
  | { readonly kind: 'pin'; readonly digits: string; readonly at: number }
  | {
      readonly kind: 'menu';
      readonly label: string;
      readonly shows: string;
      readonly raw: number;
      /** The value as its digits stand on the glass. */
      readonly text: string;
      /** What blinks or is marked: the name, the value, or one digit of it. */
      readonly focus: 'name' | 'value';
      readonly digit: number | null;
      readonly page: string;
    }
  | { readonly kind: 'entry'; readonly shows: string; readonly page: string }
  | { readonly kind: 'message'; readonly text: string };

/** A display as it leaves the maker, or holding `stored` values, switched on and riding. */
export function displayAtRest(map: DisplayMap, stored: RawValues = {}, levelBefore = 1): DisplayState {
  const values: Record<string, number> = {};
  for (const code of map.codes) values[code.label] = stored[code.label] ?? code.factory;
  return {
    screen: { kind: 'riding' },
    level: wakesAt(map, values, levelBefore),
    mode: map.ride?.modes?.wakesIn ?? null,
    unlocked: map.menu?.pin === null,
    wrongPins: 0,
    unstored: ALL_STORED,
    stored: values,
    inForce: values,
    idleMs: 0,
    resume: null,
    ran: [],
    on: [],
    acted: [],
    motorStarted: false,
  };
}

/** The level at which it wakes, within those that a rider reaches. */
function wakesAt(map: DisplayMap, values: RawValues, before: number): number {
  const levels = map.ride?.levels;
  if (!levels) return 0;
  const level =
    levels.wakesAt === 'asLeft'
      ? before
      : typeof levels.wakesAt === 'number'
        ? levels.wakesAt
        : (numberOf(map, levels.wakesAt.code, values) ?? 0);
  return Math.max(0, Math.min(mostLevel(map, values), level));
}

/** The highest level that a rider reaches: as many as a code sets, where one does, and never more than there are. */
export function mostLevel(map: DisplayMap, values: RawValues): number {
  const levels = map.ride?.levels;
  if (!levels) return 0;
  const set = levels.mostBy === undefined ? null : numberOf(map, levels.mostBy, values);
  return set === null ? levels.most : Math.min(levels.most, set);
}

/** What a code amounts to as a number; null where its word is none. */
function numberOf(map: DisplayMap, label: string, values: RawValues): number | null {
  const code = codeOf(map, label);
  const raw = values[label] ?? code.factory;
  const { encoding } = code;
  if (encoding.kind === 'line') return raw * encoding.scale;
  if (encoding.kind !== 'table') return null;
  const word = Number(encoding.entries.find((entry) => entry.raw === raw)?.value ?? '');
  return Number.isFinite(word) && word > 0 ? word : null;
}

/** The same display with the menu open at a code, as when a person says what the glass shows. Null where no page has it. */
export function displayAtCode(
  map: KeyedMap,
  state: DisplayState,
  label: string,
  focus: MenuScreen['focus'] = 'name',
): DisplayState | null {
  // Where lists share it, on that of the mode that is on.
  const pages = [...pagesListing(map, label)].sort(
    (a, b) => Number(b.mode === state.mode) - Number(a.mode === state.mode),
  );
  for (const page of pages) {
    const item = page.items.findIndex((entry) => 'code' in entry && entry.code === label);
    if (item !== -1) {
      return {
        ...state,
        unlocked: true,
        mode: page.mode ?? state.mode,
        screen: { kind: 'menu', page: page.id, item, focus, digit: 0 },
        unstored: ALL_STORED,
        idleMs: 0,
      };
    }
  }
  return null;
}

const pagesById = new WeakMap<KeyedMap['menu'], ReadonlyMap<string, MenuPage>>();

export function pageOf(map: KeyedMap, id: string): MenuPage {
  let pages = pagesById.get(map.menu);
  if (!pages) {
    pages = new Map(map.menu.pages.map((page) => [page.id, page]));
    pagesById.set(map.menu, pages);
  }
  const page = pages.get(id);
  if (!page) throw new Error(`no page ${id} in ${map.id}`);
  return page;
}

export const itemOf = (map: KeyedMap, { page, item }: Pick<MenuScreen, 'page' | 'item'>): PageItem => {
  const entry = pageOf(map, page).items[item];
  if (!entry) throw new Error(`no item ${item} on page ${page} of ${map.id}`);
  return entry;
};

/** The code on the glass, if a code is shown. */
export function codeShown(map: KeyedMap, state: DisplayState): Code | null {
  if (state.screen.kind !== 'menu') return null;
  const entry = itemOf(map, state.screen);
  return 'code' in entry ? codeOf(map, entry.code) : null;
}

const byLabel = new WeakMap<DisplayMap, ReadonlyMap<string, Code>>();

export function codeOf(map: DisplayMap, label: string): Code {
  let codes = byLabel.get(map);
  if (!codes) {
    codes = new Map(map.codes.map((code) => [code.label, code]));
    byLabel.set(map, codes);
  }
  const code = codes.get(label);
  if (!code) throw new Error(`no code ${label} in ${map.id}`);
  return code;
}

/** The value on the glass for a code: a change not stored yet, else what is stored. */
export const shownValue = (state: DisplayState, code: Code): number =>
  state.unstored[code.label] ?? state.stored[code.label] ?? code.factory;

/** Whether the display lists this item now. */
export function isListed(map: DisplayMap, state: Pick<DisplayState, 'stored'>, item: PageItem): boolean {
  const holds = (condition: Condition | undefined): boolean =>
    condition === undefined || condition.in.includes(state.stored[condition.code] ?? Number.NaN);
  if (!('code' in item)) return holds('page' in item ? item.shownIf : undefined);
  const code = codeOf(map, item.code);
  return code.access !== 'tool' && code.access !== 'absent' && holds(code.shownIf);
}

/** Values the keys can step a code through now, in order: its own, within the bounds that other codes set. */
export function settableValues(map: DisplayMap, state: Pick<DisplayState, 'stored'>, code: Code): readonly number[] {
  const all = valuesInOrder(codeNow(code, state.stored));
  const bounds = boundsOf(map, code.label);
  if (bounds.length === 0) return all;
  return all.filter((raw) =>
    bounds.every(({ by, as }) =>
      as === 'most' ? raw <= (state.stored[by] ?? Infinity) : raw >= (state.stored[by] ?? -Infinity),
    ),
  );
}

type Bound = { readonly by: string; readonly as: 'most' | 'least' };
const bounds = new WeakMap<DisplayMap, ReadonlyMap<string, readonly Bound[]>>();

function boundsOf(map: DisplayMap, label: string): readonly Bound[] {
  let found = bounds.get(map);
  if (!found) {
    const all = new Map<string, Bound[]>();
    for (const code of map.codes) {
      for (const influence of code.influences ?? []) {
        if (influence.kind === 'limits')
          all.set(influence.code, [...(all.get(influence.code) ?? []), { by: code.label, as: influence.as }]);
      }
    }
    found = all;
    bounds.set(map, found);
  }
  return found.get(label) ?? [];
}

/** Whether the keys move this code as things stand. */
export const mayMove = (state: DisplayState, code: Code): boolean =>
  code.access === 'open' || code.access === 'never' || (code.access === 'pin' && state.unlocked);

/** What a person sees in this state. */
export function glassOf(map: DisplayMap, state: DisplayState): Glass {
  const { screen } = state;
  switch (screen.kind) {
    case 'off':
      return { kind: 'off' };
    case 'message':
      return { kind: 'message', text: screen.text };
    case 'pin':
      return { kind: 'pin', digits: screen.digits.join(''), at: screen.at };
    case 'riding':
      return {
        kind: 'riding',
        level: map.ride?.levels ? state.level : null,
        mode: map.ride?.modes?.list.find((mode) => mode.id === state.mode)?.title ?? null,
        icons: (map.icons ?? [])
          .filter(({ litIf }) => litIf.in.includes(state.inForce[litIf.code] ?? Number.NaN))
          .map((icon) => icon.title)
          .concat(
            (map.ride?.acts ?? []).flatMap(({ title, icon }) => (icon && state.on.includes(title) ? [icon] : [])),
          ),
      };
    case 'menu':
      return menuGlass(map as KeyedMap, state, screen);
  }
}

function menuGlass(map: KeyedMap, state: DisplayState, screen: MenuScreen): Glass {
  const page = pageOf(map, screen.page).title;
  const entry = itemOf(map, screen);
  if (!('code' in entry)) return { kind: 'entry', shows: entry.title, page };
  const code = codeOf(map, entry.code);
  const now = codeNow(code, state.stored);
  const raw = shownValue(state, code);
  const { digits } = screen;
  return {
    kind: 'menu',
    label: code.label,
    shows: glassLabel(code),
    raw,
    text: digits ? digitText(now, digits) : formatRaw(now, raw),
    focus: screen.focus,
    digit: digits ? screen.digit : null,
    page,
  };
}

function digitText(code: Code, digits: readonly number[]): string {
  const text = digits.join('');
  if (code.encoding.kind === 'clock') return `${text.slice(0, 2)}:${text.slice(2)}`;
  if (code.encoding.kind === 'date') return `${text.slice(0, 2)}-${text.slice(2, 4)}-${text.slice(4)}`;
  return code.decimals === 0 ? text : `${text.slice(0, -code.decimals)}.${text.slice(-code.decimals)}`;
}

/** A value that this display can hold, nearest to the given one. */
export const settled = (map: DisplayMap, state: Pick<DisplayState, 'stored'>, code: Code, raw: number): number => {
  const values = settableValues(map, state, code);
  return values.includes(raw)
    ? raw
    : nearestValue(values.length > 0 ? values : valuesInOrder(codeNow(code, state.stored)), raw);
};

/** The PIN in force: what the map's own PIN code holds, else as delivered. Empty where none is asked for. */
export function pinInForce(map: DisplayMap, stored: RawValues, asks: PinScreen['asks'] = 'menu'): string {
  const pin = asks === 'start' ? map.power.pin : map.menu?.pin;
  if (!pin) return '';
  const code = map.codes.find((c) => c.function === (asks === 'start' ? 'startupPin' : 'accessPin'));
  const held = code === undefined ? undefined : stored[code.label];
  return held === undefined ? pin.factory : String(held).padStart(pin.factory.length, '0');
}
