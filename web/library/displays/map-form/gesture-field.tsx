import { NativeSelect } from '@mantine/core';
import { gestureFromWords, gestureToWords, keysOf, type Gesture } from '@decurio/core';
import { Seconds } from './written-fields.js';
import type { Place, WrittenForm } from './written-form.js';
import classes from './map-form.module.css';

export interface GestureAtProps {
  readonly form: WrittenForm;
  readonly place: Place;
  readonly label: string;
  readonly keys: readonly { readonly id: string; readonly label: string }[];
  /** There need not be one. */
  readonly isOptional?: boolean;
}

/** Fingers of a hand that holds a handlebar. */
const MOST_HELD = 4;

type Way = 'none' | 'tap' | 'alone' | 'double' | 'hold' | 'short';

const WAYS: readonly { readonly value: Way; readonly label: string }[] = [
  { value: 'tap', label: 'tap' },
  { value: 'alone', label: 'one tap alone' },
  { value: 'double', label: 'two taps' },
  { value: 'hold', label: 'hold' },
  { value: 'short', label: 'hold, let go before' },
];
const NONE = { value: 'none' as const, label: 'none' };

/** How a key is pressed, or several held: chosen, never typed as a word. */
export function GestureAt({ form, place, label, keys, isOptional = false }: GestureAtProps) {
  const gesture = gestureIn(form.at(...place));
  const way = wayOf(gesture);
  const put = (next: Gesture | null) => form.put(place, next === null ? undefined : gestureToWords(next));
  const held = gesture ? keysOf(gesture) : [];
  const [first = keys[0]?.id ?? ''] = held;
  const options = isOptional || gesture === null ? [NONE, ...WAYS] : WAYS;
  return (
    <fieldset className={classes['gesture']} aria-label={label}>
      <legend>{label}</legend>
      <NativeSelect
        aria-label={`${label}: how`}
        data={[...options]}
        value={way}
        onChange={({ target }) => put(made(target.value as Way, held.length > 0 ? held : [first], gesture))}
      />
      {gesture !== null && (
        <HeldKeys
          label={label}
          keys={keys}
          held={held}
          most={gesture.kind === 'hold' ? MOST_HELD : 1}
          onHeld={(next) => put(made(way, next, gesture))}
        />
      )}
      {gesture?.kind === 'hold' && (
        <Seconds isBare label={`${label}: seconds`} ms={gesture.ms} onMs={(ms) => put({ ...gesture, ms: ms ?? 0 })} />
      )}
      {gesture?.kind === 'hold' && gesture.underMs !== undefined && (
        <Seconds
          isBare
          label={`${label}: let go before, seconds`}
          ms={gesture.underMs}
          onMs={(underMs) => put({ ...gesture, underMs: underMs ?? 0 })}
        />
      )}
      {gesture?.kind === 'tap' && gesture.aloneMs !== undefined && (
        <Seconds
          isBare
          label={`${label}: alone for, seconds`}
          ms={gesture.aloneMs}
          onMs={(aloneMs) => put({ ...gesture, aloneMs: aloneMs ?? 0 })}
        />
      )}
      {form.problem(...place) !== null && <p role="alert">{form.problem(...place)}</p>}
    </fieldset>
  );
}

interface HeldKeysProps {
  readonly label: string;
  readonly keys: GestureAtProps['keys'];
  readonly held: readonly string[];
  readonly most: number;
  readonly onHeld: (held: readonly string[]) => void;
}

/** The key, and where several are held the others, a choice each: one more is always offered. */
function HeldKeys({ label, keys, held, most, onHeld }: HeldKeysProps) {
  const slots = Math.min(held.length + 1, keys.length, most);
  const offered = (slot: number) => {
    const free = keys.filter(({ id }) => id === held[slot] || !held.includes(id));
    const named = free.map(({ id, label: printed }) => ({ value: id, label: slot === 0 ? printed : `and ${printed}` }));
    // A key that is not there any more is still what stands written.
    const gone = held[slot] !== undefined && free.every(({ id }) => id !== held[slot]) ? [held[slot]] : [];
    return [...(slot === 0 ? [] : [{ value: '', label: slot === 1 ? 'alone' : 'and no other' }]), ...named, ...gone];
  };
  return Array.from({ length: slots }, (_, slot) => (
    <NativeSelect
      key={slot}
      aria-label={slot === 0 ? `${label}: key` : `${label}: with key ${slot + 1}`}
      data={offered(slot)}
      value={held[slot] ?? ''}
      onChange={({ target }) => {
        const next = [...held.slice(0, slot), target.value, ...held.slice(slot + 1)];
        onHeld(next.filter((key) => key !== ''));
      }}
    />
  ));
}

function gestureIn(value: unknown): Gesture | null {
  if (typeof value === 'string') return gestureFromWords(value);
  return typeof value === 'object' && value !== null && 'kind' in value ? (value as Gesture) : null;
}

function wayOf(gesture: Gesture | null): Way {
  if (gesture === null) return 'none';
  if (gesture.kind === 'hold') return gesture.underMs === undefined ? 'hold' : 'short';
  if (gesture.kind === 'double') return 'double';
  return gesture.aloneMs === undefined ? 'tap' : 'alone';
}

/** The gesture of this way on these keys; times as they were, else as they usually are. */
function made(way: Way, keys: readonly string[], before: Gesture | null): Gesture | null {
  // Of several that were held a tap takes the last.
  const key = keys.at(-1) ?? '';
  const ms = before?.kind === 'hold' ? before.ms : 2_000;
  switch (way) {
    case 'none':
      return null;
    case 'tap':
      return { kind: 'tap', key };
    case 'alone':
      return { kind: 'tap', key, aloneMs: 400 };
    case 'double':
      return { kind: 'double', key };
    case 'hold':
      return { kind: 'hold', keys, ms };
    case 'short':
      return {
        kind: 'hold',
        keys,
        ms,
        underMs: before?.kind === 'hold' && before.underMs ? before.underMs : ms + 2_000,
      };
  }
}
