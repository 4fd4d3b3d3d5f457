/** Digits this fast, ended by Enter, are a scanner's; letters where only digits belong are one's at any speed. */
const SCANNER_MEAN_MS = 45;
/** Between a key pressed by hand and a scan. */
const HAND_PAUSE_MS = 150;
/** After this long a new text begins. */
const PAUSE_MS = 1_000;
const SHORTEST_SCAN = 6;
/** Typed into words, only what looks like a serial and comes like a scan is one. */
const WORDS_MEAN_MS = 100;
const SERIAL = /^(?=.*\d)[A-Za-z0-9./:-]+$/;

/** Where a key goes: the page itself, a field of digits or of words for the record, or a field that keeps what is scanned into it. */
export type Into = 'page' | 'digits' | 'words' | 'keeps';

/** One key going down, as the browser names it. */
export interface Stroke {
  readonly key: string;
  /** By the clock of the device that sent it, so that a busy page changes nothing. */
  readonly atMs: number;
  readonly into: Into;
  /** The very field; null outside any. */
  readonly field: unknown;
}

/** What has been typed in one go and may yet turn out to be a scan. */
export interface Heard {
  readonly text: string;
  readonly times: readonly number[];
  readonly field: unknown;
}

export const NOTHING_HEARD: Heard = { text: '', times: [], field: null };

/**
 * Goes on by one key. Serials hold no spaces, so a space ends what was heard, as does any key without a sign of its own.
 * A text goes on in another field only at a scanner's speed, when the page changes under it; and Enter belongs to what
 * was typed last where it is pressed.
 * @returns what has been heard now, and the serial where this key ended a scan
 */
export function hearKey(heard: Heard, stroke: Stroke): { readonly heard: Heard; readonly scan: string | null } {
  if (stroke.key === 'Enter')
    return { heard: NOTHING_HEARD, scan: goesOn(heard, stroke) ? scanIn(heard, stroke) : null };
  if (stroke.key === 'Shift') return { heard, scan: null };
  if (stroke.key.length !== 1 || stroke.key === ' ') return { heard: NOTHING_HEARD, scan: null };
  const before = goesOn(heard, stroke) ? heard : NOTHING_HEARD;
  const now = { text: before.text + stroke.key, times: [...before.times, stroke.atMs], field: stroke.field };
  return { heard: now, scan: null };
}

/** Whether a key comes on its own, after a pause no scanner makes. */
export const isByHand = ({ times }: Heard, atMs: number): boolean =>
  atMs - (times.at(-1) ?? -Infinity) >= HAND_PAUSE_MS;

function goesOn({ times, field }: Heard, { key, field: here, atMs }: Stroke): boolean {
  const gapMs = atMs - (times.at(-1) ?? -Infinity);
  if (field !== here) return gapMs <= SCANNER_MEAN_MS;
  // Whoever typed a serial by hand may look at it before Enter.
  return key === 'Enter' || gapMs <= PAUSE_MS;
}

function scanIn({ text, times }: Heard, { atMs, into }: Stroke): string | null {
  const part = scannedPart(text, times);
  if (part.length < SHORTEST_SCAN || into === 'keeps') return null;
  const meanMs = (atMs - (times.at(-part.length) ?? 0)) / part.length;
  const isScan = {
    words: meanMs <= WORDS_MEAN_MS && SERIAL.test(part),
    digits: meanMs <= SCANNER_MEAN_MS || /[A-Za-z]/.test(part),
    // Keys of the page are letters too: by hand only what looks like a serial is meant as one.
    page: meanMs <= SCANNER_MEAN_MS || (SERIAL.test(part) && /[A-Za-z]/.test(part)),
  }[into];
  return isScan ? part : null;
}

/** A key of the bench pressed right before a scan is not part of it: a hand pauses before a scanner begins. */
export function scannedPart(burst: string, times: readonly number[]): string {
  const gap = (i: number): number => (times[i] ?? 0) - (times[i - 1] ?? 0);
  const from = Math.max(
    0,
    [...burst].findLastIndex((_, i) => i > 0 && gap(i) >= HAND_PAUSE_MS),
  );
  const length = burst.length - from;
  const meanMs = ((times.at(-1) ?? 0) - (times[from] ?? 0)) / Math.max(1, length - 1);
  return length >= SHORTEST_SCAN && meanMs <= SCANNER_MEAN_MS ? burst.slice(from) : burst;
}
