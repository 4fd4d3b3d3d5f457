import { momentIn } from '../house-time.js';
import type { PlaceKind, Skill, OpenTime } from './plan/plan-problem.js';
import { inOrder } from './plan/windows.js';

/** Hours of one day of every week; 1 is Monday. Clock times of the house, such as 08:00; `to` of 24:00 is midnight. */
export interface WeekHours {
  readonly day: number;
  readonly from: string;
  readonly to: string;
}

/** One stretch on its own day: clock times of the house, such as 2026-12-03T12:30. */
export interface Once {
  readonly from: string;
  readonly to: string;
  readonly why: string;
}

export interface CrewPerson {
  readonly id: string;
  readonly name: string;
  /** By which name this one signs in; null for somebody who does not. */
  readonly signInName: string | null;
  readonly skills: readonly Skill[];
  readonly hours: readonly WeekHours[];
  /** Beside the hours of every week. */
  readonly also: readonly Once[];
  readonly away: readonly Once[];
}

/** Who works here, and when. */
export interface Crew {
  readonly format: 'decurio-crew/1';
  readonly id: string;
  readonly name: string;
  readonly people: readonly CrewPerson[];
}

export interface ShopPlace {
  readonly id: string;
  readonly name: string;
  readonly kind: PlaceKind;
  readonly hours: readonly WeekHours[];
  readonly also: readonly Once[];
  readonly shut: readonly Once[];
  /** Of a post: labels of the packs it takes, V; null for all, and of any other place. */
  readonly packsV: readonly number[] | null;
  /** Of a post: what its charger gives, A. */
  readonly chargeA: number | null;
}

/** What there is to work at. */
export interface Shop {
  readonly format: 'decurio-shop/1';
  readonly id: string;
  readonly name: string;
  readonly stands: number;
  /** Units that one person has in hand at once. */
  readonly weave: number;
  /** Seconds it takes to go on at another type or display, and to go to another place. */
  readonly otherKindS: number;
  readonly otherPlaceS: number;
  /** Where a kind of vehicle is proved. */
  readonly proveAt: { readonly bike: 'yard' | 'roller'; readonly scooter: 'yard' | 'roller' };
  readonly places: readonly ShopPlace[];
}

/** When somebody is there: every week, and beside that, and never then. */
export interface OpenHours {
  readonly week: readonly WeekHours[];
  readonly also: readonly Once[];
  readonly never: readonly Once[];
}

const DAY_MS = 86_400_000;

/**
 * When somebody is there, or something open, as seconds from a moment. Each clock time is taken in the house's zone on
 * its own day, so that a day on which clocks are put forward is an hour shorter.
 * @param zone such as Europe/Berlin
 * @param fromMs since 1970; nothing before it is told
 */
export function hoursIn(
  zone: string,
  fromMs: number,
  days: number,
  { week, also, never }: OpenHours,
): readonly OpenTime[] {
  const first = new Date(fromMs - DAY_MS).toISOString().slice(0, 10);
  const seconds = (ms: number | null): number | null => (ms === null ? null : Math.round((ms - fromMs) / 1000));
  const open = Array.from({ length: days + 2 }, (_, i) => dayAfter(first, i)).flatMap((day) => {
    const weekday = new Date(`${day}T12:00:00Z`).getUTCDay() || 7;
    return week
      .filter((hours) => hours.day === weekday)
      .flatMap(({ from, to }) => {
        const fromS = seconds(momentIn(zone, `${day}T${from}`));
        const toS = seconds(
          to === '24:00' ? momentIn(zone, `${dayAfter(day, 1)}T00:00`) : momentIn(zone, `${day}T${to}`),
        );
        return fromS === null || toS === null || toS <= Math.max(0, fromS) ? [] : [{ fromS: Math.max(0, fromS), toS }];
      });
  });
  const once = (all: readonly Once[]): readonly OpenTime[] =>
    all.flatMap(({ from, to }) => {
      const fromS = seconds(momentIn(zone, from));
      const toS = seconds(momentIn(zone, to));
      return fromS === null || toS === null || toS <= Math.max(0, fromS) ? [] : [{ fromS: Math.max(0, fromS), toS }];
    });
  return once(never).reduce<readonly OpenTime[]>(without, inOrder([...open, ...once(also)]));
}

const without = (open: readonly OpenTime[], gone: OpenTime): readonly OpenTime[] =>
  open.flatMap((each) =>
    each.toS <= gone.fromS || each.fromS >= gone.toS
      ? [each]
      : [
          { fromS: each.fromS, toS: gone.fromS },
          { fromS: gone.toS, toS: each.toS },
        ].filter(({ fromS, toS }) => toS > fromS),
  );

const dayAfter = (day: string, by: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + by * DAY_MS).toISOString().slice(0, 10);
