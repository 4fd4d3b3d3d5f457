import {
  gestureWords,
  accessTitle,
  behaviour,
  EDIT_WORDS,
  findCode,
  glassLabel,
  isKeyed,
  valueWords,
  type Code,
  type DisplayMap,
  type KeyedMap,
} from '@decurio/core';
import { capital } from '../../ui/capital.js';

export const SOURCES = {
  measured: 'measured on a unit',
  makersPaper: "maker's paper",
  hearsay: 'hearsay, never a target',
} as const;

const AFTER_LAST = { wrap: 'it starts again', leave: 'the menu closes', stop: 'it stays there' } as const;
const STORES = {
  change: 'with every change',
  move: 'when one passes to another item',
  endOfEdit: 'when the edit ends',
  gesture: 'by a gesture of its own',
  leave: 'all at once on leaving; before that nothing is stored',
} as const;
const WRONG_PIN = { again: 'asks again', leave: 'closes', limited: 'opens, and guarded codes do not move' } as const;

/** How a display is handled, as name and words, in the order in which one meets it. */
export function handling(map: DisplayMap): readonly (readonly [string, string])[] {
  const power: (readonly [string, string])[] = [
    [
      'Power up',
      `${map.power.first}${map.power.on ? ` Then ${gestureWords(map, map.power.on)}.` : ''}${map.power.shows === undefined ? '' : ` The glass shows ${map.power.shows} for a moment.`}`,
    ],
    [
      'Power off',
      map.power.off
        ? `${gestureWords(map, map.power.off)}; ${map.power.offInMenu ? 'also inside the menu' : 'not inside the menu'}`
        : 'no key of its own',
    ],
  ];
  return [
    ...power,
    ...levelWords(map),
    ...(isKeyed(map) ? menuHandling(map) : instructionHandling(map)),
    ...speedWords(map),
  ];
}

function levelWords(map: DisplayMap): (readonly [string, string])[] {
  const levels = map.ride?.levels;
  if (!levels) return [];
  const { most, mostBy, wakesAt } = levels;
  const wakes =
    wakesAt === 'asLeft' ? 'as it was left' : typeof wakesAt === 'number' ? `at ${wakesAt}` : `as ${wakesAt.code} says`;
  return [['Levels', `up to ${most}${mostBy === undefined ? '' : `, as many as ${mostBy} sets`}; it wakes ${wakes}`]];
}

function menuHandling(map: KeyedMap): (readonly [string, string])[] {
  const { menu } = map;
  const seconds = (ms: number) => `${ms / 1000} s`;
  const { browseMs, editMs } = menu.idle;
  return [
    [
      'Menu opens',
      menu.opens
        .map(
          (way) =>
            `${gestureWords(map, way.gesture)}${way.from === 'off' ? ' while it is dark' : ''}${way.page === 'ofMode' ? ', at the list of the ride mode' : ''}`,
        )
        .join('; '),
    ],
    ...(menu.pin
      ? [
          [
            'PIN',
            `${menu.pin.factory.length} digits, ${menu.pin.factory} as delivered; a wrong one ${WRONG_PIN[menu.pin.wrong]}`,
          ] as const,
        ]
      : []),
    ['Menu is left', menu.close ? gestureWords(map, menu.close) : 'by its Exit entry, or by waiting'],
    [
      'Next item',
      `${gestureWords(map, menu.next)}${menu.previous ? `, back by ${gestureWords(map, menu.previous)}` : ', no way back'}; after the last one ${AFTER_LAST[menu.afterLast]}`,
    ],
    ...(menu.turns.length > 0
      ? [['Other list', [...new Set(menu.turns.map((turn) => gestureWords(map, turn.gesture)))].join('; ')] as const]
      : []),
    [
      'Values',
      `${EDIT_WORDS[menu.edit.style]}; ${menu.values === 'wrap' ? 'they go round' : 'they stop at the ends'}${menu.repeat ? '; a held key repeats' : ''}`,
    ],
    [
      'Stored',
      `${STORES[menu.store.on]}${menu.store.by ? `: ${gestureWords(map, menu.store.by)}` : ''}${menu.store.message ? `; the glass says ${menu.store.message.text} for ${seconds(menu.store.message.ms)}` : ''}${menu.store.pause ? `; an edit left alone for ${seconds(menu.store.pause.ms)} is ${menu.store.pause.does === 'store' ? 'stored by itself' : 'dropped'}` : ''}`,
    ],
    [
      'Closes by itself',
      `after ${seconds(browseMs)}${editMs === browseMs ? '' : `, ${seconds(editMs)} while editing`}; a change not stored is ${menu.idle.unstored === 'keep' ? 'kept' : 'dropped'}; it opens again ${menu.idle.reopensAt === 'same' ? 'where it closed' : 'at the first item'}`,
    ],
  ];
}

const instructionHandling = (map: DisplayMap): (readonly [string, string])[] =>
  map.instructions
    ? [
        ['Set through', map.instructions.via],
        ['Pack profiles', map.instructions.profiles.join(', ') || 'one alone'],
        ...(map.instructions.firmware === undefined
          ? []
          : [['Firmware', `${map.instructions.firmware} or later`] as const]),
      ]
    : [];

const ROUNDINGS = {
  nearest: 'to the nearest step',
  truncated: 'cut off, so it reads half a step low',
  unknown: 'in a way nobody has measured',
} as const;

function speedWords({ speed }: DisplayMap): (readonly [string, string])[] {
  if (!speed) return [];
  const over =
    speed.overshootKmh === null
      ? 'how far drive acts above the cap is not known'
      : `drive acts up to ${speed.overshootKmh} km/h above the cap`;
  return [
    [
      'Speed shown',
      `${speed.decimals === 0 ? 'whole numbers' : `${speed.decimals} decimal`}, rounded ${ROUNDINGS[speed.rounding]}; ${over}`,
    ],
  ];
}

/** When and where a code acts, without what is said elsewhere. */
export const actsWords = (code: Code): string =>
  code.access === 'open' ? capital(behaviour(code)) : `${capital(accessTitle(code))}; ${behaviour(code)}`;

/** The page that lists a code. */
export function pageTitle(map: DisplayMap, label: string): string | null {
  const pages = map.menu?.pages ?? [];
  return pages.length < 2 || !findCode(map, label)
    ? null
    : (pages.find((page) => page.items.some((item) => 'code' in item && item.code === label))?.title ?? null);
}

/** While what an entry is listed at all: by its own condition, or by that of the way to its page; null where it always is. */
export function listedWhile(map: DisplayMap, { label, shownIf }: Code): string | null {
  const pages = map.menu?.pages ?? [];
  const own = pages.find((page) => page.items.some((item) => 'code' in item && item.code === label));
  const ways = pages.flatMap(({ items }) => items.filter((item) => 'page' in item && item.page === own?.id));
  const way = ways.find((item) => 'page' in item && item.shownIf !== undefined);
  const condition = shownIf ?? (way && 'page' in way ? way.shownIf : undefined);
  if (!condition) return null;
  const by = findCode(map, condition.code);
  return by ? `listed while ${glassLabel(by)} is ${condition.in.map((raw) => valueWords(by, raw)).join(' or ')}` : null;
}
