import { hold, tap, type Capture, type CapturedCode, type EditRules, type Gesture } from '@decurio/core';

/** How a display is handled, as it is typed. */
export interface Handling {
  readonly name: string;
  readonly revision: string;
  readonly serial: string;
  readonly firmware: string;
  readonly keys: string;
  readonly openKeys: string;
  readonly openSeconds: number;
  readonly closeKeys: string;
  readonly closeSeconds: number;
  readonly next: string;
  readonly previous: string;
  readonly afterLast: 'wrap' | 'leave' | 'stop';
  readonly style: EditRules['style'];
  readonly select: string;
  /** Ends an edit that was begun; empty where walking past the last digit does. */
  readonly end: string;
  /** Goes to the next digit. */
  readonly walk: string;
  /** Held to pass to another page, and tapped to change the ride mode; empty where there is one list. */
  readonly turnKeys: string;
  readonly modeKey: string;
  readonly up: string;
  readonly down: string;
  readonly store: 'change' | 'move' | 'endOfEdit' | 'leave';
  readonly keepsUnstored: boolean;
}

const EMPTY: Handling = {
  name: '',
  revision: '',
  serial: '',
  firmware: '',
  keys: 'set, +, −',
  openKeys: '+ and −',
  openSeconds: 2,
  closeKeys: 'set',
  closeSeconds: 2,
  next: '+',
  previous: '−',
  afterLast: 'wrap',
  style: 'focus',
  select: 'set',
  end: 'set',
  walk: 'set',
  turnKeys: '',
  modeKey: '',
  up: '+',
  down: '−',
  store: 'endOfEdit',
  keepsUnstored: false,
};

/** One entry as it was seen, as it is typed. */
export interface Seen {
  readonly label: string;
  readonly found: string;
  readonly min: string;
  readonly max: string;
  readonly isLocked: boolean;
  readonly wraps: boolean;
  readonly note: string;
  /** Words that stand there instead of digits, separated by commas. */
  readonly words: string;
  /** The page, or the ride mode, where there are several lists. */
  readonly list: string;
}

export const NO_CODE: Seen = {
  label: '',
  found: '',
  min: '',
  max: '',
  isLocked: false,
  wraps: false,
  note: '',
  words: '',
  list: '',
};

export const NOTHING_CAPTURED = {
  how: EMPTY,
  idleMs: null as number | null,
  seen: [NO_CODE] as readonly Seen[],
};

/** What was noted, or a sentence that says what is missing. */
export function captured(how: Handling, idleMs: number | null, seen: readonly Seen[]): Capture | string {
  const keys = how.keys
    .split(',')
    .map((label) => label.trim())
    .filter((label) => label !== '')
    .map((label, i) => ({ id: `k${i + 1}`, label }));
  const named = (words: string): string[] =>
    words
      .split(/ and |\+(?=\w)|,/)
      .map((w) => w.trim())
      .filter((w) => w !== '')
      .map((w) => keys.find((key) => key.label === w)?.id ?? w);
  if (how.name.trim() === '' || how.serial.trim() === '') return 'Name the display, and the unit it was seen on.';
  if (idleMs === null) return 'Measure with the stopwatch how long the menu stays open without a press.';
  const codes = seen.filter((code) => code.label.trim() !== '');
  if (codes.length === 0) return 'Note at least one code.';
  const wordsOf = (code: Seen) =>
    code.words
      .split(',')
      .map((word) => word.trim())
      .filter((word) => word !== '');
  const unlike = codes.find((code) => wordsOf(code).length > 0 && !wordsOf(code).includes(code.found.trim()));
  if (unlike) return `${unlike.label} was found at "${unlike.found}", which is none of its words.`;
  const numbers = codes.map((code) =>
    wordsOf(code).length > 0
      ? [wordsOf(code).indexOf(code.found.trim()), 0, 0]
      : [code.found, code.min || code.found, code.max || code.found].map((text) => Number(text.replace(',', '.'))),
  );
  const lists = new Set(codes.map((code) => code.list.trim()));
  if (lists.size > 1 && how.turnKeys.trim() === '' && how.modeKey.trim() === '')
    return 'There are several lists: say what is held to turn to another, or which key changes the ride mode.';
  const isByMode = how.modeKey.trim() !== '' && lists.size > 1;
  const bad = codes.find((code, i) => code.found.trim() === '' || numbers[i]?.some((n) => !Number.isFinite(n)));
  if (bad) return `Type the digits that ${bad.label} shows, and its lowest and highest value.`;
  const one = (words: string) => tap(named(words)[0] ?? '');
  const steppers = { up: one(how.up), down: one(how.down) };
  const edit = editOf(how, one, steppers);
  const [first = ''] = keys.map((key) => key.id);
  return {
    name: how.name.trim(),
    revision: how.revision.trim() || '?',
    serial: how.serial.trim(),
    firmware: how.firmware.trim() || 'not shown',
    keys,
    power: { first: 'Switch the pack on.', on: hold(1500, first), off: hold(3000, first) },
    open: hold(how.openSeconds * 1000, ...named(how.openKeys)),
    close: how.closeKeys.trim() === '' ? null : hold(how.closeSeconds * 1000, ...named(how.closeKeys)),
    next: one(how.next),
    previous: how.previous.trim() === '' ? null : one(how.previous),
    afterLast: how.afterLast,
    edit,
    store: how.store,
    turn: how.turnKeys.trim() === '' ? null : hold(1_000, ...named(how.turnKeys)),
    changesMode: isByMode ? one(how.modeKey) : null,
    idleMs,
    keepsUnstored: how.keepsUnstored,
    codes: codes.map((code, i): CapturedCode => {
      const [found = 0, min = 0, max = 0] = numbers[i] ?? [];
      const decimals = Math.max(
        ...[code.found, code.min, code.max].map((text) => (text.replace(',', '.').split('.')[1] ?? '').length),
      );
      return {
        label: code.label.trim(),
        found,
        min,
        max,
        decimals: Math.min(2, decimals),
        isLocked: code.isLocked,
        wraps: code.wraps,
        note: code.note.trim(),
        ...(wordsOf(code).length > 0 ? { words: wordsOf(code) } : {}),
        ...(code.list.trim() === '' || lists.size < 2
          ? {}
          : isByMode
            ? { mode: code.list.trim() }
            : { page: code.list.trim() }),
      };
    }),
  };
}

/** How a value is changed, from the keys that were typed. */
function editOf(
  { style, select, end, walk, up, down }: Handling,
  one: (words: string) => Gesture,
  steppers: { readonly up: Gesture; readonly down: Gesture },
): EditRules {
  switch (style) {
    case 'live':
      return { style, ...steppers };
    case 'focus':
      return { style, select: one(select), ...steppers };
    case 'enter':
      return { style, begin: one(select), end: one(end), abandon: null, ...steppers };
    case 'digits':
      return {
        style,
        begin: one(select),
        count: one(up),
        ...(down.trim() === '' ? {} : { back: one(down) }),
        walk: one(walk),
        ...(end.trim() === '' || end.trim() === walk.trim() ? {} : { end: one(end) }),
      };
  }
}
