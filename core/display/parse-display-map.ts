import { array, mixed, number, object, string, type ValidationError } from 'yup';
import type { Code, DisplayMap, Gesture } from './display-map.js';
import { FUNCTIONS, type CodeFunction } from './functions.js';
import { onGrid } from './raw-value.js';
import type { Problem } from '../result.js';

const text = (most: number) => string().strict().min(1).max(most).required();
const amount = () => number().strict().required();

const gesture = mixed<Gesture>((value): value is Gesture => isGesture(value)).required(
  'must be a tap {kind: "tap", key} or a hold {kind: "hold", keys, ms}',
);

function isGesture(value: unknown): value is Gesture {
  if (typeof value !== 'object' || value === null) return false;
  const g = value as Record<string, unknown>;
  if (g['kind'] === 'tap') return typeof g['key'] === 'string';
  return g['kind'] === 'hold' && Array.isArray(g['keys']) && g['keys'].length > 0 && typeof g['ms'] === 'number' && g['ms'] > 0;
}

const tableEntry = object({ raw: amount(), value: text(40), title: text(80) }).noUnknown();
const sentinel = object({
  raw: amount(),
  means: string().oneOf(['noCap', 'off', 'auto'] as const).required(),
  title: text(80),
}).noUnknown();

const encoding = object({
  kind: string().oneOf(['table', 'line'] as const).required(),
  entries: array(tableEntry.required()).when('kind', { is: 'table', then: (s) => s.min(1).required(), otherwise: (s) => s.strip() }),
  scale: number().strict().positive().when('kind', { is: 'line', then: (s) => s.required(), otherwise: (s) => s.strip() }),
  unit: string().strict().max(12).when('kind', { is: 'line', then: (s) => s.defined(), otherwise: (s) => s.strip() }),
  sentinels: array(sentinel.required()).when('kind', { is: 'line', then: (s) => s.required(), otherwise: (s) => s.strip() }),
}).noUnknown();

const code = object({
  label: text(12),
  function: string().oneOf(Object.keys(FUNCTIONS) as CodeFunction[]).required(),
  range: object({ min: amount(), max: amount(), step: amount().positive() }).noUnknown().required(),
  decimals: amount().integer().min(0).max(2),
  factory: amount(),
  encoding: encoding.required(),
  access: string().oneOf(['open', 'locked'] as const).required(),
  effect: string().oneOf(['acts', 'displayOnly', 'unverified'] as const).required(),
  actsAfter: string().oneOf(['once', 'restart'] as const).required(),
  source: string().oneOf(['measured', 'makersPaper', 'hearsay'] as const).required(),
  note: string().strict().max(400),
}).noUnknown();

const edit = object({
  style: string().oneOf(['live', 'focus'] as const).required(),
  up: text(20),
  down: text(20),
  select: string().strict().when('style', { is: 'focus', then: (s) => s.required(), otherwise: (s) => s.strip() }),
}).noUnknown();

const displayMap = object({
  format: string().oneOf(['decurio-display-map/1'] as const).required(),
  id: text(60).matches(/^[a-z0-9-]+$/, 'must be lower-case letters, digits and hyphens'),
  name: text(60),
  revision: text(20),
  tellBy: text(300),
  keys: array(object({ id: text(20), label: text(12) }).noUnknown().required()).min(1).max(12).required(),
  powerUp: object({ first: text(120), gesture }).noUnknown().required(),
  menu: object({
    open: gesture,
    close: gesture,
    next: text(20),
    previous: string().strict().nullable().defined(),
    afterLast: string().oneOf(['wrap', 'leave'] as const).required(),
    edit: edit.required(),
    valuesWrap: mixed<boolean>((v): v is boolean => typeof v === 'boolean').required(),
    store: string().oneOf(['onChange', 'onMove'] as const).required(),
    idleMs: amount().min(1000).max(600000),
    onTimeout: string().oneOf(['keep', 'drop'] as const).required(),
  }).noUnknown().required(),
  restart: array(object({ act: text(160), waitMs: amount().min(0).max(600000) }).noUnknown().required()).min(1).required(),
  dangers: array(object({ gesture, caution: text(160) }).noUnknown().required()).required(),
  codes: array(code.required()).min(1).max(200).required(),
  confirmed: object({ by: text(80), on: text(10), unit: text(40), firmware: text(40) }).noUnknown().nullable().defined(),
}).noUnknown();

/**
 * Reads a display map in the format `decurio-display-map/1` from parsed JSON.
 * @returns the map, or every problem found, each with a path into the JSON and a sentence.
 */
export function parseDisplayMap(
  data: unknown,
): { readonly ok: true; readonly map: DisplayMap } | { readonly ok: false; readonly problems: readonly Problem[] } {
  try {
    displayMap.validateSync(data, { abortEarly: false, strict: true });
  } catch (error) {
    const { inner, ...own } = error as ValidationError;
    const all = inner.length > 0 ? inner : [own as ValidationError];
    return { ok: false, problems: all.map((e) => ({ code: 'shape', path: e.path ?? '', message: sentence(e.message) })) };
  }
  const map = data as DisplayMap;
  const problems = [...keyProblems(map), ...codeProblems(map.codes)];
  return problems.length > 0 ? { ok: false, problems } : { ok: true, map };
}

const sentence = (message: string): string => message.charAt(0).toUpperCase() + message.slice(1) + (message.endsWith('.') ? '' : '.');

function keyProblems(map: DisplayMap): Problem[] {
  const known = new Set(map.keys.map((key) => key.id));
  const { menu } = map;
  const named: [string, string][] = [
    ...gestureKeys('powerUp.gesture', map.powerUp.gesture),
    ...gestureKeys('menu.open', menu.open),
    ...gestureKeys('menu.close', menu.close),
    ['menu.next', menu.next],
    ['menu.edit.up', menu.edit.up],
    ['menu.edit.down', menu.edit.down],
    ...(menu.previous === null ? [] : ([['menu.previous', menu.previous]] as [string, string][])),
    ...(menu.edit.style === 'focus' ? ([['menu.edit.select', menu.edit.select]] as [string, string][]) : []),
    ...map.dangers.flatMap((danger, i) => gestureKeys(`dangers[${i}].gesture`, danger.gesture)),
  ];
  return named
    .filter(([, key]) => !known.has(key))
    .map(([path, key]) => ({ code: 'unknownKey', path, message: `There is no key "${key}" in keys.` }));
}

const gestureKeys = (path: string, g: Gesture): [string, string][] =>
  g.kind === 'tap' ? [[`${path}.key`, g.key]] : g.keys.map((key, i) => [`${path}.keys[${i}]`, key]);

function codeProblems(codes: readonly Code[]): Problem[] {
  const problems: Problem[] = [];
  const firstAt = new Map<string, number>();
  codes.forEach((c, i) => {
    const earlier = firstAt.get(c.label);
    if (earlier !== undefined) {
      problems.push({ code: 'twiceLabelled', path: `codes[${i}].label`, message: `${c.label} already stands at codes[${earlier}].` });
    }
    firstAt.set(c.label, i);
    if (c.range.min > c.range.max) {
      problems.push({ code: 'emptyRange', path: `codes[${i}].range`, message: `${c.label} runs from ${c.range.min} to ${c.range.max}: nothing lies between.` });
    } else if (!onGrid(c, c.factory)) {
      problems.push({ code: 'factoryOutside', path: `codes[${i}].factory`, message: `${c.label} cannot show its factory value ${c.factory}.` });
    }
  });
  return problems;
}
