import fc from 'fast-check';
import type { Code, EditRules, Influence, KeyedMap, MenuRules, StoreRules } from '../display/map/display-map.js';
import { hold, tap } from '../display/map/gesture.js';
import { parseDisplayMap } from '../display/map/parse-display-map.js';
import { settableValues } from '../display/machine/display-state.js';
import { displayAtRest, valuesInOrder, type RawValues } from '../display/machine/simulate-display.js';
import { code, fourKey, line, words } from './samples.js';

export interface MapSize {
  readonly codes: number;
  readonly values: number;
}

/** Ways of single entries, beside whatever the menu's is. */
const OWN_EDITS: readonly EditRules[] = [
  { style: 'live', up: tap('up'), down: tap('down') },
  { style: 'focus', select: tap('mid'), up: tap('up'), down: tap('down') },
  {
    style: 'digits',
    begin: tap('mid'),
    count: tap('up'),
    back: tap('down'),
    walk: tap('mid'),
    end: hold(700, 'mid'),
  },
];

/** Two halves, one of them with keys of its own. */
function anyPair(index: number, size: number, at: number, isOwn: boolean): Code {
  const entries = Array.from({ length: Math.max(2, Math.min(3, size)) }, (_, raw) => ({
    raw,
    value: `w${raw}`,
    title: `w${raw}`,
  }));
  return code(`C${index}`, 'unknown', {
    range: { min: 0, max: 99, step: 1 },
    factory: (at % 2) * 10 + ((at >> 1) % 2),
    encoding: {
      kind: 'pair',
      first: { function: 'unknown', entries },
      second: {
        function: 'unknown',
        entries,
        ...(isOwn ? { up: tap('power'), down: hold(600, 'power'), values: 'stop' as const } : {}),
      },
    },
    access: at % 5 === 0 ? 'pin' : 'open',
    values: 'stop',
  });
}

const anyCode = (index: number, most: number): fc.Arbitrary<Code> =>
  fc
    .record({
      size: fc.integer({ min: 1, max: most }),
      first: fc.integer({ min: 0, max: 40 }),
      table: fc.boolean(),
      locked: fc.integer({ min: 0, max: 4 }),
      at: fc.nat(),
      wraps: fc.option(fc.constantFrom('wrap' as const, 'stop' as const)),
      erases: fc.integer({ min: 0, max: 5 }),
      own: fc.nat({ max: 4 * OWN_EDITS.length }),
      pair: fc.integer({ min: 0, max: 5 }),
    })
    .map(({ size, first, table, locked, at, wraps, erases, own, pair }) => {
      if (pair === 0) return anyPair(index, size, at, erases === 0);
      const edit = OWN_EDITS[own];
      const raws = Array.from({ length: size }, (_, i) => first + i);
      return code(`C${index}`, 'unknown', {
        range: { min: first, max: first + size - 1, step: 1 },
        factory: raws[at % size] ?? first,
        encoding: table ? words(...[...raws].reverse().map((raw) => [raw, `w${raw}`] as const)) : line(''),
        access: locked === 0 ? 'locked' : locked === 1 ? 'pin' : 'open',
        ...(wraps ? { values: wraps } : {}),
        ...(edit ? { edit } : {}),
        ...(erases === 0 ? { holdErases: { gesture: hold(3000, 'down'), says: 'clears it' } } : {}),
      });
    });

const EDITS: readonly EditRules[] = [
  { style: 'live', up: tap('up'), down: tap('down') },
  { style: 'focus', select: tap('mid'), up: tap('up'), down: tap('down') },
  { style: 'enter', begin: hold(800, 'mid'), end: tap('mid'), abandon: tap('set'), up: tap('up'), down: tap('down') },
  { style: 'digits', begin: hold(900, 'up'), count: tap('up'), walk: hold(700, 'mid') },
];

const STORES: readonly StoreRules[] = [
  { on: 'change' },
  { on: 'move' },
  { on: 'endOfEdit' },
  { on: 'leave' },
  { on: 'gesture', by: hold(1200, 'mid', 'down') },
  { on: 'move', message: { text: 'SAVE', ms: 800 } },
  { on: 'change', message: { text: 'OK', ms: 300 } },
  { on: 'endOfEdit', pause: { ms: 900, does: 'store' } },
  {
    on: 'gesture',
    by: hold(1200, 'mid', 'down'),
    pause: { ms: 2500, does: 'store' },
    message: { text: 'SAVE', ms: 400 },
  },
  { on: 'move', pause: { ms: 3000, does: 'drop' } },
];

