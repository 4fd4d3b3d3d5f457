import type { Code, DisplayMap } from '../../display/map/display-map.js';
import { functionTitle } from '../../display/map/functions.js';
import { packFindings } from './checks/pack.js';
import { lockedFinding } from './checks/locked.js';
import { reachFindings, worstReach } from './checks/reach.js';
import { ruleFindings } from './checks/rules.js';
import { proofsFor, throttleFindings } from './checks/throttle.js';
import { settleDependencies } from './dependencies.js';
import { finding, type Draft, type Drafted } from './draft.js';
import { CAPS, COMFORT, DRIVING } from './function-groups.js';
import { underRegime } from './regime.js';
import type { CodeTarget, Finding, Setup, SpeedTerms } from '../setup.js';
import type { SetupInputs } from '../inputs/setup-inputs.js';
import { speedLimit, type SpeedLimit } from './speed-limit.js';
import { WISHES } from './wishes.js';
import { speedTermsOf } from './speed-terms.js';
import { asFound, step, type Wish, type Work } from './wish.js';

/**
 * Works out a target, or "leave as found", for every code of the map, each with its reason and the trail of inputs that
 * led there, and the findings that follow. A meaning known by hearsay never becomes a target; a code whose effect is not
 * verified gets one and carries no claim. The same inputs give the same setup, whenever and wherever.
 */
export function compileSetup(inputs: SetupInputs): Setup {
  const order = sharedFor(inputs);
  const work = prepare(inputs, order);
  const wished: Draft = { work, codes: inputs.map.codes.map((code) => ({ code, wish: wishFor(code, work, order.wishes) })) };
  const { draft, findings: bounds, keyedAfter } = settleDependencies(wished);
  const locks = draft.codes.map(({ code, wish }) => lockedFinding(code, code.access === 'locked' ? wish : wouldBe(code, work), work));
  const worst = worstReach(draft);
  const reach = locks.some((lock, i) => lock?.level === 'stop' && CAPS.has(draft.codes[i]?.code.function ?? 'unknown')) ? [] : reachFindings(draft, worst);
  const findings = inOrder(
    [...ruleFindings(draft), ...packFindings(work), ...reach, ...throttleFindings(draft), ...bounds, ...draft.codes.flatMap(({ code, wish }, i) => codeFindings(code, wish, locks[i] ?? null))].map((each) => decided(each, inputs)),
  );
  const proofs = proofsFor(draft);
  return {
    targets: draft.codes.map((drafted) => targetFor(drafted, inputs.map, findings)),
    findings,
    limitKmh: work.limit?.kmh ?? inputs.type.attainableKmh,
    speed: inputs.unit.override === null ? (order.speed ??= speedTermsOf(work)) : speedTermsOf(work),
    ...(worst ? { worst } : {}),
    ...(proofs.length > 0 ? { proofs } : {}),
    ...(keyedAfter.length > 0 ? { keyedAfter } : {}),
  };
}

function prepare(inputs: SetupInputs, order: Shared): Work {
  const { map, unit, houseRules } = inputs;
  const alike = (fn: Code['function']) => map.codes.filter((code) => code.function === fn);
  return {
    ...inputs,
    limit: unit.override === null ? order.limit : speedLimit({ ...inputs, override: unit.override }),
    choices: unit.override ? { ...houseRules.choices, ...unit.override.choices } : houseRules.choices,
    nth: (code) => alike(code.function).indexOf(code),
    countOf: (fn) => alike(fn).length,
    found: (code) => unit.asFound?.[code.label] ?? code.factory,
  };
}

/** Wishes that no unit changes, for the order they were worked out for: a fleet differs in few codes from unit to unit. */
interface Shared extends Pick<SetupInputs, 'map' | 'vehicleClass' | 'houseRules' | 'terms'> {
  readonly limit: SpeedLimit | null;
  readonly wishes: Map<Code, Wish>;
  /** Made with the first unit that has no wishes of its own. */
  speed?: SpeedTerms;
}
const shared = new WeakMap<SetupInputs['type'], Shared>();

function sharedFor(inputs: SetupInputs): Shared {
  const { type, map, vehicleClass, houseRules, terms } = inputs;
  const kept = shared.get(type);
  if (kept?.map === map && kept.vehicleClass === vehicleClass && kept.houseRules === houseRules && kept.terms === terms) return kept;
  const fresh: Shared = { map, vehicleClass, houseRules, terms, limit: speedLimit({ vehicleClass, terms, type, override: null }), wishes: new Map() };
  shared.set(type, fresh);
  return fresh;
}

/** Whether what is known of a unit can move this code's wish. */
function isUnitBound(code: Code, { unit }: Work): boolean {
  if (unit.override !== null || code.encoding.kind === 'pair' || code.function === 'taperVoltage') return true;
  const isPercent = code.encoding.kind === 'line' && code.encoding.unit === '%';
  if (isPercent || (!CAPS.has(code.function) && code.function !== 'wheelSize' && code.function !== 'wheelPulses')) return false;
  return code.function === 'wheelPulses' ? unit.ratio?.taken !== undefined : unit.ratio !== null || (unit.rolled ?? null) !== null || (unit.overshootKmh ?? null) !== null;
}

function wishFor(code: Code, work: Work, wishes: Shared['wishes']): Wish {
  if (isUnitBound(code, work)) return freshWish(code, work);
  const kept = wishes.get(code);
  if (kept) return kept;
  const wish = freshWish(code, work);
  wishes.set(code, wish);
  return wish;
}

