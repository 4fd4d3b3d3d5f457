import type { Code, DisplayMap } from '../../display/map/display-map.js';
import { codeTitle } from '../../display/map/code-title.js';
import { mapNow } from '../../display/map/range-in-unit.js';
import { conditionsOf } from '../../display/map/shown-by.js';
import { doubtSaid, unsureOf } from '../../display/map/doubt.js';
import { valueWords } from '../../display/map/raw-value.js';
import { classAsks } from './checks/class-asks.js';
import { packFindings } from './checks/pack.js';
import { lockedFinding } from './checks/locked.js';
import { reachFindings, worstReach } from './checks/reach.js';
import { ruleFindings } from './checks/rules.js';
import { throttleFindings } from './checks/throttle.js';
import { settleDependencies, type Settled } from './dependencies.js';
import { finding, isDead, isOffGlass, willShow, type Draft, type Drafted } from './draft.js';
import { countsAt, isSameCount, type Counts } from './counts.js';
import { CAPS, COMFORT, DRIVING } from './function-groups.js';
import { coverageOf } from '../../prove/coverage.js';
import { provingTests } from '../../prove/proving-tests.js';
import { provingInputsOf } from './proving-inputs.js';
import { underRegime } from './regime.js';
import type { CodeTarget, Finding, Setup } from '../setup.js';
import type { SetupInputs } from '../inputs/setup-inputs.js';
import { speedLimit } from './speed-limit.js';
import { WISHES } from './wishes.js';
import { speedTermsOf } from './speed-terms.js';
import { asFound, step, type Wish, type Work } from './wish.js';

/**
 * Works out a target, or "leave as found", for every code of the map, each with its reason and the trail of inputs that
 * led there, and the findings that follow. A meaning known by hearsay never becomes a target; a code whose effect is not
 * verified gets one and carries no claim. The same inputs give the same setup, whenever and wherever.
 */
export function compileSetup(asked: SetupInputs): Setup {
  const inputs = { ...asked, map: asItStands(asked) };
  const { draft, findings: bounds, keyedAfter } = settled(prepare(inputs));
  const { work } = draft;
  const locks = draft.codes.map(({ code, wish }) =>
    lockedFinding(code, code.access === 'locked' ? wish : wouldBe(code, work), work),
  );
  const worst = worstReach(draft);
  const reach = locks.some((lock, i) => lock?.level === 'stop' && CAPS.has(draft.codes[i]?.code.function ?? 'unknown'))
    ? []
    : reachFindings(draft, worst);
  const findings = inOrder(
    [
      ...ruleFindings(draft),
      ...classAsks(draft),
      ...packFindings(work),
      ...reach,
      ...throttleFindings(draft),
      ...bounds,
      ...draft.codes.flatMap(({ code, wish }, i) => codeFindings(code, wish, locks[i] ?? null)),
      ...draft.codes.flatMap((each) => deadFinding(draft, each)),
    ].map((each) => decided(each, inputs)),
  );
  const proving = provingInputsOf(draft);
  const tests = provingTests(proving);
  return {
    targets: draft.codes.map((drafted) => targetFor(drafted, inputs.map, findings)),
    findings,
    limitKmh: work.limit?.kmh ?? inputs.type.attainableKmh,
    speed: speedTermsOf(work),
    ...(worst ? { worst } : {}),
    tests,
    notProved: coverageOf(proving, tests).notProved,
    ...(keyedAfter.length > 0 ? { keyedAfter } : {}),
  };
}

/** What a unit will be, before it is judged: what its proofs are worked out from. */
export const draftOf = (asked: SetupInputs): Draft => settled(prepare({ ...asked, map: asItStands(asked) })).draft;

/**
 * The map of this very unit: what a lead let stand because it does not move is locked on it, and ranges are those of the
 * unit in which it will count.
 */
function asItStands(asked: SetupInputs): DisplayMap {
  const { letStand = {} } = asked.unit;
  const map: DisplayMap =
    Object.keys(letStand).length === 0
      ? asked.map
      : {
          ...asked.map,
          codes: asked.map.codes.map((code) => (code.label in letStand ? { ...code, access: 'locked' } : code)),
        };
  const work = prepare({ ...asked, map });
  const units = map.codes.filter((code) => code.function === 'units' || code.function === 'temperatureUnit');
  return mapNow(
    map,
    Object.fromEntries(units.map((code) => [code.label, willShow({ work }, { code, wish: wishFor(code, work) })])),
  );
}

