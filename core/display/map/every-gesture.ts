import type { DisplayMap } from './display-map.js';
import type { Gesture } from './gesture.js';

const known = new WeakMap<DisplayMap, readonly Gesture[]>();

/** Every gesture that a map names, wherever it stands. */
export function everyGesture(map: DisplayMap): readonly Gesture[] {
  const before = known.get(map);
  if (before) return before;
  const found: Gesture[] = [];
  const look = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    const { kind } = value as { readonly kind?: unknown };
    if (kind === 'tap' || kind === 'double' || kind === 'hold') found.push(value as Gesture);
    else Object.values(value).forEach(look);
  };
  look([map.power, map.ride, map.menu, map.dangers, map.codes]);
  known.set(map, found);
  return found;
}
