/** A receiver's speed at a moment, km/h, with its standard deviation. */
export interface Fix {
  readonly ms: number;
  readonly kmh: number;
  readonly uKmh: number;
}

export interface SteadySpeed {
  readonly kmh: number;
  /** Neighbouring fixes err alike: so sure as half of them, taken as independent. */
  readonly uKmh: number;
  readonly isSteady: boolean;
}

const WINDOW_MS = 5_000;
const FEWEST = 4;
/** Spread of the fixes beyond which the speed is still changing, km/h, on top of what a receiver scatters by. */
const UNSTEADY = 1.2;

/** Mean of the last five seconds. */
export function steadySpeed(fixes: readonly Fix[]): SteadySpeed | null {
  const newest = fixes.at(-1);
  if (!newest) return null;
  const recent = fixes.filter(({ ms }) => newest.ms - ms <= WINDOW_MS);
  const kmh = recent.reduce((sum, fix) => sum + fix.kmh, 0) / recent.length;
  const half = Math.floor(recent.length / 2);
  const mean = (some: readonly Fix[]) => some.reduce((sum, fix) => sum + fix.kmh, 0) / Math.max(some.length, 1);
  const drift = Math.abs(mean(recent.slice(half)) - mean(recent.slice(0, half)));
  const isSteady =
    recent.length >= FEWEST && kmh > 3 && drift < UNSTEADY / 2 + newest.uKmh / Math.sqrt(Math.max(half, 1));
  return { kmh, uKmh: newest.uKmh / Math.sqrt(Math.max(1, recent.length / 2)), isSteady };
}
