import type { Problem } from '../../result.js';
import type { Code, DisplayMap, EditRules, MenuRules, PinKeys } from './display-map.js';
import { editOf } from './edit-rules.js';
import { isPrefixOf, isSameGesture, keysOf, sameKeys, type Gesture } from './gesture.js';

interface Named {
  readonly path: string;
  readonly does: string;
  readonly gesture: Gesture;
}

const named = (path: string, does: string, gesture: Gesture | null | undefined): Named[] =>
  gesture ? [{ path, does, gesture }] : [];

/** Whether every gesture uses keys there are, and no two in one state could be taken for each other. */
export function checkGestures(map: DisplayMap): Problem[] {
  const contexts = contextsOf(map);
  const all = new Map(contexts.flat().map((n) => [n.path, n]));
  map.dangers.forEach((danger, i) =>
    all.set(`dangers[${i}].gesture`, {
      path: `dangers[${i}].gesture`,
      does: 'starts the motor',
      gesture: danger.gesture,
    }),
  );
  const clashes = new Map(
    contexts.flatMap(clashesIn).map((problem) => [`${problem.path} ${problem.message}`, problem]),
  );
  return [
    ...twinKeys(map),
    ...unknownKeys(map, [...all.values()]),
    ...twiceInAChord([...all.values()]),
    ...clashes.values(),
  ];
}

function twinKeys({ keys }: DisplayMap): Problem[] {
  return keys.flatMap(({ id }, i) => {
    const first = keys.findIndex((other) => other.id === id);
    return first === i
      ? []
      : [{ code: 'twinKeys', path: `keys[${i}].id`, message: `"${id}" is the key at keys[${first}] already.` }];
  });
}

/** Keys that are held together are different ones. */
function twiceInAChord(all: readonly Named[]): Problem[] {
  return all.flatMap(({ path, gesture }) =>
    gesture.kind === 'hold'
      ? gesture.keys.flatMap((key, i) =>
          gesture.keys.indexOf(key) < i
            ? [{ code: 'twiceHeld', path: `${path}.keys[${i}]`, message: `"${key}" is held together with itself.` }]
            : [],
        )
      : [],
  );
}

function unknownKeys(map: DisplayMap, gestures: readonly Named[]): Problem[] {
  const known = new Set(map.keys.map((key) => key.id));
  return gestures.flatMap(({ path, gesture }) =>
    keysOf(gesture).flatMap((key, i) =>
      known.has(key)
        ? []
        : [
            {
              code: 'unknownKey',
              path: gesture.kind === 'hold' ? `${path}.keys[${i}]` : `${path}.key`,
              message: `There is no key "${key}" in keys.`,
            },
          ],
    ),
  );
}

/** Gestures that a display listens to at the same time. */
function contextsOf(map: DisplayMap): Named[][] {
  const { menu, power, ride } = map;
  const off = named('power.off', 'switches off', power.off);
  const riding = [
    ...off,
    ...(menu?.opens.flatMap((way, i) =>
      way.from === 'riding' ? named(`menu.opens[${i}].gesture`, `opens ${way.page}`, way.gesture) : [],
    ) ?? []),
    ...named('ride.levels.up', 'raises the level', ride?.levels?.up),
    ...named('ride.levels.down', 'lowers the level', ride?.levels?.down),
    ...named('ride.modes.gesture', 'changes the ride mode', ride?.modes?.gesture),
    ...(ride?.acts ?? []).flatMap(({ title, gesture }, i) =>
      named(`ride.acts[${i}].gesture`, `does "${title}"`, gesture),
    ),
    ...map.dangers.flatMap((danger, i) => named(`dangers[${i}].gesture`, 'starts the motor', danger.gesture)),
  ];
  const dark = [
    ...named('power.on', 'switches on', power.on),
    ...(menu?.opens.flatMap((way, i) =>
      way.from === 'off' ? named(`menu.opens[${i}].gesture`, `opens ${way.page}`, way.gesture) : [],
    ) ?? []),
  ];
  const starting = givingPin(power.pin, 'power.pin');
  if (!menu) return [riding, dark, starting];
  const asking = givingPin(menu.pin, 'menu.pin');
  const own = map.codes.flatMap((code, i) => {
    const halves = ownKeysOfHalves(menu, code, i);
    return code.edit || halves.length > 0
      ? [{ code, edit: editOf(menu, code), at: code.edit ? `codes[${i}].edit` : 'menu.edit', halves }]
      : [];
  });
  return [
    riding,
    dark,
    starting,
    asking,
    ...menu.pages.map((page) => browsing(map, menu, page.id, menu.edit, 'menu.edit')),
    editing(menu, menu.edit, 'menu.edit'),
    ...own.flatMap(({ code, edit, at, halves }) => [
      ...menu.pages
        .filter((page) => page.items.some((item) => 'code' in item && item.code === code.label))
        .map((page) => [
          ...movedBy(browsing(map, menu, page.id, edit, at), code, at),
          ...(edit.style === 'live' ? halves : []),
        ]),
      [...movedBy(editing(menu, edit, at), code, at), ...halves],
    ]),
  ];
}

const givingPin = (pin: PinKeys | null | undefined, at: string): Named[] =>
  pin
    ? [
        ...named(`${at}.up`, 'counts up', pin.up),
        ...named(`${at}.down`, 'counts down', pin.down),
        ...named(`${at}.back`, 'goes to the digit before', pin.back),
        ...named(`${at}.walk`, 'goes to the next digit', pin.walk),
        ...named(`${at}.enter`, 'enters the PIN', pin.enter),
      ]
    : [];

