import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import {
  codeShown,
  displayAtRest,
  editOf,
  fulfils,
  glassOf,
  simulateDisplay,
  type DisplayInput,
  type DisplayMap,
  type DisplayState,
  type Gesture,
  type KeyedMap,
  type Glass,
  type RawValues,
} from '@decurio/core';

/** A press that the display took, with what the glass showed before and after it. */
export interface TakenPress {
  readonly gesture: Gesture;
  /** Milliseconds since the display was laid here, at the end of the press. */
  readonly atMs: number;
  readonly before: Glass;
  readonly after: Glass;
}

export interface Handlebar {
  readonly state: DisplayState;
  readonly glass: Glass;
  /** Keys that are down now. */
  readonly down: ReadonlySet<string>;
  readonly press: (key: string) => void;
  readonly release: (key: string) => void;
  /** Every press since the display was laid here. */
  readonly taken: readonly TakenPress[];
  /** Power cycled, the pack taken out, the display unplugged. */
  readonly act: (input: Exclude<DisplayInput, Gesture>) => void;
  /** Lays a fresh display here. */
  readonly lay: (values?: RawValues) => void;
}

const TICK_MS = 50;
const DOUBLE_MS = 450;
const TAP_MOST_MS = 700;

interface Held {
  readonly keys: ReadonlySet<string>;
  readonly since: number;
  /** Steps that a held key has taken already; a press that did what it does counts no more until all keys are up. */
  readonly steps: number;
  readonly isSpent: boolean;
}

const NOTHING: Held = { keys: new Set(), since: 0, steps: 0, isSpent: false };

/**
 * A simulated display under real fingers: taps, double taps, holds and chords as they are made, time-outs in real time.
 * It runs on `simulateDisplay` alone.
 */
export function useHandlebar(map: DisplayMap, initial: RawValues | DisplayState = {}): Handlebar {
  const [state, setState] = useState(() =>
    'screen' in initial ? (initial as DisplayState) : displayAtRest(map, initial as RawValues),
  );
  const [down, setDown] = useState<ReadonlySet<string>>(NOTHING.keys);
  const [taken, setTaken] = useState<readonly TakenPress[]>([]);
  const now = useRef({ state, held: NOTHING, lastTap: { key: '', at: 0 }, tickedAt: 0, laidAt: 0 });

  const show = useCallback((next: DisplayState) => {
    const before = now.current.state;
    now.current.state = next;
    if (!sameToSee(before, next)) setState(next);
  }, []);

  const take = useCallback(
    (gesture: Gesture) => {
      const { state: from, laidAt } = now.current;
      const to = simulateDisplay(map, from, gesture);
      const press = { gesture, atMs: performance.now() - laidAt, before: glassOf(map, from), after: glassOf(map, to) };
      setTaken((all) => [...all, press]);
      now.current.state = to;
      setState(to);
    },
    [map],
  );

  const act = useCallback(
    (input: Exclude<DisplayInput, Gesture>) => {
      const next = simulateDisplay(map, now.current.state, input);
      now.current = { ...now.current, state: next, held: NOTHING };
      setState(next);
      setDown(NOTHING.keys);
    },
    [map],
  );

  const lay = useCallback(
    (values: RawValues = {}) => {
      const fresh = displayAtRest(map, values);
      now.current = {
        ...now.current,
        state: fresh,
        held: NOTHING,
        laidAt: performance.now(),
        tickedAt: performance.now(),
      };
      setState(fresh);
      setDown(NOTHING.keys);
      setTaken([]);
    },
    [map],
  );

  const press = useCallback((key: string) => {
    const { held } = now.current;
    if (held.keys.has(key)) return;
    const keys = new Set([...held.keys, key]);
    now.current.held = { keys, since: performance.now(), steps: 0, isSpent: false };
    setDown(keys);
  }, []);

  const release = useCallback(
    (key: string) => {
      const { held, lastTap } = now.current;
      if (!held.keys.has(key)) return;
      const keys = new Set([...held.keys].filter((other) => other !== key));
      const at = performance.now();
      if (!held.isSpent && held.steps === 0 && held.keys.size === 1 && at - held.since < TAP_MOST_MS) {
        const isSecond = lastTap.key === key && at - lastTap.at < DOUBLE_MS;
        now.current.lastTap = isSecond ? { key: '', at: 0 } : { key, at };
        const twice: Gesture = { kind: 'double', key };
        take(isSecond && means(map, now.current.state, twice) ? twice : { kind: 'tap', key });
      }
      now.current.held = keys.size === 0 ? NOTHING : { ...held, keys, isSpent: true };
      setDown(keys);
    },
    [map, take],
  );

  useEffect(() => {
    const begins = performance.now();
    now.current = { ...now.current, tickedAt: begins, laidAt: begins };
    const timer = setInterval(() => {
      const at = performance.now();
      const { held, tickedAt } = now.current;
      now.current.tickedAt = at;
      if (held.keys.size === 0) {
        show(simulateDisplay(map, now.current.state, { kind: 'wait', ms: at - tickedAt }));
        return;
      }
      if (held.isSpent) return;
      const keys = [...held.keys];
      const gesture: Gesture = { kind: 'hold', keys, ms: at - held.since };
      const steps = stepsDue(map, now.current.state, gesture);
      if (steps > 0) {
        const [key = ''] = keys;
        for (let step = held.steps; step < steps; step++) take({ kind: 'tap', key });
        now.current.held = { ...held, steps };
      } else if (held.steps === 0 && means(map, now.current.state, gesture)) {
        now.current.held = { ...held, isSpent: true };
        take(gesture);
      }
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [map, show, take]);

  const glass = useMemo(() => glassOf(map, state), [map, state]);
  return { state, glass, down, press, release, taken, act, lay };
}

/** Whether a gesture does anything at all in this state. */
const means = (map: DisplayMap, state: DisplayState, gesture: Gesture): boolean => {
  const next = simulateDisplay(map, state, gesture);
  return !sameToSee(next, state);
};

const sameToSee = (a: DisplayState, b: DisplayState): boolean =>
  a.screen === b.screen &&
  a.stored === b.stored &&
  a.unstored === b.unstored &&
  a.inForce === b.inForce &&
  a.mode === b.mode &&
  a.level === b.level &&
  a.motorStarted === b.motorStarted;

/** Steps that a key held so long has taken, where it repeats here; 0 where holding it means something else or nothing. */
function stepsDue(map: DisplayMap, state: DisplayState, held: Gesture & { readonly kind: 'hold' }): number {
  const { menu } = map;
  if (!menu?.repeat || held.keys.length !== 1 || held.ms < menu.repeat.delayMs || state.screen.kind !== 'menu')
    return 0;
  const edit = editOf(menu, codeShown(map as KeyedMap, state));
  if (edit.style === 'digits' || (edit.style !== 'live' && state.screen.focus !== 'value')) return 0;
  const isStepper = [edit.up, edit.down].some(
    (by) => by.kind === 'tap' && fulfils({ kind: 'tap', key: held.keys[0] ?? '' }, by),
  );
  return isStepper ? 2 + Math.floor((held.ms - menu.repeat.delayMs) / menu.repeat.everyMs) : 0;
}
