import { codeTitle } from '../display/map/code-title.js';
import type { Code } from '../display/map/display-map.js';
import { functionTitle, type CodeFunction } from '../display/map/functions.js';
import { formatRaw, meaningBeside, meaningOf } from '../display/map/raw-value.js';
import { CAPS, DRIVING } from '../setup/compile/function-groups.js';
import { PARTS } from '../setup/inputs/parts.js';
import { PROOF_OUTCOMES } from './ledger-question.js';
import {
  capKmh,
  goneFromGlass,
  isMetered,
  isSecret,
  judgeCap,
  judgeMove,
  percent,
  type DriftGrade,
} from './moved-code.js';
import type { UnitState } from './unit-state.js';

/** One thing in which two states differ. */
export interface StateDifference {
  readonly about: 'class' | 'code' | 'ratio' | 'proof' | 'part';
  readonly title: string;
  /** As shown, with its meaning; a dash where that state does not have it. */
  readonly one: string;
  readonly other: string;
  /** Of what moved on one unit from as it left on; null where the other state is no drift from the one. */
  readonly grade: DriftGrade | null;
  /** What it does on the road. */
  readonly says: string;
}

/** Two states side by side. */
export interface StatesCompared {
  readonly differences: readonly StateDifference[];
  /** How many codes show the same. */
  readonly same: number;
  /** Codes that were read of one state alone, by title: nothing is said of them. */
  readonly unread: readonly string[];
}

const NONE = '–';

/**
 * Holds two states of a unit, or of two units, beside one another: what differs, and what that does on the road when one
 * goes from the first to the second. Displays of one map are compared code by code, others by what a code controls.
 */
export function compareStates(one: UnitState, other: UnitState): StatesCompared {
  const isDrift = one.serial === other.serial && one.kind === 'left' && other.kind === 'back';
  const codes = one.map.id === other.map.id ? byLabel(one, other) : byFunction(one, other);
  const differences = [
    ...classes(one, other),
    ...codes.differences,
    ...ratios(one, other),
    ...proofs(one, other),
    ...parts(one, other),
    ...asked(one, other),
  ];
  return { ...codes, differences: differences.map((each) => (isDrift ? each : { ...each, grade: null })) };
}

function classes(one: UnitState, other: UnitState): readonly StateDifference[] {
  if (one.className === other.className) return [];
  const says = 'Other rules hold: what is right for one may be out of class for the other.';
  return [{ about: 'class', title: 'Class', one: one.className, other: other.className, grade: null, says }];
}

const shown = (code: Code, raw: number | undefined): string => {
  if (raw === undefined) return NONE;
  const says = meaningBeside(code, raw);
  return says === '' ? formatRaw(code, raw) : `${formatRaw(code, raw)} ${says}`;
};

function byLabel(one: UnitState, other: UnitState): StatesCompared {
  const differences: StateDifference[] = [];
  const unread: string[] = [];
  let same = 0;
  for (const code of other.map.codes) {
    const [was, is] = [one.values[code.label], other.values[code.label]];
    const title = `${code.label} ${codeTitle(code)}`;
    if (isSecret(code.function) || (was === undefined && is === undefined)) continue;
    if (was === is) same += 1;
    else if (was === undefined || (is === undefined && other.kind !== 'back')) unread.push(title);
    else {
      const judged =
        is === undefined
          ? goneFromGlass(code)
          : isMetered(code.function) && one.serial !== other.serial
            ? { grade: 'expected' as const, says: 'It counts by itself.' }
            : judgeMove(code, was, is, one, other);
      differences.push({ about: 'code', title, one: shown(code, was), other: shown(code, is), ...judged });
    }
  }
  return { differences, same, unread };
}

/** What a function is at, in words; empty where no code of it was read. */
function meaningsOf({ map, values }: UnitState, what: CodeFunction): string {
  const own = map.codes.filter((code) => code.function === what && values[code.label] !== undefined);
  return own.map((code) => meaningOf(code, values[code.label] ?? 0)).join(', ');
}

/** The greatest of a unit's caps of one function, km/h as its display counts; null where none was read. */
function capOf(state: UnitState, what: CodeFunction): number | null {
  const caps = state.map.codes.flatMap((code) => {
    const raw = state.values[code.label];
    return code.function === what && raw !== undefined ? [capKmh(code, raw, state)] : [];
  });
  return caps.length === 0 ? null : Math.max(...caps);
}

