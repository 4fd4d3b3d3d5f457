import { rangeSpan } from '../electrical/range-span.js';
import {
  codesWith,
  hasAssist,
  highestLevel,
  throttleDrives,
  wordFor,
  type ProvingInputs,
} from '../prove/proving-inputs.js';
import { inKmh, KM_PER_MILE, type Speed } from '../speed/speed.js';
import type { Asked } from '../setup/inputs/vehicle-class.js';

/** One way in which a key is used. */
export interface KeyUse {
  readonly keys: readonly string[];
  /** Held so long; 0 for a tap. */
  readonly seconds: number;
}

/** What a rider needs to know of one unit, before any language: no secrets, no way into the menu. */
export interface RiderFacts {
  readonly kind: 'bike' | 'scooter';
  readonly inMiles: boolean;
  readonly keySwitch: boolean;
  /** Null where the unit has no key for it. */
  readonly on: KeyUse | null;
  readonly off: KeyUse | null;
  readonly levels: {
    readonly most: number;
    readonly up: KeyUse;
    readonly down: KeyUse;
    readonly hasZero: boolean;
  } | null;
  readonly modes: {
    readonly change: KeyUse;
    readonly list: readonly { readonly title: string; readonly kmh: number | null }[];
  } | null;
  /** Help by the pedals ends here, true km/h; null where they do not drive it. */
  readonly assistToKmh: number | null;
  readonly throttle:
    { readonly from: 'standing' | 'rolling' | 'pedalling'; readonly toKmh: number } | 'fittedButDead' | 'none';
  readonly walk: { readonly use: KeyUse | null; readonly toKmh: number } | 'off' | 'none';
  readonly cruise: 'on' | 'off' | 'none';
  readonly brakesCut: boolean;
  readonly motorBrakes: boolean;
  readonly lights: boolean;
  /** As planned on, km, with what it rests on; null where nobody knows the type's use. */
  readonly range: {
    readonly fromKm: number;
    readonly toKm: number;
    readonly share: number;
    readonly level: number | null;
  } | null;
  /** Minutes; null where it stays on, or nobody knows. */
  readonly autoOffMin: number | null;
  readonly tyreBar: { readonly from: number; readonly to: number } | null;
  readonly leastAge: number | null;
  readonly asks: { readonly helmet: Asked; readonly licence: Asked; readonly plate: Asked; readonly insurance: Asked };
  /** In the words of whoever keeps the rules, in their language. */
  readonly note: string;
  readonly places: readonly { readonly where: string; readonly limit: Speed }[];
}

/** Share of the charge that a day is planned on. */
const PLANNED_SHARE = 0.8;

