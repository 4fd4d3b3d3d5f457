import {
  gestureWords,
  accessTitle,
  behaviour,
  EDIT_WORDS,
  findCode,
  glassLabel,
  isKeyed,
  valueWords,
  pagesListing,
  type Code,
  type DisplayMap,
  type KeyedMap,
  type PinKeys,
  type RideAct,
  type StartPin,
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
const WRONG_PIN = {
  again: 'asks again',
  leave: 'closes',
  limited: 'opens, and guarded codes do not move',
  back: 'leads back to the entry',
} as const;
const RIDE_ACTS = {
  resetsCounter: 'brings a counter to zero',
  turbo: 'gives turbo',
  motors: 'changes which motors drive',
  lights: 'switches lights',
} as const;
const ACT_SPEED = {
  unchanged: '',
  liftsCaps: '; while it is on no cap holds',
  lowers: '; it makes it slower',
} as const;

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
    ...(map.power.pin ? [['Start PIN', startPinWords(map, map.power.pin)] as const] : []),
  ];
  return [
    ...power,
    ...levelWords(map),
    ...(map.ride?.acts ?? []).map((act) => [act.title, actWords(map, act)] as const),
    ...(isKeyed(map) ? menuHandling(map) : instructionHandling(map)),
    ...speedWords(map),
  ];
}

function actWords(map: DisplayMap, { gesture, does, needs, onlyIf, icon, speed }: RideAct): string {
  const by = onlyIf && findCode(map, onlyIf.code);
  const only = by
    ? `, only while ${glassLabel(by)} is ${onlyIf.in.map((raw) => valueWords(by, raw)).join(' or ')}`
    : '';
  const lit = icon === undefined ? '' : `; ${icon} is lit meanwhile`;
  return `${gestureWords(map, gesture)} while riding ${RIDE_ACTS[does]}${only}${lit}${ACT_SPEED[speed]}.${needs === undefined ? '' : ` ${needs}`}`;
}

const pinWords = ({ factory, lock }: PinKeys): string =>
  `${factory.length} digits, ${factory} as delivered${lock ? `; after ${lock.after} wrong ones it shows ${lock.shows} for ${lock.ms / 60_000} min` : ''}`;

function startPinWords(map: DisplayMap, pin: StartPin): string {
  const by = pin.asksIf && findCode(map, pin.asksIf.code);
  return `${pinWords(pin)}; asked for when it lights${by && pin.asksIf ? ` while ${glassLabel(by)} is ${pin.asksIf.in.map((raw) => valueWords(by, raw)).join(' or ')}` : ''}`;
}

function levelWords(map: DisplayMap): (readonly [string, string])[] {
  const levels = map.ride?.levels;
  if (!levels) return [];
  const { up, down, most, mostBy, wakesAt } = levels;
  const wakes =
    wakesAt === 'asLeft' ? 'as it was left' : typeof wakesAt === 'number' ? `at ${wakesAt}` : `as ${wakesAt.code} says`;
  return [
    [
      'Levels',
      `${gestureWords(map, up)} for more, ${gestureWords(map, down)} for less; up to ${most}${mostBy === undefined ? '' : `, as many as ${mostBy} sets`}; it wakes ${wakes}`,
    ],
  ];
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
            `${pinWords(menu.pin)}; a wrong one ${WRONG_PIN[menu.pin.wrong]}; asked for ${menu.pin.asks === 'entry' ? ['at entries that it guards', ...menu.pages.filter(({ asksPin }) => asksPin).map(({ title }) => `before ${title}`)].join(' and ') : 'on opening the menu'}`,
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
        ...(map.instructions.lasts === 'whileAttached'
          ? [['Lasts', `only while ${map.instructions.via} stays attached`] as const]
          : []),
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

/** The pages that list a code. */
export function pageTitle(map: DisplayMap, label: string): string | null {
  const pages = map.menu?.pages ?? [];
  return pages.length < 2 || !findCode(map, label)
    ? null
    : pagesListing(map, label)
        .map(({ title }) => title)
        .join(', ') || null;
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
