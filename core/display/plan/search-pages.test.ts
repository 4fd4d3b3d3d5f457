import fc from 'fast-check';
import { expect, it } from 'vitest';
import { howOften } from '../../testing/how-often.js';
import { code, fourKey } from '../../testing/samples.js';
import { displayAtRest } from '../machine/display-state.js';
import type { KeyedMap, MenuRules } from '../map/display-map.js';
import { hold, tap } from '../map/gesture.js';
import { parseDisplayMap } from '../map/parse-display-map.js';
import { gaveUp } from './cheapest-path.js';
import { gestureMs, type Pace } from './pace.js';
import { startState } from './plan-keys.js';
import { searchReading } from './plan-readout.js';
import { searchKeys } from './search-keys.js';
import { travelBound } from './travel-bound.js';

const RUNS = howOften(40, Number(process.env['DECURIO_PLANS'] ?? 2_000));
/** Menus that take more to look everywhere are left out. */
const MOST_NODES = 2_500;
const PACE: Pace = { tapMs: 300, holdExtraMs: 200, lookMs: 500 };

type Line = 'code' | 'way';

interface PageDrawn {
  /** Ways lead back to the first page, and from there to others. */
  readonly lines: readonly Line[];
  readonly afterLast: 'wrap' | 'stop' | 'leave';
}

const page = fc.record<PageDrawn>({
  lines: fc.array(fc.oneof({ weight: 3, arbitrary: fc.constant<Line>('code') }, fc.constant<Line>('way')), {
    minLength: 1,
    maxLength: 5,
  }),
  afterLast: fc.constantFrom('wrap', 'wrap', 'stop', 'leave'),
});

const menu = fc.record({
  pages: fc.array(page, { minLength: 2, maxLength: 4 }),
  goesBack: fc.boolean(),
  closes: fc.boolean(),
  turns: fc.array(fc.tuple(fc.nat(3), fc.nat(3)), { maxLength: 2 }),
  idleMs: fc.constantFrom(4_000, 9_000, 60_000),
  message: fc.boolean(),
  storesOnLeaving: fc.boolean(),
  keeps: fc.boolean(),
});

type MenuDrawn = typeof menu extends fc.Arbitrary<infer Drawn> ? Drawn : never;

/** Pages of codes that are entered from the first one, go back to it, or turn over to one another. */
function mapOf({ pages, goesBack, closes, turns, idleMs, message, storesOnLeaving, keeps }: MenuDrawn): KeyedMap {
  const id = (p: number): string => `p${p % pages.length}`;
  const label = (p: number, i: number): string => `${p}.${i}`;
  const last = (p: number) => (p === 0 ? pages.slice(1).map((_, n) => n + 1) : [0]);
  const codes = pages.flatMap(({ lines }, p) =>
    lines.flatMap((line, i) =>
      line === 'code' ? [code(label(p, i), 'unknown', { range: { min: 0, max: 1, step: 1 }, factory: 0 })] : [],
    ),
  );
  const way = (from: number, to: number) =>
    from === 0 ? { title: `Page ${to}`, page: id(to) } : { title: 'Back', back: id(0) };
  const items = ({ lines }: PageDrawn, p: number): MenuRules['pages'][number]['items'] => [
    ...lines.map((line, i) => (line === 'code' ? { code: label(p, i) } : way(p, 1 + (i % (pages.length - 1))))),
    ...last(p).map((to) => way(p, to)),
  ];
  return {
    ...fourKey,
    codes,
    menu: {
      ...fourKey.menu,
      opens: [{ gesture: hold(2000, 'set', 'up'), from: 'riding', page: 'p0' }],
      pages: pages.map((drawn, p) => ({
        id: id(p),
        title: `Page ${p}`,
        afterLast: drawn.afterLast,
        items: items(drawn, p),
      })),
      turns: turns
        .filter(([from, to]) => id(from) !== id(to))
        .slice(0, 1)
        .map(([from, to]) => ({ gesture: hold(1200, 'down'), from: id(from), to: id(to) })),
      previous: goesBack ? tap('down') : null,
      edit: { style: 'live', up: hold(900, 'up'), down: hold(900, 'set', 'down') },
      pick: tap('up'),
      close: closes ? hold(1500, 'set') : null,
      idle: { ...fourKey.menu.idle, browseMs: idleMs, editMs: idleMs, unstored: keeps ? 'keep' : 'drop' },
      store: {
        on: storesOnLeaving ? 'leave' : 'move',
        ...(message ? { message: { text: 'SAVE', ms: 1200 } } : {}),
      },
    },
  };
}

it('finds what is found by looking everywhere, however the codes lie on pages', () => {
  let [compared, sooner] = [0, 0];
  fc.assert(
    fc.property(menu, fc.infiniteStream(fc.boolean()), (drawn, chosen) => {
      const map = mapOf(drawn);
      fc.pre(parseDisplayMap(map).ok);
      const targets = Object.fromEntries(
        map.codes.flatMap(({ label }) => (chosen.next().value === true ? [[label, 1] as const] : [])),
      );
      const from = displayAtRest(map);
      const everywhere = searchKeys(map, from, targets, PACE, { weight: 0, mostNodes: MOST_NODES });
      fc.pre(!gaveUp(everywhere));
      const found = searchKeys(map, from, targets, PACE, { mostNodes: MOST_NODES });
      if (gaveUp(found) || found === null || everywhere === null) {
        expect(found).toBe(everywhere);
        return;
      }
      expect(found.ms).toBeCloseTo(everywhere.ms, 6);
      compared++;
      if (found.expanded < everywhere.expanded) sooner++;
    }),
    { numRuns: RUNS, seed: 20261130 },
  );
  expect(sooner).toBeGreaterThan(compared / 2);
});

