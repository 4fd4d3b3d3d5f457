import type { Problem } from '../../result.js';
import type { Code, DisplayMap } from './display-map.js';
import { formatRaw, onGrid, roundRaw, valuesInOrder } from './raw-value.js';

/** What the codes of a map say of themselves and of each other: labels, ranges, references, conditions. */
export function checkCodes(map: DisplayMap): Problem[] {
  return [
    ...labels(map),
    ...map.codes.flatMap((code, i) => [...values(code, i), ...references(map, code, i)]),
    ...map.codes.flatMap((code, i) => [...words(code, i), ...doubts(code, i), ...halves(code, i)]),
    ...map.codes.flatMap((code, i) => otherRanges(map, code, i)),
    ...restartless(map),
    ...conditionLoops(map),
    ...icons(map),
  ];
}

function labels({ codes }: DisplayMap): Problem[] {
  const firstAt = new Map<string, number>();
  return codes.flatMap(({ label }, i) => {
    if (label in Object.prototype)
      return [
        {
          code: 'reserved',
          path: `codes[${i}].label`,
          message: `No code can be called "${label}": write it otherwise.`,
        },
      ];
    const earlier = firstAt.get(label);
    if (earlier === undefined) firstAt.set(label, i);
    return earlier === undefined
      ? []
      : [
          {
            code: 'twiceLabelled',
            path: `codes[${i}].label`,
            message: `${label} already stands at codes[${earlier}]. Give one of them another label, and "shownAs" where the glass shows both alike.`,
          },
        ];
  });
}

/** Nobody steps through more. */
const MOST_VALUES = 100_000;

function values(code: Code, i: number): Problem[] {
  const { label, range, encoding, skips = [] } = code;
  const path = `codes[${i}]`;
  if (range.min > range.max)
    return [
      {
        code: 'emptyRange',
        path: `${path}.range`,
        message: `${label} runs from ${range.min} to ${range.max}: nothing lies between.`,
      },
    ];
  // What cannot be set is never stepped through: an odometer may run as far as it likes.
  if (code.access !== 'locked' && (range.max - range.min) / range.step > MOST_VALUES)
    return [
      {
        code: 'hugeRange',
        path: `${path}.range`,
        message: `${label} would have more than ${MOST_VALUES.toLocaleString('en')} values.`,
      },
    ];
  const problems: Problem[] = [];
  const entries = encoding.kind === 'table' ? encoding.entries : [];
  entries.forEach(({ raw, value }, n) => {
    const twin = entries.findIndex((other) => other.raw === raw);
    if (twin < n)
      problems.push({
        code: 'twiceEncoded',
        path: `${path}.encoding.entries[${n}].raw`,
        message: `${label} says twice what ${raw} means.`,
      });
    if (raw < range.min || raw > range.max)
      problems.push({
        code: 'entryOutside',
        path: `${path}.encoding.entries[${n}].raw`,
        message: `${value} is ${raw}, outside the range ${range.min} to ${range.max} of ${label}.`,
      });
  });
  const written = [
    ...entries.map(({ raw }, n) => [raw, `${path}.encoding.entries[${n}].raw`] as const),
    ...(encoding.kind === 'line'
      ? encoding.sentinels.map(({ raw }, n) => [raw, `${path}.encoding.sentinels[${n}].raw`] as const)
      : []),
    [code.factory, `${path}.factory`] as const,
    ...(['min', 'max', 'step'] as const).map((end) => [range[end], `${path}.range.${end}`] as const),
  ];
  for (const [raw, where] of written)
    if (roundRaw(code, raw) !== raw)
      problems.push({
        code: 'tooFine',
        path: where,
        message: `${label} shows ${code.decimals === 0 ? 'no decimals' : `${code.decimals} of them`}, and ${raw} has more.`,
      });
  if (!onGrid(code, code.factory))
    problems.push({
      code: 'factoryOutside',
      path: `${path}.factory`,
      message: `${label} cannot show its factory value ${formatRaw({ decimals: code.decimals }, code.factory)}.`,
    });
  if (skips.length > 0 && skips.length >= (range.max - range.min) / range.step && valuesInOrder(code).length === 0)
    problems.push({ code: 'noValues', path: `${path}.skips`, message: `${label} skips every value it has.` });
  skips.forEach((raw, n) => {
    if (raw < range.min || raw > range.max)
      problems.push({
        code: 'skipOutside',
        path: `${path}.skips[${n}]`,
        message: `${label} cannot skip ${raw}: it is outside the range.`,
      });
  });
  code.wheelTable?.forEach(({ raw }, n) => {
    if (!onGrid(code, raw))
      problems.push({
        code: 'wheelOutside',
        path: `${path}.wheelTable[${n}].raw`,
        message: `${label} cannot show ${raw}.`,
      });
  });
  if (code.action !== undefined && !(onGrid(code, 0) && onGrid(code, 1)))
    problems.push({
      code: 'actionValues',
      path: `${path}.action`,
      message: `${label} is an action: it needs the values 0 (no) and 1 (yes).`,
    });
  return problems;
}

