import type { Code, DisplayMap } from '../display/map/display-map.js';
import { codeTitle } from '../display/map/code-title.js';
import { isDoubtful } from '../display/map/doubt.js';
import { functionTitle, type CodeFunction } from '../display/map/functions.js';
import { formatRaw, mayHold, meaningOf, sentinelOf } from '../display/map/raw-value.js';
import type { Setup } from '../setup/setup.js';
import { CAPS, COMFORT, DRIVING } from '../setup/compile/function-groups.js';
import { KM_PER_MILE, kmhWords } from '../speed/speed.js';
import { circumferenceMm } from '../speed/wheel-code.js';

/**
 * What a value that moved means. `dangerous`: somebody can be hurt. `outOfClass`: faster or otherwise than its class
 * allows. `harmless`: it may stay. `expected`: it moves by being ridden.
 */
export type DriftGrade = 'dangerous' | 'outOfClass' | 'harmless' | 'expected';

export interface Drift {
  /** Of the code; `PIN`, `errors` of what is no code. */
  readonly label: string;
  readonly title: string;
  readonly left: string;
  readonly now: string;
  readonly grade: DriftGrade;
  /** What it does on the road. */
  readonly says: string;
}

/** What was read of a unit that is back. */
export interface ReturnRead {
  /** Raw by label; null where the glass does not list it any more. */
  readonly values: Readonly<Record<string, number | null>>;
  /** Whether a PIN was set when it left, and whether the display asks for one now; null where nobody looked. */
  readonly pin: { readonly wasSet: boolean; readonly asksNow: boolean | null };
  /** Error codes that stand on the glass. */
  readonly errors: readonly string[];
}

const METERED: ReadonlySet<CodeFunction> = new Set(['odometer', 'info', 'clock', 'tripReset', 'energyCounterReset']);
const PINS: ReadonlySet<CodeFunction> = new Set(['accessPin', 'startupPin']);
/** Another value of these and cells are run too low, or overcharged. */
const PACK: ReadonlySet<CodeFunction> = new Set([
  'nominalVoltage',
  'packProfile',
  'batteryKind',
  'cutoffVoltage',
  'taperVoltage',
]);

/**
 * What moved on a unit since it was sealed, worst first, each with what it does on the road. Where a value may mean two
 * things, the faster vehicle is taken.
 * @param left raw digits as it left, by label; codes that were not read then are not judged
 */
export function driftOf(
  left: Readonly<Record<string, number>>,
  read: ReturnRead,
  map: DisplayMap,
  setup: Pick<Setup, 'speed' | 'worst'>,
): readonly Drift[] {
  const now: Readonly<Record<string, number>> = {
    ...left,
    ...Object.fromEntries(Object.entries(read.values).flatMap(([label, raw]) => (raw === null ? [] : [[label, raw]]))),
  };
  const moved = map.codes.flatMap((code) => {
    const [was, is] = [left[code.label], read.values[code.label]];
    if (was === undefined || is === undefined || was === is || PINS.has(code.function)) return [];
    const judged = is === null ? gone(code) : judge(code, was, is, { map, left, now, setup });
    return [
      {
        label: code.label,
        title: codeTitle(code),
        left: formatRaw(code, was),
        now: is === null ? 'not shown' : formatRaw(code, is),
        ...judged,
      },
    ];
  });
  return [...moved, ...pinDrift(read), ...errorDrift(read)].sort(
    (a, b) => WORST.indexOf(a.grade) - WORST.indexOf(b.grade),
  );
}

const WORST: readonly DriftGrade[] = ['dangerous', 'outOfClass', 'harmless', 'expected'];

type Judged = Pick<Drift, 'grade' | 'says'>;

interface Known {
  readonly map: DisplayMap;
  readonly left: Readonly<Record<string, number>>;
  readonly now: Readonly<Record<string, number>>;
  readonly setup: Pick<Setup, 'speed' | 'worst'>;
}

