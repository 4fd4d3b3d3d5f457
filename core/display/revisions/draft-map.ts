import type { Code, DisplayMap, EditRules, MenuPage, MenuRules, PageTurn } from '../map/display-map.js';
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
  /** What the glass shows instead of digits, in the order in which the key brings it; left out where it shows digits. */
  readonly words?: readonly string[];
  /** The page or list on which it stood, as a person calls it; all on one where nothing is said. */
  readonly page?: string;
  /** The ride mode that was on, where each has a list of its own. */
  readonly mode?: string;
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
  /** Passes from one page to the next and from the last to the first, where there are several. */
  readonly turn?: Gesture | null;
  /** Changes the ride mode on the main page, where lists were walked under several. */
  readonly changesMode?: Gesture | null;
  /** By stopwatch, from the last press until the menu closed. */
  readonly idleMs: number;
  /** Whether a change not stored was there again after the menu had closed by itself. */
  readonly keepsUnstored: boolean;
  readonly codes: readonly CapturedCode[];
}

/**
 * The draft map of a capture: codes in the order they were walked, on the pages or under the ride modes where they stood, all of unknown meaning and left alone until someone
 * says what they do, the range as seen, the time-out shortened by a tenth of what the stopwatch said. It is not
 * confirmed: nothing is released under it.
 */
export function draftMap(capture: Capture): DisplayMap {
  const codes = labelled(capture.codes);
  const pages = pagesOf(codes);
  const modes = pages.filter(({ mode }) => mode !== undefined);
  const [first] = pages;
  return {
    format: 'decurio-display-map/2',
    id: idFrom(`${capture.name} ${capture.revision}`),
    name: capture.name,
    revision: capture.revision,
    tellBy: `${codes.length} codes, ${codes[0]?.shown ?? ''} to ${codes.at(-1)?.shown ?? ''}.`,
    keys: capture.keys,
    power: { ...capture.power, offInMenu: false },
    ...(modes.length > 1 && capture.changesMode
      ? {
          ride: {
            levels: null,
            modes: {
              gesture: capture.changesMode,
              list: modes.map(({ mode = '', title }) => ({ id: mode, title: title.replace(/^Mode /, '') })),
              wakesIn: modes[0]?.mode ?? '',
            },
          },
        }
      : {}),
    menu: {
      opens: [{ gesture: capture.open, from: 'riding', page: modes.length > 1 ? 'ofMode' : (first?.id ?? 'main') }],
      pin: null,
      close: capture.close,
      pages,
      turns: modes.length > 1 ? [] : turnsOf(pages, capture.turn ?? null),
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
    codes: codes.map(({ code }) => code),
    notes: `Captured from unit ${capture.serial}, firmware ${capture.firmware}.`,
    confirmed: null,
  };
}

interface Labelled {
  readonly shown: string;
  readonly seen: CapturedCode;
  readonly code: Code;
}

/** What stands under one name on several lists is several codes that the glass shows alike. */
function labelled(all: readonly CapturedCode[]): readonly Labelled[] {
  const known = new Set<string>();
  return all.map((seen) => {
    const where = seen.mode ?? seen.page ?? '';
    let label = seen.label;
    for (let n = 1; known.has(label); n++)
      label = `${where === '' ? n + 1 : where} ${seen.label}`.slice(0, 9) + (n > 1 ? ` ${n}` : '');
    known.add(label);
    const code = draftCode({ ...seen, label });
    return { shown: seen.label, seen, code: label === seen.label ? code : { ...code, shownAs: seen.label } };
  });
}

function pagesOf(all: readonly Labelled[]): readonly MenuPage[] {
  const pages = new Map<string, { id: string; title: string; mode?: string; items: { code: string }[] }>();
  for (const { seen, code } of all) {
    const { mode, page } = seen;
    const title = mode === undefined ? (page ?? 'Menu') : `Mode ${mode}`;
    const own = pages.get(title) ?? {
      id: mode === undefined && page === undefined ? 'main' : idFrom(title),
      title,
      ...(mode === undefined ? {} : { mode: idFrom(mode) }),
      items: [],
    };
    own.items.push({ code: code.label });
    pages.set(title, own);
  }
  return [...pages.values()];
}

/** From each page to the next, and from the last to the first. */
const turnsOf = (pages: readonly MenuPage[], gesture: Gesture | null): readonly PageTurn[] =>
  gesture === null || pages.length < 2
    ? []
    : pages.map(({ id }, i) => ({ gesture, from: id, to: pages[(i + 1) % pages.length]?.id ?? id }));

function idle(measuredMs: number) {
  const ms = Math.max(1_000, Math.round((measuredMs * 0.9) / 100) * 100);
  return { browseMs: ms, editMs: ms, pinMs: ms };
}

function draftCode(seen: CapturedCode): Code {
  const { words = [] } = seen;
  const shows = words.map((text, raw) => ({ raw, text }));
  const step = 1 / 10 ** seen.decimals;
  return {
    label: seen.label,
    function: 'unknown',
    ...(words.length > 0
      ? {
          // Nobody has seen digits: they are counted in the order in which the key brings the words.
          range: { min: 0, max: words.length - 1, step: 1 },
          decimals: 0,
          factory: Math.max(0, Math.min(words.length - 1, seen.found)),
          encoding: {
            kind: 'table' as const,
            entries: shows.map(({ raw, text }) => ({ raw, value: text, title: text })),
          },
          shows,
        }
      : {
          range: { min: Math.min(seen.min, seen.found), max: Math.max(seen.max, seen.found), step },
          decimals: seen.decimals,
          factory: seen.found,
          encoding: { kind: 'line' as const, scale: 1, unit: '', sentinels: [] },
        }),
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
