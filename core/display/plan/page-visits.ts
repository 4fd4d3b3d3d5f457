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

/** What is wanted on a page, and the place where a visit begins. */
export interface Wanted {
  readonly places: readonly Place[];
  readonly from: number;
  readonly list: List;
  /** Place of each line of the page. */
  readonly lines: readonly number[];
}

/** How far ahead a place lies where one only goes on; less than nothing behind. */
const ahead = (at: number, { from, list: { count, wraps } }: Pick<Wanted, 'from' | 'list'>): number =>
  wraps ? (at - from + count) % count : at - from;

/** Lines that may be shown last where one visit shows all that is wanted, with its moves until then. Empty where none can. */
export function endsOf(wanted: Wanted): readonly Reached[] {
  const { places, from, list } = wanted;
  const reached = (at: number, moves: number): readonly Reached[] =>
    places.filter((place) => place.at === at).map(({ item }) => ({ item, moves }));
  const ats = [...new Set(places.map(({ at }) => at))];
  if (!list.goesBack) {
    if (!list.wraps && ats.some((at) => at < from)) return [];
    const far = Math.max(...ats.map((at) => ahead(at, wanted)));
    return ats.filter((at) => ahead(at, wanted) === far).flatMap((at) => reached(at, far));
  }
  const others = ats.filter((at) => at !== from);
  if (others.length === 0) return reached(from, 0);
  if (!list.wraps) {
    const [right, left] = [Math.max(from, ...ats), Math.min(from, ...ats)];
    return bothWays({ at: right, moves: right - from }, { at: left, moves: from - left }, reached);
  }
  const round = others.toSorted((a, b) => ahead(a, wanted) - ahead(b, wanted));
  return Array.from({ length: round.length + 1 }, (_, split) => {
    const [right, left] = [round[split - 1] ?? from, round[split] ?? from];
    const back = left === from ? 0 : list.count - ahead(left, wanted);
    return bothWays({ at: right, moves: ahead(right, wanted) }, { at: left, moves: back }, reached);
  }).flat();
}

interface Turn {
  readonly at: number;
  readonly moves: number;
}

/** To one end and back to the other, or the other way about. */
function bothWays(
  right: Turn,
  left: Turn,
  reached: (at: number, moves: number) => readonly Reached[],
): readonly Reached[] {
  if (left.moves === 0) return reached(right.at, right.moves);
  if (right.moves === 0) return reached(left.at, left.moves);
  return [...reached(left.at, 2 * right.moves + left.moves), ...reached(right.at, right.moves + 2 * left.moves)];
}

/** Lines at which a first visit may end that leaves something for another, with the least moves of all visits then. */
export function breaksOf(wanted: Wanted): readonly Reached[] {
  const { places, from, list, lines } = wanted;
  const ats = places.map(({ at }) => at);
  if (list.goesBack) {
    const all = fewestMoves(ats, [from, 0], list);
    const firsts = places.length > MOST_SPLIT ? null : firstVisits(wanted);
    return lines.map((at, item) => {
      const moves = firsts
        ? Math.min(...firsts.map((visit) => visit.moves + between(visit.at, at, list)))
        : Math.max(all, between(from, at, list));
      return { item, moves };
    });
  }
  // What lies behind is left, or what is farthest: gone to from the first line on.
  const behind = list.wraps ? [] : ats.filter((at) => at < from);
  const far = Math.max(...ats.map((at) => ahead(at, wanted)));
  const then = Math.max(...(behind.length > 0 ? behind : ats.filter((at) => ahead(at, wanted) === far)));
  return lines.flatMap((at, item) => {
    const moves = ahead(at, wanted);
    return moves >= 0 && (behind.length > 0 || moves <= far) ? [{ item, moves: moves + then }] : [];
  });
}

/** Of so many places all ways to share them out between two visits are tried. */
const MOST_SPLIT = 8;

/** What a first visit may show and where it is then, with its own moves and those of the visit that shows the rest. */
function firstVisits(wanted: Wanted): readonly Turn[] {
  const { places, from, list } = wanted;
  const round = [...new Set(places.map(({ at }) => at))].toSorted((a, b) => ahead(a, wanted) - ahead(b, wanted));
  const behind = list.wraps ? 0 : round.filter((at) => at < from).length;
  // Where the list does not go round what lies behind comes first, the farthest before all.
  const onward = [...round.slice(behind), ...round.slice(0, behind)];
  const shares: Turn[] = [];
  for (let right = 0; right <= onward.length; right++)
    for (let left = 0; right + left <= onward.length; left++) {
      const shown = new Set([...onward.slice(0, right), ...onward.slice(onward.length - left)]);
      const then = leastOf({ ...wanted, from: 0, places: places.filter(({ at }) => !shown.has(at)) });
      const own = places.filter(({ at }) => shown.has(at));
      if (own.length === 0) shares.push({ at: from, moves: then });
      for (const { item, moves } of endsOf({ ...wanted, places: own }))
        shares.push({ at: places.find((place) => place.item === item)?.at ?? from, moves: moves + then });
    }
  return shares;
}

const leastOf = (wanted: Wanted): number =>
  wanted.places.length === 0 ? 0 : Math.min(...endsOf(wanted).map(({ moves }) => moves));

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
  const between = items.filter((item) => item > from && item < to).map((item) => item - from);
  const ahead = items.filter((item) => item > to).map((item) => item - to);
  const behind = items.filter((item) => item < from).map((item) => from - item);
  const inner = stretch(between, to - from, goesBack);
  if (!wraps) return inner + Math.max(0, ...ahead) + (goesBack ? Math.max(0, ...behind) : 0);
  const outerLength = count - (to - from);
  return inner + stretch([...ahead, ...behind.map((moves) => outerLength - moves)], outerLength, goesBack);
}

/** Moves that show every place of a stretch from its two ends: all of it but its widest gap, or up to the last place where one only goes on. */
function stretch(places: readonly number[], length: number, goesBack: boolean): number {
  if (places.length === 0) return 0;
  const sorted = [...places].sort((a, b) => a - b);
  if (!goesBack) return sorted.at(-1) ?? 0;
  const ends = [0, ...sorted, length];
  return length - Math.max(...ends.slice(1).map((place, i) => place - (ends[i] ?? 0)));
}