const ROUNDS = 4;

/**
 * Wheel and pulses first, as they WILL stand: every cap counts with them. Codes that bound one another may move them
 * once more; then all is worked out again, until what was counted with is what will stand.
 */
function settled(first: Work): Settled {
  let work: Work = {
    ...first,
    counts: countsAt(first.map, first.type, (code) => willShow({ work: first }, { code, wish: wishFor(code, first) })),
  };
  for (let round = 1; ; round++) {
    const wished: Draft = { work, codes: work.map.codes.map((code) => ({ code, wish: wishFor(code, work) })) };
    const outcome = settleDependencies(wished);
    const counts = countsOf(outcome.draft);
    // Codes that never settle are caught by the look at what will stand.
    if (isSameCount(counts, work.counts) || round === ROUNDS)
      return { ...outcome, draft: { ...outcome.draft, work: { ...work, counts } } };
    work = { ...work, counts };
  }
}

function countsOf({ work, codes }: Draft): Counts {
  return countsAt(work.map, work.type, (code) => {
    const drafted = codes.find((each) => each.code.label === code.label);
    return drafted ? willShow({ work }, drafted) : work.found(code);
  });
}

function prepare(inputs: SetupInputs): Work {
  const { map, unit, houseRules } = inputs;
  const found = (code: Code): number => unit.asFound?.[code.label] ?? code.factory;
  const alike = (fn: Code['function']) => map.codes.filter((code) => code.function === fn);
  return {
    ...inputs,
    limit: speedLimit({ ...inputs, override: unit.override }),
    choices: unit.override ? { ...houseRules.choices, ...unit.override.choices } : houseRules.choices,
    nth: (code) => alike(code.function).indexOf(code),
    countOf: (fn) => alike(fn).length,
    found,
    counts: countsAt(map, inputs.type, found),
  };
}

function wishFor(code: Code, work: Work): Wish {
  const unsure = unsureOf(code);
  if (unsure !== null) return asFound(`${unsure} Stays as found.`);
  if (code.access === 'absent') return asFound('In the paper, not on this display.');
  if (code.access === 'tool') return asFound("Readable only with a maker's tool: stays as found.");
  if (code.access === 'never' || code.function === 'makersOnly') return asFound('Never touched: stays as found.');
  if (code.effect === 'displayOnly' && DRIVING.has(code.function))
    return asFound('It scales what is shown and changes nothing on the road: stays as found.');
  if (code.encoding.kind === 'pair') return pairWish(code, code.encoding, work);
  const wish = WISHES[code.function];
  if (!wish && work.vehicleClass.regime !== 'checkOnly')
    return asFound(`${codeTitle(code)}: nothing was promised, stays as found.`);
  return underRegime(
    code,
    sure(code, wish?.(code, work) ?? asFound(`${codeTitle(code)}: nothing was promised, stays as found.`)),
    work,
  );
}

/** A value that does one thing on some units and another on others is no target. */
function sure(code: Code, wish: Wish): Wish {
  const said = wish.raw === null ? null : doubtSaid(code, wish.raw);
  if (said === null || wish.raw === null) return wish;
  const words = `${valueWords(code, wish.raw)} would be right, and is not certain: ${said}`;
  return asFound(`${words} Stays as found.`, {
    level: DRIVING.has(code.function) ? 'decide' : 'note',
    topic: 'doubtful',
    says: `${code.label}: ${words}`,
  });
}

/** What a code that nobody touches would be set to: it stays as found, and whether that matters is looked at. */
function wouldBe(code: Code, work: Work): Wish {
  const isUntouched =
    (code.access === 'never' || code.access === 'tool') &&
    unsureOf(code) === null &&
    code.encoding.kind !== 'pair' &&
    !COMFORT.has(code.function);
  return (isUntouched && WISHES[code.function]?.(code, work)) || asFound('');
}

