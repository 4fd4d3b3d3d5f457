import { seeded } from '../../statistics/seeded.js';
import { shuffled } from '../../statistics/shuffled.js';
import type { Code, DisplayMap } from '../map/display-map.js';

/** What a trial measures, how a smaller and a greater figure of it are called, and what would matter to a rider. */
export interface Quantity {
  readonly title: string;
  readonly unit: string;
  readonly less: string;
  readonly greater: string;
  /** A difference that somebody would feel, in `unit`; whoever sets the trial up may say otherwise. */
  readonly matters: number;
  readonly decimals: number;
  /** Nothing beyond can be meant. */
  readonly most: number;
  /** What one run is, to a person who does it. */
  readonly does: string;
}

export const QUANTITIES = {
  secondsTo: {
    title: 'Seconds from standstill to a speed',
    unit: 's',
    less: 'quicker',
    greater: 'slower',
    matters: 0.3,
    decimals: 2,
    most: 120,
    does: 'From standstill, full help, until the glass shows the speed chosen. Seconds by stopwatch or from a film.',
  },
  endSpeed: {
    title: 'True end speed',
    unit: 'km/h',
    less: 'slower',
    greater: 'faster',
    matters: 0.5,
    decimals: 1,
    most: 120,
    does: 'Along the same stretch, same direction, until it gets no faster. By receiver or roller, not by its own glass.',
  },
  turnsToAssist: {
    title: 'Turns of the pedals until help begins',
    unit: 'turns',
    less: 'earlier',
    greater: 'later',
    matters: 0.25,
    decimals: 2,
    most: 20,
    does: 'Wheel up: turn the pedals slowly by hand from the same place, and count until the motor pulls.',
  },
  metresToStop: {
    title: 'Metres to a stop',
    unit: 'm',
    less: 'shorter',
    greater: 'longer',
    matters: 0.5,
    decimals: 1,
    most: 200,
    does: 'From the same speed at the same mark, by motor braking alone. Keep a hand on the brakes.',
  },
  amps: {
    title: 'Current',
    unit: 'A',
    less: 'less',
    greater: 'more',
    matters: 0.5,
    decimals: 1,
    most: 200,
    does: 'The greatest current that a meter in the line or the display shows while it pulls away.',
  },
  watts: {
    title: 'Power',
    unit: 'W',
    less: 'less',
    greater: 'more',
    matters: 20,
    decimals: 0,
    most: 20_000,
    does: 'The greatest power that a meter in the line or the display shows while it pulls away.',
  },
} as const satisfies Record<string, Quantity>;
export type QuantityId = keyof typeof QUANTITIES;

/** What is tried: values of one code against one measured quantity. */
export interface TrialPlan {
  readonly label: string;
  /** Two to four raw values; the first is what the others are held against. */
  readonly values: readonly number[];
  readonly quantity: QuantityId;
  /** Runs of each value at first. */
  readonly each: number;
  /** A difference that would matter, in the quantity's unit. */
  readonly matters: number;
  readonly seed: number;
}

export interface TrialRun {
  readonly raw: number;
  readonly measured: number;
}

/**
 * In which order the values are run: all arrangements are alike likely, so that neither a motor that warms up nor a pack
 * that sinks can look like the code. The same for the same seed; asked for more runs later, those before stay.
 * @param more further runs of each value, drawn after the first
 * @example
 * trialOrder({ values: [1, 5], each: 3, seed: 7 }).toSorted(); // [1, 1, 1, 5, 5, 5]
 */
export function trialOrder(
  { values, each, seed }: Pick<TrialPlan, 'values' | 'each' | 'seed'>,
  more: readonly number[] = [],
): readonly number[] {
  return [each, ...more].flatMap((count, i) =>
    shuffled(
      values.flatMap((raw) => Array.from({ length: count }, () => raw)),
      seeded(seed + 7919 * i).uniform,
    ),
  );
}

/** Functions of which a quantity tells most; the first one is offered. */
const TELLING: Partial<Record<Code['function'], QuantityId>> = {
  pedalStartStrength: 'secondsTo',
  startRamp: 'secondsTo',
  pedalSensitivity: 'turnsToAssist',
  pedalMagnets: 'turnsToAssist',
  pedalDelay: 'turnsToAssist',
  speedCap: 'endSpeed',
  throttleCap: 'endSpeed',
  currentLimit: 'amps',
  maxOutputPercent: 'watts',
  regen: 'metresToStop',
};
export const quantityFor = ({ function: of }: Pick<Code, 'function'>): QuantityId => TELLING[of] ?? 'secondsTo';

/** Codes of a map that keys move between two values at least: what a trial may be about. */
export const triable = ({ codes }: Pick<DisplayMap, 'codes'>): readonly Code[] =>
  codes.filter(
    ({ access, range, action }) => (access === 'open' || access === 'pin') && range.max > range.min && !action,
  );