/** The facts of a rider card, from what the unit will be when it leaves. */
export function riderFacts(inputs: ProvingInputs, inMiles: boolean): RiderFacts {
  const { map, type, vehicleClass, rides, limit, throttle } = inputs;
  const label = (id: string): string => map.keys.find((key) => key.id === id)?.label ?? id;
  const use = (gesture: {
    readonly kind: string;
    readonly key?: string;
    readonly keys?: readonly string[];
    readonly ms?: number;
  }): KeyUse => ({
    keys: (gesture.keys ?? [gesture.key ?? '']).map(label),
    seconds: gesture.kind === 'hold' ? Math.max(1, Math.ceil((gesture.ms ?? 0) / 1000)) : 0,
  });
  const levels = map.ride?.levels ?? null;
  const modes = map.ride?.modes ?? null;
  const own = type.kind === 'scooter' || !hasAssist(inputs) ? rides.throttle : rides.assist;
  const ends = (kmh: number): number => Math.min(kmh, limit?.kmh ?? Infinity, type.attainableKmh);
  const range = type.whPerKm && rangeSpan({ pack: type.pack, usableShare: PLANNED_SHARE, whPerKm: type.whPerKm });
  const [danger] = map.dangers;
  return {
    kind: type.kind,
    inMiles,
    keySwitch: type.keySwitch,
    on: map.power.on && use(map.power.on),
    off: map.power.off && use(map.power.off),
    levels: levels && {
      most: highestLevel(inputs),
      up: use(levels.up),
      down: use(levels.down),
      hasZero: wordFor(inputs, 'zeroLevel') === 'on',
    },
    modes: modes && {
      change: use(modes.gesture),
      list: modes.list.map(({ id, title }) => {
        const ride = own.find(({ mode }) => mode?.id === id);
        return { title, kmh: ride ? ends(ride.endsKmh) : null };
      }),
    },
    assistToKmh: hasAssist(inputs) ? ends(Math.max(0, ...rides.assist.map(({ endsKmh }) => endsKmh))) : null,
    throttle: !type.throttleFitted
      ? 'none'
      : throttleDrives(inputs)
        ? {
            from: START_WORDS[wordFor(inputs, 'standstillStart') ?? 'live'] ?? 'standing',
            toKmh: Math.min(throttle.toKmh, ends(Math.max(0, ...rides.throttle.map(({ endsKmh }) => endsKmh)))),
          }
        : 'fittedButDead',
    walk: walkOf(inputs, danger ? use(danger.gesture) : null),
    cruise:
      codesWith(inputs, 'cruise').length === 0
        ? 'none'
        : wordFor(inputs, 'cruise') === 'on' && throttleDrives(inputs)
          ? 'on'
          : 'off',
    brakesCut: type.brakes.some(({ cutsMotor }) => cutsMotor),
    motorBrakes: type.motors.some(({ freewheels }) => !freewheels),
    lights: type.fittings.includes('frontLight'),
    range: range?.ok ? { fromKm: range.value.fromKm, toKm: range.value.toKm, share: PLANNED_SHARE, level: null } : null,
    autoOffMin: autoOffMin(inputs),
    tyreBar:
      type.tyre.barFrom !== null && type.tyre.barTo !== null ? { from: type.tyre.barFrom, to: type.tyre.barTo } : null,
    leastAge: vehicleClass.leastAge,
    asks: {
      helmet: vehicleClass.helmet,
      licence: vehicleClass.licence,
      plate: vehicleClass.plate,
      insurance: vehicleClass.insurance,
    },
    note: vehicleClass.riderNote,
    places: vehicleClass.places
      .filter(({ keptBy }) => keptBy === 'rider')
      .map(({ where, limit: most }) => ({ where, limit: most })),
  };
}

const START_WORDS: Readonly<Record<string, 'standing' | 'rolling' | 'pedalling'>> = {
  live: 'standing',
  rolling: 'rolling',
  pedalFirst: 'pedalling',
};

function walkOf(inputs: ProvingInputs, use: KeyUse | null): RiderFacts['walk'] {
  const codes = codesWith(inputs, 'walk');
  const { vehicleClass } = inputs;
  if (codes.length === 0 && use === null) return 'none';
  if (vehicleClass.walk === 'forbidden' || (codes.length > 0 && wordFor(inputs, 'walk') === 'off')) return 'off';
  return { use, toKmh: vehicleClass.walkTo ? inKmh(vehicleClass.walkTo) : 6 };
}

function autoOffMin(inputs: ProvingInputs): number | null {
  const [code] = codesWith(inputs, 'autoOff');
  if (code?.encoding.kind !== 'line') return null;
  const raw = inputs.shows(code);
  const isOff = code.encoding.sentinels.some((each) => each.raw === raw && each.means === 'off');
  const minutes = raw * code.encoding.scale;
  return isOff || minutes <= 0 ? null : minutes;
}

/** A speed as the unit shows it: whole km/h or mph, rounded down, so that nobody is told more than it does. */
export const shownTo = (kmh: number, inMiles: boolean): string =>
  inMiles ? `${Math.floor(kmh / KM_PER_MILE + 1e-6)} mph` : `${Math.floor(kmh + 1e-6)} km/h`;
