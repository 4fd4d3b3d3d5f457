import type { DisplayMap, MenuPage, MenuRules } from './display-map.js';
import { fullCode, writtenCode } from './written-code.js';
import { isFields, isSame, type Fields } from './written-fields.js';
import { fullEdit, gesturesIn, without, wordsIn, writtenEdit } from './written-gesture.js';

/** What a map need not say, as most displays have it. */
const POWER = { first: 'Switch the pack on.', on: null, off: null, offInMenu: false };
const IDLE = { browseMs: 8_000, editMs: 8_000, pinMs: 8_000, unstored: 'drop', reopensAt: 'first' };
const MENU = {
  pin: null,
  close: null,
  turns: [],
  previous: null,
  afterLast: 'wrap',
  pick: null,
  values: 'stop',
  repeat: null,
};
const PIN_KEYS = { down: null, enter: null };
const PIN = { ...PIN_KEYS, wrong: 'again' };
const PIN_GESTURES = ['up', 'down', 'back', 'walk', 'enter'];
const STORE = { on: 'change' };
const CHANNEL = { connect: [], write: [], reconnect: [], profiles: [] };
const FIRST_PAGE = 'main';

/**
 * The whole map of one as it is written: what is nearly always the same need not stand there, a gesture may be a word,
 * a code its label, function, range and delivered value. What is not in the form is left as it is: whether a map is
 * sound, `parseDisplayMap` says. A map of form 1 states everything, and differs in its name alone.
 */
export function fullMap(written: unknown): unknown {
  if (!isFields(written)) return written;
  const { format, keys, power, menu, codes, ride, dangers } = written;
  const allCodes = Array.isArray(codes) ? codes.map(fullCode) : codes;
  const all: Fields = {
    ...written,
    format: format === 'decurio-display-map/1' ? 'decurio-display-map/2' : format,
    restart: written['restart'] ?? [],
    dangers: Array.isArray(dangers) ? dangers.map((each) => gesturesIn(each, ['gesture'])) : (dangers ?? []),
    confirmed: written['confirmed'] ?? null,
    power: fullPower(asFields(power)),
    menu: menu === undefined ? null : fullMenu(menu, allCodes),
    codes: allCodes,
  };
  if (power !== undefined && !isFields(power)) all['power'] = power;
  if (Array.isArray(keys))
    all['keys'] = keys.map((key: unknown) => (typeof key === 'string' ? { id: key, label: key } : key));
  if (isFields(ride)) all['ride'] = fullRide(ride);
  if (isFields(written['instructions'])) all['instructions'] = { ...CHANNEL, ...written['instructions'] };
  return all;
}

const fullPower = ({ pin, ...power }: Fields): Fields => ({
  ...(gesturesIn({ ...POWER, ...power }, ['on', 'off']) as Fields),
  ...(pin === undefined ? {} : { pin: isFields(pin) ? gesturesIn({ ...PIN_KEYS, ...pin }, PIN_GESTURES) : pin }),
});

function writtenPower({ pin, ...power }: DisplayMap['power']): Fields {
  return {
    ...without(power, POWER, ['on', 'off']),
    ...(pin ? { pin: without(pin, PIN_KEYS, PIN_GESTURES) } : {}),
  };
}

const asFields = (value: unknown): Fields => (isFields(value) ? value : {});

function fullRide(ride: Fields): Fields {
  return {
    ...ride,
    levels: ride['levels'] === undefined ? null : gesturesIn(ride['levels'], ['up', 'down']),
    modes: ride['modes'] === undefined ? null : gesturesIn(ride['modes'], ['gesture']),
    ...(Array.isArray(ride['acts']) ? { acts: ride['acts'].map((act) => fullAct(act)) } : {}),
  };
}

const ACT = { speed: 'unchanged' };
const fullAct = (act: unknown): unknown => (isFields(act) ? gesturesIn({ ...ACT, ...act }, ['gesture']) : act);

function fullMenu(menu: unknown, codes: unknown): unknown {
  if (!isFields(menu)) return menu;
  const pages = menu['pages'] === undefined ? [onePage(codes)] : fullPages(menu['pages']);
  const first = Array.isArray(pages) && isFields(pages[0]) ? pages[0]['id'] : undefined;
  const { opens, pin, turns, store, idle } = menu;
  return {
    ...MENU,
    ...(gesturesIn(menu, ['close', 'next', 'previous', 'pick']) as Fields),
    pages,
    opens: Array.isArray(opens)
      ? opens.map((way) => (isFields(way) ? gesturesIn({ from: 'riding', page: first, ...way }, ['gesture']) : way))
      : opens,
    pin: isFields(pin) ? gesturesIn({ ...PIN, ...pin }, PIN_GESTURES) : (pin ?? null),
    turns: Array.isArray(turns) ? turns.map((turn) => gesturesIn(turn, ['gesture'])) : (turns ?? []),
    edit: fullEdit(menu['edit']),
    store: store === undefined ? STORE : isFields(store) ? gesturesIn(store, ['by']) : store,
    idle: fullIdle(idle),
  };
}