const gone = (code: Code): Judged =>
  DRIVING.has(code.function)
    ? { grade: 'outOfClass', says: 'The glass lists it no more: what it is at nobody can tell.' }
    : { grade: 'harmless', says: 'The glass lists it no more.' };

function judge(code: Code, was: number, is: number, known: Known): Judged {
  const what = code.function;
  if (METERED.has(what)) return metered(code, was, is);
  if (!mayHold(code, is))
    return { grade: 'outOfClass', says: 'Its map knows no such value: perhaps another display was fitted.' };
  if (CAPS.has(what)) return cap(code, was, is, known);
  if (what === 'wheelSize' || what === 'wheelPulses') return counting(code, was, is, known);
  if (what === 'units') return units(known);
  if (PACK.has(what)) return pack(code, was, is);
  if (what === 'currentLimit' || what === 'maxOutputPercent')
    return is > was
      ? {
          grade: 'dangerous',
          says: `The motor may draw more: ${meaningOf(code, is)} instead of ${meaningOf(code, was)}.`,
        }
      : { grade: 'harmless', says: 'Weaker than it left.' };
  if (what === 'standstillStart')
    return { grade: 'dangerous', says: `The throttle starts ${meaningOf(code, is)}; it left ${meaningOf(code, was)}.` };
  if (what === 'driveMode' || what === 'throttleScope' || what === 'modeTurbo')
    return { grade: 'outOfClass', says: `It drives by ${meaningOf(code, is)}; it left with ${meaningOf(code, was)}.` };
  if (DRIVING.has(what))
    return {
      grade: 'outOfClass',
      says: `${functionTitle(what)} is ${meaningOf(code, is)}; it left at ${meaningOf(code, was)}.`,
    };
  return {
    grade: 'harmless',
    says: COMFORT.has(what) ? 'A rider would notice, nobody is hurt.' : 'It changes nothing on the road that is known.',
  };
}

function metered(code: Code, was: number, is: number): Judged {
  if (code.function !== 'odometer') return { grade: 'expected', says: 'It moves by itself.' };
  const unit = code.encoding.kind === 'line' ? code.encoding.unit : '';
  const ran = Number((is - was).toFixed(1));
  return ran < 0
    ? {
        grade: 'outOfClass',
        says: `It stands ${-ran} ${unit} lower than it left: it was reset, or another display is fitted.`,
      }
    : { grade: 'expected', says: `It ran ${ran} ${unit}.` };
}

