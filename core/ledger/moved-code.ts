import type { Code, DisplayMap } from '../display/map/display-map.js';
import { isDoubtful } from '../display/map/doubt.js';
import { functionTitle, type CodeFunction } from '../display/map/functions.js';
import { mayHold, meaningOf, sentinelOf } from '../display/map/raw-value.js';
import type { Setup } from '../setup/setup.js';
import { CAPS, COMFORT, DRIVING } from '../setup/compile/function-groups.js';
import { KM_PER_MILE, kmhWords } from '../speed/speed.js';
import { circumferenceMm } from '../speed/wheel-code.js';

/**
 * What a value that moved means. `dangerous`: somebody can be hurt. `outOfClass`: faster or otherwise than its class
 * allows. `harmless`: it may stay. `expected`: it moves by being ridden.
 */
export type DriftGrade = 'dangerous' | 'outOfClass' | 'harmless' | 'expected';

export interface Judged {
  readonly grade: DriftGrade;
  /** What it does on the road. */
  readonly says: string;
}

/** Raw digits by label, under the setup that says what they mean. */
export interface Standing {
  readonly map: DisplayMap;
  readonly values: Readonly<Record<string, number>>;
  readonly setup: Pick<Setup, 'speed'>;
  /** Raw digits at which the setup's factors hold: what left under it. */
  readonly base: Readonly<Record<string, number>>;
  /** True km/h that help was worked out to reach with just these values; null where nobody worked that out. */
  readonly worstKmh: number | null;
}

const METERED: ReadonlySet<CodeFunction> = new Set(['odometer', 'info', 'clock', 'tripReset', 'energyCounterReset']);
/** Another value of these and cells are run too low, or overcharged. */
const PACK: ReadonlySet<CodeFunction> = new Set([
  'nominalVoltage',
  'packProfile',
  'batteryKind',
  'cutoffVoltage',
  'taperVoltage',
]);

/** A code that the glass listed before and does not list any more. */
export const goneFromGlass = (code: Code): Judged =>
  DRIVING.has(code.function)
    ? { grade: 'outOfClass', says: 'The glass lists it no more: what it is at nobody can tell.' }
    : { grade: 'harmless', says: 'The glass lists it no more.' };

/**
 * What it does on the road that one code of a map shows something else. Where a value may mean two things, the faster
 * vehicle is taken.
 * @param was raw digits under `from`
 * @param is raw digits under `to`, another value
 */
export function judgeMove(code: Code, was: number, is: number, from: Standing, to: Standing): Judged {
  const what = code.function;
  if (METERED.has(what)) return metered(code, was, is);
  if (!mayHold(code, is))
    return { grade: 'outOfClass', says: 'Its map knows no such value: perhaps another display was fitted.' };
  if (CAPS.has(what)) return judgeCap(capKmh(code, was, from), capKmh(code, is, to), to);
  if (what === 'wheelSize' || what === 'wheelPulses') return counting(code, was, is, from, to);
  if (what === 'units') return units(from, to);
  if (PACK.has(what)) return pack(code, was, is);
  const instead = `${meaningOf(code, is)} instead of ${meaningOf(code, was)}`;
  if (what === 'currentLimit' || what === 'maxOutputPercent')
    return is > was
      ? { grade: 'dangerous', says: `The motor may draw more: ${instead}.` }
      : { grade: 'harmless', says: `Weaker: ${instead}.` };
  if (what === 'standstillStart') return { grade: 'dangerous', says: `The throttle starts ${instead}.` };
  if (what === 'driveMode' || what === 'throttleScope' || what === 'modeTurbo')
    return { grade: 'outOfClass', says: `It drives by ${instead}.` };
  if (DRIVING.has(what)) return { grade: 'outOfClass', says: `${functionTitle(what)} is ${instead}.` };
  return {
    grade: 'harmless',
    says: COMFORT.has(what) ? 'A rider would notice, nobody is hurt.' : 'It changes nothing on the road that is known.',
  };
}

const PINS: ReadonlySet<CodeFunction> = new Set(['accessPin', 'startupPin']);

/** Never compared by its digits. */
export const isSecret = (what: CodeFunction): boolean => PINS.has(what);

/** Counts by itself, whoever rides it. */
export const isMetered = (what: CodeFunction): boolean => METERED.has(what);

function metered(code: Code, was: number, is: number): Judged {
  if (code.function !== 'odometer') return { grade: 'expected', says: 'It moves by itself.' };
  const unit = code.encoding.kind === 'line' ? code.encoding.unit : '';
  const ran = Number((is - was).toFixed(1));
  return ran < 0
    ? {
        grade: 'outOfClass',
        says: `It stands ${-ran} ${unit} lower than before: it was reset, or another display is fitted.`,
      }
    : { grade: 'expected', says: `It ran ${ran} ${unit}.` };
}

