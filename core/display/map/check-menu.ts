import type { Problem } from '../../result.js';
import type { DisplayMap, MenuPage, MenuRules } from './display-map.js';

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
    ...(broken.length === 0 ? reach(menu) : []),
    ...storing(menu),
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
        const earlier = listed.get(item.code);
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
            message: `${item.code} already stands at ${earlier}. Where two lists show the same label, make two codes and give them "shownAs".`,
          });
        listed.set(item.code, at);
      } else if (!('exit' in item)) {
        if ('page' in item && item.shownIf && !codes.has(item.shownIf.code))
          problems.push({
            code: 'unknownCode',
            path: `${at}.shownIf.code`,
            message: `There is no code "${item.shownIf.code}" in codes.`,
          });
        const [to, name] = 'page' in item ? [item.page, 'page'] : [item.back, 'back'];
        if (!ids.includes(to))
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

function ways(map: DisplayMap, menu: MenuRules): Problem[] {
  const ids = menu.pages.map((page) => page.id);
  const missing = (to: string, path: string): Problem[] =>
    ids.includes(to) ? [] : [{ code: 'unknownPage', path, message: `There is no page "${to}" in menu.pages.` }];
  const modes = map.ride?.modes;
  return [
    ...menu.opens.flatMap((way, i) => {
      if (way.page !== 'ofMode') return missing(way.page, `menu.opens[${i}].page`);
      const without = modes?.list.find((mode) => !menu.pages.some((page) => page.mode === mode.id));
      if (!modes)
        return [
          {
            code: 'noModes',
            path: `menu.opens[${i}].page`,
            message: 'This opens the list of the ride mode, and ride.modes names none.',
          },
        ];
      return without
        ? [
            {
              code: 'modeWithoutPage',
              path: `menu.opens[${i}].page`,
              message: `Ride mode "${without.id}" has no page of its own.`,
            },
          ]
        : [];
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
function reach(menu: MenuRules): Problem[] {
  const open = menu.opens.flatMap((way) =>
    way.page === 'ofMode' ? menu.pages.filter((page) => page.mode !== undefined).map((page) => page.id) : [way.page],
  );
  const reached = new Set(open);
  const leads = (page: MenuPage): string[] => [
    ...page.items.flatMap((item) => ('page' in item ? [item.page] : 'back' in item ? [item.back] : [])),
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

/** Codes that set how many levels there are, and at which it wakes. */
function levels({ ride, codes }: DisplayMap): Problem[] {
  const { mostBy, wakesAt } = ride?.levels ?? {};
  const missing = (label: string | undefined, path: string): Problem[] =>
    label === undefined || codes.some((code) => code.label === label)
      ? []
      : [{ code: 'unknownCode', path, message: `There is no code "${label}" in codes.` }];
  return [
    ...missing(mostBy, 'ride.levels.mostBy'),
    ...missing(typeof wakesAt === 'object' ? wakesAt.code : undefined, 'ride.levels.wakesAt.code'),
  ];
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