/** km/h at which a cap ends drive as the display counts; Infinity for no cap, and where it may be none. */
function capKmh(
  code: Code,
  raw: number,
  values: Readonly<Record<string, number>>,
  { map, left, setup }: Known,
): number {
  if (sentinelOf(code, raw)?.means === 'noCap' || isDoubtful(code, raw)) return Infinity;
  const per = setup.speed?.kmhPerRaw[code.label];
  const scale = code.encoding.kind === 'line' ? code.encoding.scale : 1;
  const follows = code.encoding.kind === 'line' && code.encoding.follows !== undefined;
  const was = inMiles(map, left);
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

function cap(code: Code, was: number, is: number, known: Known): Judged {
  const [before, after] = [capKmh(code, was, known.left, known), capKmh(code, is, known.now, known)];
  const limit = known.setup.speed?.limit;
  const attains = known.setup.speed?.attainableKmh;
  if (after <= before * (1 + 1e-9))
    return { grade: 'harmless', says: `Help ends earlier: at ${kmhWords(after)} instead of ${kmhWords(before)}.` };
  const reaches =
    after === Infinity
      ? `No cap: it runs as fast as it can${attains === undefined ? '' : `, some ${kmhWords(attains)}`}.`
      : `Help runs to ${kmhWords(Number(after.toFixed(1)))} as the display counts; it left at ${kmhWords(Number(before.toFixed(1)))}.`;
  return limit
    ? { grade: 'outOfClass', says: `${reaches} ${limit.words} is allowed.` }
    : { grade: 'harmless', says: `${reaches} Nothing limits it.` };
}

/** The display counts otherwise: where it counts less, the vehicle is faster than its cap says. */
function counting(code: Code, was: number, is: number, { setup }: Known): Judged {
  const wheel = code.function === 'wheelSize';
  const [before, after] = wheel ? [circumferenceMm(code, was), circumferenceMm(code, is)] : [1 / was, 1 / is];
  const worst = setup.worst?.kmh;
  if (before === undefined || after === undefined || !(after > 0))
    return {
      grade: 'outOfClass',
      says: 'The display counts otherwise than when it was measured: its cap holds no more.',
    };
  const by = before / after;
  if (by <= 1 + 1e-9)
    return {
      grade: 'harmless',
      says: `The display shows ${percent(1 / by - 1)} more than when it left: help ends earlier.`,
    };
  const runs =
    worst === undefined
      ? ''
      : `: help may run to ${kmhWords(Number((worst * by).toFixed(1)))} where ${kmhWords(worst)} was proved`;
  return { grade: 'outOfClass', says: `The display shows ${percent(1 - 1 / by)} less than when it left${runs}.` };
}

const percent = (share: number): string => `${Number((share * 100).toFixed(1))} %`;

function units({ map, left, now }: Known): Judged {
  const follows = map.codes.some(({ encoding }) => encoding.kind === 'line' && encoding.follows !== undefined);
  return follows && !inMiles(map, left) && inMiles(map, now)
    ? { grade: 'outOfClass', says: 'Its cap counts in miles an hour now: the same digits are 1.6 times as fast.' }
    : { grade: 'harmless', says: 'The figures shown are in another unit.' };
}

function pack(code: Code, was: number, is: number): Judged {
  if (code.function === 'cutoffVoltage' && is > was)
    return { grade: 'harmless', says: 'It ends the ride earlier than it left.' };
  return {
    grade: 'dangerous',
    says: `Cells may be run too low or not be this pack's: ${meaningOf(code, is)}, it left at ${meaningOf(code, was)}.`,
  };
}

function pinDrift({ pin: { wasSet, asksNow } }: ReturnRead): readonly Drift[] {
  return wasSet && asksNow === false
    ? [
        {
          label: 'PIN',
          title: 'PIN',
          left: 'asks',
          now: 'does not',
          grade: 'outOfClass',
          says: 'Anybody can change its settings again.',
        },
      ]
    : [];
}

const errorDrift = ({ errors }: ReturnRead): readonly Drift[] =>
  errors.length === 0
    ? []
    : [
        {
          label: 'errors',
          title: 'Errors',
          left: 'none',
          now: errors.join(', '),
          grade: 'dangerous',
          says: 'An error stands: find its cause before it is ridden.',
        },
      ];

export interface DriftVerdict {
  /** Nothing that moved keeps it from going out again. */
  readonly mayGoOut: boolean;
  /** One line, e.g. `Speed cap moved, PIN gone; it ran 412 km.` */
  readonly says: string;
}

/** What is told in one line. */
export function driftVerdict(drifts: readonly Drift[]): DriftVerdict {
  const bad = drifts.filter(({ grade }) => grade === 'dangerous' || grade === 'outOfClass');
  const harmless = drifts.filter(({ grade }) => grade === 'harmless');
  const ran = drifts.find(({ grade, title }) => grade === 'expected' && title === functionTitle('odometer'));
  const named = bad.map(({ label, title }) =>
    label === 'PIN' ? 'PIN gone' : label === 'errors' ? 'an error stands' : `${lower(title)} moved`,
  );
  const head =
    bad.length > 0
      ? `Do not send it out: ${named.slice(0, 4).join(', ')}${named.length > 4 ? ` and ${named.length - 4} more` : ''}.`
      : harmless.length > 0
        ? `Good to go: ${harmless.length === 1 ? 'one thing moved, and it is harmless' : `${harmless.length} things moved, all harmless`}.`
        : 'Good to go: as it left.';
  return { mayGoOut: bad.length === 0, says: ran ? `${head} ${ran.says}` : head };
}

const lower = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);
