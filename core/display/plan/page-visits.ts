/** A page as far as moves along it go. */
export interface List {
  readonly count: number;
  readonly wraps: boolean;
  readonly goesBack: boolean;
}

/** Where a code stands: which line of which page, and how many moves along it. */
export interface Place {
  readonly page: string;
  readonly item: number;
  readonly at: number;
}

/** A line that is on the glass after so many moves along its page. */
export interface Reached {
  readonly item: number;
  readonly moves: number;
}

/** A line at which one of several visits may end, with the moves of them all. */
export interface Break extends Reached {
  /** Visits there are besides, at least. */
  readonly more: 1 | 2;
}

/** What is wanted on a page, and the place where a visit begins. */
export interface PageTask {
  readonly places: readonly Place[];
  readonly from: number;
  readonly list: List;
  /** Place of each line of the page. */
  readonly lines: readonly number[];
}

/** How far ahead a place lies where one only goes on; less than nothing behind. */
const ahead = (at: number, { from, list: { count, wraps } }: Pick<PageTask, 'from' | 'list'>): number =>
  wraps ? (at - from + count) % count : at - from;

/** Lines that may be shown last where one visit shows all that is wanted, with its moves until then. Empty where none can. */
export function endsOf(task: PageTask): readonly Reached[] {
  const { places, list } = task;
  const reached: Reached[] = [];
  const end = (aheadBy: number, moves: number): void => {
    for (const { item, at } of places) if (ahead(at, task) === aheadBy) reached.push({ item, moves });
  };
  /** To the end ahead and back to the other, or the other way about; what lies behind is told by how far ahead it is too. */
  const bothWays = (right: number, left: number, leftAhead: number): void => {
    if (right > 0 || left === 0) end(right, right + 2 * left);
    if (left > 0) end(leftAhead, 2 * right + left);
  };
  const round = [...new Set(places.map(({ at }) => ahead(at, task)))].toSorted((a, b) => a - b);
  const [first = 0, last = 0] = [round[0], round.at(-1)];
  if (!list.goesBack) {
    if (first >= 0) end(last, last);
  } else if (!list.wraps) {
    bothWays(Math.max(0, last), Math.max(0, -first), first);
  } else {
    const others = round.filter((aheadBy) => aheadBy > 0);
    for (let split = 0; split <= others.length; split++) {
      const behind = others[split] ?? 0;
      bothWays(others[split - 1] ?? 0, behind === 0 ? 0 : list.count - behind, behind);
    }
  }
  return reached;
}

/** Lines at which a first visit may end that leaves something for others, each with the least moves of all visits then. */
export function breaksOf(task: PageTask): readonly Break[] {
  const { places, from, list, lines } = task;
  const ats = places.map(({ at }) => at);
  if (list.goesBack) {
    if (places.length > MOST_SPLIT) {
      const all = fewestMoves(ats, [from, 0], list);
      return lines.map((at, item) => ({ item, moves: Math.max(all, between(from, at, list)), more: 1 }));
    }
    return ([1, 2] as const).flatMap((more) => {
      const firsts = firstVisits(task, more);
      return lines.map((at, item) => ({
        item,
        moves: Math.min(...firsts.map((visit) => visit.moves + between(visit.at, at, list))),
        more,
      }));
    });
  }
  // What lies behind is left, or what is farthest: gone to from the first line on.
  const behind = list.wraps ? [] : ats.filter((at) => at < from);
  const far = Math.max(...ats.map((at) => ahead(at, task)));
  const then = Math.max(...(behind.length > 0 ? behind : ats.filter((at) => ahead(at, task) === far)));
  return lines.flatMap((at, item) => {
    const moves = ahead(at, task);
    return moves >= 0 && (behind.length > 0 || moves <= far) ? [{ item, moves: moves + then, more: 1 }] : [];
  });
}

