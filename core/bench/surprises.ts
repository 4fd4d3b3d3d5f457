import { formatRaw } from '../display/map/raw-value.js';
import type { CodeFunction } from '../display/map/functions.js';
import type { CodeSpan } from './bench-terms.js';

/** Something met as found that the map or the batch does not lead one to expect. */
export interface Surprise {
  readonly kind: 'notShown' | 'outOfRange' | 'moved' | 'pinSet' | 'stray';
  /** `decide`: a lead looks at it before anything is keyed. `note`: to be known. */
  readonly level: 'decide' | 'note';
  readonly label: string | null;
  readonly says: string;
}

export interface FoundValue {
  readonly label: string;
  readonly function: CodeFunction;
  /** As the maker delivers it, or as the unit left here before. */
  readonly presumed: number | undefined;
  readonly span: CodeSpan | undefined;
  readonly raw: number | null;
  /** The display does not list it with what its other codes show. */
  readonly isHidden?: boolean;
}

const PINS: ReadonlySet<CodeFunction> = new Set<CodeFunction>(['accessPin', 'startupPin']);
/** These move while a vehicle is used or told the time; that is no surprise. */
const MOVES_BY_ITSELF: ReadonlySet<CodeFunction> = new Set<CodeFunction>([
  'odometer',
  'clock',
  'serviceReminder',
  'info',
]);

/** What is not as expected of a code read as found, or null. */
export function surpriseOf({
  label,
  function: what,
  presumed,
  span,
  raw,
  isHidden = false,
}: FoundValue): Surprise | null {
  if (raw === null && isHidden) return null;
  if (raw === null)
    return {
      kind: 'notShown',
      level: 'decide',
      label,
      says: `${label} is on this display's map and not on the glass. It may be another revision.`,
    };
  const show = (value: number) =>
    formatRaw({ decimals: span?.decimals ?? 0, ...(span?.shows ? { shows: span.shows } : {}) }, value);
  const isOutside =
    span !== undefined && (span.only ? !span.only.includes(raw) : raw < span.min || raw > span.max) && raw !== presumed;
  if (isOutside && !PINS.has(what) && !MOVES_BY_ITSELF.has(what))
    return {
      kind: 'outOfRange',
      level: 'decide',
      label,
      says: `${label} shows ${show(raw)}, which this display's map does not know. It may be another revision.`,
    };
  if (raw === presumed || presumed === undefined || MOVES_BY_ITSELF.has(what)) return null;
  if (PINS.has(what))
    return {
      kind: 'pinSet',
      level: 'decide',
      label,
      says: `${label} is not as delivered: an earlier PIN may be set. Without it the menu may close to whoever rides or serves it.`,
    };
  return {
    kind: 'moved',
    level: 'note',
    label,
    says: `${label} shows ${show(raw)}, not ${show(presumed)} as expected.`,
  };
}

export const EARLIER_PIN: Surprise = {
  kind: 'pinSet',
  level: 'decide',
  label: null,
  says: 'The PIN as delivered does not open the menu: an earlier one is set. Whoever had the vehicle before may know it; nobody tries them all.',
};

export const strayCode = (shown: string, value: string): Surprise => ({
  kind: 'stray',
  level: 'decide',
  label: null,
  says: `The glass shows ${shown} at ${value}, which is not on this display's map. It stays as found; this may be another revision.`,
});
