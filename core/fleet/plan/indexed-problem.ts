import type { PlanProblem, PlanTask, PlanUnit, Unplaceable, OpenTime } from './plan-problem.js';
import { bothOpen, inOrder, longest } from './windows.js';

/** A task with everything it needs as indices, so that laying out asks no names. */
export interface IndexedTask {
  readonly index: number;
  readonly task: PlanTask;
  readonly unit: number;
  readonly bout: number;
  /** The task before it in its unit, or -1. */
  readonly previous: number;
  readonly next: number;
  readonly lengthS: number;
  /** Persons who may do it, by index; empty for what needs no hands. */
  readonly able: readonly number[];
  /** Places it may be done at, by index; empty where it needs none. */
  readonly places: readonly number[];
  /** The task whose doer may not do this one, or -1. */
  readonly apartFrom: number;
  readonly kind: number;
  /** 0 at a stand, else a number for each kind of place. */
  readonly where: number;
  /** Longer than whoever may do it is there at a stretch. */
  readonly isSplit: boolean;
}

/**
 * What of a unit is done while it stands at a stand, in one person's hands; or its charging, in nobody's; or what is
 * signed for it, wherever it stands.
 */
export interface Bout {
  readonly unit: number;
  readonly tasks: readonly number[];
  /** Whether it takes a stand, and a place among what its owner has in hand. */
  readonly atStand: boolean;
  /** By index; -1 where it is the plan's to say. */
  readonly owner: number;
  readonly inHand: boolean;
}

export interface IndexedUnit {
  readonly unit: PlanUnit;
  readonly order: number;
  readonly bouts: readonly number[];
  readonly first: number;
  readonly last: number;
  readonly after: readonly number[];
}

export interface IndexedProblem {
  readonly problem: PlanProblem;
  readonly tasks: readonly IndexedTask[];
  readonly bouts: readonly Bout[];
  readonly units: readonly IndexedUnit[];
  readonly personHours: readonly (readonly OpenTime[])[];
  readonly placeHours: readonly (readonly OpenTime[])[];
  /** Where a person and a place are both there. */
  readonly jointHours: (person: number, place: number) => readonly OpenTime[];
  readonly unplaced: readonly { readonly unitId: string; readonly why: Unplaceable }[];
}

const WHERE = { stand: 0, aside: 0, yard: 1, roller: 2 } as const;

