import type { PlanBar, PlanView } from '@decurio/contract';

/** One row of the timeline: a person, or places of a kind, with its bars in as many lines as lie beside each other. */
export interface Lane {
  readonly id: string;
  readonly name: string;
  readonly says: string;
  readonly of: 'person' | 'place' | 'posts';
  readonly lines: readonly (readonly PlanBar[])[];
  /** When it is not there or not open, within the hours shown. */
  readonly shut: readonly Span[];
}

export interface Span {
  readonly fromMs: number;
  readonly toMs: number;
}

const SKILL_WORDS = { bench: 'stand', ride: 'rides', sign: 'signs' } as const;

/** Everything that lies within a day, in rows. */
export function lanesOf(plan: PlanView, day: Span): readonly Lane[] {
  const within = plan.bars.filter(({ fromMs, toMs }) => toMs > day.fromMs && fromMs < day.toMs);
  const ownerOf = ownersOf(plan.bars);
  const people = plan.people.map((person): Lane => {
    const own = within.filter((bar) => (bar.personId ?? waitOwner(bar, ownerOf)) === person.id);
    return {
      id: person.id,
      name: person.name,
      says: person.skills.map((skill) => SKILL_WORDS[skill as keyof typeof SKILL_WORDS] ?? skill).join(', '),
      of: 'person',
      lines: byUnit(own),
      shut: gaps(person.hours, day),
    };
  });
  const places = plan.places
    .filter(({ kind }) => kind !== 'post')
    .map((place): Lane => ({
      id: place.id,
      name: place.name,
      says: 'one at a time',
      of: 'place',
      lines: [within.filter(({ placeId }) => placeId === place.id)],
      shut: gaps(place.hours, day),
    }));
  const posts = plan.places.filter(({ kind }) => kind === 'post');
  const charging: Lane = {
    id: 'posts',
    name: 'Posts',
    says: `${posts.length}, packs to full`,
    of: 'posts',
    lines: posts.map(({ id }) => within.filter(({ placeId }) => placeId === id)),
    shut: posts.length === 0 ? [] : gaps(posts[0]?.hours ?? [], day),
  };
  return [...people, ...places, ...(posts.length > 0 ? [charging] : [])];
}

/** Whose hands were on a unit last before it waits. */
function ownersOf(bars: readonly PlanBar[]): ReadonlyMap<string, readonly PlanBar[]> {
  const all = new Map<string, PlanBar[]>();
  for (const bar of bars) {
    if (bar.personId === null || bar.tone === 'sign') continue;
    const own = all.get(bar.unitId);
    if (own) own.push(bar);
    else all.set(bar.unitId, [bar]);
  }
  return all;
}

function waitOwner(bar: PlanBar, owners: ReadonlyMap<string, readonly PlanBar[]>): string | null {
  if (bar.tone !== 'wait') return null;
  const own = owners.get(bar.unitId) ?? [];
  return (own.findLast(({ toMs }) => toMs <= bar.fromMs) ?? own[0])?.personId ?? null;
}

/** Units that are in hand at once lie in lines of their own: as few as hold them. */
function byUnit(bars: readonly PlanBar[]): readonly (readonly PlanBar[])[] {
  const units = new Map<string, PlanBar[]>();
  for (const bar of bars) {
    const last = units.get(bar.unitId)?.at(-1);
    // What comes back from charging, or much later, is another stretch of it.
    const key = last && bar.fromMs - last.toMs > APART_MS ? `${bar.unitId} ${bar.fromMs}` : bar.unitId;
    const own = units.get(key);
    if (own) own.push(bar);
    else units.set(key, [bar]);
  }
  const lines: PlanBar[][] = [];
  const stretches = [...units.values()].sort((a, b) => (a[0]?.fromMs ?? 0) - (b[0]?.fromMs ?? 0));
  for (const stretch of stretches) {
    const from = stretch[0]?.fromMs ?? 0;
    const line = lines.find((each) => (each.at(-1)?.toMs ?? 0) <= from);
    if (line) line.push(...stretch);
    else lines.push([...stretch]);
  }
  return lines.length > 0 ? lines : [[]];
}

const APART_MS = 30 * 60_000;

/** What of a day is not open. */
export function gaps(hours: readonly Span[], day: Span): readonly Span[] {
  const shut: Span[] = [];
  let at = day.fromMs;
  for (const { fromMs, toMs } of hours) {
    if (toMs <= day.fromMs || fromMs >= day.toMs) continue;
    if (fromMs > at) shut.push({ fromMs: at, toMs: fromMs });
    at = Math.max(at, toMs);
  }
  if (at < day.toMs) shut.push({ fromMs: at, toMs: day.toMs });
  return shut;
}

/** So much of a day is shown where it is looked at more closely. */
const CLOSE_MS = 3 * 3_600_000;

/** A day in parts, each with something in it. */
export const partsOf = (plan: Pick<PlanView, 'bars'>, { fromMs, toMs }: Span): readonly Span[] =>
  Array.from({ length: Math.ceil((toMs - fromMs) / CLOSE_MS) }, (_, i) => ({
    fromMs: fromMs + i * CLOSE_MS,
    toMs: fromMs + (i + 1) * CLOSE_MS,
  })).filter((part) => plan.bars.some((bar) => bar.toMs > part.fromMs && bar.fromMs < part.toMs));

const HOUR_MS = 3_600_000;

/** The days on which the plan has anything, each from the first hour that anybody is there to the last. */
export function daysOf(plan: PlanView, dayOf: (ms: number) => string): readonly (Span & { readonly day: string })[] {
  const worked = new Set(plan.bars.map(({ fromMs }) => dayOf(fromMs)));
  const spans = new Map<string, { fromMs: number; toMs: number }>();
  const all = [...plan.people.flatMap(({ hours }) => hours), ...plan.bars];
  for (const { fromMs, toMs } of all) {
    const day = dayOf(fromMs);
    if (!worked.has(day) || dayOf(toMs - 1) !== day) continue;
    const span = spans.get(day) ?? { fromMs, toMs };
    spans.set(day, { fromMs: Math.min(span.fromMs, fromMs), toMs: Math.max(span.toMs, toMs) });
  }
  return [...spans]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([day, { fromMs, toMs }]) => ({
      day,
      fromMs: Math.floor(fromMs / HOUR_MS) * HOUR_MS,
      toMs: Math.ceil(toMs / HOUR_MS) * HOUR_MS,
    }));
}

/** Where the plan is looked at first, ms: at the first work in anybody's hands that is not over, or when it was made. */
export function opensAtMs({ bars, madeAtMs }: Pick<PlanView, 'bars' | 'madeAtMs'>): number {
  const left = bars.filter(({ personId, toMs }) => personId !== null && toMs > madeAtMs);
  return left.length === 0 ? madeAtMs : Math.max(madeAtMs, Math.min(...left.map(({ fromMs }) => fromMs)));
}
