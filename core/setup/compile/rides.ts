import { pagesListing } from '../../display/map/pages-listing.js';
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
  /** Something the rider switches on by a key that lifts every cap; null without. */
  readonly act: string | null;
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
  return !carriesClaim(draft, drafted.code) || per === undefined || mayBeNoCap(drafted.code, raw)
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
  if (ridden.length === 0) return [rideOf(draft, null, whole, null), ...lifted(draft, null)];
  return ridden.flatMap((mode) => {
    const own = draft.codes.filter(({ code }) => pagesListing(map, code.label).some((page) => page.mode === mode.id));
    const turbo = own.find(({ code }) => code.function === 'modeTurbo') ?? null;
    return [
      rideOf(draft, mode, [...whole, ...own.filter(({ code }) => code.function === 'modeSpeedPercent')], turbo),
      ...lifted(draft, mode),
    ];
  });
}

/** By a key that lifts every cap, where what will stand lets it: nothing ends drive but what motor and pack attain. */
function lifted(draft: Draft, mode: Ride['mode']): readonly Ride[] {
  return (draft.work.map.ride?.acts ?? []).flatMap(({ title, speed, onlyIf }) => {
    const by = onlyIf && draft.codes.find(({ code }) => code.label === onlyIf.code);
    const works = onlyIf === undefined || (by !== undefined && onlyIf.in.includes(willShow(draft, by)));
    return speed === 'liftsCaps' && works
      ? [{ ...rideOf(draft, mode, [], null), turbo: 'on' as const, act: title, turboCode: by ?? null }]
      : [];
  });
}

function rideOf(draft: Draft, mode: Ride['mode'], caps: readonly Drafted[], turboCode: Drafted | null): Ride {
  const turbo = turboCode && (isOn(turboCode, willShow(draft, turboCode)) ? 'on' : 'off');
  const ending = turbo === 'on' ? [] : caps;
  return {
    mode,
    turbo,
    act: null,
    kmh: least(ending.map((cap) => letsThrough(draft, cap))),
    ends: endsOf(draft, ending),
    caps: ending,
    turboCode,
  };
}

const isOn = ({ code }: Drafted, raw: number): boolean =>
  code.encoding.kind === 'table'
    ? code.encoding.entries.find((entry) => entry.raw === raw)?.value !== 'off'
    : raw !== 0;
