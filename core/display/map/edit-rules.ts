import type { Gesture } from './gesture.js';

/**
 * How a shown value is changed.
 * `live`: up and down act at once. `focus`: `select` moves between name and value. `enter`: `begin` starts the edit and
 * `end` ends it, the keys mean something else meanwhile; `abandon` ends it without the change. `digits`: `begin` starts
 * at the first digit, `count` counts it up 0-9-0 and `back` down where there is such a key, `walk` goes to the next;
 * walking past the last ends the edit, or goes round to the first where `end` ends it.
 */
export type EditRules =
  | { readonly style: 'live'; readonly up: Gesture; readonly down: Gesture }
  | { readonly style: 'focus'; readonly select: Gesture; readonly up: Gesture; readonly down: Gesture }
  | {
      readonly style: 'enter';
      readonly begin: Gesture;
      readonly end: Gesture;
      readonly abandon: Gesture | null;
      readonly up: Gesture;
      readonly down: Gesture;
    }
  | {
      readonly style: 'digits';
      readonly begin: Gesture;
      readonly count: Gesture;
      readonly back?: Gesture;
      readonly walk: Gesture;
      readonly end?: Gesture;
    };

/** How the value of a code is changed: its own way, else the menu's. */
export const editOf = (
  menu: { readonly edit: EditRules },
  code: { readonly edit?: EditRules } | null | undefined,
): EditRules => code?.edit ?? menu.edit;

/** Whether each change of this code is stored as it is made: no end of an edit is there to wait for. */
export const storesAtOnce = (
  menu: { readonly edit: EditRules; readonly store: { readonly on: string } },
  code: { readonly edit?: EditRules },
): boolean => menu.store.on === 'change' || (menu.store.on === 'endOfEdit' && editOf(menu, code).style === 'live');