function freshWish(code: Code, work: Work): Wish {
  if (code.source === 'hearsay') return asFound('Meaning known by hearsay only: stays as found.');
  if (code.access === 'absent') return asFound('In the paper, not on this display.');
  if (code.access === 'tool') return asFound("Readable only with a maker's tool: stays as found.");
  if (code.access === 'never' || code.function === 'makersOnly') return asFound('Never touched: stays as found.');
  if (code.effect === 'displayOnly' && DRIVING.has(code.function)) return asFound('It scales what is shown and changes nothing on the road: stays as found.');
  if (code.encoding.kind === 'pair') return pairWish(code, code.encoding, work);
  const wish = WISHES[code.function];
  if (!wish && work.vehicleClass.regime !== 'checkOnly') return asFound(`${functionTitle(code.function)}: nothing was promised, stays as found.`);
  return underRegime(code, wish?.(code, work) ?? asFound(`${functionTitle(code.function)}: nothing was promised, stays as found.`), work);
}

/** What a code that nobody touches would be set to: it stays as found, and whether that matters is looked at. */
function wouldBe(code: Code, work: Work): Wish {
  const isUntouched = (code.access === 'never' || code.access === 'tool') && code.source !== 'hearsay' && code.encoding.kind !== 'pair' && !COMFORT.has(code.function);
  return (isUntouched && WISHES[code.function]?.(code, work)) || asFound('');
}

/** Two functions in one code: each half as if it stood alone, and a half nobody promised anything of as found. */
function pairWish(code: Code, { first, second }: Code['encoding'] & { kind: 'pair' }, work: Work): Wish {
  const halves = [first, second].map((half) => {
    const raws = half.entries.map((entry) => entry.raw);
    const alone: Code = { ...code, function: half.function, encoding: { kind: 'table', entries: half.entries }, range: { min: Math.min(...raws), max: Math.max(...raws), step: 1 } };
    return WISHES[half.function]?.(alone, work) ?? null;
  });
  const findings = halves.flatMap((wish) => wish?.findings ?? []);
  const trail = halves.flatMap((wish) => wish?.trail ?? []);
  const because = halves.flatMap((wish) => (wish ? [wish.because] : [])).join('; ');
  if (halves.every((wish) => wish === null || wish.raw === null)) return asFound(because || 'Nothing was promised, stays as found.', ...findings);
  const found = work.found(code);
  const raw = (halves[0]?.raw ?? Math.floor(found / 10)) * 10 + (halves[1]?.raw ?? found % 10);
  return { raw, because, trail, ...(findings.length > 0 ? { findings } : {}) };
}

function codeFindings(code: Code, wish: Wish, lock: Finding | null): readonly Finding[] {
  const findings = (wish.findings ?? []).map(({ level, topic, says }) => finding(level, topic, code.label, says));
  if (wish.raw !== null && code.effect === 'unverified' && code.function !== 'speedCap') {
    findings.push(finding('note', 'unverified', code.label, `${code.label}: it is not verified that this code acts. Nothing is claimed from it.`));
  }
  return lock ? [...findings, lock] : findings;
}

const targets = new WeakMap<Wish, CodeTarget>();

function targetFor({ code, wish }: Drafted, map: DisplayMap, findings: readonly Finding[]): CodeTarget {
  const lock = code.access === 'locked' ? findings.find(({ id }) => id === `locked:${code.label}`) : undefined;
  const kept = lock ? undefined : targets.get(wish);
  if (kept) return kept;
  const final = lock && (COMFORT.has(code.function) || lock.decided) ? leftLocked(wish, lock) : wish;
  const target: { -readonly [K in keyof CodeTarget]: CodeTarget[K] } = { label: code.label, function: code.function, raw: final.raw, locked: code.access === 'locked', because: final.because };
  if (isOffGlass(map, code) || final.secret) target.offGlass = true;
  if (final.secret) target.secret = true;
  if (final.trail) target.trail = final.trail;
  if (!lock) targets.set(wish, target);
  return target;
}

/** A locked code that stays as it is, because it does not matter or because a lead said so. */
function leftLocked(wish: Wish, { decided: choice }: Finding): Wish {
  const why = choice ? step('lead', `Locked, and left as found: ${choice.words} (${choice.by}, ${choice.on})`) : step('display', `${wish.because}; the code is locked: stays as found`);
  return { raw: null, because: why.says, trail: [...(wish.trail ?? []).map(({ from, says }) => ({ from, says })), why] };
}

function isOffGlass(map: DisplayMap, code: Code): boolean {
  if (code.access === 'absent' || code.access === 'tool') return true;
  return shutAway(map).has(code.label);
}

const shut = new WeakMap<DisplayMap, ReadonlySet<string>>();

/** Codes on pages that nobody enters. */
function shutAway(map: DisplayMap): ReadonlySet<string> {
  const kept = shut.get(map);
  if (kept) return kept;
  const pages = (map.menu?.pages ?? []).filter((page) => page.neverEnter !== undefined);
  const labels = new Set(pages.flatMap((page) => page.items.flatMap((item) => ('code' in item ? [item.code] : []))));
  shut.set(map, labels);
  return labels;
}

function decided(each: Finding, { terms, type }: SetupInputs): Finding {
  if (each.level !== 'decide') return each;
  const choice = terms.decisions.find(({ finding: id, typeId }) => id === each.id && (typeId === null || typeId === type.id));
  return choice ? { ...each, decided: { words: choice.words, by: choice.by, on: choice.on } } : each;
}

const LEVELS = { stop: 0, decide: 1, note: 2 } as const;
const inOrder = (findings: readonly Finding[]): readonly Finding[] => [...findings].sort((a, b) => LEVELS[a.level] - LEVELS[b.level]);