function byFunction(one: UnitState, other: UnitState): StatesCompared {
  const functions = [...new Set([...one.map.codes, ...other.map.codes].map(({ function: what }) => what))].filter(
    (what) => !isSecret(what) && !isMetered(what) && what !== 'unknown' && what !== 'makersOnly',
  );
  const differences: StateDifference[] = [];
  const unread: string[] = [];
  let same = 0;
  for (const what of functions) {
    const [was, is] = [meaningsOf(one, what), meaningsOf(other, what)];
    const title = functionTitle(what);
    if (was === '' && is === '') continue;
    if (was === is) same += 1;
    else if (was === '' || is === '') unread.push(title);
    else {
      const [before, after] = CAPS.has(what) ? [capOf(one, what), capOf(other, what)] : [null, null];
      const judged =
        before !== null && after !== null
          ? judgeCap(before, after, other)
          : DRIVING.has(what)
            ? { grade: null, says: `${title} is ${is} instead of ${was}, on another display.` }
            : { grade: null, says: 'Another display says it otherwise.' };
      differences.push({ about: 'code', title, one: was, other: is, ...judged });
    }
  }
  return { differences, same, unread };
}

function ratios(one: UnitState, other: UnitState): readonly StateDifference[] {
  if (one.ratio === null || other.ratio === null || one.ratio.k === other.ratio.k) return [];
  const by = other.ratio.k / one.ratio.k;
  const overlap = one.ratio.low <= other.ratio.high && other.ratio.low <= one.ratio.high;
  const says = overlap
    ? 'No more than its measuring may be off.'
    : by > 1
      ? `It shows ${percent(by - 1)} more for the same speed: a cap ends help earlier.`
      : `It shows ${percent(1 - by)} less for the same speed: under the same cap it is faster.`;
  const words = ({ k, low, high }: NonNullable<UnitState['ratio']>): string =>
    `${k.toFixed(3)} (${low.toFixed(3)} to ${high.toFixed(3)})`;
  return [
    {
      about: 'ratio',
      title: 'Shown over true speed',
      one: words(one.ratio),
      other: words(other.ratio),
      grade: null,
      says,
    },
  ];
}

/** Nothing is proved of a state that was only read. */
function proofs(one: UnitState, other: UnitState): readonly StateDifference[] {
  if (one.kind !== 'left' || other.kind !== 'left') return [];
  const verdict = (state: UnitState, test: string): string => {
    const proof = state.proofs.find((each) => each.test === test);
    return proof ? PROOF_OUTCOMES[proof.verdict] : NONE;
  };
  const tests = new Map([...one.proofs, ...other.proofs].map(({ test, title }) => [test, title]));
  return [...tests].flatMap(([test, title]) => {
    const [was, is] = [verdict(one, test), verdict(other, test)];
    if (was === is) return [];
    const says =
      is === PROOF_OUTCOMES.shows
        ? 'The vehicle showed it.'
        : is === NONE
          ? 'It was not asked.'
          : 'The vehicle did not show it.';
    return [{ about: 'proof' as const, title, one: was, other: is, grade: null, says }];
  });
}

function parts(one: UnitState, other: UnitState): readonly StateDifference[] {
  if (one.kind !== 'left' || other.kind !== 'left') return [];
  const words = ({ parts: own }: UnitState): string =>
    own.length === 0 ? 'none' : own.map((each) => `${PARTS[each.part]}: ${each.words}`).join('; ');
  const [was, is] = [words(one), words(other)];
  if (was === is) return [];
  const says = 'What was measured with a part says nothing of the next.';
  return [{ about: 'part', title: 'Parts replaced', one: was, other: is, grade: null, says }];
}

/** What is no code: whether it asks for a PIN, and errors on the glass. */
function asked(one: UnitState, other: UnitState): readonly StateDifference[] {
  const pin: readonly StateDifference[] =
    one.asksPin !== null && other.asksPin !== null && one.asksPin !== other.asksPin
      ? [
          {
            about: 'code',
            title: 'PIN',
            one: one.asksPin ? 'asks' : 'does not ask',
            other: other.asksPin ? 'asks' : 'does not ask',
            grade: other.asksPin ? 'harmless' : 'outOfClass',
            says: other.asksPin ? 'Its settings are closed.' : 'Anybody can change its settings.',
          },
        ]
      : [];
  const [was, is] = [one.errors.join(', '), other.errors.join(', ')];
  if (was === is) return pin;
  return [
    ...pin,
    {
      about: 'code',
      title: 'Errors',
      one: was === '' ? 'none' : was,
      other: is === '' ? 'none' : is,
      grade: is === '' ? 'harmless' : 'dangerous',
      says: is === '' ? 'No error stands.' : 'An error stands: find its cause before it is ridden.',
    },
  ];
}
