import { canonicalJson } from '../../ledger/canonical-json.js';
import { mapTitle, type Code, type DisplayMap } from '../map/display-map.js';
import { codeTitle } from '../map/code-title.js';
import { formatRaw, meaningBeside, valuesInOrder, valueWords } from '../map/raw-value.js';

export type Aspect = 'function' | 'range' | 'meaning' | 'factory' | 'access' | 'behaviour' | 'source';

/** One thing in which a code differs between two maps, in words for either side. */
export interface CodeChange {
  readonly aspect: Aspect;
  readonly left: string;
  readonly right: string;
}

/** A code on one side, the other, or both; without changes where both say the same of it. */
export interface CodeComparison {
  readonly label: string;
  readonly kind: 'added' | 'removed' | 'changed' | 'same';
  readonly left: Code | null;
  readonly right: Code | null;
  readonly changes: readonly CodeChange[];
}

export interface MapComparison {
  readonly titles: readonly [string, string];
  /** In menu order of the left map, then what only the right one has. */
  readonly codes: readonly CodeComparison[];
  /** Parts other than codes in which the maps differ: keys, power, menu, restart, dangers. */
  readonly parts: readonly string[];
}

const PARTS = ['keys', 'power', 'ride', 'menu', 'instructions', 'restart', 'dangers', 'icons', 'speed'] as const;

/** Two maps side by side, such as two revisions of one display: what was added, removed, or means something else. */
export function compareMaps(left: DisplayMap, right: DisplayMap): MapComparison {
  const labels = [...new Set([...left.codes, ...right.codes].map((code) => code.label))];
  const find = (map: DisplayMap, label: string) => map.codes.find((code) => code.label === label) ?? null;
  return {
    titles: [mapTitle(left), mapTitle(right)],
    codes: labels.map((label) => compareCodes(label, find(left, label), find(right, label))),
    parts: PARTS.filter(
      (part) => canonicalJson(partOf(left, part) ?? null) !== canonicalJson(partOf(right, part) ?? null),
    ),
  };
}

/** The menu without its lists: those differ whenever the codes do, and are told there. */
function partOf(map: DisplayMap, part: (typeof PARTS)[number]): unknown {
  return part === 'menu' && map.menu
    ? { ...map.menu, pages: map.menu.pages.map((page) => ({ ...page, items: [] })) }
    : map[part];
}

function compareCodes(label: string, left: Code | null, right: Code | null): CodeComparison {
  if (!left) return { label, kind: 'added', left, right, changes: [] };
  if (!right) return { label, kind: 'removed', left, right, changes: [] };
  const changes = ASPECTS.flatMap(({ aspect, words }) => {
    const [a, b] = [words(left), words(right)];
    return a === b ? [] : [{ aspect, left: a, right: b }];
  });
  return { label, kind: changes.length > 0 ? 'changed' : 'same', left, right, changes };
}

const ASPECTS: readonly { readonly aspect: Aspect; readonly words: (code: Code) => string }[] = [
  { aspect: 'function', words: (code) => codeTitle(code) },
  { aspect: 'range', words: rangeWords },
  { aspect: 'meaning', words: meanings },
  { aspect: 'factory', words: (code) => valueWords(code, code.factory) },
  { aspect: 'access', words: (code) => accessTitle(code) },
  { aspect: 'behaviour', words: behaviour },
  { aspect: 'source', words: (code) => SOURCES[code.source] },
];

const SOURCES = { measured: 'measured', makersPaper: "maker's paper", hearsay: 'hearsay' } as const;

/** `10 to 32 in steps of 1`, or the values where they are few. */
export function rangeWords(code: Code): string {
  const values = valuesInOrder(code);
  if (code.encoding.kind === 'table' || code.encoding.kind === 'pair')
    return values.map((raw) => formatRaw(code, raw)).join(', ');
  return [
    plainRange(code),
    ...(code.otherRanges ?? []).map(
      ({ when, ...other }) =>
        `${plainRange({ ...code, ...other, decimals: other.decimals ?? code.decimals })} while ${when.code} is ${when.in.join(' or ')}`,
    ),
  ].join('; ');
}

