import type { Code } from '../display/map/display-map.js';
import { badFigure } from '../figures.js';
import { valuesInOrder } from '../display/map/raw-value.js';

const MM_PER_INCH = 25.4;

/**
 * Circumference, mm, that a wheel code makes the display count with: the map's own table; else the digits where they
 * are millimetres; else pi * 25.4 mm * inches, which stands only to about 3 %. Undefined where the code tells neither.
 * @example
 * const inches = { encoding: { kind: 'line', scale: 1, unit: 'in', sentinels: [] } } as unknown as Code;
 * Math.round(circumferenceMm(inches, 26) ?? 0); // 2075
 */
export function circumferenceMm(code: Code, raw: number): number | undefined {
  if (!(raw >= 0 && raw < Infinity)) return undefined;
  const listed = code.wheelTable?.find((row) => row.raw === raw);
  if (listed) return listed.mm;
  if (code.encoding.kind !== 'line') return undefined;
  const { unit, scale } = code.encoding;
  if (unit === 'mm') return raw * scale;
  return unit === 'in' ? Math.PI * MM_PER_INCH * raw * scale : undefined;
}

/** How wheel values are ranked: `nearest`: |ln k'| least. `neverUnder`: least k' of at least 1, so that the speed shown never lies under the true one. */
export type ShownSpeed = 'nearest' | 'neverUnder';

export interface WheelChoice {
  readonly raw: number;
  readonly mm: number;
}

/** The value of a wheel code that suits a wheel of `trueMm` best. Undefined where the code's circumferences are unknown, or the wheel is none. */
export function wheelValueFor(code: Code, trueMm: number, shown: ShownSpeed): WheelChoice | undefined {
  if (badFigure({ 'The wheel': [trueMm, 'aboveZero'] })) return undefined;
  const choices = circumferences(code);
  const allowed = shown === 'neverUnder' ? choices.filter(({ mm }) => mm >= trueMm * (1 - 1e-9)) : choices;
  const off = ({ mm }: WheelChoice): number => Math.abs(Math.log(mm / trueMm));
  return (allowed.length > 0 ? allowed : choices).reduce<WheelChoice | undefined>(
    (best, each) => (best === undefined || off(each) < off(best) ? each : best),
    undefined,
  );
}

const known = new WeakMap<Code, readonly WheelChoice[]>();

/** What every value of a code makes the display count with. */
function circumferences(code: Code): readonly WheelChoice[] {
  const kept = known.get(code);
  if (kept) return kept;
  const choices = valuesInOrder(code).flatMap((raw) => {
    const mm = circumferenceMm(code, raw);
    return mm === undefined ? [] : [{ raw, mm }];
  });
  known.set(code, choices);
  return choices;
}
