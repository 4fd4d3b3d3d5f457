import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { compileSetup, fullMap, PLAIN_TERMS } from '@decurio/core';
import { ROOT } from '../lib/paths.mjs';

/** @param {string} path */
const demo = (path) => JSON.parse(readFileSync(join(ROOT, 'demo', path), 'utf8'));

const KINDS = /** @type {const} */ ([
  ['samphire-26', 'tallow-four-key', 'pedelec-25'],
  ['cockle-20', 'fescue-three-key', 'pedelec-25'],
  ['petrel-10', 'limpet-modes', 'scooter-20'],
]);
const UNITS = 10_000;
const READ_UNITS = 1_000;

/** The setups of 10,000 units of three types, no two with the same meter reading, codes and speed ratio; first and later rounds. */
export function setupFigures() {
  const pack = demo('rules/port-isel.json');
  const houseRules = demo('rules/hire-default.json');
  const orders = KINDS.map(([type, map, classId]) => ({
    type: demo(`types/${type}.json`),
    map: /** @type {import('@decurio/core').DisplayMap} */ (fullMap(demo(`maps/${map}.json`))),
    vehicleClass: pack.classes.find((/** @type {{ id: string }} */ each) => each.id === classId),
    houseRules,
    terms: PLAIN_TERMS,
    today: '2026-11-25',
  }));
  /** @param {number} i */
  const setupOf = (i) =>
    compileSetup({
      .../** @type {typeof orders[number]} */ (orders[i % orders.length]),
      unit: {
        asFound: { 'L1.2': i % 5 },
        packV: 38 + (i % 40) / 20,
        ratio: { k: 0.95 + i / 100_000, low: 0.94 + i / 100_000, atWheelRaw: null },
        override: null,
      },
    });
  const rounds = Array.from({ length: 5 }, () => {
    const from = performance.now();
    for (let i = 0; i < UNITS; i++) setupOf(i);
    return performance.now() - from;
  });
  const setups = Array.from({ length: UNITS }, (_, i) => setupOf(i));
  const from = performance.now();
  JSON.stringify(setups);
  const yardstickValue = performance.now() - from;
  const texts = orders.map((order) => JSON.stringify(order));
  const asServer = performance.now();
  for (let i = 0; i < READ_UNITS; i++)
    compileSetup({
      ...JSON.parse(texts[i % texts.length] ?? ''),
      unit: { asFound: { 'L1.2': i % 5 }, packV: 38, ratio: null, override: null },
    });
  const readMs = performance.now() - asServer;
  const parsing = performance.now();
  for (let i = 0; i < READ_UNITS; i++) JSON.parse(texts[i % texts.length] ?? '');
  const parseMs = performance.now() - parsing;
  const [first = 0, ...later] = rounds;
  const yardstick = 'the same setups written as JSON';
  const limit = 'under 1,000 ms';
  return [
    {
      what: 'Setups of 10,000 units, first round of a process',
      value: first,
      unit: 'ms',
      yardstick,
      yardstickValue,
      limit,
    },
    {
      what: 'Setups of 1,000 units, their documents read for each as the server does',
      value: readMs,
      unit: 'ms',
      yardstick: 'the same documents read alone',
      yardstickValue: parseMs,
      limit: 'watched',
    },
    {
      what: 'Setups of 10,000 units, later rounds',
      value: [...later].sort((a, b) => a - b)[2] ?? 0,
      unit: 'ms',
      yardstick,
      yardstickValue,
      limit,
    },
  ];
}