function plainRange(code: Code): string {
  const { min, max, step } = code.range;
  return `${formatRaw(code, min)} to ${formatRaw(code, max)}${step === 1 ? '' : ` in steps of ${step}`}${code.skips?.length ? `, without ${code.skips.join(', ')}` : ''}`;
}

function meanings(code: Code): string {
  if (code.encoding.kind === 'line') {
    const { unit, scale, sentinels } = code.encoding;
    return [
      scale === 1 ? unit : `${scale} ${unit}`,
      ...sentinels.map((s) => `${formatRaw(code, s.raw)} ${s.title}`),
    ].join('; ');
  }
  return valuesInOrder(code)
    .map((raw) => `${formatRaw(code, raw)} ${meaningBeside(code, raw)}`.trim())
    .join('; ');
}

const ACCESS = {
  open: 'open',
  locked: 'locked: shown, does not move',
  pin: 'moves once the PIN was given',
  tool: "readable only with a maker's tool",
  never: 'left alone',
  absent: 'in the paper, not on the display',
} as const;

export const accessTitle = (code: Pick<Code, 'access'>): string => ACCESS[code.access];

const EFFECTS = { acts: 'acts', displayOnly: 'scales the display only', unverified: 'not verified to act' } as const;
const HOMES = {
  controller: 'in the controller',
  display: 'in the display',
  displayWhileAttached: 'in the display while attached',
  untilPackOut: 'until the pack comes out',
  profile: 'in each pack profile',
} as const;

/** How a value is changed, in words. */
export const EDIT_WORDS = {
  live: 'up and down act at once',
  focus: 'a key moves between name and value',
  enter: 'a key begins the edit and one ends it',
  digits: 'digit by digit',
} as const;

/** What storing this code does, when it acts, and where it is kept, in words. */
export function behaviour({
  effect,
  actsAfter,
  keptIn = 'controller',
  values,
  more,
  shownIf,
  deadIf,
  influences = [],
  action,
  holdErases,
  edit,
  encoding,
  doubts = [],
}: Code): string {
  return [
    EFFECTS[effect],
    actsAfter === 'once' ? 'at once' : 'after a restart',
    `kept ${HOMES[keptIn]}`,
    ...(edit ? [`changed in a way of its own: ${EDIT_WORDS[edit.style]}`] : []),
    ...(encoding.kind === 'pair'
      ? [
          `the ${encoding.turned === true ? 'down' : 'up'} key moves the first of its two`,
          ...[encoding.first, encoding.second].flatMap(({ up, down, values: ends }, half) =>
            up || down || ends
              ? [
                  `${half === 0 ? 'the first' : 'the second'}${up || down ? ' has keys of its own' : ''}${ends === 'stop' ? `${up || down ? ' and' : ''} stops at its ends` : ''}`,
                ]
              : [],
          ),
        ]
      : []),
    ...(values ? [values === 'wrap' ? 'values go round' : 'values stop at the ends'] : []),
    ...(more ? [`more is ${more}`] : []),
    ...(shownIf ? [`shown while ${shownIf.code} is ${shownIf.in.join(' or ')}`] : []),
    ...(deadIf ? [`does nothing while ${deadIf.code} is ${deadIf.in.join(' or ')}`] : []),
    ...influences.map(
      (each) =>
        `${each.kind} ${each.code}${each.kind === 'converts' && each.rounding === 'down' ? ', rounding down' : ''}`,
    ),
    ...(action ? [action === 'resetTrip' ? 'clears the trip when run' : 'restores everything when run'] : []),
    ...(holdErases ? [`a hold ${holdErases.says}`] : []),
    ...doubts.map(
      ({ raws, says }) => `${raws ? `${raws.join(' and ')} doubtful` : 'doubtful'}: ${says.replace(/\.$/, '')}`,
    ),
  ].join(', ');
}
