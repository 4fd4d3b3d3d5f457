import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import {
  displayAtRest,
  fingersOn,
  glassOf,
  isSameDisplay,
  simulateDisplay,
  touched,
  type DisplayInput,
  type DisplayMap,
  type DisplayState,
  type Fingers,
  type Gesture,
  type Glass,
  type RawValues,
  type TakenPress,
} from '@decurio/core';

export interface Handlebar {
  readonly state: DisplayState;
  readonly glass: Glass;
  /** Keys that are down now. */
  readonly down: ReadonlySet<string>;
  readonly press: (key: string) => void;
  readonly release: (key: string) => void;
  /** Every press since the display was laid here, in ms since then. */
  readonly taken: readonly TakenPress[];
  /** Power cycled, the pack taken out, the display unplugged. */
  readonly act: (input: Exclude<DisplayInput, Gesture>) => void;
  /** Lays a fresh display here. */
  readonly lay: (values?: RawValues) => void;
}

const TICK_MS = 50;

/**
 * A simulated display under real fingers: taps, double taps, holds and chords as they are made, time-outs in real time.
 * What a press means `touched` decides; here are only the clock and the screen.
 */
export function useHandlebar(map: DisplayMap, initial: RawValues | DisplayState = {}): Handlebar {
  const [shown, setShown] = useState<Fingers>(() =>
    fingersOn('screen' in initial ? (initial as DisplayState) : displayAtRest(map, initial as RawValues), 0),
  );
  const now = useRef(shown);
  const laidAt = useRef(0);

  const show = useCallback((next: Fingers) => {
    const before = now.current;
    now.current = next;
    if (!isSameDisplay(before.display, next.display) || before.down !== next.down || before.taken !== next.taken)
      setShown(next);
  }, []);

  const touch = useCallback(
    (event: { readonly kind: 'down' | 'up'; readonly key: string } | { readonly kind: 'tick' }) =>
      show(touched(map, now.current, { ...event, atMs: performance.now() - laidAt.current })),
    [map, show],
  );

  const press = useCallback((key: string) => touch({ kind: 'down', key }), [touch]);
  const release = useCallback((key: string) => touch({ kind: 'up', key }), [touch]);

  const act = useCallback(
    (input: Exclude<DisplayInput, Gesture>) => {
      const { display, atMs, taken } = now.current;
      show({ ...fingersOn(simulateDisplay(map, display, input), atMs), taken });
    },
    [map, show],
  );

  const lay = useCallback(
    (values: RawValues = {}) => {
      laidAt.current = performance.now();
      show(fingersOn(displayAtRest(map, values), 0));
    },
    [map, show],
  );

  useEffect(() => {
    laidAt.current = performance.now() - now.current.atMs;
    const timer = setInterval(() => touch({ kind: 'tick' }), TICK_MS);
    return () => clearInterval(timer);
  }, [touch]);

  const { display, down, taken } = shown;
  const glass = useMemo(() => glassOf(map, display), [map, display]);
  const keysDown = useMemo(() => new Set(down), [down]);
  return { state: display, glass, down: keysDown, press, release, taken, act, lay };
}
