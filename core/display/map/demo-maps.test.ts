import { describe, expect, it } from 'vitest';
import { demoMap, demoMapFiles, demoMaps } from '../../testing/demo-maps.js';
import { isKeyed, type Code, type DisplayMap, type KeyedMap } from './display-map.js';
import { naiveWalk } from '../plan/naive-walk.js';
import { pagesListing } from './pages-listing.js';
import { conditionsOf } from './shown-by.js';
import { parseDisplayMap } from './parse-display-map.js';
import { planInstructions } from '../plan/plan-instructions.js';
import { planKeys, pressCount } from '../plan/plan-keys.js';
import { planReadout } from '../plan/plan-readout.js';
import { displayAtRest, simulateDisplay, valuesInOrder } from '../machine/simulate-display.js';

const maps = demoMaps();
const menus = maps.filter(isKeyed);
const codes = maps.flatMap((map) => map.codes);
const anyCode = (has: (code: Code) => boolean) => codes.some(has);
const writes = (how: RegExp) => demoMapFiles().some(([, data]) => how.test(JSON.stringify(data)));
const anyMenu = (has: (menu: KeyedMap['menu']) => boolean) => menus.some((map) => has(map.menu));

describe('the maps that ship', () => {
  it.each(demoMapFiles())('%s is sound', (_id, data) => {
    expect(parseDisplayMap(data)).toMatchObject({ ok: true });
  });

  it('are at least six, and three more of one family', () => {
    expect(maps.filter((map) => map.family === 'dunlin')).toHaveLength(3);
    expect(maps.filter((map) => map.family !== 'dunlin').length).toBeGreaterThanOrEqual(6);
  });

  it.each<[string, boolean]>([
    ['power from a dark display opens the menu', anyMenu((m) => m.opens.some((o) => o.from === 'off'))],
    ['power that can be cut in the menu', maps.some((m) => m.power.offInMenu)],
    ['a display that shows something at power-up', maps.some((m) => m.power.shows !== undefined)],
    ['a chord', anyMenu((m) => m.opens.some((o) => o.gesture.kind === 'hold' && o.gesture.keys.length > 1))],
    ['a double press', anyMenu((m) => m.opens.some((o) => o.gesture.kind === 'double'))],
    ['a PIN page', anyMenu((m) => m.pin !== null)],
    ['a list for each ride mode', anyMenu((m) => m.opens.some((o) => o.page === 'ofMode'))],
    ['lists passed in turn', anyMenu((m) => m.turns.length > 1)],
    ['an index', anyMenu((m) => m.pages.some((p) => p.items.filter((i) => 'page' in i).length > 1))],
    [
      'Back and Exit',
      anyMenu(
        (m) =>
          m.pages.some((p) => p.items.some((i) => 'back' in i)) &&
          m.pages.some((p) => p.items.some((i) => 'exit' in i)),
      ),
    ],
    ['a page never to enter', anyMenu((m) => m.pages.some((p) => p.neverEnter !== undefined))],
    ['next only', anyMenu((m) => m.previous === null)],
    ['next and previous', anyMenu((m) => m.previous !== null)],
    ['a list that starts again', anyMenu((m) => m.afterLast === 'wrap')],
    ['a list that leaves', anyMenu((m) => m.afterLast === 'leave')],
    ['a list that stops', anyMenu((m) => m.afterLast === 'stop')],
    ...(['live', 'focus', 'enter', 'digits'] as const).map((style): [string, boolean] => [
      `${style} editing`,
      anyMenu((m) => m.edit.style === style),
    ]),
    ['values that go round', anyMenu((m) => m.values === 'wrap')],
    ['values that stop', anyMenu((m) => m.values === 'stop')],
    ['values that are skipped', anyCode((c) => (c.skips?.length ?? 0) > 0)],
    [
      'words in an order of their own',
      anyCode(
        (c) =>
          c.encoding.kind === 'table' &&
          c.encoding.entries.some((e, i, all) => i > 0 && e.raw < (all[i - 1]?.raw ?? 0)),
      ),
    ],
    ['steps of a tenth', anyCode((c) => c.range.step === 0.1)],
    ['a key that repeats', anyMenu((m) => m.repeat !== null)],
    ['a hold that erases', anyCode((c) => c.holdErases !== undefined)],
    [
      'an action of either kind',
      anyCode((c) => c.action === 'restoreDefaults') && anyCode((c) => c.action === 'resetTrip'),
    ],
    ['a code with two functions', anyCode((c) => c.encoding.kind === 'pair')],
    ['a date and a clock', anyCode((c) => c.encoding.kind === 'date') && anyCode((c) => c.encoding.kind === 'clock')],
    ...(['move', 'endOfEdit', 'gesture', 'leave'] as const).map((on): [string, boolean] => [
      `storing on ${on}`,
      anyMenu((m) => m.store.on === on),
    ]),
    ['a message while storing', anyMenu((m) => m.store.message !== undefined)],
    [
      'a time-out that keeps, and one that drops',
      anyMenu((m) => m.idle.unstored === 'keep') && anyMenu((m) => m.idle.unstored === 'drop'),
    ],
    ['another time-out while editing', anyMenu((m) => m.idle.editMs !== m.idle.browseMs)],
    ['a menu that opens where it closed', anyMenu((m) => m.idle.reopensAt === 'same')],
    ...(['open', 'locked', 'pin', 'tool', 'never', 'absent'] as const).map((access): [string, boolean] => [
      `a code that is ${access}`,
      anyCode((c) => c.access === access),
    ]),
    ...(['acts', 'displayOnly', 'unverified'] as const).map((effect): [string, boolean] => [
      `an effect that is ${effect}`,
      anyCode((c) => c.effect === effect),
    ]),
    ...(['display', 'displayWhileAttached', 'untilPackOut'] as const).map((home): [string, boolean] => [
      `a value kept in: ${home}`,
      anyCode((c) => c.keptIn === home),
    ]),
    ...(['limits', 'resets', 'converts'] as const).map((kind): [string, boolean] => [
      `a code that ${kind} another`,
      anyCode((c) => c.influences?.some((i) => i.kind === kind) ?? false),
    ]),
    ['a code shown only with another', anyCode((c) => c.shownIf !== undefined)],
    ['a direction that differs', anyCode((c) => c.more === 'quicker') && anyCode((c) => c.more === 'slower')],
    [
      'a sentinel, and a doubt near the top',
      anyCode((c) => c.encoding.kind === 'line' && c.encoding.sentinels.length > 0) &&
        anyCode((c) => c.encoding.kind === 'line' && c.encoding.doubtfulFrom !== undefined),
    ],
    ['a unit that follows', anyCode((c) => c.encoding.kind === 'line' && c.encoding.follows !== undefined)],
    ['a wheel table', anyCode((c) => c.wheelTable !== undefined)],
    ['an entry with a way of its own to change it', anyCode((c) => c.edit !== undefined)],
    [
      'digits that a key counts down, and a gesture that ends them',
      anyMenu((m) => m.edit.style === 'digits' && m.edit.back !== undefined && m.edit.end !== undefined),
    ],
    ['words on the glass', anyCode((c) => c.shows !== undefined)],
    [
      'two values in one code, the keys turned about',
      anyCode((c) => c.encoding.kind === 'pair' && c.encoding.turned === true),
    ],
    ['a value stored by pausing', anyMenu((m) => m.store.pause?.does === 'store')],
    [
      'an entry that leads on only with a code',
      anyMenu((m) => m.pages.some((p) => p.items.some((item) => 'page' in item && item.shownIf !== undefined))),
    ],
    ['a level as it was left', maps.some((m) => m.ride?.levels?.wakesAt === 'asLeft')],
    ['a level by a code', maps.some((m) => typeof m.ride?.levels?.wakesAt === 'object')],
    ['as many levels as a code sets', maps.some((m) => m.ride?.levels?.mostBy !== undefined)],
    [
      'a doubt of one value, and of a whole entry',
      anyCode((c) => c.doubts?.some(({ raws }) => raws !== undefined) ?? false) &&
        anyCode((c) => c.doubts?.some(({ raws }) => raws === undefined) ?? false),
    ],
    [
      'a unit without a power key, and without a power cycle',
      maps.some((m) => m.power.on === null && m.restart.length === 0),
    ],
    ['a key tapped once or twice, and held for short or for long', [/alone/, /\d-\d/].every((how) => writes(how))],
    [
      'two values in one code, each with keys and ends of its own',
      anyCode(
        (c) => c.encoding.kind === 'pair' && c.encoding.first.up !== undefined && c.encoding.second.values === 'stop',
      ),
    ],
    ['another range in another unit', anyCode((c) => c.otherRanges !== undefined)],
    [
      'units that reckon another code anew, and cut it off',
      anyCode((c) => c.influences?.some((i) => i.kind === 'converts' && i.rounding === 'down') ?? false),
    ],
    [
      'the list of the mode from an entry',
      anyMenu((m) => m.pages.some((p) => p.items.some((item) => 'page' in item && item.page === 'ofMode'))),
    ],
    ['an entry on several pages', menus.some((m) => m.codes.some(({ label }) => pagesListing(m, label).length > 1))],
    ['a PIN at entries, and before a page', anyMenu((m) => m.pages.some(({ asksPin }) => asksPin))],
    ['a cursor that goes back, and a lock', anyMenu((m) => m.pin?.back !== undefined && m.pin.lock !== undefined)],
    ['a start PIN that can be switched off', maps.some((m) => m.power.pin?.asksIf !== undefined)],
    [
      'every act on the main page',
      ['resetsCounter', 'turbo', 'motors', 'lights'].every((does) =>
        maps.some((m) => m.ride?.acts?.some((act) => act.does === does)),
      ),
    ],
    ['an entry that another makes dead', anyCode((c) => c.deadIf !== undefined)],
    ['a value in each pack profile', anyCode((c) => c.keptIn === 'profile')],
    [
      'what is written only while something stays attached, after a firmware',
      maps.some((m) => m.instructions?.lasts === 'whileAttached' && m.instructions.firmware !== undefined),
    ],
    ['an icon that proves', maps.some((m) => (m.icons?.length ?? 0) > 0)],
    [
      'every rounding of speed',
      ['nearest', 'truncated', 'unknown'].every((r) => maps.some((m) => m.speed?.rounding === r)),
    ],
    ['setting by instruction with pack profiles', maps.some((m) => (m.instructions?.profiles.length ?? 0) > 0)],
    [
      'every source of a meaning',
      (['measured', 'makersPaper', 'hearsay'] as const).every((s) => anyCode((c) => c.source === s)),
    ],
  ])('between them use: %s', (_feature, isUsed) => {
    expect(isUsed).toBe(true);
  });
});