/** A line may be the label of its code alone. */
const fullPages = (pages: unknown): unknown =>
  Array.isArray(pages)
    ? pages.map((page: unknown) =>
        isFields(page) && Array.isArray(page['items'])
          ? {
              ...page,
              items: page['items'].map((item: unknown) => (typeof item === 'string' ? { code: item } : item)),
            }
          : page,
      )
    : pages;

/** One time for all three, or what of it is otherwise than usual. */
function fullIdle(idle: unknown): unknown {
  if (idle === undefined) return IDLE;
  if (typeof idle === 'number') return { ...IDLE, browseMs: idle, editMs: idle, pinMs: idle };
  return isFields(idle) ? { ...IDLE, ...idle } : idle;
}

function writtenIdle(idle: MenuRules['idle']): unknown {
  const { browseMs, editMs, pinMs, ...rest } = idle;
  const isOne = browseMs === editMs && editMs === pinMs && Object.keys(without(rest, IDLE)).length === 0;
  return isOne ? browseMs : without(idle, IDLE);
}

const writtenPage = ({ items, ...page }: MenuPage): Fields => ({
  ...page,
  items: items.map((item) => ('code' in item ? item.code : item)),
});

/** Every code that keys can come to, in the order of the map. */
const onePage = (codes: unknown): Fields => ({
  id: FIRST_PAGE,
  title: 'Menu',
  items: (Array.isArray(codes) ? codes : []).flatMap((code: unknown) =>
    isFields(code) && code['access'] !== 'tool' && code['access'] !== 'absent' ? [{ code: code['label'] }] : [],
  ),
});

const OF_A_CODE = /^codes\[(\d+)\]\.encoding\.(entries|unit|scale)(.*)$/;

/** Where in a map as it is written that stands which has this path in the whole map. */
export function writtenPath(written: unknown, path: string): string {
  const [, index, what, rest = ''] = OF_A_CODE.exec(path) ?? [];
  if (index === undefined || !isFields(written) || !Array.isArray(written['codes'])) return path;
  const code: unknown = (written['codes'] as readonly unknown[])[Number(index)];
  if (!isFields(code) || code['encoding'] !== undefined) return path;
  const at = `codes[${index}]`;
  if (what !== 'entries') return what !== undefined && what in code ? `${at}.${what}` : at;
  return `${at}.words${/^\[\d+\]/.exec(rest)?.[0] ?? ''}`;
}

/** The shortest way to write a map: `fullMap` of it is the map again. */
export function writtenMap(map: DisplayMap): object {
  const { restart, dangers, confirmed, power, menu, ride, keys, codes, instructions, ...rest } = map;
  return {
    ...rest,
    keys: keys.map((key) => (key.id === key.label ? key.id : key)),
    ...(isSame(power, POWER) ? {} : { power: writtenPower(power) }),
    ...(ride ? { ride: writtenRide(ride) } : {}),
    ...(menu ? { menu: writtenMenu(menu, codes) } : {}),
    ...(instructions ? { instructions: without(instructions, CHANNEL) } : {}),
    ...(restart.length > 0 ? { restart } : {}),
    ...(dangers.length > 0 ? { dangers: dangers.map((each) => wordsIn(each, ['gesture'])) } : {}),
    codes: codes.map(writtenCode),
    ...(confirmed ? { confirmed } : {}),
  };
}

const writtenRide = ({ levels, modes, acts }: NonNullable<DisplayMap['ride']>): Fields => ({
  ...(acts ? { acts: acts.map((act) => without(act, ACT, ['gesture'])) } : {}),
  ...(levels ? { levels: wordsIn(levels, ['up', 'down']) } : {}),
  ...(modes ? { modes: wordsIn(modes, ['gesture']) } : {}),
});

function writtenMenu(menu: NonNullable<DisplayMap['menu']>, codes: DisplayMap['codes']): Fields {
  const { pages, opens, pin, turns, edit, store, idle, ...rest } = menu;
  const [first] = pages;
  return {
    opens: opens.map((way) => without(way, { from: 'riding', page: first?.id }, ['gesture'])),
    ...without(rest, MENU, ['close', 'next', 'previous', 'pick']),
    ...(pin ? { pin: without(pin, PIN, PIN_GESTURES) } : {}),
    ...(isSame(pages, [onePage(codes)]) ? {} : { pages: pages.map(writtenPage) }),
    ...(turns.length > 0 ? { turns: turns.map((turn) => wordsIn(turn, ['gesture'])) } : {}),
    edit: writtenEdit(edit),
    ...(isSame(store, STORE) ? {} : { store: wordsIn(store, ['by']) }),
    ...(isSame(idle, IDLE) ? {} : { idle: writtenIdle(idle) }),
  };
}