/** Keys that move one half of a code of two functions. */
const ownKeysOfHalves = ({ repeat }: MenuRules, { encoding }: Code, i: number): Named[] =>
  encoding.kind === 'pair'
    ? (['first', 'second'] as const).flatMap((half) =>
        (['up', 'down'] as const).flatMap((way) => {
          const at = `codes[${i}].encoding.${half}.${way}`;
          const by = encoding[half][way];
          return [
            ...named(at, `moves the ${half} half ${way}`, by),
            ...(repeat && by?.kind === 'tap'
              ? named(`${at} (repeat)`, 'repeats while held', { kind: 'hold', keys: [by.key], ms: repeat.delayMs })
              : []),
          ];
        }),
      )
    : [];

/** Without the keys of the edit whose half has keys of its own. */
function movedBy(all: readonly Named[], { encoding }: Code, at: string): Named[] {
  if (encoding.kind !== 'pair') return [...all];
  const { first, second, turned = false } = encoding;
  const [byUp, byDown] = turned ? [second, first] : [first, second];
  return all.filter(
    ({ path }) =>
      !(byUp.up && (path === `${at}.up` || path === 'menu.repeat (up)')) &&
      !(byDown.up && (path === `${at}.down` || path === 'menu.repeat (down)')),
  );
}

function browsing(map: DisplayMap, menu: MenuRules, page: string, edit: EditRules, at: string): Named[] {
  const hasEntries = menu.pages.some((p) => p.id === page && p.items.some((item) => !('code' in item)));
  const begin =
    edit.style === 'focus'
      ? named(`${at}.select`, 'begins the edit', edit.select)
      : edit.style === 'live'
        ? [
            ...named(`${at}.up`, 'counts up', edit.up),
            ...named(`${at}.down`, 'counts down', edit.down),
            ...repeating(menu, edit),
          ]
        : named(`${at}.begin`, 'begins the edit', edit.begin);
  const moves = [
    ...named('menu.next', 'passes to the next item', menu.next),
    ...named('menu.previous', 'passes to the previous item', menu.previous),
  ];
  const leave = [
    ...named('menu.close', 'leaves the menu', menu.close),
    ...named('menu.store.by', 'stores', menu.store.by),
    ...menu.turns.flatMap((turn, i) =>
      turn.from === page ? named(`menu.turns[${i}].gesture`, `turns to ${turn.to}`, turn.gesture) : [],
    ),
  ];
  const off = map.power.offInMenu ? named('power.off', 'switches off', map.power.off) : [];
  // On an entry the same gesture may pick it that begins an edit on a code: the two never stand on the glass together.
  return [
    ...begin,
    ...moves,
    ...leave,
    ...off,
    ...(hasEntries && menu.pick && !begin.some((b) => sameKeys(b.gesture, menu.pick as Gesture))
      ? named('menu.pick', 'takes the entry', menu.pick)
      : []),
  ];
}

function editing(menu: MenuRules, edit: EditRules, at: string): Named[] {
  const { store } = menu;
  const own =
    edit.style === 'digits'
      ? [
          ...named(`${at}.count`, 'counts the digit up', edit.count),
          ...named(`${at}.back`, 'counts the digit down', edit.back),
          ...named(`${at}.walk`, 'goes to the next digit', edit.walk),
          ...named(`${at}.end`, 'ends the edit', edit.end),
        ]
      : [...named(`${at}.up`, 'counts up', edit.up), ...named(`${at}.down`, 'counts down', edit.down)];
  const end =
    edit.style === 'focus'
      ? named(`${at}.select`, 'ends the edit', edit.select)
      : edit.style === 'enter'
        ? [
            ...named(`${at}.end`, 'ends the edit', edit.end),
            ...named(`${at}.abandon`, 'abandons the edit', edit.abandon),
          ]
        : [];
  const all = [...own, ...end, ...named('menu.store.by', 'stores', store.by)];
  return edit.style === 'digits' ? all : [...all, ...repeating(menu, edit)];
}

/** Holding a key that steps is a gesture too, where it repeats. */
const repeating = ({ repeat }: MenuRules, { up, down }: { readonly up: Gesture; readonly down: Gesture }): Named[] =>
  [up, down].flatMap((by, i) =>
    repeat && by.kind === 'tap'
      ? named(i === 0 ? 'menu.repeat (up)' : 'menu.repeat (down)', 'repeats while held', {
          kind: 'hold',
          keys: [by.key],
          ms: repeat.delayMs,
        })
      : [],
  );

function clashesIn(context: readonly Named[]): Problem[] {
  return context.flatMap((a, i) =>
    context.flatMap((b, j) => {
      if (i === j || a.path === b.path) return [];
      if (isPrefixOf(a.gesture, b.gesture))
        return [
          {
            code: 'prefix',
            path: b.path,
            message: `This gesture ${b.does}, and on the way there ${a.path} already ${a.does}.`,
          },
        ];
      if (i < j && !isPrefixOf(b.gesture, a.gesture) && isSameGesture(a.gesture, b.gesture)) {
        return [
          {
            code: 'sameGesture',
            path: b.path,
            message: `This gesture ${b.does}, and the same one ${a.does} (${a.path}).`,
          },
        ];
      }
      return [];
    }),
  );
}
