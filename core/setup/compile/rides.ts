import type { DisplayMap } from '../../display/map/display-map.js';
import { carriesClaim, willShow, withFunction, type Draft, type Drafted } from './draft.js';
import { ratioAsKeyed } from './counts.js';
import { mayBeNoCap, unitOf } from './wish.js';
import { beyondCap, kmhPerRaw } from './wishes/speed.js';

/** Where drive ends against the ground, km/h: as expected, and at worst. */
export interface Ends {
  readonly kmh: number;
  readonly worst: number;
}

/** One way in which a rider can have the vehicle driven: a ride mode, with or without turbo. */
export interface Ride {
  /** Null on a display without ride modes. */
  readonly mode: { readonly id: string; readonly title: string } | null;
  /** Null where this mode has none. */
  readonly turbo: 'on' | 'off' | null;
  /** As the display counts; Infinity where nothing caps it, or nothing is claimed of what does. */
  readonly kmh: number;
  /** By what motor and pack attain where that is less. */
  readonly ends: Ends;
  /** Codes that end it. */
  readonly caps: readonly Drafted[];
  readonly turboCode: Drafted | null;
}

/** What lets drive run to some speed: a share of what is attained, or a figure that the display counts. */
interface Through {
  readonly kmh: number;
  readonly isShare: boolean;
}

/** What a cap code will let through, km/h; Infinity for no cap, or where nothing is claimed of it. */
function letsThrough(draft: Draft, drafted: Drafted): Through {
  const raw = willShow(draft, drafted);
  const per = kmhPerRaw(drafted.code, draft.work);
  const isShare = unitOf(drafted.code) === '%';
  return !carriesClaim(drafted.code) || per === undefined || mayBeNoCap(drafted.code, raw)
    ? { kmh: Infinity, isShare }
    : { kmh: raw * per, isShare };
}

const least = (all: readonly Through[]): number => Math.min(Infinity, ...all.map(({ kmh }) => kmh));

/** What of these caps ends drive first; null where none of them is claimed to. */
export const firstCap = (draft: Draft, caps: readonly Drafted[]): Through | null =>
  caps
    .map((cap) => letsThrough(draft, cap))
    .filter(({ kmh }) => kmh !== Infinity)
    .toSorted((a, b) => a.kmh - b.kmh)[0] ?? null;

/** Where drive ends against the ground, by the unit as it will stand: (V + e) / k, and at worst (V + e) / k_low. */
export function endsOf(draft: Draft, caps: readonly Drafted[]): Ends {
  const { work } = draft;
  const all = caps.map((cap) => letsThrough(draft, cap));
  const over = beyondCap(work).kmh;
  const asKeyed = ratioAsKeyed(work);
  const ratio = asKeyed.isKnown ? (asKeyed.ratio ?? { k: 1, low: 1 }) : { k: 0, low: 0 };
  const at = (by: number): number =>
    Math.min(
      work.type.attainableKmh,
      ...all.map(({ kmh, isShare }) => (isShare ? kmh + over : by > 0 ? (kmh + over) / by : Infinity)),
    );
  return { kmh: at(ratio.k), worst: at(ratio.low) };
}

/** Every combination of mode and turbo that a rider can reach: turbo lifts whatever caps a mode. */
export function ridesOf(draft: Draft): readonly Ride[] {
  const { map } = draft.work;
  const whole = withFunction(draft, 'speedCap');
  const ridden = map.ride?.modes?.list ?? [];
  if (ridden.length === 0) return [rideOf(draft, null, whole, null)];
  const modes = modeOfCodes(map);
  return ridden.map((mode) => {
    const own = draft.codes.filter(({ code }) => modes.get(code.label) === mode.id);
    const turbo = own.find(({ code }) => code.function === 'modeTurbo') ?? null;
    return rideOf(draft, mode, [...whole, ...own.filter(({ code }) => code.function === 'modeSpeedPercent')], turbo);
  });
}

function rideOf(draft: Draft, mode: Ride['mode'], caps: readonly Drafted[], turboCode: Drafted | null): Ride {
  const turbo = turboCode && (isOn(turboCode, willShow(draft, turboCode)) ? 'on' : 'off');
  const ending = turbo === 'on' ? [] : caps;
  return {
    mode,
    turbo,
    kmh: least(ending.map((cap) => letsThrough(draft, cap))),
    ends: endsOf(draft, ending),
    caps: ending,
    turboCode,
  };
}

/** In which ride mode's list each code stands. */
export function modeOfCodes(map: DisplayMap): ReadonlyMap<string, string> {
  return new Map(
    (map.menu?.pages ?? []).flatMap(({ mode, items }) =>
      mode === undefined ? [] : items.flatMap((item) => ('code' in item ? [[item.code, mode] as const] : [])),
    ),
  );
}

const isOn = ({ code }: Drafted, raw: number): boolean =>
  code.encoding.kind === 'table'
    ? code.encoding.entries.find((entry) => entry.raw === raw)?.value !== 'off'
    : raw !== 0;
