import type { CodeFunction } from '../display/map/functions.js';
import type { Part } from '../setup/inputs/parts.js';

/** Where a test is made: on a work stand, driven wheel up; where it can be ridden, or on a roller; or standing still. */
export const PLACES = { stand: 'Wheel up', yard: 'Yard or roller', rest: 'Standing' } as const;
export type ProvingPlace = keyof typeof PLACES;

/** One thing that may be seen to happen. It never says whether that is good. */
export interface NamedOutcome {
  readonly id: string;
  readonly says: string;
}

/**
 * What is watched for. `outcome`: the person says what happened; `right` is core's alone. `speed`: true speeds at which
 * drive ends, or at which a vehicle is pushed. `seconds`, `turns`: at most so many. `metres`: to a standstill, beside a
 * unit as delivered. `gauge`: the meter beside what the glass shows. `errors`: the list as shown.
 */
export type Watch =
  | { readonly kind: 'outcome'; readonly outcomes: readonly NamedOutcome[]; readonly right: readonly string[] }
  | {
      readonly kind: 'speed';
      /** True km/h. */
      readonly limitKmh: number;
      /** The same as it was laid down. */
      readonly words: string;
      /** Stated by the rule itself, relative; it loosens only the worst case. */
      readonly tolerance: number;
      readonly least: number;
      /** What the setup leads one to expect, true km/h; null where nothing tells. */
      readonly predictedKmh: number | null;
      /** Beyond this no such vehicle goes, km/h. */
      readonly attainableKmh: number;
      /** What caps it, km/h: as the display counts, or true where it is a share of what is attained. Null where nothing does. */
      readonly cap: { readonly kmh: number; readonly isShare: boolean } | null;
    }
  | { readonly kind: 'seconds' | 'turns'; readonly most: number }
  | { readonly kind: 'metres' }
  | { readonly kind: 'gauge'; readonly as: 'percent' | 'volts' }
  | { readonly kind: 'errors' };

/**
 * What can mend what a test does not show. `readAgain`: restart, and read the codes named once more. `calibrate`: a lower
 * cap. `part`: what it names is mended and the test made again. `hold`: a lead decides.
 */
export interface Cure {
  readonly way: 'readAgain' | 'calibrate' | 'part' | 'hold';
  readonly labels: readonly string[];
  readonly part: Part | null;
  readonly says: string;
}

/** What one unit has to show on one point. Plain data: it is kept with the setup that it follows from. */
export interface ProvingTest {
  /** Stable over revisions of a setup, such as `brake:front`. */
  readonly id: string;
  readonly title: string;
  /** Codes that it answers for, by label, and the clauses of the class, in words. */
  readonly proves: { readonly labels: readonly string[]; readonly clauses: readonly string[] };
  readonly at: ProvingPlace;
  /** `full`: charged to the end by its own charger since it last ran, and rested. */
  readonly pack: 'any' | 'full';
  /** Done by hand before, such as drawing a plug; null where nothing is. */
  readonly first: string | null;
  readonly does: string;
  readonly watch: Watch;
  readonly cautions: readonly string[];
  /** `every`: on each unit. `sample`: on those of a batch that are proved in full. */
  readonly sampled: 'every' | 'sample';
  /** Nobody leaves it out. */
  readonly isNeverLeftOut: boolean;
  /** It is left alone so many minutes meanwhile; null where hands are on it. */
  readonly waitsMin: number | null;
  /** What it binds to beside the labels it proves: a change of one voids it. */
  readonly leans: { readonly labels: readonly string[]; readonly parts: readonly Part[] };
  readonly cure: Cure;
}

/** What a person saw or measured, once. */
export type Observation =
  | { readonly kind: 'outcome'; readonly outcome: string }
  | {
      readonly kind: 'speed';
      readonly trueKmh: number;
      /** Standard deviation of this reading, km/h. */
      readonly uKmh: number;
      /** Standard deviation of what all readings of its instrument share, as a share of the speed. */
      readonly uCommon: number;
      readonly reference: string;
      /** Looked at again: no slip of unit or digit. */
      readonly isSure?: true;
    }
  | { readonly kind: 'seconds' | 'turns'; readonly figure: number }
  | { readonly kind: 'metres'; readonly metres: number; readonly besideMetres: number }
  | { readonly kind: 'gauge'; readonly meterV: number; readonly shown: number }
  | { readonly kind: 'errors'; readonly shown: readonly string[] };

export type ObservationKind = Observation['kind'];

/** What the observations of one test amount to. */
export type Judgement =
  | { readonly verdict: 'shows'; readonly says: string }
  | { readonly verdict: 'doesNot'; readonly says: string; readonly cure: Cure }
  /** `more`: so many further readings at this spread; null where no number of them would settle it. */
  | { readonly verdict: 'open'; readonly says: string; readonly more: number | null };

/** What is read back and not proved on the vehicle, with the reason. */
export interface NotProved {
  readonly label: string;
  readonly function: CodeFunction;
  readonly because: string;
}
