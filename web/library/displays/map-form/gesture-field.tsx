import { MultiSelect, NativeSelect, NumberInput } from '@mantine/core';
import { gestureFromWords, gestureToWords, keysOf, type Gesture } from '@decurio/core';
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
        <MultiSelect
          aria-label={`${label}: keys`}
          data={keys.map(({ id, label: title }) => ({ value: id, label: title }))}
          value={[...held]}
          onChange={(chosen) => chosen.length > 0 && put(made(way, chosen, gesture))}
          maxValues={gesture.kind === 'hold' ? 4 : 2}
          hidePickedOptions
        />
      )}
      {gesture?.kind === 'hold' && (
        <Seconds label={`${label}: seconds`} ms={gesture.ms} onMs={(ms) => put({ ...gesture, ms })} />
      )}
      {gesture?.kind === 'hold' && gesture.underMs !== undefined && (
        <Seconds
          label={`${label}: let go before, seconds`}
          ms={gesture.underMs}
          onMs={(underMs) => put({ ...gesture, underMs })}
        />
      )}
      {gesture?.kind === 'tap' && gesture.aloneMs !== undefined && (
        <Seconds
          label={`${label}: alone for, seconds`}
          ms={gesture.aloneMs}
          onMs={(aloneMs) => put({ ...gesture, aloneMs })}
        />
      )}
      {form.problem(...place) !== null && <p role="alert">{form.problem(...place)}</p>}
    </fieldset>
  );
}

const Seconds = ({
  label,
  ms,
  onMs,
}: {
  readonly label: string;
  readonly ms: number;
  readonly onMs: (ms: number) => void;
}) => (
  <NumberInput
    aria-label={label}
    value={ms / 1000}
    onChange={(next) => typeof next === 'number' && next > 0 && onMs(Math.round(next * 1000))}
    decimalScale={2}
    step={0.5}
    suffix=" s"
    hideControls
  />
);

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
  // Of a tap the key that was chosen last counts.
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