/** Every code that keys move, three values on. */
const shifted = (map: DisplayMap) =>
  Object.fromEntries(
    map.codes
      .filter(
        (code) =>
          (code.access === 'open' || code.access === 'pin') &&
          code.action === undefined &&
          !conditionsOf(map).has(code.label) &&
          code.function !== 'accessPin',
      )
      .map((code) => {
        const values = valuesInOrder(code);
        return [code.label, values[(values.indexOf(code.factory) + 3) % values.length] ?? code.factory] as const;
      }),
  );

describe.each(menus.map((map) => [map.id, map] as const))('%s', (_id, map) => {
  const influenced = new Set(map.codes.flatMap((code) => code.influences?.map((i) => i.code) ?? []));
  const targets = Object.fromEntries(Object.entries(shifted(map)).filter(([label]) => !influenced.has(label)));

  it('is keyed by a plan that stores every target and leaves the rest', () => {
    const plan = planKeys(map, targets, { values: {}, at: null });
    const end = plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), displayAtRest(map));
    expect(plan.unreachable).toEqual([]);
    expect(end.screen.kind).toBe('riding');
    for (const code of map.codes)
      if (!influenced.has(code.label))
        expect([code.label, end.stored[code.label]]).toEqual([code.label, targets[code.label] ?? code.factory]);
  });

  it('takes fewer seconds than a walk through every code', () => {
    const plan = planKeys(map, targets, { values: {}, at: null });
    const walk = naiveWalk(map, targets, {});
    expect(plan.estimatedMs).toBeLessThanOrEqual(walk?.ms ?? 0);
    expect(pressCount(plan)).toBeGreaterThan(0);
  });

  it('is read out whole, and nothing is changed', () => {
    const plan = planReadout(map, { values: {}, at: null });
    const shown = new Set(plan.steps.flatMap(({ after }) => (after.kind === 'menu' ? [after.label] : [])));
    const listed = map.menu.pages
      .filter((p) => p.neverEnter === undefined)
      .flatMap((p) => p.items.flatMap((item) => ('code' in item ? [item.code] : [])));
    const left = new Set(plan.unreachable.map((u) => u.label));
    expect(listed.filter((label) => !left.has(label)).every((label) => shown.has(label))).toBe(true);
    const from = displayAtRest(map);
    const end = plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), from);
    expect(end.stored).toEqual(from.stored);
    expect(end.screen.kind).toBe('riding');
  });
});

