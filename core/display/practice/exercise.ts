import { isListed } from '../machine/display-state.js';
import { findCode, isKeyed, type Code, type DisplayMap, type KeyedMap } from '../map/display-map.js';
import { displayAtRest, valuesInOrder, type RawValues } from '../machine/simulate-display.js';

/** Something to be done on a simulated display. */
export interface Exercise {
  readonly kind: 'set' | 'read';
  /** What the display holds at the beginning. */
  readonly values: RawValues;
  /** `set`: what it is to hold at the end, by label. `read`: what is to be read. */
  readonly targets: RawValues;
}

/** A number of [0, 1), such as `Math.random` gives. */
export type Chance = () => number;

/**
 * An exercise made by chance: `set` asks for up to `count` codes that keys move to take another value, `read` for every
 * code of the glass on a display whose values have been moved about. Actions, PINs, codes that must not be touched and
 * codes that other codes of the exercise would drag along are left out.
 */
export function makeExercise(map: DisplayMap, kind: Exercise['kind'], chance: Chance, count = 5): Exercise {
  if (!isKeyed(map)) return { kind, values: {}, targets: {} };
  const movable = movableCodes(map);
  if (kind === 'set')
    return {
      kind,
      values: displayAtRest(map).stored,
      targets: Object.fromEntries(some(movable, count, chance).map((code) => [code.label, anotherValue(code, chance)])),
    };
  const moved = Object.fromEntries(
    movable.map((code) => [code.label, chance() < 0.5 ? code.factory : anotherValue(code, chance)]),
  );
  const { stored } = displayAtRest(map, moved);
  const listed = map.menu.pages
    .filter((page) => page.neverEnter === undefined)
    .flatMap((page) => page.items.filter((item) => isListed(map, { stored }, item)));
  const labels = listed.flatMap((item) => ('code' in item ? [item.code] : []));
  return { kind, values: stored, targets: Object.fromEntries(labels.map((label) => [label, stored[label] ?? 0])) };
}

/** Codes that an exercise may ask to change. */
function movableCodes(map: KeyedMap): readonly Code[] {
  const dragged = new Set(
    map.codes.flatMap((code) => [
      ...(code.influences ?? []).map((i) => i.code),
      ...(code.shownIf ? [code.label, code.shownIf.code] : []),
    ]),
  );
  const onPages = new Set(
    map.menu.pages
      .filter((page) => page.neverEnter === undefined)
      .flatMap((page) => page.items.flatMap((item) => ('code' in item ? [item.code] : []))),
  );
  return map.codes.filter(
    (code) =>
      (code.access === 'open' || code.access === 'pin') &&
      code.action === undefined &&
      code.holdErases === undefined &&
      code.function !== 'accessPin' &&
      code.function !== 'startupPin' &&
      !dragged.has(code.label) &&
      onPages.has(code.label) &&
      valuesInOrder(code).length > 1,
  );
}

function some<T>(all: readonly T[], count: number, chance: Chance): T[] {
  const left = [...all];
  const taken: T[] = [];
  while (taken.length < count && left.length > 0) taken.push(...left.splice(Math.floor(chance() * left.length), 1));
  return all.filter((one) => taken.includes(one));
}

/** Not too far away: an exercise is about the menu, not about patience. */
function anotherValue(code: Code, chance: Chance): number {
  const values = valuesInOrder(code);
  const at = values.indexOf(code.factory);
  const near = values.filter((raw, i) => raw !== code.factory && Math.abs(i - at) <= 12);
  return near[Math.floor(chance() * near.length)] ?? code.factory;
}

/** Codes of an exercise that do not hold what they should, and codes that were changed without being asked for. */
export function exerciseSlips(
  map: DisplayMap,
  { kind, values, targets }: Exercise,
  stored: RawValues,
): { readonly wrong: readonly string[]; readonly touched: readonly string[] } {
  const dragged = new Set(
    Object.keys(targets).flatMap((label) => (findCode(map, label)?.influences ?? []).map((i) => i.code)),
  );
  const wanted = (label: string) => (kind === 'set' ? (targets[label] ?? values[label]) : values[label]);
  const off = map.codes.filter(({ label }) => stored[label] !== wanted(label)).map(({ label }) => label);
  return {
    wrong: off.filter((label) => kind === 'set' && label in targets),
    touched: off.filter((label) => !(kind === 'set' && label in targets) && !dragged.has(label)),
  };
}
