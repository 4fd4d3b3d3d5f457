import type { DisplayMap } from '../display/map/display-map.js';
import { codeTitle } from '../display/map/code-title.js';
import { functionTitle } from '../display/map/functions.js';
import { formatRaw } from '../display/map/raw-value.js';
import type { Setup } from '../setup/setup.js';
import { goneFromGlass, isSecret, judgeMove, type DriftGrade, type Judged, type Standing } from './moved-code.js';

export type { DriftGrade } from './moved-code.js';

export interface Drift extends Judged {
  /** Of the code; `PIN`, `errors` of what is no code. */
  readonly label: string;
  readonly title: string;
  readonly left: string;
  readonly now: string;
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
  const from: Standing = { map, values: left, setup, base: left, worstKmh: setup.worst?.kmh ?? null };
  const to: Standing = { ...from, values: now, worstKmh: null };
  const moved = map.codes.flatMap((code) => {
    const [was, is] = [left[code.label], read.values[code.label]];
    if (was === undefined || is === undefined || was === is || isSecret(code.function)) return [];
    const judged = is === null ? goneFromGlass(code) : judgeMove(code, was, is, from, to);
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