it('a unit set by instruction is told what to choose in every profile, to write, and to read again', () => {
  const map = demoMap('teasel-link');
  const plan = planInstructions(map, { 'speed limit': 25, cells: 10, regen: 35 }, {});
  expect(plan.unreachable).toEqual([{ label: 'regen', why: 'regen cannot be set to 35.' }]);
  expect(plan.instructions.map((i) => i.act)).toEqual([
    'connect',
    'connect',
    'choose',
    'profile',
    'choose',
    'profile',
    'choose',
    'write',
    'reconnect',
    'readAgain',
    'readAgain',
  ]);
  // Cells are the pack's own and written once; a rider switches between two speed limits.
  expect(plan.instructions[2]?.label).toBe('cells');
  expect(plan.instructions[4]).toEqual({
    act: 'choose',
    says: 'Choose speed limit, speed cap: 25 km/h.',
    label: 'speed limit',
    raw: 25,
  });
  expect(planInstructions(map, {}, {}).instructions).toEqual([]);
});

it('a unit that needs a firmware, and is read through the same channel, has both told in their place', () => {
  const map = demoMap('teasel-link');
  const { instructions } = map;
  const says = planInstructions(
    {
      ...map,
      instructions: { ...instructions!, firmware: '2.1', reconnect: [], readOut: ['Open the page of values.'] },
    },
    { 'speed limit': 25 },
    {},
  ).instructions.map((each) => `${each.act}: ${each.says}`);
  expect(says[0]).toBe('connect: It needs firmware 2.1 or later: look at what it has first.');
  expect(says.slice(-2)).toEqual(['readAgain: Open the page of values.', 'readAgain: Read speed limit again.']);
  expect(says.some((each) => each.startsWith('reconnect'))).toBe(false);
});
