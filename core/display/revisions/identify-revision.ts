import { glassLabel, isKeyed, type Code, type DisplayMap, type KeyedMap } from '../map/display-map.js';
import { gestureWords } from '../map/gesture-words.js';
import { displayAtRest, isListed } from '../machine/display-state.js';
import { storesAtOnce } from '../map/edit-rules.js';
import { formatRaw, valuesInOrder } from '../map/raw-value.js';

/** Something a person can see on a display, and what each candidate would show. */
export interface RevisionQuestion {
  /** Stable for the same fact, so that an answer can be kept. */
  readonly id: string;
  readonly asks: string;
  /** How much has to be done to see it: 0 at a glance, 1 by switching on, 2 in the menu, 3 by changing a value, 4 by waiting for the menu to close on it. */
  readonly effort: number;
  /** Each answer that tells candidates apart, with the ids of the maps that show it. */
  readonly answers: readonly { readonly says: string; readonly maps: readonly string[] }[];
}

export type Identification =
  | { readonly kind: 'found'; readonly map: string }
  /** `mostLeft`: at most so many questions from here on, this one counted. */
  | { readonly kind: 'ask'; readonly question: RevisionQuestion; readonly mostLeft: number }
  /** The maps left cannot be told apart by anything a person can see. */
  | { readonly kind: 'alike'; readonly maps: readonly string[] }
  /** No candidate shows what was answered: an unknown display. */
  | { readonly kind: 'unknown' };

/** What was answered, by question id; null where the person saw something none of the candidates shows. */
export type RevisionAnswers = Readonly<Record<string, string | null>>;

/**
 * Tells revisions apart that look alike: the next best question about facts a person can see, until one map is left.
 * The question chosen keeps the number of questions in the worst case least, then the number to be expected over
 * equally likely candidates, then the effort. Exact: all orders of questions are weighed.
 */
export function identifyRevision(candidates: readonly DisplayMap[], answers: RevisionAnswers = {}): Identification {
  const facts = candidates.map(factsOf);
  const left = candidates.filter((_, i) =>
    Object.entries(answers).every(([id, says]) => says !== null && (facts[i]?.get(id)?.says ?? NOT_THERE) === says),
  );
  if (left.length === 0) return { kind: 'unknown' };
  const [only] = left;
  if (left.length === 1 && only) return { kind: 'found', map: only.id };
  const questions = questionsFor(left).filter((question) => !(question.id in answers));
  const best = bestQuestion(
    questions,
    left.map((map) => map.id),
    new Map(),
  );
  if (!best) return { kind: 'alike', maps: left.map((map) => map.id) };
  return { kind: 'ask', question: best.question, mostLeft: best.worst };
}

const NOT_THERE = 'not there';

interface Fact {
  readonly asks: string;
  readonly effort: number;
  readonly says: string;
}

/** Everything a person can see of a display, by question id. */
function factsOf(map: DisplayMap): ReadonlyMap<string, Fact> {
  const facts = new Map<string, Fact>();
  const put = (id: string, effort: number, asks: string, says: string) => facts.set(id, { asks, effort, says });
  for (const { fact, shows } of map.tells ?? []) put(`tell:${fact}`, 0, fact, shows);
  put('powerUp', 1, 'What does the glass show for a moment at power-up?', map.power.shows ?? 'nothing of its own');
  if (!isKeyed(map)) return facts;
  const rest = displayAtRest(map);
  const [first] = map.menu.pages;
  const listed = (first?.items ?? []).filter((item) => isListed(map, rest, item));
  const codes = listed.flatMap((item) => ('code' in item ? map.codes.filter((code) => code.label === item.code) : []));
  const last = codes.at(-1);
  put('count', 2, 'How many entries are passed in the menu before it starts again or closes?', String(listed.length));
  if (last) put('last', 2, 'What does the last entry of the menu show as its name?', glassLabel(last));
  put('order', 3, 'In which order do the entries of the menu stand?', codes.map(glassLabel).join(' '));
  put(
    'opens',
    2,
    'Which keys open its menu?',
    map.menu.opens.map(({ gesture }) => gestureWords(map, gesture)).join(', or '),
  );
  put('pin', 2, 'When does it ask for a PIN?', pinWords(map));
  for (const code of codes) {
    put(`there:${glassLabel(code)}`, 2, `Is there an entry ${glassLabel(code)}?`, 'there');
    for (const { id, asks, says } of triedOn(map, code))
      put(`${id}:${glassLabel(code)}`, 3, `${asks} ${PUT_BACK}`, says);
  }
  const kept = codes.find(isSafeToTry);
  if (kept)
    put(
      'keeps',
      4,
      `Change ${glassLabel(kept)}, touch nothing more until the menu has closed, and open it again: what stands there? ${PUT_BACK}`,
      map.menu.idle.unstored === 'keep' || storesAtOnce(map.menu, kept)
        ? 'what it was changed to'
        : 'what it was before',
    );
  return facts;
}

