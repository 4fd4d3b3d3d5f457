import type { Code, KeyedMap, MenuRules } from '../display/map/display-map.js';
import { hold, tap } from '../display/map/gesture.js';
import { code, fourKey } from './samples.js';

const codesOf = (pages: number, each: number, prefix = ''): readonly (readonly Code[])[] =>
  Array.from({ length: pages }, (_, p) =>
    Array.from({ length: each }, (_, i) => code(`${prefix}${p + 1}.${i + 1}`, 'unknown', {})),
  );

const KEYS = ['set', 'mid', 'up', 'down', 'power'].map((id) => ({ id, label: id }));

/** So many pages of so many codes each, entered from an index page that each of them leads back to. */
export function indexedMap(pages: number, each: number, menu: Partial<MenuRules> = {}): KeyedMap {
  const lists = codesOf(pages, each);
  return {
    ...fourKey,
    keys: KEYS,
    codes: lists.flat(),
    menu: {
      ...fourKey.menu,
      opens: [{ gesture: hold(2000, 'set', 'up'), from: 'riding', page: 'index' }],
      pages: [
        {
          id: 'index',
          title: 'Index',
          items: [
            ...lists.map((_, p) => ({ title: `Page ${p + 1}`, page: `p${p}` })),
            { title: 'Out', exit: true as const },
          ],
        },
        ...lists.map((list, p) => ({
          id: `p${p}`,
          title: `Page ${p + 1}`,
          items: [...list.map(({ label }) => ({ code: label })), { title: 'Back', back: 'index' }],
        })),
      ],
      previous: null,
      pick: tap('mid'),
      ...menu,
    },
  };
}

/** A list of so many codes for each of three ride modes, which open on the list of the mode that is on. */
export function perModeMap(each: number): KeyedMap {
  const modes = ['eco', 'city', 'fast'];
  const lists = modes.map((mode) => codesOf(1, each, `${mode} `)[0] ?? []);
  return {
    ...fourKey,
    keys: KEYS,
    codes: lists.flat(),
    ride: {
      levels: null,
      modes: { gesture: tap('mid'), list: modes.map((id) => ({ id, title: id })), wakesIn: 'eco' },
    },
    menu: {
      ...fourKey.menu,
      opens: [{ gesture: hold(2000, 'set', 'up'), from: 'riding', page: 'ofMode' }],
      pages: modes.map((mode, i) => ({
        id: mode,
        title: mode,
        mode,
        items: (lists[i] ?? []).map(({ label }) => ({ code: label })),
      })),
    },
  };
}
