import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  displayAtRest,
  fullMap,
  isKeyed,
  naiveWalk,
  planKeys,
  planReadout,
  pressCount,
  valuesInOrder,
} from '@decurio/core';
import { ROOT } from '../lib/paths.mjs';

/** @typedef {import('@decurio/core').DisplayMap} DisplayMap */
/** @typedef {{ what: string, value: number, unit: string, yardstick: string, yardstickValue: number, limit: string }} PlanFigure */

const RUNS = 9;
const CODES = 60;
const CHANGES = 25;
const PAGES = 6;

/** Key plans against a walk through every code, for each map that ships, and a large map timed.
 * @returns {PlanFigure[]} */
export function planFigures() {
  const shelf = join(ROOT, 'demo', 'maps');
  const maps = readdirSync(shelf).map(
    (file) => /** @type {DisplayMap} */ (fullMap(JSON.parse(readFileSync(join(shelf, file), 'utf8')))),
  );
  return [
    ...maps.filter(isKeyed).flatMap(savedOn),
    ...largeMaps(/** @type {DisplayMap} */ (maps.find((map) => map.id === 'fescue-three-key'))),
  ];
}

/** @param {DisplayMap} map @returns {PlanFigure[]} */
function savedOn(map) {
  const targets = everyThird(map);
  const plan = planKeys(map, targets, { values: {}, at: null });
  const walk = naiveWalk(map, targets, {});
  if (!walk) return [];
  const count = Object.keys(targets).length;
  return [
    {
      what: `${map.name} ${map.revision}, ${count} codes: presses`,
      value: pressCount(plan),
      unit: '',
      yardstick: 'every code in turn',
      yardstickValue: walk.presses,
      limit: 'fewer seconds',
    },
    {
      what: `${map.name} ${map.revision}, ${count} codes: seconds`,
      value: plan.estimatedMs / 1000,
      unit: 's',
      yardstick: 'every code in turn',
      yardstickValue: walk.ms / 1000,
      limit: 'fewer seconds',
    },
  ];
}

/** One code in three that keys move and no other code drags along, two values on.
 * @param {DisplayMap} map @returns {Record<string, number>} */
function everyThird(map) {
  const dragged = new Set(map.codes.flatMap((code) => (code.influences ?? []).map((i) => i.code)));
  const movable = map.codes.filter(
    (code) =>
      (code.access === 'open' || code.access === 'pin') &&
      !code.action &&
      !code.shownIf &&
      code.function !== 'accessPin' &&
      !dragged.has(code.label),
  );
  return Object.fromEntries(
    movable
      .filter((_, i) => i % 3 === 1 || movable.length < 6)
      .map((code) => {
        const values = valuesInOrder(code);
        const at = values.indexOf(code.factory);
        const further = values[(at + 2) % values.length];
        return [code.label, (further === code.factory ? values[(at + 1) % values.length] : further) ?? code.factory];
      }),
  );
}

/** @param {DisplayMap} base @returns {PlanFigure[]} */
function largeMaps(base) {
  const codes = Array.from(
    { length: CODES },
    (_, i) =>
      /** @type {DisplayMap['codes'][number]} */ ({
        label: `C${i}`,
        function: 'unknown',
        range: { min: 0, max: 20, step: 1 },
        decimals: 0,
        factory: 10,
        encoding: { kind: 'line', scale: 1, unit: '', sentinels: [] },
        access: 'open',
        effect: 'acts',
        actsAfter: 'once',
        source: 'measured',
      }),
  );
  const targets = Object.fromEntries(
    codes.filter((_, i) => (i * 7) % CODES < CHANGES).map((code, i) => [code.label, 10 + ((i % 9) - 4 || 5)]),
  );
  /** @param {Partial<NonNullable<DisplayMap['menu']>>} menu */
  const map = (menu) =>
    /** @type {DisplayMap} */ ({
      ...base,
      codes,
      menu: base.menu && {
        ...base.menu,
        idle: { ...base.menu.idle, reopensAt: 'first' },
        pages: [{ id: 'main', title: 'Menu', items: codes.map(({ label }) => ({ code: label })) }],
        ...menu,
      },
    });
  const cases = /** @type {const} */ ([
    ['both ways round a ring', {}, 'under 50 ms'],
    ['next only', { previous: null }, 'under 50 ms'],
    ['a list that closes at its end', { afterLast: 'leave' }, 'under 50 ms'],
    [`on ${PAGES} pages, both ways`, onPages(codes, {}), 'under 150 ms'],
    [`on ${PAGES} pages, next only`, onPages(codes, { previous: null }), 'under 150 ms'],
  ]);
  const yardstick = median(() => walkAll(map({})));
  return [
    ...cases.map(([how, menu, limit]) => ({
      what: `Plan of ${CHANGES} changes among ${CODES} codes, ${how}`,
      value: median(() => planKeys(map(menu), targets, { values: {}, at: null })),
      unit: 'ms',
      yardstick: 'naive walk over the same',
      yardstickValue: yardstick,
      limit,
    })),
    {
      what: `Read-out plan of ${CODES} codes`,
      value: median(() => planReadout(map({}), { values: {}, at: null })),
      unit: 'ms',
      yardstick: 'naive walk over the same',
      yardstickValue: yardstick,
      limit: '',
    },
  ];
  /** @param {DisplayMap} large */
  function walkAll(large) {
    naiveWalk(large, targets, displayAtRest(large).stored);
  }
}

/** So many pages, entered from a page that names them and that each of them leads back to.
 * @param {DisplayMap['codes']} codes @param {Partial<NonNullable<DisplayMap['menu']>>} menu
 * @returns {Partial<NonNullable<DisplayMap['menu']>>} */
function onPages(codes, menu) {
  const each = codes.length / PAGES;
  const ids = Array.from({ length: PAGES }, (_, p) => `p${p}`);
  return {
    ...menu,
    afterLast: 'wrap',
    pick: { kind: 'hold', keys: ['mid'], ms: 900 },
    pages: [
      { id: 'main', title: 'Index', items: ids.map((page, p) => ({ title: `Page ${p + 1}`, page })) },
      ...ids.map((id, p) => ({
        id,
        title: `Page ${p + 1}`,
        items: [
          ...codes.slice(p * each, (p + 1) * each).map(({ label }) => ({ code: label })),
          { title: 'Back', back: 'main' },
        ],
      })),
    ],
  };
}

/** Median time in ms of several runs, the first ones left to warm up.
 * @param {() => unknown} work */
function median(work) {
  for (let i = 0; i < 3; i++) work();
  const times = Array.from({ length: RUNS }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
  return /** @type {number} */ (times.sort((a, b) => a - b)[Math.floor(RUNS / 2)]);
}