/** km/h at which a cap ends drive as the display counts; Infinity for no cap, and where it may be none. */
export function capKmh(code: Code, raw: number, { map, values, setup, base }: Standing): number {
  if (sentinelOf(code, raw)?.means === 'noCap' || isDoubtful(code, raw)) return Infinity;
  const per = setup.speed?.kmhPerRaw[code.label];
  const scale = code.encoding.kind === 'line' ? code.encoding.scale : 1;
  const follows = code.encoding.kind === 'line' && code.encoding.follows !== undefined;
  const was = inMiles(map, base);
  const is = inMiles(map, values);
  const turned = !follows || was === is ? 1 : is ? KM_PER_MILE : 1 / KM_PER_MILE;
  return raw * (per ?? scale) * turned;
}

function inMiles({ codes }: DisplayMap, values: Readonly<Record<string, number>>): boolean {
  const code = codes.find(({ function: what }) => what === 'units');
  return (
    code?.encoding.kind === 'table' &&
    code.encoding.entries.find(({ raw }) => raw === (values[code.label] ?? code.factory))?.value === 'mph'
  );
}

/** Another cap, both in km/h as the display counts; Infinity for none. */
export function judgeCap(before: number, after: number, { setup }: Pick<Standing, 'setup'>): Judged {
  const words = (kmh: number): string => (kmh === Infinity ? 'nowhere' : `at ${kmhWords(Number(kmh.toFixed(1)))}`);
  const { limit, attainableKmh: attains } = setup.speed ?? {};
  if (after === before || Math.abs(after - before) <= Math.min(before, after) * 1e-9)
    return { grade: 'harmless', says: `Other digits, the same end of help: ${words(after)}.` };
  if (after < before)
    return { grade: 'harmless', says: `Help ends earlier: ${words(after)} instead of ${words(before)}.` };
  const reaches =
    after === Infinity
      ? `No cap: it runs as fast as it can${attains === undefined ? '' : `, some ${kmhWords(attains)}`}.`
      : `Help ends ${words(after)} as the display counts, instead of ${words(before)}.`;
  return limit
    ? { grade: 'outOfClass', says: `${reaches} ${limit.words} is allowed.` }
    : { grade: 'harmless', says: `${reaches} Nothing limits it.` };
}

/** The display counts otherwise: where it counts less, the vehicle is faster than its cap says. */
function counting(code: Code, was: number, is: number, from: Standing, to: Standing): Judged {
  const wheel = code.function === 'wheelSize';
  const [before, after] = wheel ? [circumferenceMm(code, was), circumferenceMm(code, is)] : [1 / was, 1 / is];
  // Worked out for the one, it tells of the other as long as nobody worked that out by itself.
  const worst = to.worstKmh === null ? from.worstKmh : null;
  if (before === undefined || after === undefined || !(after > 0))
    return { grade: 'outOfClass', says: 'The display counts otherwise: a cap that held before holds no more.' };
  const by = before / after;
  if (by <= 1 + 1e-9)
    return { grade: 'harmless', says: `The display shows ${percent(1 / by - 1)} more: help ends earlier.` };
  const runs =
    worst === null
      ? ''
      : `: help may run to ${kmhWords(Number((worst * by).toFixed(1)))} where ${kmhWords(worst)} was worked out`;
  return { grade: 'outOfClass', says: `The display shows ${percent(1 - 1 / by)} less${runs}.` };
}

export const percent = (share: number): string => `${Number((share * 100).toFixed(1))} %`;

function units(from: Standing, to: Standing): Judged {
  const follows = to.map.codes.some(({ encoding }) => encoding.kind === 'line' && encoding.follows !== undefined);
  return follows && !inMiles(from.map, from.values) && inMiles(to.map, to.values)
    ? { grade: 'outOfClass', says: 'Its cap counts in miles an hour: the same digits are 1.6 times as fast.' }
    : { grade: 'harmless', says: 'The figures shown are in another unit.' };
}

function pack(code: Code, was: number, is: number): Judged {
  if (code.function === 'cutoffVoltage' && is > was) return { grade: 'harmless', says: 'It ends the ride earlier.' };
  return {
    grade: 'dangerous',
    says: `Cells may be run too low or not be this pack's: ${meaningOf(code, is)} instead of ${meaningOf(code, was)}.`,
  };
}