/** Lines at which the last of several visits may end, all begun where this one is, each with the least moves of all of them. */
export function lastEndsOf(task: PageTask): readonly Break[] {
  const { places, list } = task;
  if (places.length > MOST_SPLIT) {
    const all = fewestMoves(
      places.map(({ at }) => at),
      [task.from],
      list,
    );
    return places.map(({ item }) => ({ item, moves: all, more: 1 }));
  }
  if (list.goesBack)
    return ([1, 2] as const).flatMap((more) =>
      firstVisits(task, more).flatMap(({ item, moves }) => (item === null ? [] : [{ item, moves, more }])),
    );
  // All go the same way: one of them to the farthest, and the last one not so far.
  const far = Math.max(...places.map(({ at }) => ahead(at, task)));
  return places.flatMap(({ item, at }) => {
    const moves = ahead(at, task);
    return moves < far ? [{ item, moves: moves + far, more: 1 as const }] : [];
  });
}

/** At a place after so many moves; at the line that was shown last there, where one was. */
interface Standing {
  readonly at: number;
  readonly item: number | null;
  readonly moves: number;
}

/** Of so many places all ways to share them out between two visits are tried. */
const MOST_SPLIT = 6;

/** What a first visit may show and where it is then, with its own moves and those of the one or more that show the rest. */
function firstVisits(task: PageTask, more: Break['more']): readonly Standing[] {
  const { places, from, list } = task;
  const round = [...new Set(places.map(({ at }) => at))].toSorted((a, b) => ahead(a, task) - ahead(b, task));
  const behind = list.wraps ? 0 : round.filter((at) => at < from).length;
  // Where the list does not go round what lies behind comes first, the farthest before all.
  const onward = [...round.slice(behind), ...round.slice(0, behind)];
  const inAny = (left: readonly Place[]): number =>
    left.length === 0
      ? 0
      : fewestMoves(
          left.map(({ at }) => at),
          [0],
          list,
        );
  const shares: Standing[] = [];
  for (let right = 0; right <= onward.length; right++)
    for (let back = 0; right + back <= onward.length; back++) {
      const shown = new Set([...onward.slice(0, right), ...onward.slice(onward.length - back)]);
      const left = places.filter(({ at }) => !shown.has(at));
      const then = more === 1 ? inOneVisit({ ...task, from: 0, places: left }) : inAny(left);
      const own = places.filter(({ at }) => shown.has(at));
      if (own.length === 0) shares.push({ at: from, item: null, moves: then });
      for (const { item, moves } of endsOf({ ...task, places: own }))
        shares.push({ at: places.find((place) => place.item === item)?.at ?? from, item, moves: moves + then });
    }
  return shares;
}

const inOneVisit = (task: PageTask): number =>
  task.places.length === 0 ? 0 : Math.min(...endsOf(task).map(({ moves }) => moves));

function between(a: number, b: number, { count, wraps }: List): number {
  const straight = Math.abs(a - b);
  return wraps ? Math.min(straight, count - straight) : straight;
}

/** Least number of moves that shows each of `items`, in any number of visits begun at any of `entries`. */
export function fewestMoves(
  items: readonly number[],
  entries: readonly number[],
  { count, wraps, goesBack }: List,
): number {
  const from = Math.min(...entries);
  const to = Math.max(...entries);
  const amid = items.filter((item) => item > from && item < to).map((item) => item - from);
  const after = items.filter((item) => item > to).map((item) => item - to);
  const before = items.filter((item) => item < from).map((item) => from - item);
  const inner = stretch(amid, to - from, goesBack);
  if (!wraps) return inner + Math.max(0, ...after) + (goesBack ? Math.max(0, ...before) : 0);
  const outerLength = count - (to - from);
  return inner + stretch([...after, ...before.map((moves) => outerLength - moves)], outerLength, goesBack);
}

/** Moves that show every place of a stretch from its two ends: all of it but its widest gap, or up to the last place where one only goes on. */
function stretch(places: readonly number[], length: number, goesBack: boolean): number {
  if (places.length === 0) return 0;
  const sorted = [...places].sort((a, b) => a - b);
  if (!goesBack) return sorted.at(-1) ?? 0;
  const ends = [0, ...sorted, length];
  return length - Math.max(...ends.slice(1).map((place, i) => place - (ends[i] ?? 0)));
}
