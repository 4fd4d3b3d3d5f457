import type { Code, DisplayMap } from '../display/map/display-map.js';
import { isForMode } from '../display/map/pages-listing.js';
import type { CodeFunction } from '../display/map/functions.js';
import { sentinelOf } from '../display/map/raw-value.js';
import type { RawValues } from '../display/machine/display-state.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';
import { circumferenceMm } from '../speed/wheel-code.js';

const KMH_PER_MILE = 1.609344;

/** A speed at which drive ends: counted by the controller in shown km/h, or a share of what motor and pack attain. */
export type DriveEnd = { readonly shownKmh: number } | { readonly share: number };

/** What the codes in force make the vehicle do. */
export interface Obeyed {
  /** Each holds: drive ends at the first that is reached. */
  readonly assistEnds: readonly DriveEnd[];
  readonly throttleEnds: readonly DriveEnd[];
  readonly driveMode: 'pedal' | 'throttle' | 'both';
  readonly start: 'live' | 'rolling' | 'pedalFirst';
  /** Part of the full current that the level gives. */
  readonly levelShare: number;
  readonly throttleShare: number;
  readonly currentA: number;
  readonly cutoffV: number | null;
  /** What the display counts with. */
  readonly wheelMm: number;
  readonly pulses: number;
  readonly pedalMagnets: number | null;
  readonly cruise: boolean;
  readonly walk: boolean;
  readonly mph: boolean;
  /** The voltage class that the gauge takes for granted; null where the display has no such code. */
  readonly classV: number | null;
  /** Minutes of rest after which the glass goes dark; null for never. */
  readonly autoOffMin: number | null;
}

export interface Ridden {
  readonly level: number;
  readonly mode: string | null;
  /** Acts of the rider's on the main page that are on, by title. */
  readonly on?: readonly string[];
}

/** Reads what the display's codes in force mean for the vehicle. A code that is not on the display leaves the type's own. */
export function obeyedCodes(
  type: VehicleType,
  map: DisplayMap,
  values: RawValues,
  { level, mode, on = [] }: Ridden,
): Obeyed {
  const own = (what: CodeFunction): Code | undefined =>
    map.codes.find(
      (code) =>
        code.function === what &&
        code.effect !== 'displayOnly' &&
        !isDead(code, map, values) &&
        (code.encoding.kind !== 'line' || isOfMode(map, code, mode)),
    );
  const rawOf = (code: Code): number => values[code.label] ?? code.factory;
  const number = (what: CodeFunction): number | null => {
    const code = own(what);
    return code === undefined || code.encoding.kind !== 'line' || sentinelOf(code, rawOf(code)) !== undefined
      ? null
      : rawOf(code) * code.encoding.scale;
  };
  const word = (what: CodeFunction): string | null => wordOf(map, values, what);
  const mph = word('units') === 'mph';
  const end = (what: CodeFunction): DriveEnd | null => {
    const value = number(what);
    const encoding = own(what)?.encoding;
    if (value === null || encoding?.kind !== 'line') return null;
    if (encoding.unit === '%') return { share: value / 100 };
    return {
      shownKmh: encoding.unit === 'mph' || (encoding.follows !== undefined && mph) ? value * KMH_PER_MILE : value,
    };
  };
  const most = map.ride?.levels?.most ?? 0;
  const levels = Math.max(
    1,
    Math.min(most === 0 ? 1 : most, number('assistLevels') ?? (Number(word('assistLevels')) || most || 1)),
  );
  const levelShare = most === 0 ? 1 : Math.min(1, level / levels);
  const wheel = own('wheelSize');
  // Turbo lifts whatever caps a mode.
  const isLifted = (map.ride?.acts ?? []).some(({ title, speed }) => speed === 'liftsCaps' && on.includes(title));
  const isTurbo = isLifted || turboOf(map, values, mode);
  const modeEnd = end('modeSpeedPercent');
  return {
    assistEnds: isTurbo ? [] : all(end('speedCap'), modeEnd),
    throttleEnds: isTurbo ? [] : all(end('throttleCap') ?? end('speedCap'), modeEnd),
    driveMode:
      asOneOf(word('driveMode'), ['pedal', 'throttle', 'both']) ??
      (type.kind === 'scooter' ? 'throttle' : type.throttleFitted ? 'both' : 'pedal'),
    start: asOneOf(word('standstillStart'), ['live', 'rolling', 'pedalFirst']) ?? 'live',
    levelShare,
    throttleShare: word('throttleScope') === 'limited' ? levelShare : 1,
    currentA:
      Math.min(type.controllerLimitA, number('currentLimit') ?? type.controllerLimitA) *
      ((number('modeCurrentPercent') ?? 100) / 100),
    cutoffV: number('cutoffVoltage') ?? type.controllerCutoffV,
    wheelMm: (wheel && circumferenceMm(wheel, rawOf(wheel))) ?? Math.PI * 25.4 * type.tyre.wheelInch,
    pulses: number('wheelPulses') ?? type.wheelPulses,
    pedalMagnets: number('pedalMagnets') ?? type.pedalMagnets,
    cruise: word('cruise') === 'on',
    walk: word('walk') !== 'off',
    mph,
    classV: Number(word('nominalVoltage')) || number('nominalVoltage'),
    autoOffMin: number('autoOff') || null,
  };
}

function turboOf(map: DisplayMap, values: RawValues, mode: string | null): boolean {
  const code = map.codes.find((each) => each.function === 'modeTurbo' && isOfMode(map, each, mode));
  if (!code) return false;
  const raw = values[code.label] ?? code.factory;
  return code.encoding.kind === 'table'
    ? code.encoding.entries.some((entry) => entry.raw === raw && entry.value !== 'off')
    : raw !== 0;
}

/** Ride modes have lists of their own: a code counts where its page is the mode's, or belongs to none. */
const isOfMode = (map: DisplayMap, code: Code, mode: string | null): boolean => isForMode(map, code.label, mode);

/** Whether another code in force makes this one do nothing. */
function isDead({ deadIf }: Code, map: DisplayMap, values: RawValues): boolean {
  const by = deadIf && map.codes.find(({ label }) => label === deadIf.code);
  return by !== undefined && deadIf !== undefined && deadIf.in.includes(values[by.label] ?? by.factory);
}

function wordOf(map: DisplayMap, values: RawValues, what: CodeFunction): string | null {
  for (const { label, factory, encoding } of map.codes.filter(
    (code) =>
      !isDead(code, map, values) &&
      (code.function === what ||
        (code.encoding.kind === 'pair' &&
          [code.encoding.first.function, code.encoding.second.function].includes(what))),
  )) {
    const raw = values[label] ?? factory;
    if (encoding.kind === 'table') return encoding.entries.find((entry) => entry.raw === raw)?.value ?? null;
    if (encoding.kind !== 'pair') continue;
    const [half, digit] =
      encoding.first.function === what ? [encoding.first, Math.floor(raw / 10)] : [encoding.second, raw % 10];
    return half.entries.find((entry) => entry.raw === digit)?.value ?? null;
  }
  return null;
}

const asOneOf = <T extends string>(word: string | null, words: readonly T[]): T | null =>
  words.find((each) => each === word) ?? null;

const all = (...ends: readonly (DriveEnd | null)[]): readonly DriveEnd[] => ends.flatMap((end) => end ?? []);
