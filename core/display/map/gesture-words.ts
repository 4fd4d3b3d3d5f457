import { keyLabel, type DisplayMap } from './display-map.js';
import { keysOf, type Gesture } from './gesture.js';

/** What is on the keys of a gesture, e.g. `set` or `set and +`. */
export const gestureKeys = (map: DisplayMap, gesture: Gesture): string =>
  keysOf(gesture)
    .map((key) => keyLabel(map, key))
    .join(' and ');

/** A gesture as a short order, e.g. `hold set and + for 2 s`, `tap set`, `tap menu twice`, `tap set once and wait`. */
export function gestureWords(map: DisplayMap, gesture: Gesture): string {
  const keys = gestureKeys(map, gesture);
  switch (gesture.kind) {
    case 'tap':
      return gesture.aloneMs === undefined ? `tap ${keys}` : `tap ${keys} once and wait`;
    case 'double':
      return `tap ${keys} twice`;
    case 'hold':
      return gesture.underMs === undefined
        ? `hold ${keys} for ${seconds(gesture.ms)} s`
        : `hold ${keys} for ${seconds(gesture.ms)} s and let go before ${seconds(gesture.underMs)} s`;
  }
}

const seconds = (ms: number): number => Number((ms / 1000).toFixed(1));
