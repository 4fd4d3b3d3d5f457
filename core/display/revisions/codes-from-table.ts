import type { Problem } from '../../result.js';
import { shortened } from '../../text.js';
import type { Code } from '../map/display-map.js';
import { FUNCTIONS, type CodeFunction } from '../map/functions.js';

/** Columns of a flat table of codes; only `code`, `min` and `max` must be there. */
export const CODE_TABLE_COLUMNS = [
  'code',
  'function',
  'min',
  'max',
  'step',
  'factory',
  'unit',
  'access',
  'values',
  'note',
] as const;

/** A row of a parsed table: its cells by column name, lower case. */
export type TableRow = Readonly<Record<string, string>>;

export interface CodesFromTable {
  readonly codes: readonly Code[];
  /** Rows that were left out, by line and column of the table; line 1 is the header. */
  readonly problems: readonly Problem[];
}

/**
 * Codes from a flat table, such as a maker's paper typed into a spreadsheet: a start for a map. Meanings come in as the
 * maker's paper; `values` like `0=off 1=on` makes a table of words; a function nobody knows is `unknown`.
 */
export function codesFromTable(rows: readonly TableRow[]): CodesFromTable {
  const problems: Problem[] = [];
  const seen = new Set<string>();
  const codes = rows.flatMap((row, i) => {
    const line = i + 2;
    const bad = (column: string, message: string): [] => {
      problems.push({ code: 'badRow', path: `line ${line}, ${column}`, message });
      return [];
    };
    const label = (row['code'] ?? '').trim();
    if (label === '') return bad('code', 'This row names no code.');
    if (label.length > 12) return bad('code', `"${label}" is longer than a display shows; at most 12 signs.`);
    if (seen.has(label)) return bad('code', `${label} stands in the table already.`);
    const [min, max] = [number(row['min']), number(row['max'])];
    if (min === null) return bad('min', `"${row['min'] ?? ''}" is not a number.`);
    if (max === null) return bad('max', `"${row['max'] ?? ''}" is not a number.`);
    if (min > max) return bad('max', `${label} runs from ${min} to ${max}: nothing lies between.`);
    const step = row['step'] === undefined || row['step'].trim() === '' ? 1 : number(row['step']);
    if (step === null || step <= 0) return bad('step', `"${row['step'] ?? ''}" is no step.`);
    const factory = row['factory'] === undefined || row['factory'].trim() === '' ? min : number(row['factory']);
    if (factory === null || factory < min || factory > max)
      return bad('factory', `${label} cannot be delivered at "${row['factory'] ?? ''}".`);
    const entries = wordsOf(row['values'] ?? '');
    if (entries === null) return bad('values', 'Write values as "0=off 1=on".');
    seen.add(label);
    return [codeOf(row, { label, min, max, step, factory, entries })];
  });
  return { codes, problems };
}

const number = (text: string | undefined): number | null => {
  const plain = (text ?? '').trim().replace(',', '.');
  return /^-?\d+(\.\d+)?$/.test(plain) ? Number(plain) : null;
};

/** `0=off 1=on` as entries; empty where nothing is written, null where it cannot be read. */
function wordsOf(text: string): { raw: number; value: string; title: string }[] | null {
  if (text.trim() === '') return [];
  const parts = [...text.matchAll(/(-?\d+(?:\.\d+)?)\s*=\s*([^=]+?)(?=\s*[,;]?\s*-?\d+(?:\.\d+)?\s*=|[,;]?\s*$)/g)];
  if (parts.length === 0) return null;
  return parts.map(([, raw = '', title = '']) => ({
    raw: Number(raw),
    value: shortened(title.trim(), 40),
    title: shortened(title.trim(), 80),
  }));
}

interface Row {
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly factory: number;
  readonly entries: readonly { raw: number; value: string; title: string }[];
}

function codeOf(row: TableRow, { label, min, max, step, factory, entries }: Row): Code {
  const asked = (row['function'] ?? '').trim();
  const known = (Object.keys(FUNCTIONS) as CodeFunction[]).find(
    (name) => name.toLowerCase() === asked.toLowerCase() || FUNCTIONS[name].title.toLowerCase() === asked.toLowerCase(),
  );
  const decimals = Math.max(0, ...[min, max, step, factory].map((n) => (String(n).split('.')[1] ?? '').length));
  const note = (row['note'] ?? '').trim();
  return {
    label,
    function: known ?? 'unknown',
    range: { min, max, step },
    decimals: Math.min(2, decimals),
    factory,
    encoding:
      entries.length > 0
        ? { kind: 'table', entries }
        : { kind: 'line', scale: 1, unit: shortened((row['unit'] ?? '').trim(), 12), sentinels: [] },
    access: /lock/i.test(row['access'] ?? '') ? 'locked' : 'open',
    effect: 'unverified',
    actsAfter: 'restart',
    source: 'makersPaper',
    ...(note === '' ? {} : { note: shortened(note, 400) }),
  };
}
