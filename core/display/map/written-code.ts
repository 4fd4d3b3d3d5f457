import type { Code } from './code.js';
import { changed, isFields, isSame, type Fields } from './written-fields.js';
import { fullEdit, gesturesIn, wordsIn, writtenEdit } from './written-gesture.js';

const USUAL = { decimals: 0, access: 'open', effect: 'acts', actsAfter: 'once', source: 'makersPaper' };

/** What is counted is in these units, where a code does not say otherwise. */
const UNITS: Readonly<Record<string, string>> = {
  speedCap: 'km/h',
  throttleCap: 'km/h',
  wheelSize: 'in',
  currentLimit: 'A',
  nominalVoltage: 'V',
  cutoffVoltage: 'V',
  taperVoltage: 'V',
  gaugeEmptyV: 'V',
  gaugeFullV: 'V',
  packCapacity: 'Ah',
  autoOff: 'min',
  odometer: 'km',
};

/** The unit that an amount of this function is in where its code says none; empty where it has none. */
export const usualUnitOf = (what: unknown): string =>
  typeof what === 'string' && Object.hasOwn(UNITS, what) ? (UNITS[what] ?? '') : '';

/**
 * The whole of a code as it is written. `range` may be `[least, most]` or `[least, most, step]`, and left out beside
 * `words`; `words` are `[raw, value]` or `[raw, value, title]` in the order of the keys; `unit` and `scale` stand for a
 * line without more.
 */
export function fullCode(written: unknown): unknown {
  if (!isFields(written)) return written;
  const { words, unit, scale, range, encoding, ...rest } = written;
  const code: Fields = { ...USUAL, decimals: placesIn(range, rest['factory']), ...rest };
  const decimals = typeof code['decimals'] === 'number' && code['decimals'] >= 0 ? code['decimals'] : 0;
  const step = stepOf(decimals);
  if (encoding !== undefined) {
    // What stands there twice is refused by the shape, which knows neither beside an encoding.
    Object.assign(code, withNames({ words, unit, scale }), { encoding: fullEncoding(encoding) });
  } else if (words !== undefined) {
    Object.assign(code, withNames({ unit, scale }), {
      encoding: { kind: 'table', entries: Array.isArray(words) ? words.map(entry) : words },
    });
  } else
    code['encoding'] = { kind: 'line', scale: scale ?? 1, unit: unit ?? usualUnitOf(rest['function']), sentinels: [] };
  code['range'] = range === undefined ? spanOf(words, step) : fullRange(range, step);
  if (Array.isArray(rest['otherRanges']))
    code['otherRanges'] = rest['otherRanges'].map((other: unknown) =>
      isFields(other) ? { ...other, range: fullRange(other['range'], stepOf(other['decimals'] ?? decimals)) } : other,
    );
  if (rest['holdErases'] !== undefined) code['holdErases'] = gesturesIn(rest['holdErases'], ['gesture']);
  if (rest['edit'] !== undefined) code['edit'] = fullEdit(rest['edit']);
  return code;
}

/** As many decimals as the numbers of a range and a delivered value are written with. */
function placesIn(range: unknown, factory: unknown): number {
  const own: readonly unknown[] = Array.isArray(range) ? range : isFields(range) ? Object.values(range) : [];
  const places = [...own, factory].map((each) =>
    typeof each === 'number' ? (/^-?\d+\.(\d{1,4})$/.exec(String(each))?.[1]?.length ?? 0) : 0,
  );
  return Math.max(...places);
}

/** The last digit shown. */
const stepOf = (decimals: unknown): number => {
  const places = typeof decimals === 'number' && decimals >= 0 ? Math.min(20, decimals) : 0;
  return Number((10 ** -places).toFixed(places));
};

const withNames = (fields: Fields): Fields =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));

const entry = (word: unknown): unknown =>
  Array.isArray(word) && (word.length === 2 || word.length === 3)
    ? { raw: word[0] as unknown, value: word[1] as unknown, title: (word.length === 3 ? word[2] : word[1]) as unknown }
    : word;

function fullEncoding(encoding: unknown): unknown {
  if (!isFields(encoding)) return encoding;
  if (encoding['kind'] === 'line') return { scale: 1, unit: '', sentinels: [], ...encoding };
  return changed(encoding, HALVES, (half) => gesturesIn(half, HALF_KEYS));
}

const HALVES = ['first', 'second'];
const HALF_KEYS = ['up', 'down'];

function fullRange(range: unknown, step: number): unknown {
  if (Array.isArray(range) && (range.length === 2 || range.length === 3))
    return { min: range[0] as unknown, max: range[1] as unknown, step: (range[2] ?? step) as unknown };
  return isFields(range) ? { step, ...range } : range;
}

/** From the least raw digits to the greatest; undefined where there are no words that say. */
function spanOf(words: unknown, step: number): Fields | undefined {
  const raws = (Array.isArray(words) ? words : []).map((word: unknown) =>
    Array.isArray(word) && typeof word[0] === 'number' ? word[0] : Number.NaN,
  );
  return raws.length > 0 && raws.every(Number.isFinite)
    ? { min: Math.min(...raws), max: Math.max(...raws), step }
    : undefined;
}

/** The shortest way to write a code: `fullCode` of it is the code again. */
export function writtenCode(code: Code): object {
  const { range, encoding, holdErases, edit, otherRanges, ...rest } = code;
  const usual = Object.entries(rest).filter(
    ([name, own]) => !(name in USUAL && own === USUAL[name as keyof typeof USUAL]),
  );
  const step = stepOf(code.decimals);
  const words =
    encoding.kind === 'table'
      ? encoding.entries.map(({ raw, value, title }) => (title === value ? [raw, value] : [raw, value, title]))
      : undefined;
  const short: Fields = {
    ...Object.fromEntries(usual),
    ...(isSame(range, spanOf(words, step)) ? {} : { range: shortRange(range, step) }),
    ...(otherRanges
      ? {
          otherRanges: otherRanges.map((other) => ({
            ...other,
            range: shortRange(other.range, stepOf(other.decimals ?? code.decimals)),
          })),
        }
      : {}),
    ...(words ? { words } : writtenLine(code)),
    ...(holdErases ? { holdErases: wordsIn(holdErases, ['gesture']) } : {}),
    ...(edit ? { edit: writtenEdit(edit) } : {}),
  };
  return short;
}

const shortRange = ({ min, max, step }: Code['range'], usual: number): readonly number[] =>
  step === usual ? [min, max] : [min, max, step];

function writtenLine({ encoding, function: what }: Code): Fields {
  if (encoding.kind === 'pair')
    return { encoding: changed(encoding as unknown as Fields, HALVES, (half) => wordsIn(half as object, HALF_KEYS)) };
  if (encoding.kind !== 'line') return { encoding };
  const { kind, scale, unit, sentinels, ...more } = encoding;
  if (sentinels.length === 0 && Object.keys(more).length === 0)
    return { ...(unit === usualUnitOf(what) ? {} : { unit }), ...(scale === 1 ? {} : { scale }) };
  return {
    encoding: {
      kind,
      ...(scale === 1 ? {} : { scale }),
      ...(unit === '' ? {} : { unit }),
      ...(sentinels.length > 0 ? { sentinels } : {}),
      ...more,
    },
  };
}
