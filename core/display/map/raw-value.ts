import type { Code, Encoding, TableEntry } from './code.js';
import { ok, refuse, type Result } from '../../result.js';
import { isDoubtful } from './doubt.js';

const GRID_EPSILON = 1e-6;
const DAY_MS = 86_400_000;
const FIRST_DAY = Date.UTC(2000, 0, 1);

type Shown = Pick<Code, 'decimals' | 'shows' | 'otherRanges'> & { readonly encoding?: Encoding };

/** What stands on the glass for raw digits: the word that the display shows instead, or the digits as it shows them. */
export const formatRaw = (code: Shown, raw: number): string =>
  code.shows?.find((each) => each.raw === raw)?.text ?? formatDigits(code, raw);

/** Raw digits as the glass shows them: `31` with one decimal is `31.0`, a clock's 825 is `13:45`, a date `26-11-24`. */
export function formatDigits(code: Shown, raw: number): string {
  switch (code.encoding?.kind) {
    case 'clock':
      return `${two(Math.floor(raw / 60))}:${two(raw % 60)}`;
    case 'date':
      return new Date(FIRST_DAY + raw * DAY_MS).toISOString().slice(2, 10);
    case 'pair':
      return two(raw);
    default:
      return raw.toFixed(Math.max(code.decimals, code.otherRanges ? decimalsOf(raw) : 0));
  }
}

/** Decimals that a value has; in another unit a code may show more of them than in its first. */
const decimalsOf = (raw: number): number => (/\.(\d+)$/.exec(String(raw))?.[1] ?? '').length;

const two = (n: number): string => String(n).padStart(2, '0');

/** Nearest raw value with the code's decimals, so that stepping by 0.1 leaves no binary dust. */
export const roundRaw = (code: Pick<Code, 'decimals'>, raw: number): number => Number(raw.toFixed(code.decimals));

/** Whether `raw` lies in the range and on the steps of the code, or is one of its sentinels. */
export function onGrid(code: Code, raw: number): boolean {
  const { encoding } = code;
  if (encoding.kind === 'table') return encoding.entries.some((entry) => entry.raw === raw);
  if (encoding.kind === 'pair') return halves(encoding, raw) !== null;
  if (sentinelOf(code, raw) !== undefined) return true;
  const { min, max, step } = code.range;
  if (raw < min - GRID_EPSILON || raw > max + GRID_EPSILON || code.skips?.includes(raw) === true) return false;
  const steps = (raw - min) / step;
  return Math.abs(steps - Math.round(steps)) < GRID_EPSILON;
}

/** Whether a code can hold a value, in whatever unit it counts. */
export const mayHold = (code: Code, raw: number): boolean =>
  onGrid(code, raw) ||
  (code.otherRanges ?? []).some(({ range, decimals }) =>
    onGrid({ ...code, range, decimals: decimals ?? code.decimals }, raw),
  );

function halves(encoding: Encoding & { kind: 'pair' }, raw: number): readonly [TableEntry, TableEntry] | null {
  const first = encoding.first.entries.find((entry) => entry.raw === Math.floor(raw / 10));
  const second = encoding.second.entries.find((entry) => entry.raw === raw % 10);
  return first && second ? [first, second] : null;
}

/**
 * Reads what a person typed from the glass. The display's digits are taken as they stand: no unit, no sign
 * but a leading minus, a comma read as a point; a clock as `13:45` or `1345`, a date as `26-11-24` or `261124`. A value
 * that the display shows as a word is read from that word, in any case. A value
 * outside the code's range is still a reading (the unit may not be what its map says), so only text that is no
 * number is refused.
 */
export function parseTyped(code: Shown & Pick<Code, 'label'>, typed: string): Result<number> {
  const word = code.shows?.find((each) => each.text.trim().toLowerCase() === typed.trim().toLowerCase());
  if (word) return ok(word.raw);
  const text = typed.trim().replace(',', '.');
  const example = (shown: string) =>
    refuse('notDigits', `Type ${code.shows ? 'what' : 'the digits that'} ${code.label} shows, such as ${shown}.`);
  if (code.encoding?.kind === 'clock') {
    const [, hours, minutes] = /^(\d{1,2}):?(\d\d)$/.exec(text) ?? [];
    const isTime = hours !== undefined && Number(hours) < 24 && Number(minutes) < 60;
    return isTime ? ok(Number(hours) * 60 + Number(minutes)) : example('13:45');
  }
  if (code.encoding?.kind === 'date') {
    const [, year, month, day] = /^(\d\d)-?(\d\d)-?(\d\d)$/.exec(text) ?? [];
    const at = Date.UTC(2000 + Number(year), Number(month) - 1, Number(day));
    const isDay = year !== undefined && new Date(at).getUTCMonth() === Number(month) - 1;
    return isDay ? ok((at - FIRST_DAY) / DAY_MS) : example('26-11-24');
  }
  if (!/^-?\d{1,5}(\.\d{1,2})?$/.test(text))
    return example(code.shows?.[0]?.text ?? formatDigits({ decimals: code.decimals }, 25));
  return ok(Number(text));
}

