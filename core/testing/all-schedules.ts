import type { HandsTask, PlanProblem, PlanTask, OpenTime } from '../fleet/plan/plan-problem.js';

/**
 * A way to work a day with less lateness than `lateS`, start by start, or null where there is none: found by trying, second by second, every start there is,
 * and waiting. It knows nothing of lists, rules or bounds of the planner. For days of a few tasks of a few seconds.
 */
export function lessLate(problem: PlanProblem, lateS: number, horizonS: number): readonly string[] | null {
  const { people, places, orders, units, weave, stands, setupS } = problem;
  const seen = new Set<string>();
  const kindOf = (u: number): string => units[u]?.kind ?? '';
  const whereOf = (task: PlanTask): string => (task.kind !== 'hands' ? '' : task.at === 'aside' ? 'stand' : task.at);
  const isStand = (task: PlanTask | undefined): boolean =>
    task !== undefined && (task.kind === 'wait' || (task.kind === 'hands' && task.at !== 'aside'));

  interface State {
    readonly t: number;
    /** By unit: tasks begun, when the last of them ends, whose bout it is (-1: none open), who did which task. */
    readonly begun: readonly number[];
    readonly endS: readonly number[];
    readonly owner: readonly number[];
    readonly did: readonly (readonly number[])[];
    readonly personUntil: readonly number[];
    readonly personAt: readonly string[];
    readonly placeUntil: readonly number[];
  }

  const tasksOf = (u: number): readonly PlanTask[] => units[u]?.tasks ?? [];
  const atLeast = ({ t, begun, endS }: State): number =>
    orders.reduce((sum, { id, dueS, weight }) => {
      if (dueS === null) return sum;
      const done = units.map(({ orderId, arrivesS }, u) => {
        if (orderId !== id) return 0;
        const rest = tasksOf(u).slice(begun[u]);
        const from = begun[u] === 0 ? arrivesS : (endS[u] as number);
        return rest.reduce((s, task) => s + task.lengthS, rest.length > 0 ? Math.max(t, from) : from);
      });
      return sum + weight * Math.max(0, Math.max(...done) - dueS);
    }, 0);

  const fits = (hours: readonly OpenTime[], t: number, lengthS: number): boolean =>
    hours.some(({ fromS, toS }) => fromS <= t && t + lengthS <= toS);

  /** Units at stands now, by owner. */
  const inHand = ({ t, begun, endS, owner }: State): readonly number[] =>
    owner.flatMap((who, u) => {
      if (who < 0) return [];
      const tasks = tasksOf(u);
      const isOver = !isStand(tasks[begun[u] as number]) && (endS[u] as number) <= t;
      return isOver ? [] : [who];
    });

  function* starts(state: State): Generator<readonly [string, State]> {
    const { t, begun, endS, owner, did, personUntil, personAt, placeUntil } = state;
    for (const [u, unit] of units.entries()) {
      const at = begun[u] as number;
      const task = tasksOf(u)[at];
      if (!task || (at === 0 ? unit.arrivesS : (endS[u] as number)) > t) continue;
      const opens = isStand(task) && (at === 0 || !isStand(tasksOf(u)[at - 1]));
      const next = (who: number, place: number): readonly [string, State] => [
        `${t} ${task.id} ${people[who]?.id ?? ''} ${places[place]?.id ?? ''}`,
        {
          t,
          begun: begun.with(u, at + 1),
          endS: endS.with(u, t + task.lengthS),
          owner: isStand(task) ? (opens ? owner.with(u, who) : owner) : owner.with(u, -1),
          did: did.with(u, [...(did[u] as readonly number[]), who]),
          personUntil: who < 0 ? personUntil : personUntil.with(who, t + task.lengthS),
          personAt: who < 0 ? personAt : personAt.with(who, `${kindOf(u)}|${whereOf(task)}`),
          placeUntil: place < 0 ? placeUntil : placeUntil.with(place, t + task.lengthS),
        },
      ];
      if (task.kind === 'wait') {
        if (endS[u] === t || at === 0) yield next(-1, -1);
        continue;
      }
      const kind = task.kind === 'charge' ? 'post' : task.at === 'stand' || task.at === 'aside' ? null : task.at;
      const open =
        kind === null
          ? [-1]
          : places.flatMap((place, p) =>
              place.kind === kind &&
              (task.kind !== 'charge' || place.packs === null || place.packs.includes(task.pack)) &&
              (placeUntil[p] as number) <= t &&
              fits(place.hours, t, task.lengthS)
                ? [p]
                : [],
            );
      if (task.kind === 'charge') {
        for (const place of open) yield next(-1, place);
        continue;
      }
      const hands = inHand(state);
      if (opens && hands.length >= stands) continue;
      const may = mayDo(task, u, did[u] as readonly number[]);
      const has = opens || !isStand(task) ? -1 : (owner[u] as number);
      for (const who of may.includes(has) ? [has] : may) {
        if (opens && hands.filter((each) => each === who).length >= weave) continue;
        const [lastKind, lastWhere] = (personAt[who] as string).split('|');
        const setup =
          personAt[who] === ''
            ? 0
            : (lastKind === kindOf(u) ? 0 : setupS.kind) + (lastWhere === whereOf(task) ? 0 : setupS.place);
        if ((personUntil[who] as number) + setup > t || !fits(people[who]?.hours ?? [], t, task.lengthS)) continue;
        for (const place of open) yield next(who, place);
      }
    }
  }

  const mayDo = (task: HandsTask, u: number, did: readonly number[]): readonly number[] => {
    const apart = tasksOf(u).findIndex(({ id }) => id === task.apartFrom);
    return people.flatMap(({ id, skills }, who) =>
      skills.includes(task.skill) && !task.notBy.includes(id) && (apart < 0 || did[apart] !== who) ? [who] : [],
    );
  };

  /** States from which the same can follow: what is over is as over as can be. */
  const keyOf = ({ t, begun, endS, owner, did, personUntil, personAt, placeUntil }: State): string => {
    const isDone = (u: number): boolean => begun[u] === tasksOf(u).length;
    const rest = (s: number, least: number): number => Math.max(least, s - t);
    return [
      t,
      begun.join(),
      endS.map((s, u) => (isDone(u) ? s : rest(s, 0))).join(),
      owner.join(),
      did.map((each) => each.join('.')).join(),
      personUntil.map((s) => rest(s, -setupS.kind - setupS.place)).join(),
      personAt.join(),
      placeUntil.map((s) => rest(s, 0)).join(),
    ].join(';');
  };

  const search = (state: State): readonly string[] | null => {
    if (atLeast(state) >= lateS || state.t > horizonS) return null;
    if (units.every((_, u) => state.begun[u] === tasksOf(u).length)) return [];
    const key = keyOf(state);
    if (seen.has(key)) return null;
    seen.add(key);
    for (const [start, next] of starts(state)) {
      const rest = search(next);
      if (rest) return [start, ...rest];
    }
    // A wait begins as soon as what is before it ends.
    const mustBegin = units.some(
      (_, u) =>
        tasksOf(u)[state.begun[u] as number]?.kind === 'wait' && state.begun[u] !== 0 && state.endS[u] === state.t,
    );
    return mustBegin ? null : search({ ...state, t: state.t + 1 });
  };

  return search({
    t: 0,
    begun: units.map(() => 0),
    endS: units.map(() => 0),
    owner: units.map(() => -1),
    did: units.map(() => []),
    personUntil: people.map(() => -1e9),
    personAt: people.map(() => ''),
    placeUntil: places.map(() => 0),
  });
}