const anyMenu = (codes: readonly Code[]): fc.Arbitrary<MenuRules> =>
  fc
    .record({
      edit: fc.constantFrom(...EDITS),
      store: fc.constantFrom(...STORES),
      afterLast: fc.constantFrom('wrap' as const, 'leave' as const, 'stop' as const),
      values: fc.constantFrom('wrap' as const, 'stop' as const),
      back: fc.boolean(),
      close: fc.option(fc.constant(hold(1500, 'set'))),
      repeat: fc.option(fc.constantFrom({ delayMs: 600, everyMs: 200 }, { delayMs: 500, everyMs: 100 })),
      pin: fc.integer({ min: 0, max: 4 }),
      pinAt: fc.constantFrom('opening' as const, 'entry' as const),
      pinBack: fc.boolean(),
      shut: fc.boolean(),
      shared: fc.boolean(),
      split: fc.nat(),
      turnBack: fc.boolean(),
      idle: fc.constantFrom('keep' as const, 'drop' as const),
      reopensAt: fc.constantFrom('first' as const, 'same' as const),
    })
    .map((chosen) => {
      const { edit, store, afterLast, values, back, close, repeat, split, turnBack, idle, reopensAt } = chosen;
      const isAtEntries = chosen.pinAt === 'entry' && chosen.pin === 0;
      const at = 1 + (split % codes.length);
      const lists = [codes.slice(0, at), codes.slice(at)].filter((list) => list.length > 0);
      const isTwo = lists.length === 2;
      const [common] = codes;
      return {
        opens: [{ gesture: hold(2000, 'set', 'up'), from: 'riding', page: 'p0' }],
        pin:
          chosen.pin === 0
            ? {
                factory: '13',
                up: tap('up'),
                down: tap('down'),
                ...(chosen.pinBack ? { back: tap('back') } : {}),
                walk: tap('set'),
                enter: tap('mid'),
                ...(isAtEntries ? { asks: 'entry' as const, wrong: 'back' as const } : { wrong: 'again' as const }),
              }
            : null,
        close,
        pages: lists.map((list, i) => ({
          id: `p${i}`,
          title: `Page ${i}`,
          items: [...list, ...(isTwo && i === 1 && chosen.shared && common ? [common] : [])].map(({ label }) => ({
            code: label,
          })),
          ...(isAtEntries && chosen.shut && i === 1 ? { asksPin: true as const } : {}),
        })),
        turns: isTwo
          ? [
              { gesture: hold(1000, 'set', 'down'), from: 'p0', to: 'p1' },
              ...(turnBack ? [{ gesture: hold(1000, 'set', 'down'), from: 'p1', to: 'p0' }] : []),
            ]
          : [],
        next: tap('set'),
        previous: back ? tap('back') : null,
        afterLast,
        pick: null,
        edit,
        values,
        repeat,
        store,
        idle: { browseMs: 6000, editMs: 7000, pinMs: 6000, unstored: idle, reopensAt },
      };
    });

const KEYS = ['set', 'mid', 'up', 'down', 'back', 'power'].map((id) => ({ id, label: id }));

/** Maps of every style of menu there is, sound ones only. */
export const anyMap = ({ codes, values }: MapSize): fc.Arbitrary<KeyedMap> =>
  fc
    .integer({ min: 1, max: codes })
    .chain((count) => fc.tuple(...Array.from({ length: count }, (_, i) => anyCode(i, values))))
    .chain((list) =>
      anyMenu(list).map((menu): KeyedMap => ({
        ...fourKey,
        keys: KEYS,
        dangers: [{ gesture: hold(4000, 'down'), caution: 'starts the motor' }],
        codes: list,
        menu,
      })),
    )
    .filter((map) => parseDisplayMap(map).ok);

/** A map and a raw target, settable in itself, for some of its codes. */
export const anyTargets = (
  maps: fc.Arbitrary<KeyedMap>,
): fc.Arbitrary<{ readonly map: KeyedMap; readonly targets: RawValues }> =>
  maps.chain((map) =>
    fc
      .tuple(
        ...map.codes.map((c) =>
          fc.option(
            fc.nat().map((n) => valuesInOrder(c)[n % valuesInOrder(c).length] ?? c.factory),
            { nil: undefined },
          ),
        ),
      )
      .map((picks) => ({
        map,
        targets: Object.fromEntries(
          map.codes.flatMap((c, i) => (picks[i] === undefined ? [] : [[c.label, picks[i]]])),
        ) as RawValues,
      })),
  );

const influences = fc.constantFrom<Influence>(
  { kind: 'limits', code: 'C1', as: 'most' },
  { kind: 'limits', code: 'C1', as: 'least' },
  { kind: 'resets', code: 'C1' },
);
/** One of the first two codes bounds or resets the other. */
const tangled = fc
  .tuple(anyMap({ codes: 3, values: 4 }), influences, fc.boolean())
  .map(([map, influence, isTurned]): KeyedMap => {
    const source = isTurned ? 'C1' : 'C0';
    const turned = isTurned ? { ...influence, code: 'C0' } : influence;
    return {
      ...map,
      codes: map.codes.map((c) => (c.label === source && map.codes.length > 1 ? { ...c, influences: [turned] } : c)),
    };
  })
  // As the maker delivers it no bound is broken.
  .filter(
    (map) =>
      parseDisplayMap(map).ok && map.codes.every((c) => settableValues(map, displayAtRest(map), c).includes(c.factory)),
  );
/** A target for every code of such a map. */
export const anyTangledTargets = tangled.chain((map) =>
  anyTargets(fc.constant(map)).map(({ targets }) => ({
    map,
    targets: { ...Object.fromEntries(map.codes.map((c) => [c.label, c.factory])), ...targets },
  })),
);
