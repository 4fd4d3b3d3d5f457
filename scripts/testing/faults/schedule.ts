import { seeded } from '../../../core/statistics/seeded.js';

/** What goes wrong on the machines. */
export const MACHINE_FAULTS = [
  'serverKilled',
  'databaseKilled',
  'bothKilled',
  'diskFull',
  'serverClockJumps',
  'databaseHangs',
] as const;
export type MachineFault = (typeof MACHINE_FAULTS)[number];

/** What goes wrong on the way of one request. `cutBefore`: it never arrives whole. `cutAfter`: its answer never does. */
export type WayFault = 'none' | 'cutBefore' | 'cutAfter' | 'doubled' | 'late';

/** One schedule of faults; the same for the same seed. */
export interface Schedule {
  readonly seed: number;
  /** By how many requests it comes, the earliest first. */
  readonly machine: readonly { readonly afterSends: number; readonly fault: MachineFault }[];
  /** How long each fault of a machine lasts, in requests that nobody answers, before whoever runs the house mends it. */
  readonly lasts: number;
  /** How often requests go astray, of one. */
  readonly astray: number;
  /** Acts that each stand makes. */
  readonly acts: number;
  /** Both stands are on one unit. */
  readonly sharesUnit: boolean;
}

export function scheduleOf(seed: number): Schedule {
  const { uniform } = seeded(seed);
  const acts = 20 + Math.floor(25 * uniform());
  const count = 1 + Math.floor(3 * uniform());
  const machine = Array.from({ length: count }, () => ({
    afterSends: 2 + Math.floor(1.4 * acts * uniform()),
    fault: MACHINE_FAULTS[Math.floor(MACHINE_FAULTS.length * uniform())] ?? 'serverKilled',
  })).sort((a, b) => a.afterSends - b.afterSends);
  return {
    seed,
    machine,
    lasts: 1 + Math.floor(8 * uniform()),
    astray: 0.35 * uniform(),
    acts,
    sharesUnit: uniform() < 0.5,
  };
}

/** What befalls the next request. */
export function wayFault(astray: number, uniform: () => number): WayFault {
  if (uniform() >= astray) return 'none';
  return (['cutBefore', 'cutAfter', 'doubled', 'late'] as const)[Math.floor(4 * uniform())] ?? 'none';
}
