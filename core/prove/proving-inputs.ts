import type { Code, DisplayMap } from '../display/map/display-map.js';
import type { CodeFunction } from '../display/map/functions.js';
import type { VehicleClass } from '../setup/inputs/vehicle-class.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';

/** One way in which a rider can have it driven, with where drive should end against the ground. */
export interface ProvingRide {
  readonly mode: { readonly id: string; readonly title: string } | null;
  readonly turbo: 'on' | 'off' | null;
  /** What the rider switches on by a key that lifts every cap. */
  readonly act: string | null;
  /** Codes that end it, and the one that gives turbo. */
  readonly labels: readonly string[];
  readonly turboLabel: string | null;
  /** True km/h, as expected. */
  readonly endsKmh: number;
  /** What caps it, km/h: as the display counts, or true where it is a share of what is attained. Null where nothing does. */
  readonly cap: { readonly kmh: number; readonly isShare: boolean } | null;
}

/** What a unit will be when it leaves: everything that decides what it has to show. */
export interface ProvingInputs {
  readonly map: DisplayMap;
  readonly type: VehicleType;
  readonly vehicleClass: VehicleClass;
  /** Lowest of class, site, order and type, true km/h, and as it was laid down; null where nothing limits. */
  readonly limit: { readonly kmh: number; readonly words: string } | null;
  /** Raw digits that the unit will show. */
  readonly shows: (code: Code) => number;
  /** `toKmh`: true speed to which the throttle may push; Infinity where only the limit ends it. `unplug`: no code answers for it. */
  readonly throttle: { readonly allowed: boolean; readonly toKmh: number; readonly unplug: boolean };
  /** Under the pedals, and under the throttle where that may drive. */
  readonly rides: { readonly assist: readonly ProvingRide[]; readonly throttle: readonly ProvingRide[] };
  /** A lead had motor braking made weaker than it was delivered. */
  readonly brakesLess: boolean;
  /** Set when it is handed over, under a policy. */
  readonly pinLabels: readonly string[];
}

/** Codes of a function, those that carry it as one of two with them. */
export const codesWith = (
  { map }: Pick<ProvingInputs, 'map'>,
  ...functions: readonly CodeFunction[]
): readonly Code[] =>
  map.codes.filter(
    ({ function: own, encoding, access }) =>
      access !== 'absent' &&
      (functions.includes(own) ||
        (encoding.kind === 'pair' &&
          (functions.includes(encoding.first.function) || functions.includes(encoding.second.function)))),
  );

/** The word that a code will stand at, in the vocabulary of a function; undefined where its encoding has none. */
export function wordOf({ shows }: Pick<ProvingInputs, 'shows'>, code: Code, what: CodeFunction): string | undefined {
  const raw = shows(code);
  const { encoding } = code;
  if (encoding.kind === 'table') return encoding.entries.find((entry) => entry.raw === raw)?.value;
  if (encoding.kind === 'pair') {
    const [half, digit] =
      encoding.first.function === what ? [encoding.first, Math.floor(raw / 10)] : [encoding.second, raw % 10];
    return half.entries.find((entry) => entry.raw === digit)?.value;
  }
  if (encoding.kind !== 'line') return undefined;
  const sentinel = encoding.sentinels.find((each) => each.raw === raw);
  return sentinel ? sentinel.means : raw === 0 ? 'off' : undefined;
}

/** The word that the first code of a function will stand at. */
export function wordFor(inputs: ProvingInputs, what: CodeFunction): string | undefined {
  const [code] = codesWith(inputs, what);
  return code && wordOf(inputs, code, what);
}

export const labelsOf = (codes: readonly Code[]): readonly string[] => codes.map(({ label }) => label);

/** Whether the pedals can make it drive. */
export const hasAssist = (inputs: ProvingInputs): boolean =>
  inputs.type.pedalMagnets !== null && wordFor(inputs, 'driveMode') !== 'throttle';

/** Whether the throttle is meant to drive. */
export const throttleDrives = (inputs: ProvingInputs): boolean =>
  inputs.type.throttleFitted && inputs.throttle.allowed && wordFor(inputs, 'driveMode') !== 'pedal';

/** How it is made to drive on the stand. */
export function howDriven(inputs: ProvingInputs): string {
  if (hasAssist(inputs)) return 'Highest level: turn the pedals by hand until the motor pulls';
  const start = wordFor(inputs, 'standstillStart');
  return start === 'rolling' || start === 'pedalFirst'
    ? 'Spin the driven wheel by hand and open the throttle until the motor pulls'
    : 'Open the throttle until the motor pulls';
}

const BOTH_CLEAR = 'Both wheels clear of the ground: both drive.';
const ONE_CLEAR = 'Driven wheel clear of the ground; hands, sleeves and tools out of the spokes.';

/** Where a wheel turns on a stand. */
export const standCautions = ({ type }: Pick<ProvingInputs, 'type'>): readonly string[] =>
  type.motors.length > 1 ? [BOTH_CLEAR, 'Hands, sleeves and tools away from both wheels.'] : [ONE_CLEAR];

export const YARD_CAUTIONS: readonly string[] = ['Ride only inside the yard. Helmet on, both brakes tried first.'];

/** The highest level that a rider reaches: as many as the display has, or as its code sets; 0 where it has none. */
export function highestLevel(inputs: ProvingInputs): number {
  const most = inputs.map.ride?.levels?.most ?? 0;
  const [code] = codesWith(inputs, 'assistLevels');
  if (!code) return most;
  const set =
    code.encoding.kind === 'line'
      ? inputs.shows(code) * code.encoding.scale
      : Number(wordFor(inputs, 'assistLevels') ?? Number.NaN);
  return set > 0 ? Math.min(most, set) : most;
}