it('reads all codes as soon as looking everywhere does', () => {
  fc.assert(
    fc.property(menu, (drawn) => {
      const map = mapOf(drawn);
      fc.pre(parseDisplayMap(map).ok);
      const from = displayAtRest(map);
      const labels = map.codes.map(({ label }) => label);
      const everywhere = searchReading(map, from, labels, PACE, { weight: 0, mostNodes: MOST_NODES });
      fc.pre(!gaveUp(everywhere));
      const found = searchReading(map, from, labels, PACE, { mostNodes: MOST_NODES });
      if (gaveUp(found) || found === null || everywhere === null) {
        expect(found).toBe(everywhere);
        return;
      }
      expect(found.ms).toBeCloseTo(everywhere.ms, 6);
    }),
    { numRuns: RUNS, seed: 20261130 },
  );
});

interface LongPage {
  readonly count: number;
  readonly wanted: readonly number[];
  readonly afterLast: 'wrap' | 'stop';
}

const longPage = fc.record<LongPage>({
  count: fc.integer({ min: 12, max: 30 }),
  // Most of them near the first entry, on either side of it.
  wanted: fc.uniqueArray(fc.oneof(fc.integer({ min: -5, max: 5 }), fc.nat(29)), { minLength: 2, maxLength: 4 }),
  afterLast: fc.constantFrom('wrap', 'stop'),
});

/** Long pages and a page of one entry aside, of which one key turns over each to the next, all round. */
function longPages(pages: readonly LongPage[]): KeyedMap {
  const own = (label: string) => code(label, 'unknown', { range: { min: 0, max: 1, step: 1 }, factory: 0 });
  const codesOf = pages.map(({ count }, p) => [...Array(count).keys()].map((i) => own(`${p}.${i}`)));
  const ids = [...pages.map((_, p) => `long${p}`), 'aside'];
  return {
    ...fourKey,
    codes: [...codesOf.flat(), own('aside')],
    menu: {
      ...fourKey.menu,
      opens: [{ gesture: hold(2000, 'set', 'up'), from: 'riding', page: 'long0' }],
      pages: [
        ...pages.map(({ afterLast }, p) => ({
          id: `long${p}`,
          title: `Long ${p}`,
          afterLast,
          items: (codesOf[p] ?? []).map(({ label }) => ({ code: label })),
        })),
        { id: 'aside', title: 'Aside', items: [{ code: 'aside' }] },
      ],
      turns: ids.map((from, i) => ({ gesture: tap('power'), from, to: ids[(i + 1) % ids.length] ?? '' })),
      previous: tap('down'),
      edit: { style: 'live', up: hold(900, 'up'), down: hold(900, 'set', 'down') },
      idle: { ...fourKey.menu.idle, browseMs: 60_000, editMs: 60_000 },
    },
  };
}

it('leaves a long page and comes back as often as that is sooner, wherever one begins', () => {
  const drawn = fc.record({
    pages: fc.oneof(fc.tuple(longPage), fc.tuple(longPage, longPage)),
    isAsideWanted: fc.boolean(),
    begins: fc.oneof(
      fc.constantFrom('outside' as const, 'aside' as const),
      fc.record({ page: fc.nat(1), line: fc.nat(29) }),
    ),
  });
  fc.assert(
    fc.property(drawn, ({ pages, isAsideWanted, begins }) => {
      const map = longPages(pages);
      const label = (p: number, i: number): string => {
        const count = pages[p]?.count ?? 1;
        return `${p}.${(i + count) % count}`;
      };
      // Two pages of four entries each are too much to look everywhere.
      const most = pages.length === 1 ? 4 : 3;
      const wanted = pages.flatMap((page, p) => page.wanted.slice(0, most).map((i) => label(p, i)));
      const targets = Object.fromEntries([...wanted, ...(isAsideWanted ? ['aside'] : [])].map((each) => [each, 1]));
      const at = typeof begins === 'string' ? begins : label(begins.page % pages.length, begins.line);
      const from = at === 'outside' ? displayAtRest(map) : startState(map, { values: {}, at });
      const everywhere = searchKeys(map, from, targets, PACE, { weight: 0, mostNodes: 50_000 });
      const found = searchKeys(map, from, targets, PACE, { mostNodes: 50_000 });
      if (everywhere === null || gaveUp(everywhere) || found === null || gaveUp(found)) throw new Error('no way found');
      expect(found.ms).toBeCloseTo(everywhere.ms, 6);
      const open = map.codes.filter((each) => targets[each.label] === 1);
      const editMs = open.length * gestureMs(PACE, hold(900, 'up'));
      expect(travelBound(map, PACE, open)(from, open)).toBeLessThanOrEqual(everywhere.ms - editMs + 1e-6);
    }),
    {
      numRuns: RUNS,
      seed: 20261130,
      // Out and in again twice is soonest: for what lies on either side of the entry.
      examples: [
        [
          {
            pages: [{ count: 20, wanted: [4, -1, -4, 1], afterLast: 'wrap' }],
            isAsideWanted: false,
            begins: { page: 0, line: 10 },
          },
        ],
      ],
    },
  );
});