/** The problem by indices, without the units that nothing can be planned for, which it names with the reason. */
export function indexed(problem: PlanProblem): IndexedProblem {
  const people = problem.people.map(({ hours, ...person }) => ({ ...person, hours: inOrder(hours) }));
  const places = problem.places.map(({ hours, ...place }) => ({ ...place, hours: inOrder(hours) }));
  const joint = jointly(
    people.map(({ hours }) => hours),
    places.map(({ hours }) => hours),
  );

  const handsKey = (task: PlanTask): string => (task.kind === 'hands' ? `${task.skill} ${task.notBy.join(' ')}` : '');
  const placeKey = (task: PlanTask): string =>
    task.kind === 'hands' ? task.at : task.kind === 'charge' ? `charge ${task.pack}` : '';
  const ableFor = once(handsKey, (task): readonly number[] =>
    task.kind !== 'hands'
      ? []
      : people.flatMap(({ id, skills, hours }, i) =>
          hours.length > 0 && skills.includes(task.skill) && !task.notBy.includes(id) ? [i] : [],
        ),
  );
  const placesFor = once(placeKey, (task): readonly number[] =>
    places.flatMap(({ kind, packs, hours }, i) => {
      if (hours.length === 0) return [];
      if (task.kind === 'charge') return kind === 'post' && (packs === null || packs.includes(task.pack)) ? [i] : [];
      return task.kind === 'hands' && task.at === kind ? [i] : [];
    }),
  );

  /** The longest stretch at which somebody able is there, where it is to be done, seconds; 0 where nobody ever is. */
  const stretchFor = once(
    (task) => `${handsKey(task)}|${placeKey(task)}`,
    (task): number => {
      const at = placesFor(task);
      const stretches = ableFor(task).flatMap((who) =>
        at.length === 0 ? [people[who]?.hours ?? []] : at.map((p) => joint(who, p)),
      );
      return Math.max(0, ...stretches.map(longest));
    },
  );

  const whyNot = (task: PlanTask, unit: PlanUnit): Unplaceable | null => {
    if (task.kind === 'wait') return null;
    const at = placesFor(task);
    if (task.kind === 'charge')
      return at.length === 0
        ? 'noPost'
        : at.some((place) => longest(places[place]?.hours ?? []) >= task.lengthS)
          ? null
          : 'noTime';
    if ((task.at === 'yard' || task.at === 'roller') && at.length === 0) return 'noPlace';
    const able = ableFor(task);
    if (able.length === 0)
      return people.some(({ hours, skills }) => hours.length > 0 && skills.includes(task.skill))
        ? 'nobodyElse'
        : 'noSkill';
    const apart = unit.tasks.find(({ id }) => id === task.apartFrom);
    if (apart && new Set([...able, ...ableFor(apart)]).size < 2) return 'nobodyElse';
    return stretchFor(task) > 0 ? null : 'noTime';
  };

  const reasons = new Map<string, Unplaceable>();
  for (const unit of problem.units)
    for (const task of unit.tasks) {
      const why = whyNot(task, unit);
      if (why !== null && !reasons.has(unit.id)) reasons.set(unit.id, why);
    }
  for (const id of inCircles(problem.units)) if (!reasons.has(id)) reasons.set(id, 'waitsInCircle');
  leaveOutFollowers(problem.units, reasons);

  const kinds = numbers(problem.units.map(({ kind }) => kind));
  const tasks: IndexedTask[] = [];
  const bouts: Bout[] = [];
  const units: IndexedUnit[] = [];
  const orders = new Map(problem.orders.map(({ id }, i) => [id, i]));
  const personOf = new Map(people.map(({ id, hours }, i) => [id, hours.length > 0 ? i : -1]));
  const laid = problem.units.filter(({ id, tasks: all }) => !reasons.has(id) && all.length > 0);
  const unitOf = new Map(laid.map(({ id }, i) => [id, i]));
  for (const [u, unit] of laid.entries()) {
    const first = tasks.length;
    const ids = new Map(unit.tasks.map(({ id }, i) => [id, first + i]));
    const own: number[] = [];
    let open: { readonly tasks: number[]; readonly atStand: boolean } | undefined;
    for (const task of unit.tasks) {
      const index = tasks.length;
      const atStand: boolean =
        task.kind === 'wait' ? (open?.atStand ?? true) : task.kind === 'hands' && task.at !== 'aside';
      if (!open || !atStand || !open.atStand) {
        open = { tasks: [], atStand };
        own.push(bouts.length);
        bouts.push({
          unit: u,
          tasks: open.tasks,
          atStand,
          // What is in somebody's hands now stays there, a signature too.
          owner:
            unit.owner === null || !(atStand || (unit.inHand && own.length === 1))
              ? -1
              : (personOf.get(unit.owner) ?? -1),
          inHand: unit.inHand && own.length === 1 && atStand,
        });
      }
      open.tasks.push(index);
      const able = ableFor(task);
      const at = placesFor(task);
      tasks.push({
        index,
        task,
        unit: u,
        bout: bouts.length - 1,
        previous: index === first ? -1 : index - 1,
        next: index === first + unit.tasks.length - 1 ? -1 : index + 1,
        lengthS: task.lengthS,
        able,
        places: at,
        apartFrom: task.kind === 'hands' && task.apartFrom !== null ? (ids.get(task.apartFrom) ?? -1) : -1,
        kind: kinds.get(unit.kind) ?? 0,
        where: task.kind === 'hands' ? WHERE[task.at] : 0,
        isSplit: task.kind === 'hands' && stretchFor(task) < task.lengthS,
      });
    }
    units.push({
      unit,
      order: orders.get(unit.orderId) ?? -1,
      bouts: own,
      first,
      last: tasks.length - 1,
      after: unit.after.flatMap((id) => unitOf.get(id) ?? []),
    });
  }
  return {
    problem,
    tasks,
    bouts,
    units,
    personHours: people.map(({ hours }) => hours),
    placeHours: places.map(({ hours }) => hours),
    jointHours: joint,
    unplaced: [...reasons].map(([unitId, why]) => ({ unitId, why })),
  };
}

function jointly(people: readonly (readonly OpenTime[])[], places: readonly (readonly OpenTime[])[]) {
  const known = new Map<number, readonly OpenTime[]>();
  return (person: number, place: number): readonly OpenTime[] => {
    const key = person * places.length + place;
    const hours = known.get(key) ?? bothOpen(people[person] ?? [], places[place] ?? []);
    known.set(key, hours);
    return hours;
  };
}

/** Worked out once for all tasks of the same key. */
function once<T>(keyOf: (task: PlanTask) => string, make: (task: PlanTask) => T): (task: PlanTask) => T {
  const known = new Map<string, T>();
  return (task) => {
    const key = keyOf(task);
    const made = known.get(key) ?? make(task);
    known.set(key, made);
    return made;
  };
}

function numbers(names: readonly string[]): ReadonlyMap<string, number> {
  return new Map([...new Set(names)].map((name, i) => [name, i]));
}

/** Units that wait, by way of others or not, for themselves. */
function inCircles(units: readonly PlanUnit[]): readonly string[] {
  const after = new Map(units.map((unit) => [unit.id, unit.after]));
  const settled = new Set<string>();
  const circular = new Set<string>();
  const walk = (id: string, path: readonly string[]): void => {
    const at = path.indexOf(id);
    if (at >= 0) for (const each of path.slice(at)) circular.add(each);
    if (at >= 0 || settled.has(id)) return;
    for (const next of after.get(id) ?? []) walk(next, [...path, id]);
    settled.add(id);
  };
  for (const { id, after: waits } of units) if (waits.length > 0) walk(id, []);
  return [...circular];
}

function leaveOutFollowers(units: readonly PlanUnit[], reasons: Map<string, Unplaceable>): void {
  for (let more = true; more;) {
    more = false;
    for (const { id, after } of units)
      if (!reasons.has(id) && after.some((each) => reasons.has(each))) {
        reasons.set(id, 'waitsForUnplaced');
        more = true;
      }
  }
}