/** Words on the glass: of values it can have, each of its own, and none that reads as another value's digits. */
function words(code: Code, i: number): Problem[] {
  const { shows } = code;
  if (!shows) return [];
  return shows.flatMap(({ raw, text }, n) => {
    const path = `codes[${i}].shows[${n}]`;
    if (!onGrid(code, raw))
      return [{ code: 'neverShown', path: `${path}.raw`, message: `${code.label} can never be ${raw}.` }];
    const twin = shows.findIndex((other) => other.raw === raw || sameWord(other.text, text));
    if (twin < n)
      return [
        { code: 'twiceShown', path, message: `${code.label} shows the same for two values, or two words for one.` },
      ];
    const other = Number(text.trim());
    return text.trim() !== '' && other !== raw && onGrid(code, other)
      ? [
          {
            code: 'readsAsDigits',
            path: `${path}.text`,
            message: `"${text}" on the glass would be read as the value ${other} of ${code.label}.`,
          },
        ]
      : [];
  });
}

const sameWord = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const doubts = (code: Code, i: number): Problem[] =>
  (code.doubts ?? []).flatMap(({ raws = [] }, n) =>
    raws.flatMap((raw, r) =>
      onGrid(code, raw)
        ? []
        : [
            {
              code: 'neverShown',
              path: `codes[${i}].doubts[${n}].raws[${r}]`,
              message: `${code.label} can never be ${raw}.`,
            },
          ],
    ),
  );

/** A half that stops at its end and only goes up stays there for good. */
const halves = ({ label, encoding }: Code, i: number): Problem[] =>
  encoding.kind === 'pair'
    ? (['first', 'second'] as const).flatMap((which) =>
        encoding[which].values === 'stop' && encoding[which].down === undefined
          ? [
              {
                code: 'noWayBack',
                path: `codes[${i}].encoding.${which}`,
                message: `The ${which} half of ${label} stops at its end: say which key moves it down.`,
              },
            ]
          : [],
      )
    : [];

/** Other ranges hang on a units code, and run from least to most. */
function otherRanges(map: DisplayMap, code: Code, i: number): Problem[] {
  return (code.otherRanges ?? []).flatMap(({ when, range, factory, decimals = code.decimals }, n) => {
    const path = `codes[${i}].otherRanges[${n}]`;
    const by = map.codes.find(({ label }) => label === when.code);
    const now: Code = { ...code, range, decimals, factory: factory ?? code.factory };
    if (code.encoding.kind !== 'line')
      return [{ code: 'notALine', path, message: `${code.label} has words, and they are the same in every unit.` }];
    if (by?.function !== 'units' && by?.function !== 'temperatureUnit')
      return [{ code: 'noUnits', path: `${path}.when.code`, message: `${when.code} is no code of units.` }];
    return [
      ...values(now, i).map((problem) => ({
        ...problem,
        path: problem.path?.replace(`codes[${i}].`, `${path}.`) ?? path,
      })),
      ...when.in.flatMap((raw, r) =>
        onGrid(by, raw)
          ? []
          : [{ code: 'neverShown', path: `${path}.when.in[${r}]`, message: `${by.label} can never be ${raw}.` }],
      ),
    ];
  });
}