/** Two functions in one code: each half as if it stood alone, and a half nobody promised anything of as found. */
function pairWish(code: Code, { first, second }: Code['encoding'] & { kind: 'pair' }, work: Work): Wish {
  const halves = [first, second].map((half) => {
    const raws = half.entries.map((entry) => entry.raw);
    const alone: Code = {
      ...code,
      function: half.function,
      encoding: { kind: 'table', entries: half.entries },
      range: { min: Math.min(...raws), max: Math.max(...raws), step: 1 },
    };
    return WISHES[half.function]?.(alone, work) ?? null;
  });
  const findings = halves.flatMap((wish) => wish?.findings ?? []);
  const trail = halves.flatMap((wish) => wish?.trail ?? []);
  const because = halves.flatMap((wish) => (wish ? [wish.because] : [])).join('; ');
  if (halves.every((wish) => wish === null || wish.raw === null))
    return asFound(because || 'Nothing was promised, stays as found.', ...findings);
  const found = work.found(code);
  const raw = (halves[0]?.raw ?? Math.floor(found / 10)) * 10 + (halves[1]?.raw ?? found % 10);
  return { raw, because, trail, ...(findings.length > 0 ? { findings } : {}) };
}

function codeFindings(code: Code, wish: Wish, lock: Finding | null): readonly Finding[] {
  const findings = (wish.findings ?? []).map(({ level, topic, says }) => finding(level, topic, code.label, says));
  if (wish.raw !== null && code.effect === 'unverified' && code.function !== 'speedCap') {
    findings.push(
      finding(
        'note',
        'unverified',
        code.label,
        `${code.label}: it is not verified that this code acts. Nothing is claimed from it.`,
      ),
    );
  }
  return lock ? [...findings, lock] : findings;
}

/** A code that another makes do nothing: said, and set all the same, for the other may be changed one day. */
function deadFinding(draft: Draft, { code, wish }: Drafted): readonly Finding[] {
  const by = draft.codes.find((each) => each.code.label === code.deadIf?.code);
  if (!by || !isDead(draft, code) || COMFORT.has(code.function)) return [];
  const stands = `${by.code.label} stands at ${valueWords(by.code, willShow(draft, by))}`;
  return [
    finding(
      'note',
      'dead',
      code.label,
      `${code.label} does nothing while ${stands}.${wish.raw === null ? '' : ' It is set all the same, and nothing is claimed from it.'}`,
    ),
  ];
}

function targetFor({ code, wish }: Drafted, map: DisplayMap, findings: readonly Finding[]): CodeTarget {
  const lock = code.access === 'locked' ? findings.find(({ id }) => id === `locked:${code.label}`) : undefined;
  const final = lock && (COMFORT.has(code.function) || lock.decided) ? leftLocked(wish, lock) : wish;
  const target: { -readonly [K in keyof CodeTarget]: CodeTarget[K] } = {
    label: code.label,
    function: code.function,
    raw: final.raw,
    locked: code.access === 'locked',
    because: final.because,
  };
  if (isOffGlass(map, code) || final.secret) target.offGlass = true;
  const shownIf = conditionsOf(map).get(code.label);
  if (shownIf) target.shownIf = shownIf;
  if (final.secret) target.secret = true;
  if (final.trail) target.trail = final.trail;
  return target;
}

/** A locked code that stays as it is, because it does not matter or because a lead said so. */
function leftLocked(wish: Wish, { decided: choice }: Finding): Wish {
  const why = choice
    ? step('lead', `Locked, and left as found: ${choice.words} (${choice.by}, ${choice.on})`)
    : step('display', `${wish.because}; the code is locked: stays as found`);
  return {
    raw: null,
    because: why.says,
    trail: [...(wish.trail ?? []).map(({ from, says }) => ({ from, says })), why],
  };
}

function decided(each: Finding, { terms, type, unit }: SetupInputs): Finding {
  if (each.level !== 'decide') return each;
  const stands = each.label !== null && each.id === `locked:${each.label}` ? unit.letStand?.[each.label] : undefined;
  if (stands) return { ...each, decided: stands };
  const choice = terms.decisions.find(
    ({ finding: id, typeId }) => id === each.id && (typeId === null || typeId === type.id),
  );
  return choice ? { ...each, decided: { words: choice.words, by: choice.by, on: choice.on } } : each;
}

const LEVELS = { stop: 0, decide: 1, note: 2 } as const;
const inOrder = (findings: readonly Finding[]): readonly Finding[] =>
  [...findings].sort((a, b) => LEVELS[a.level] - LEVELS[b.level]);
