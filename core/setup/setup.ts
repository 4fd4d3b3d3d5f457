import type { CodeFunction } from '../display/map/functions.js';

/** What one code must show when the unit leaves, and why. */
export interface CodeTarget {
  readonly label: string;
  readonly function: CodeFunction;
  /** Raw digits as shown; null leaves the code as found. */
  readonly raw: number | null;
  /** Shown by the display, not changeable by its keys. */
  readonly locked: boolean;
  /** Never on the glass in the course of the work: not on this display, for a tool alone, or on a page nobody enters. */
  readonly offGlass?: true;
  /** One sentence in a technician's words. */
  readonly because: string;
}

/** `stop`: cannot be released. `decide`: a lead chooses, in writing. `note`: to be known. */
export interface Finding {
  readonly level: 'stop' | 'decide' | 'note';
  /** The code it is about, or null for the whole unit. */
  readonly label: string | null;
  readonly says: string;
}

/** What an order means for a unit: a target for every code in menu order, each with its reason, and findings. */
export interface Setup {
  readonly targets: readonly CodeTarget[];
  readonly findings: readonly Finding[];
  /** Lowest of class, order and type limits, km/h true speed. */
  readonly limitKmh: number;
}

export const targetOf = (setup: Setup, label: string): CodeTarget | undefined =>
  setup.targets.find((target) => target.label === label);
