import { codeTitle } from '../display/map/code-title.js';
import type { DisplayMap } from '../display/map/display-map.js';
import { formatRaw, meaningBeside } from '../display/map/raw-value.js';
import { CAPS, DRIVING } from '../setup/compile/function-groups.js';
import { kmhWords } from '../speed/speed.js';
import type { CodeTarget, Setup } from '../setup/setup.js';
import { capKmh, isMetered, type DriftGrade, type Standing } from './moved-code.js';

/** A setup as it was worked out from documents of some versions, with the display's map among them. */
export interface WorkedOut {
  readonly setup: Setup;
  readonly map: DisplayMap;
}

/** What a newer version of a document makes of units that were set up alike. */
export interface MovedRules {
  readonly was: WorkedOut;
  readonly is: WorkedOut;
  /** What stops every one of them now, and did not before. */
  readonly stops: readonly string[];
  /** Codes that must be otherwise now; caps and what was fitted by runs are judged by the speed of each unit. */
  readonly targets: readonly CodeTarget[];
  /** Another speed is allowed. */
  readonly isLimitMoved: boolean;
}

/** One reason why a unit does not comply with the newer version. */
export interface MovedReason {
  readonly grade: Extract<DriftGrade, 'outOfClass' | 'harmless'>;
  readonly says: string;
}

/** How a unit left: raw digits as read back, and the worst speed help was worked out or proved to reach. */
export interface LeftUnit {
  readonly values: Readonly<Record<string, number>>;
  /** True km/h; null where nothing caps it. */
  readonly worstKmh: number | null;
}

/**
 * What lies between two versions of one document, all else alike: worked out once for units set up alike, so that each of
 * them is then held against what moved alone.
 */
export function movedRules(was: WorkedOut, is: WorkedOut): MovedRules {
  const before = new Set(was.setup.findings.filter(({ level }) => level === 'stop').map(({ says }) => says));
  const old = new Map(was.setup.targets.map(({ label, raw }) => [label, raw]));
  return {
    was,
    is,
    stops: is.setup.findings.filter(({ level, says }) => level === 'stop' && !before.has(says)).map(({ says }) => says),
    targets: is.setup.targets.filter(
      ({ label, raw, function: what, offGlass }) =>
        raw !== null &&
        offGlass !== true &&
        raw !== old.get(label) &&
        !CAPS.has(what) &&
        !isMetered(what) &&
        what !== 'wheelSize' &&
        what !== 'wheelPulses',
    ),
    isLimitMoved:
      was.setup.speed?.limit?.kmh !== is.setup.speed?.limit?.kmh ||
      was.setup.speed?.tolerance !== is.setup.speed?.tolerance,
  };
}

/** Whether any unit set up so could be touched by what moved. */
export const isAnythingMoved = ({ stops, targets, isLimitMoved, was, is }: MovedRules): boolean =>
  stops.length > 0 || targets.length > 0 || isLimitMoved || was.map !== is.map;

/** Why a unit that left does not comply with what moved, the gravest first; empty where it does. */
export function reasonsOf(moved: MovedRules, unit: LeftUnit): readonly MovedReason[] {
  return [
    ...moved.stops.map((says): MovedReason => ({ grade: 'outOfClass', says })),
    ...tooFast(moved, unit),
    ...moved.targets.flatMap((target) => otherwise(moved, target, unit)),
  ].sort((a, b) => Number(a.grade === 'harmless') - Number(b.grade === 'harmless'));
}

function otherwise(
  { is }: MovedRules,
  { label, raw, function: what }: CodeTarget,
  { values }: LeftUnit,
): MovedReason[] {
  const code = is.map.codes.find((each) => each.label === label);
  const left = values[label];
  if (raw === null || !code || left === raw) return [];
  const words = (digits: number): string => {
    const says = meaningBeside(code, digits);
    return says === '' ? formatRaw(code, digits) : `${formatRaw(code, digits)} (${says})`;
  };
  const was = left === undefined ? 'was not read when it left' : `left at ${words(left)}`;
  return [
    {
      grade: DRIVING.has(what) ? 'outOfClass' : 'harmless',
      says: `${codeTitle(code)} ${was}, and must be ${words(raw)}.`,
    },
  ];
}

/** The speed it may reach by what it left at, under what its display's digits are known to mean now. */
function tooFast({ was, is, isLimitMoved }: MovedRules, { values, worstKmh }: LeftUnit): MovedReason[] {
  const { speed } = is.setup;
  const by = was.map === is.map ? 1 : fasterBy(was, is, values);
  if (!speed?.limit || !(isLimitMoved || by > WITHIN)) return [];
  const { kmh: limit, words } = speed.limit;
  const worst = worstKmh === null ? Infinity : worstKmh * by;
  if (worst <= limit * (1 + speed.tolerance) * WITHIN) return [];
  const reaches = worst === Infinity ? 'Nothing ends help' : `Help may run to ${kmhWords(Number(worst.toFixed(1)))}`;
  return [{ grade: 'outOfClass', says: `${reaches}, and ${words} is allowed.` }];
}

const WITHIN = 1 + 1e-9;

/** By how much the cap that moved most is higher under the new map; 1 where none is. */
function fasterBy(was: WorkedOut, is: WorkedOut, values: Readonly<Record<string, number>>): number {
  const standing = ({ setup, map }: WorkedOut): Standing => ({ map, setup, values, base: values, worstKmh: null });
  return Math.max(
    1,
    ...is.map.codes.flatMap((code) => {
      const old = was.map.codes.find(({ label }) => label === code.label);
      const raw = values[code.label];
      if (!CAPS.has(code.function) || raw === undefined || !old || !CAPS.has(old.function)) return [];
      const [before, after] = [capKmh(old, raw, standing(was)), capKmh(code, raw, standing(is))];
      return before === after ? [1] : [after / before];
    }),
  );
}