function pinWords({ power, menu }: DisplayMap): string {
  const asks = [
    power.pin && !power.pin.asksIf ? 'when it lights' : null,
    menu?.pin ? (menu.pin.asks === 'entry' ? 'at an entry' : 'when the menu opens') : null,
  ].filter((words) => words !== null);
  return asks.length === 0 ? 'never' : asks.join(' and ');
}

const PUT_BACK = 'Put it back afterwards.';

/** What keys show of a code without doing harm: nothing that erases, sets everything back, or of which nobody knows what it does. */
const isSafe = ({ action, holdErases, function: of }: Code): boolean =>
  action === undefined && holdErases === undefined && of !== 'makersOnly' && of !== 'unknown';
const isSafeToTry = (code: Code): boolean => isSafe(code) && code.access === 'open';

function triedOn(
  map: KeyedMap,
  code: Code,
): readonly { readonly id: string; readonly asks: string; readonly says: string }[] {
  if (!isSafe(code) || (code.access !== 'open' && code.access !== 'locked')) return [];
  const label = glassLabel(code);
  const moves = {
    id: 'moves',
    asks: `Does ${label} move when its keys are pressed?`,
    says: code.access === 'open' ? 'it moves' : 'it does not',
  };
  if (code.access !== 'open') return [moves];
  const values = valuesInOrder(code);
  const most = Math.max(...values);
  const ends = code.values ?? map.menu.values;
  return [
    moves,
    {
      id: 'second',
      asks: `At the first value of ${label}, what does one press further show?`,
      says: formatRaw(code, values[1] ?? most),
    },
    { id: 'most', asks: `What is the highest value of ${label}?`, says: formatRaw(code, most) },
    {
      id: 'after',
      asks: `At the last value of ${label}, what does one press further show?`,
      says: formatRaw(code, (ends === 'wrap' ? values[0] : values.at(-1)) ?? most),
    },
    {
      id: 'words',
      asks: `Which words does ${label} show among its values?`,
      says: code.shows ? code.shows.map(({ text }) => text).join(', ') : 'none, digits alone',
    },
  ];
}

function questionsFor(maps: readonly DisplayMap[]): RevisionQuestion[] {
  const facts = maps.map((map) => [map.id, factsOf(map)] as const);
  const ids = [...new Set(facts.flatMap(([, own]) => [...own.keys()]))];
  return ids.flatMap((id) => {
    const first = facts.map(([, own]) => own.get(id)).find((fact) => fact !== undefined);
    // A highest value can only be asked of a code that all of them have; a sticker only where every map tells of it.
    const isEverywhere = facts.every(([, own]) => own.has(id));
    if (!first || (!isEverywhere && !id.startsWith('there:'))) return [];
    const bySays = new Map<string, string[]>();
    for (const [map, own] of facts) {
      const says = own.get(id)?.says ?? NOT_THERE;
      bySays.set(says, [...(bySays.get(says) ?? []), map]);
    }
    return bySays.size < 2
      ? []
      : [
          {
            id,
            asks: first.asks,
            effort: first.effort,
            answers: [...bySays].map(([says, own]) => ({ says, maps: own })),
          },
        ];
  });
}

interface Best {
  readonly question: RevisionQuestion;
  readonly worst: number;
  readonly total: number;
  readonly effort: number;
}

/** The best question for these maps: least in the worst case, then in sum, then in effort. Null where none tells them apart. */
function bestQuestion(
  questions: readonly RevisionQuestion[],
  maps: readonly string[],
  known: Map<string, Best | null>,
): Best | null {
  const key = [...maps].sort().join('\n');
  const before = known.get(key);
  if (before !== undefined) return before;
  let best: Best | null = null;
  for (const question of questions) {
    const groups = question.answers
      .map((answer) => answer.maps.filter((map) => maps.includes(map)))
      .filter((group) => group.length > 0);
    if (groups.length < 2) continue;
    const rest = groups.map((group) => (group.length === 1 ? null : bestQuestion(questions, group, known)));
    const here: Best = {
      question: {
        ...question,
        answers: question.answers
          .map((a) => ({ ...a, maps: a.maps.filter((map) => maps.includes(map)) }))
          .filter((a) => a.maps.length > 0),
      },
      worst: 1 + Math.max(...rest.map((r) => r?.worst ?? 0)),
      total: maps.length + rest.reduce((sum, r) => sum + (r?.total ?? 0), 0),
      // Groups left together cost as much as asking without end: a question that separates more comes first.
      effort:
        question.effort * maps.length +
        rest.reduce((sum, r) => sum + (r?.effort ?? 0), 0) +
        groups.reduce((sum, group, i) => sum + (group.length > 1 && rest[i] === null ? 1000 * group.length : 0), 0),
    };
    if (best === null || isBetter(here, best)) best = here;
  }
  known.set(key, best);
  return best;
}

function isBetter(a: Best, b: Best): boolean {
  const hopeless = (x: Best) => Math.floor(x.effort / 1000);
  return hopeless(a) !== hopeless(b)
    ? hopeless(a) < hopeless(b)
    : a.worst !== b.worst
      ? a.worst < b.worst
      : a.total !== b.total
        ? a.total < b.total
        : a.effort < b.effort;
}
