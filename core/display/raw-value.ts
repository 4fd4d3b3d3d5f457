import type { Code } from './display-map.js';
import { ok, refuse, type Result } from '../result.js';

const GRID_EPSILON = 1e-6;

/** Raw digits as the glass shows them: `31` with one decimal is `31.0`. */
export const formatRaw = (code: Pick<Code, 'decimals'>, raw: number): string => raw.toFixed(code.decimals);

/** Nearest raw value with the code's decimals, so that stepping by 0.1 leaves no binary dust. */
export const roundRaw = (code: Pick<Code, 'decimals'>, raw: number): number => Number(raw.toFixed(code.decimals));

/** Whether `raw` lies in the range and on the steps of the code, or is one of its sentinels. */
export function onGrid(code: Code, raw: number): boolean {
  if (code.encoding.kind === 'table' && !code.encoding.entries.some((entry) => entry.raw === raw)) return false;
  if (sentinelOf(code, raw) !== undefined) return true;
  const { min, max, step } = code.range;
  if (raw < min - GRID_EPSILON || raw > max + GRID_EPSILON) return false;
  const steps = (raw - min) / step;
  return Math.abs(steps - Math.round(steps)) < GRID_EPSILON;
}

/**
 * Reads what a person typed from the glass. The display's digits are taken as they stand: no unit, no sign
 * but a leading minus, a comma read as a point. A value outside the code's range is still a reading (the
 * unit may not be what its map says), so only text that is no number is refused.
 */
export function parseTyped(code: Pick<Code, 'decimals' | 'label'>, typed: string): Result<number> {
  const text = typed.trim().replace(',', '.');
  if (!/^-?\d{1,5}(\.\d{1,2})?$/.test(text)) {
    return refuse('notDigits', `Type the digits that ${code.label} shows, such as ${formatRaw(code, 25)}.`);
  }
  return ok(Number(text));
}

/** What raw digits mean on this code: `25 km/h`, `only once rolling`, or `outside this map`. */
export function meaningOf(code: Code, raw: number): string {
  if (!onGrid(code, raw)) return 'outside this map';
  switch (code.encoding.kind) {
    case 'table':
      return code.encoding.entries.find((entry) => entry.raw === raw)?.title ?? 'outside this map';
    case 'line': {
      const sentinel = sentinelOf(code, raw);
      if (sentinel) return sentinel.title;
      const { scale, unit } = code.encoding;
      const value = raw * scale;
      const digits = scale === 1 ? formatRaw(code, value) : String(Number(value.toFixed(3)));
      return unit === '' ? digits : `${digits} ${unit}`;
    }
  }
}

export const sentinelOf = (code: Code, raw: number) =>
  code.encoding.kind === 'line' ? code.encoding.sentinels.find((s) => s.raw === raw) : undefined;

/** Raw digits that stand for a word of the code's table, if it has it. */
export const rawForWord = (code: Code, value: string): number | undefined =>
  code.encoding.kind === 'table' ? code.encoding.entries.find((entry) => entry.value === value)?.raw : undefined;

/**
 * Greatest raw value whose meaning does not exceed `limit` (in the unit of the code's line), sentinels left out.
 * Equality counts as within (1e-9 relative). Undefined where even the lowest value exceeds it.
 */
export function greatestRawWithin(code: Code, limit: number): number | undefined {
  if (code.encoding.kind !== 'line') return undefined;
  const { min, max, step } = code.range;
  const highest = (limit * (1 + 1e-9)) / code.encoding.scale;
  const count = Math.floor((Math.min(highest, max) - min) / step + GRID_EPSILON);
  for (let i = count; i >= 0; i--) {
    const raw = roundRaw(code, min + i * step);
    if (sentinelOf(code, raw) === undefined) return raw;
  }
  return undefined;
}

/** Least raw value whose meaning is at least `floor`. Undefined where even the highest is below it. */
export function leastRawFrom(code: Code, floor: number): number | undefined {
  if (code.encoding.kind !== 'line') return undefined;
  const { min, max, step } = code.range;
  const lowest = (floor * (1 - 1e-9)) / code.encoding.scale;
  const from = Math.max(0, Math.ceil((lowest - min) / step - GRID_EPSILON));
  for (let raw = roundRaw(code, min + from * step); raw <= max + GRID_EPSILON; raw = roundRaw(code, raw + step)) {
    if (sentinelOf(code, raw) === undefined) return raw;
  }
  return undefined;
}
