import type { Problem } from '../../result.js';
import type { DisplayMap, MenuPage, MenuRules } from './display-map.js';
import { ledTo } from './pages-listing.js';

/** Whether pages, items, modes and openings hang together, and every code can be come to. */
export function checkMenu(map: DisplayMap): Problem[] {
  const { menu } = map;
  if (!menu) {
    return map.instructions
      ? []
      : [
          {
            code: 'noChannel',
            path: 'menu',
            message: 'A map has a menu, or instructions where units are set without keys. This one has neither.',
          },
        ];
  }
  if (map.keys.length === 0) return [{ code: 'noKeys', path: 'keys', message: 'A display with a menu has keys.' }];
  const broken = [...pages(map, menu), ...ways(map, menu)];
  return [
    ...broken,
    ...listing(map, menu),
    ...(broken.length === 0 ? reach(map, menu) : []),
    ...storing(menu),
    ...asking(map, menu),
    ...levels(map),
  ];
}

/** A page of which nothing is sure to be shown: whoever comes there stands before an empty glass. */
function mayBeEmpty(map: DisplayMap, page: MenuPage): boolean {
  const isHideable = (label: string): boolean => map.codes.find((code) => code.label === label)?.shownIf !== undefined;
  return (
    page.items.length > 0 &&
    page.items.every((item) =>
      'code' in item ? isHideable(item.code) : 'page' in item ? item.shownIf !== undefined : false,
    )
  );
}

function pages(map: DisplayMap, menu: MenuRules): Problem[] {
  const codes = new Set(map.codes.map((code) => code.label));
  const ids = menu.pages.map((page) => page.id);
  const modes = map.ride?.modes?.list.map((mode) => mode.id) ?? [];
  const listed = new Map<string, string>();
  return menu.pages.flatMap((page, p) => {
    const path = `menu.pages[${p}]`;
    const problems: Problem[] =
      ids.indexOf(page.id) < p
        ? [{ code: 'twiceNamed', path: `${path}.id`, message: `There are two pages "${page.id}".` }]
        : [];
    if (mayBeEmpty(map, page))
      problems.push({
        code: 'mayBeEmpty',
        path: `${path}.items`,
        message: `Every line of "${page.id}" is shown only under a condition: say what stands there when none holds.`,
      });
    if (page.mode !== undefined && !modes.includes(page.mode))
      problems.push({
        code: 'unknownMode',
        path: `${path}.mode`,
        message: `There is no ride mode "${page.mode}" in ride.modes.`,
      });
    page.items.forEach((item, i) => {
      const at = `${path}.items[${i}]`;
      if ('code' in item) {
        const earlier = listed.get(`${page.id} ${item.code}`);
        if (!codes.has(item.code))
          problems.push({
            code: 'unknownCode',
            path: `${at}.code`,
            message: `There is no code "${item.code}" in codes.`,
          });
        else if (earlier !== undefined)
          problems.push({
            code: 'twiceListed',
            path: `${at}.code`,
            message: `${item.code} already stands at ${earlier}, on the same page. Where a page shows one label twice, make two codes and give them "shownAs".`,
          });
        listed.set(`${page.id} ${item.code}`, at);
      } else if (!('exit' in item)) {
        if ('page' in item && item.shownIf && !codes.has(item.shownIf.code))
          problems.push({
            code: 'unknownCode',
            path: `${at}.shownIf.code`,
            message: `There is no code "${item.shownIf.code}" in codes.`,
          });
        const [to, name] = 'page' in item ? [item.page, 'page'] : [item.back, 'back'];
        if (to === 'ofMode') problems.push(...listsOfModes(map, menu, `${at}.page`));
        else if (!ids.includes(to))
          problems.push({
            code: 'unknownPage',
            path: `${at}.${name}`,
            message: `There is no page "${to}" in menu.pages.`,
          });
      }
      if (!('code' in item) && menu.pick === null)
        problems.push({
          code: 'noPick',
          path: `${at}`,
          message: `"${item.title}" is taken by a gesture, and menu.pick is null.`,
        });
    });
    return problems;
  });
}

/** The list of the ride mode is opened: there are modes, and each has one. */
function listsOfModes({ ride }: DisplayMap, { pages: all }: MenuRules, path: string): Problem[] {
  const modes = ride?.modes;
  if (!modes)
    return [{ code: 'noModes', path, message: 'This opens the list of the ride mode, and ride.modes names none.' }];
  const without = modes.list.find((mode) => !all.some((page) => page.mode === mode.id));
  return without
    ? [{ code: 'modeWithoutPage', path, message: `Ride mode "${without.id}" has no page of its own.` }]
    : [];
}

function ways(map: DisplayMap, menu: MenuRules): Problem[] {
  const ids = menu.pages.map((page) => page.id);
  const missing = (to: string, path: string): Problem[] =>
    ids.includes(to) ? [] : [{ code: 'unknownPage', path, message: `There is no page "${to}" in menu.pages.` }];
  const modes = map.ride?.modes;
  return [
    ...menu.opens.flatMap((way, i) => {
      return way.page === 'ofMode'
        ? listsOfModes(map, menu, `menu.opens[${i}].page`)
        : missing(way.page, `menu.opens[${i}].page`);
    }),
    ...menu.turns.flatMap((turn, i) => [
      ...missing(turn.from, `menu.turns[${i}].from`),
      ...missing(turn.to, `menu.turns[${i}].to`),
    ]),
    ...(modes && !modes.list.some((mode) => mode.id === modes.wakesIn)
      ? [{ code: 'unknownMode', path: 'ride.modes.wakesIn', message: `There is no ride mode "${modes.wakesIn}".` }]
      : []),
  ];
}