/** What raw digits mean on this code: `25 km/h`, `only once rolling`, or `outside this map`. */
export function meaningOf(code: Code, raw: number): string {
  const { encoding } = code;
  if (!mayHold(code, raw)) return 'outside this map';
  switch (encoding.kind) {
    case 'table':
      return encoding.entries.find((entry) => entry.raw === raw)?.title ?? '';
    case 'pair':
      return (
        halves(encoding, raw)
          ?.map((entry) => entry.title)
          .join(', ') ?? ''
      );
    case 'clock':
    case 'date':
      return formatRaw(code, raw);
    case 'line': {
      const sentinel = sentinelOf(code, raw);
      if (sentinel) return sentinel.title;
      const { scale, unit } = encoding;
      const value = raw * scale;
      const digits = scale === 1 ? formatDigits(code, value) : String(Number(value.toFixed(3)));
      const doubt =
        encoding.doubtfulFrom !== undefined && raw >= encoding.doubtfulFrom ? ', or no limit at all: not known' : '';
      return `${digits}${unit === '' ? '' : ` ${unit}`}${doubt}`;
    }
  }
}

/** `26, as marked`: digits and meaning, or the meaning alone where it begins with the digits. */
export function valueWords(code: Code, raw: number): string {
  const [digits, meaning] = [formatRaw(code, raw), meaningOf(code, raw)];
  return beginsWith(meaning, digits) ? meaning : `${digits}, ${meaning}`;
}

const beginsWith = (meaning: string, shown: string): boolean => meaning.toLowerCase().startsWith(shown.toLowerCase());

/** Meaning to stand beside the digits: `km/h` beside `25`, `only once rolling` beside `21`. */
export function meaningBeside(code: Code, raw: number): string {
  const [digits, meaning] = [formatRaw(code, raw), meaningOf(code, raw)];
  return beginsWith(meaning, digits) ? meaning.slice(digits.length).trim() : meaning;
}

export const sentinelOf = (code: Code, raw: number) =>
  code.encoding.kind === 'line' ? code.encoding.sentinels.find((s) => s.raw === raw) : undefined;

/** Raw digits that stand for a word of the code's table, if it has it. */
export const rawForWord = (code: Code, value: string): number | undefined =>
  code.encoding.kind === 'table' ? code.encoding.entries.find((entry) => entry.value === value)?.raw : undefined;

/**
 * Greatest raw value whose meaning does not exceed `limit` (in the unit of the code's line); sentinels, skipped values
 * and doubtful ones are left out. Equality counts as within (1e-9 relative). Undefined where even the
 * lowest value exceeds it.
 */
export function greatestRawWithin(code: Code, limit: number): number | undefined {
  const highest = (limit * (1 + 1e-9)) / lineScale(code);
  return plainValues(code)
    .filter((raw) => raw <= highest)
    .at(-1);
}

/** Least raw value whose meaning is at least `floor`. Undefined where even the highest is below it. */
export function leastRawFrom(code: Code, floor: number): number | undefined {
  const lowest = (floor * (1 - 1e-9)) / lineScale(code);
  return plainValues(code).find((raw) => raw >= lowest);
}

const lineScale = (code: Code): number => (code.encoding.kind === 'line' ? code.encoding.scale : 1);

/** Values of a line that mean what they say, rising. */
export function plainValues(code: Code): readonly number[] {
  if (code.encoding.kind !== 'line') return [];
  return valuesInOrder(code).filter((raw) => !isDoubtful(code, raw) && sentinelOf(code, raw) === undefined);
}

const orders = new WeakMap<Code, readonly number[]>();

/** Values of a code in the order its keys step through them: table order, or the grid with its sentinels. */
export function valuesInOrder(code: Code): readonly number[] {
  const known = orders.get(code);
  if (known) return known;
  const values = makeOrder(code);
  orders.set(code, values);
  return values;
}

function makeOrder(code: Code): readonly number[] {
  const { encoding } = code;
  if (encoding.kind === 'table')
    return encoding.entries.map((entry) => entry.raw).filter((raw) => code.skips?.includes(raw) !== true);
  if (encoding.kind === 'pair')
    return encoding.first.entries.flatMap((a) => encoding.second.entries.map((b) => a.raw * 10 + b.raw));
  const { min, max, step } = code.range;
  const grid = new Set<number>();
  for (let i = 0; i <= Math.floor((max - min) / step + GRID_EPSILON); i++) grid.add(roundRaw(code, min + i * step));
  if (encoding.kind === 'line') for (const sentinel of encoding.sentinels) grid.add(sentinel.raw);
  return [...grid].filter((raw) => code.skips?.includes(raw) !== true).sort((a, b) => a - b);
}

/** Digits of a value one by one, as an editor that goes digit by digit meets them. */
export function digitsOf(code: Code, raw: number): readonly number[] {
  const width = Math.max(
    ...[code.range.max, ...valuesInOrder(code).slice(-1)].map((value) => plain(code, value).length),
  );
  return [...plain(code, raw).padStart(width, '0')].map(Number);
}

const plain = (code: Code, raw: number): string => formatDigits(code, raw).replace(/\D/g, '');

/** The value that digits stand for; null for no time of day, or no day. */
export function fromDigits(code: Code, digits: readonly number[]): number | null {
  const text = digits.join('');
  if (code.encoding.kind !== 'clock' && code.encoding.kind !== 'date') return Number(text) / 10 ** code.decimals;
  const parsed = parseTyped(code, text);
  return parsed.ok ? parsed.value : null;
}

/** The value a display takes instead of one it does not accept: the nearest it has. */
export function nearestValue(values: readonly number[], raw: number): number {
  return values.reduce(
    (best, value) => (Math.abs(value - raw) < Math.abs(best - raw) ? value : best),
    values[0] ?? raw,
  );
}

/** Whether the glass never shows digits for this code, only words. */
export const isAllWords = (code: Code): boolean =>
  code.shows !== undefined && valuesInOrder(code).every((raw) => code.shows?.some((each) => each.raw === raw));