/** What a change of units reckons anew: speeds and ways. A wheel called 26 is a name, and volts are volts in any country. */
const CONVERTED: ReadonlySet<string> = new Set(['km/h', 'mph', 'km', 'mi']);

function notConverted(map: DisplayMap, code: Code, i: number): Problem[] {
  return (code.influences ?? []).flatMap((influence, n) => {
    const other = map.codes.find(({ label }) => label === influence.code);
    if (influence.kind !== 'converts' || !other) return [];
    const { encoding } = other;
    return encoding.kind === 'line' && CONVERTED.has(encoding.unit)
      ? []
      : [
          {
            code: 'notConverted',
            path: `codes[${i}].influences[${n}].code`,
            message: `${other.label} is no speed and no way: a change of units leaves its digits alone.`,
          },
        ];
  });
}

/** A bound is more or less of one thing: digits that stand for two have no order. */
const unordered = (map: DisplayMap, code: Code, i: number): Problem[] =>
  (code.influences ?? []).flatMap(({ kind, code: label }, n) => {
    const other = map.codes.find((each) => each.label === label);
    const pair = [code, other].find((each) => each?.encoding.kind === 'pair');
    return kind === 'limits' && pair
      ? [
          {
            code: 'unordered',
            path: `codes[${i}].influences[${n}]`,
            message: `${pair.label} carries two functions: it neither bounds another code nor is bounded.`,
          },
        ]
      : [];
  });

function references(map: DisplayMap, code: Code, i: number): Problem[] {
  const known = new Map(map.codes.map((other) => [other.label, other]));
  const problems: Problem[] = [];
  const named = (label: string, path: string): Code | undefined => {
    const other = known.get(label);
    if (!other) problems.push({ code: 'unknownCode', path, message: `There is no code "${label}" in codes.` });
    else if (label === code.label) problems.push({ code: 'ownCode', path, message: `${label} names itself.` });
    return other;
  };
  problems.push(...notConverted(map, code, i), ...unordered(map, code, i));
  code.influences?.forEach((influence, n) => named(influence.code, `codes[${i}].influences[${n}].code`));
  if (code.encoding.kind === 'line' && code.encoding.follows !== undefined)
    named(code.encoding.follows, `codes[${i}].encoding.follows`);
  for (const field of ['shownIf', 'deadIf'] as const) {
    const condition = code[field];
    if (!condition) continue;
    const other = named(condition.code, `codes[${i}].${field}.code`);
    condition.in.forEach((raw, n) => {
      if (other && !onGrid(other, raw))
        problems.push({
          code: 'neverShown',
          path: `codes[${i}].${field}.in[${n}]`,
          message: `${other.label} can never be ${raw}.`,
        });
    });
  }
  return problems;
}

/** A code that waits for a power cycle, where nobody says how power is cycled. */
function restartless({ codes, restart }: DisplayMap): Problem[] {
  const first = codes.findIndex(({ actsAfter }) => actsAfter === 'restart');
  return restart.length > 0 || first === -1
    ? []
    : [
        {
          code: 'noRestart',
          path: `codes[${first}].actsAfter`,
          message: `${codes[first]?.label} acts after a restart: say in "restart" what is done for one.`,
        },
      ];
}

/** Codes that are shown only if one another is shown: none of them would ever come on the glass by itself. */
function conditionLoops(map: DisplayMap): Problem[] {
  const by = new Map(map.codes.map((code) => [code.label, code.shownIf?.code]));
  return map.codes.flatMap((code, i) => {
    const way = [code.label];
    for (let at = by.get(code.label); at !== undefined; at = by.get(at)) {
      if (at === code.label)
        return [
          {
            code: 'conditionLoop',
            path: `codes[${i}].shownIf`,
            message: `${[...way, at].join(' is shown by ')}: a circle.`,
          },
        ];
      if (way.includes(at)) return [];
      way.push(at);
    }
    return [];
  });
}

const icons = ({ icons: all = [], codes }: DisplayMap): Problem[] =>
  all.flatMap(({ litIf }, i) =>
    codes.some((code) => code.label === litIf.code)
      ? []
      : [
          {
            code: 'unknownCode',
            path: `icons[${i}].litIf.code`,
            message: `There is no code "${litIf.code}" in codes.`,
          },
        ],
  );
