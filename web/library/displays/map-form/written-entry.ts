import { usualUnitOf, vocabularyOf } from '@decurio/core';
import { valueAt, withValue } from './written-form.js';

type Fields = Readonly<Record<string, unknown>>;

const entryAt = (written: unknown, at: number): Fields => (valueAt(written, ['codes', at]) ?? {}) as Fields;

/** What the glass shows of an entry in place of these digits; empty where it shows the digits. */
export function glassWord(written: unknown, at: number, raw: unknown): string {
  const word = wordsOnGlass(written, at).find((each) => each['raw'] === raw)?.['text'];
  return typeof word === 'string' ? word : '';
}

export function withGlassWord(written: unknown, at: number, raw: unknown, text: string): unknown {
  const others = wordsOnGlass(written, at).filter((each) => each['raw'] !== raw);
  const next = text === '' ? others : [...others, { raw, text }];
  return withValue(written, ['codes', at, 'shows'], next.length === 0 ? undefined : next);
}

/** What stood on the glass for some digits stands there for others, which had no word of their own. */
export function withGlassWordMoved(written: unknown, at: number, from: unknown, to: unknown): unknown {
  const text = glassWord(written, at, from);
  if (text === '' || from === to || glassWord(written, at, to) !== '') return written;
  return withGlassWord(withGlassWord(written, at, from, ''), at, to, text);
}

function wordsOnGlass(written: unknown, at: number): readonly Fields[] {
  const words = entryAt(written, at)['shows'];
  return Array.isArray(words) ? (words as readonly Fields[]) : [];
}

/** An amount that has to say more than unit and scale, which then stand within. */
export function withLine(written: unknown, at: number, how: (line: Fields) => object): unknown {
  const { unit, scale, encoding, ...code } = entryAt(written, at);
  const own = { kind: 'line', ...(scale === undefined ? {} : { scale }), unit: unit ?? usualUnitOf(code['function']) };
  return withValue(written, ['codes', at], { ...code, encoding: how((encoding ?? own) as Fields) });
}

/**
 * An entry that sets this. One that says nothing of its digits yet has those that such an entry has everywhere: two
 * words where there are no others, a time of day.
 */
export function withFunction(written: unknown, at: number, what: string): unknown {
  const code = entryAt(written, at);
  const named = withValue(written, ['codes', at, 'function'], what);
  if (['range', 'words', 'encoding'].some((name) => code[name] !== undefined)) return named;
  const known = vocabularyOf(what);
  if (known.length === 2) return withWords(named, at, known);
  const day = { range: [0, 24 * 60 - 1], encoding: { kind: 'clock' } };
  return what === 'clock' ? withValue(named, ['codes', at], { ...entryAt(named, at), ...day }) : named;
}

/** Digits that are words and no amount: they say their range themselves, and have no unit. */
export function withWords(written: unknown, at: number, [first = 'off', second = 'on']: readonly string[]): unknown {
  const amount = ['range', 'unit', 'scale', 'encoding'];
  const code = Object.fromEntries(Object.entries(entryAt(written, at)).filter(([name]) => !amount.includes(name)));
  const words = [
    [0, first],
    [1, second],
  ];
  return withValue(written, ['codes', at], { ...code, factory: 0, words });
}
