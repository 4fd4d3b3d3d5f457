import type { Code, DisplayMap, EditRules, MenuRules } from '../map/display-map.js';
import type { Gesture } from '../map/gesture.js';

/** What a person notes of one code while walking the menu of a live unit once. */
export interface CapturedCode {
  readonly label: string;
  readonly found: number;
  /** Lowest and highest value seen; the same where it did not move. */
  readonly min: number;
  readonly max: number;
  readonly decimals: number;
  readonly isLocked: boolean;
  /** Whether the value went round at its end. */
  readonly wraps: boolean;
  readonly note: string;
}

/** A walk through an unknown display, noted as it was made. */
export interface Capture {
  readonly name: string;
  readonly revision: string;
  readonly serial: string;
  readonly firmware: string;
  readonly keys: readonly { readonly id: string; readonly label: string }[];
  readonly power: { readonly first: string; readonly on: Gesture; readonly off: Gesture };
  readonly open: Gesture;
  readonly close: Gesture | null;
  readonly next: Gesture;
  readonly previous: Gesture | null;
  readonly afterLast: MenuRules['afterLast'];
  readonly edit: EditRules;
  readonly store: MenuRules['store']['on'];
  /** By stopwatch, from the last press until the menu closed. */
  readonly idleMs: number;
  /** Whether a change not stored was there again after the menu had closed by itself. */
  readonly keepsUnstored: boolean;
  readonly codes: readonly CapturedCode[];
}

/**
 * The draft map of a capture: codes in the order they were walked, all of unknown meaning and left alone until someone
 * says what they do, the range as seen, the time-out shortened by a tenth of what the stopwatch said. It is not
 * confirmed: nothing is released under it.
 */
export function draftMap(capture: Capture): DisplayMap {
  const codes = capture.codes.map(draftCode);
  return {
    format: 'decurio-display-map/2',
    id: idFrom(`${capture.name} ${capture.revision}`),
    name: capture.name,
    revision: capture.revision,
    tellBy: `${codes.length} codes, ${codes[0]?.label ?? ''} to ${codes.at(-1)?.label ?? ''}.`,
    keys: capture.keys,
    power: { ...capture.power, offInMenu: false },
    menu: {
      opens: [{ gesture: capture.open, from: 'riding', page: 'main' }],
      pin: null,
      close: capture.close,
      pages: [{ id: 'main', title: 'Menu', items: codes.map(({ label }) => ({ code: label })) }],
      turns: [],
      next: capture.next,
      previous: capture.previous,
      afterLast: capture.afterLast,
      pick: null,
      edit: capture.edit,
      values: capture.codes.some((code) => code.wraps) ? 'wrap' : 'stop',
      repeat: null,
      store: { on: capture.store },
      idle: { ...idle(capture.idleMs), unstored: capture.keepsUnstored ? 'keep' : 'drop', reopensAt: 'first' },
    },
    restart: [{ act: 'Switch off, wait until the glass is dark, switch on again.', waitMs: 5_000 }],
    dangers: [],
    codes,
    notes: `Captured from unit ${capture.serial}, firmware ${capture.firmware}.`,
    confirmed: null,
  };
}

function idle(measuredMs: number) {
  const ms = Math.max(1_000, Math.round((measuredMs * 0.9) / 100) * 100);
  return { browseMs: ms, editMs: ms, pinMs: ms };
}

function draftCode(seen: CapturedCode): Code {
  const step = 1 / 10 ** seen.decimals;
  return {
    label: seen.label,
    function: 'unknown',
    range: { min: Math.min(seen.min, seen.found), max: Math.max(seen.max, seen.found), step },
    decimals: seen.decimals,
    factory: seen.found,
    encoding: { kind: 'line', scale: 1, unit: '', sentinels: [] },
    access: seen.isLocked ? 'locked' : 'open',
    effect: 'unverified',
    actsAfter: 'restart',
    values: seen.wraps ? 'wrap' : 'stop',
    source: 'measured',
    ...(seen.note === '' ? {} : { note: seen.note }),
  };
}

export const idFrom = (words: string): string =>
  words
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60) || 'display';
