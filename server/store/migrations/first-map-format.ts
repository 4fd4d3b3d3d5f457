import type { DisplayMap, EditRules, Gesture, MenuRules } from '@decurio/core';

/** A display map as the first release stored it: one list, keys by their id, values stored on change or on moving on. */
export interface FirstMap {
  readonly powerUp?: { readonly first: string; readonly gesture: Gesture };
  readonly menu: {
    readonly open: Gesture;
    readonly close: Gesture;
    readonly next: string;
    readonly previous: string | null;
    readonly afterLast: 'wrap' | 'leave';
    readonly edit: {
      readonly style: 'live' | 'focus';
      readonly select?: string;
      readonly up: string;
      readonly down: string;
    };
    readonly valuesWrap: boolean;
    readonly store: 'onChange' | 'onMove';
    readonly idleMs: number;
    readonly onTimeout: 'keep' | 'drop';
  };
  readonly codes: DisplayMap['codes'];
}

/** The same display in today's form; null where it is in that form already. */
export function upgradeMap(first: FirstMap): DisplayMap | null {
  const { powerUp, menu, ...rest } = first;
  if (!powerUp) return null;
  const map = { ...rest, power: powerOf(powerUp), menu: menuOf(menu, first.codes) };
  return map as unknown as DisplayMap;
}

const tap = (key: string): Gesture => ({ kind: 'tap', key });

/** How it is switched off was not written down: the same key, held longer. */
function powerOf({ first, gesture }: NonNullable<FirstMap['powerUp']>): DisplayMap['power'] {
  const off: Gesture = gesture.kind === 'hold' ? { ...gesture, ms: gesture.ms + 500 } : gesture;
  return { first, on: gesture, off, offInMenu: false };
}

function menuOf(menu: FirstMap['menu'], codes: DisplayMap['codes']): MenuRules {
  const { edit, idleMs } = menu;
  const steppers = { up: tap(edit.up), down: tap(edit.down) };
  const now: EditRules =
    edit.style === 'focus'
      ? { style: 'focus', select: tap(edit.select ?? edit.up), ...steppers }
      : { style: 'live', ...steppers };
  return {
    opens: [{ gesture: menu.open, from: 'riding', page: 'main' }],
    pin: null,
    close: menu.close,
    pages: [{ id: 'main', title: 'Menu', items: codes.map(({ label }) => ({ code: label })) }],
    turns: [],
    next: tap(menu.next),
    previous: menu.previous === null ? null : tap(menu.previous),
    afterLast: menu.afterLast,
    pick: null,
    edit: now,
    values: menu.valuesWrap ? 'wrap' : 'stop',
    repeat: null,
    store: { on: edit.style === 'focus' ? 'endOfEdit' : menu.store === 'onChange' ? 'change' : 'move' },
    idle: { browseMs: idleMs, editMs: idleMs, pinMs: idleMs, unstored: menu.onTimeout, reopensAt: 'first' },
  };
}