/** A code that keys should reach and no page lists. */
function listing(map: DisplayMap, menu: MenuRules): Problem[] {
  const listed = new Set(
    menu.pages.flatMap((page) => page.items.flatMap((item) => ('code' in item ? [item.code] : []))),
  );
  return map.codes.flatMap((code, i) =>
    listed.has(code.label) || code.access === 'tool' || code.access === 'absent'
      ? []
      : [
          {
            code: 'unreachableCode',
            path: `codes[${i}].label`,
            message: `${code.label} stands on no page of the menu. List it, or say that its access is "absent" or "tool".`,
          },
        ],
  );
}

/** Pages that no opening, turn or entry leads to. */
function reach(map: DisplayMap, menu: MenuRules): Problem[] {
  const open = menu.opens.flatMap((way) =>
    way.page === 'ofMode' ? menu.pages.filter((page) => page.mode !== undefined).map((page) => page.id) : [way.page],
  );
  const reached = new Set(open);
  const leads = (page: MenuPage): string[] => [
    ...page.items.flatMap((item) => ledTo(map, item)),
    ...menu.turns.filter((turn) => turn.from === page.id).map((turn) => turn.to),
  ];
  for (const id of reached) {
    const page = menu.pages.find((p) => p.id === id);
    if (page) for (const to of leads(page)) reached.add(to);
  }
  return menu.pages.flatMap((page, i) =>
    reached.has(page.id)
      ? []
      : [
          {
            code: 'unreachablePage',
            path: `menu.pages[${i}]`,
            message: `Nothing leads to the page "${page.title}": no opening, no turn, no entry.`,
          },
        ],
  );
}

/** Codes that set how many levels there are and at which it wakes, and on which an act of the rider's hangs. */
function levels({ ride, codes }: DisplayMap): Problem[] {
  const acts = ride?.acts ?? [];
  const { mostBy, wakesAt } = ride?.levels ?? {};
  const missing = (label: string | undefined, path: string): Problem[] =>
    label === undefined || codes.some((code) => code.label === label)
      ? []
      : [{ code: 'unknownCode', path, message: `There is no code "${label}" in codes.` }];
  return [
    ...missing(mostBy, 'ride.levels.mostBy'),
    ...acts.flatMap(({ onlyIf }, i) => missing(onlyIf?.code, `ride.acts[${i}].onlyIf.code`)),
    ...acts.flatMap(({ title }, i) =>
      acts.findIndex((other) => other.title === title) < i
        ? [{ code: 'twiceNamed', path: `ride.acts[${i}].title`, message: `There are two acts "${title}".` }]
        : [],
    ),
    ...missing(typeof wakesAt === 'object' ? wakesAt.code : undefined, 'ride.levels.wakesAt.code'),
  ];
}

/** What asks for a PIN, where and after how many wrong ones. */
function asking({ power, codes }: DisplayMap, { pin, pages }: MenuRules): Problem[] {
  const problems: Problem[] = [];
  const isAtEntries = pin?.asks === 'entry';
  if (pin && isAtEntries !== (pin.wrong === 'back') && (pin.wrong === 'back' || pin.wrong === 'limited'))
    problems.push({
      code: 'wrongPin',
      path: 'menu.pin.wrong',
      message: isAtEntries
        ? 'The menu opens without a PIN here: a wrong one asks again, leads back to the entry, or leaves.'
        : 'The PIN is asked for on opening: there is no entry to go back to.',
    });
  pages.forEach(({ asksPin }, i) => {
    if (asksPin && !isAtEntries)
      problems.push({
        code: 'noPagePin',
        path: `menu.pages[${i}].asksPin`,
        message: 'A page asks for the PIN only where menu.pin has "asks" at "entry".',
      });
  });
  const by = power.pin?.asksIf;
  if (by && !codes.some(({ label }) => label === by.code))
    problems.push({
      code: 'unknownCode',
      path: 'power.pin.asksIf.code',
      message: `There is no code "${by.code}" in codes.`,
    });
  return problems;
}

function storing({ store, edit, idle }: MenuRules): Problem[] {
  if (store.pause && (store.on === 'change' || store.on === 'leave'))
    return [
      {
        code: 'idlePause',
        path: 'menu.store.pause',
        message: `Values are stored ${store.on === 'change' ? 'with every change' : 'all at once on leaving'}: no pause ends an edit here.`,
      },
    ];
  if (store.pause && store.pause.ms >= idle.editMs)
    return [
      {
        code: 'idlePause',
        path: 'menu.store.pause.ms',
        message: `The menu closes by itself after ${idle.editMs} ms: no edit ends before that by waiting ${store.pause.ms} ms.`,
      },
    ];
  if (store.on === 'gesture' && !store.by)
    return [
      { code: 'noStoreGesture', path: 'menu.store.by', message: 'Values are stored by a gesture, and none is named.' },
    ];
  if (store.on !== 'gesture' && store.by)
    return [
      {
        code: 'idleStoreGesture',
        path: 'menu.store.by',
        message: 'A gesture to store is named, and values are stored otherwise.',
      },
    ];
  if (store.on === 'endOfEdit' && edit.style === 'live')
    return [
      {
        code: 'noEndOfEdit',
        path: 'menu.store.on',
        message:
          'A live display has no end of an edit: say that values are stored on change, on move, on leaving or by a gesture.',
      },
    ];
  return [];
}
