import type { Part } from '../setup/inputs/parts.js';
import { lastShown } from '../bench/last-shown.js';
import type { VisitState } from '../bench/visit-state.js';
import type { DisplayMap } from '../display/map/display-map.js';
import type { HandoverEntry } from '../handover/handover.js';
import { receivedAtOf } from './seal.js';
import type { Evidence } from '../bench/evidence.js';
import { leftProofs, leftWorstKmh, type LeftProof } from './left-with.js';
import type { Standing } from './moved-code.js';

/** When in a visit a unit was read: before hands went on, as it left, or each time it was back. */
export const STATE_KINDS = { found: 'as found', left: 'as it left', back: 'as it came back' } as const;
export type StateKind = keyof typeof STATE_KINDS;

/** What a unit was known to be at one time, to be held beside another time or another unit. */
export interface UnitState extends Standing {
  /** Which of its visit's states: `found`, `left`, `back-1`, `back-2`, … */
  readonly key: string;
  readonly kind: StateKind;
  readonly serial: string;
  readonly at: string;
  readonly className: string;
  /** Of the state as it left alone; what was proved of a unit holds no longer once it was ridden away. */
  readonly proofs: readonly LeftProof[];
  readonly parts: readonly { readonly part: Part; readonly words: string }[];
  /** Shown speed over true, with its interval; null where it was not measured then. */
  readonly ratio: { readonly k: number; readonly low: number; readonly high: number } | null;
  /** Whether it asked for a PIN; null where nobody looked. */
  readonly asksPin: boolean | null;
  readonly errors: readonly string[];
}

/**
 * Every state that a visit knows of its unit, oldest first. A visit that is not sealed has none as it left, one at which
 * nothing was read as found has none as found.
 * @param evidence every entry of the visit
 * @param state what they fold to
 * @param handover what was handed over and came back since, oldest first
 */
export function unitStates(
  evidence: readonly Evidence[],
  state: VisitState,
  handover: readonly HandoverEntry[],
  map: DisplayMap,
): readonly UnitState[] {
  const { setup, serial, order } = state.opened;
  const base = lastShown(state);
  const found = shownAt(state.found);
  const common = { serial, map, setup, base, className: order.className, worstKmh: null };
  const foundAt = evidence.find(({ kind }) => kind === 'asFoundRead' || kind === 'asFoundClosed') ?? evidence[0];
  const last = evidence.at(-1);
  const pinSet = handover.some(({ kind, data }) => kind === 'pinTold' && 'opens' in data && data.opens === 'menu');
  const states: UnitState[] = [];
  if (foundAt && Object.keys(found).length > 0)
    states.push({
      ...common,
      ...NOTHING_MEASURED,
      key: 'found',
      kind: 'found',
      at: receivedAtOf(foundAt),
      values: found,
    });
  if (last && state.step === null && state.withdrawn === null)
    states.push({
      ...common,
      key: 'left',
      kind: 'left',
      at: receivedAtOf(last),
      values: base,
      worstKmh: leftWorstKmh(state),
      proofs: leftProofs(state),
      parts: state.parts.map(({ part, words }) => ({ part, words })),
      ratio: ratioOf(state),
      asksPin: pinSet ? true : null,
      errors: [],
    });
  let n = 0;
  for (const entry of handover)
    if (entry.kind === 'cameBack') {
      n += 1;
      states.push({
        ...common,
        ...NOTHING_MEASURED,
        key: `back-${n}`,
        kind: 'back',
        at: entry.at,
        values: { ...without(base, entry.data.values), ...shownAt(entry.data.values) },
        asksPin: entry.data.asksPin,
        errors: entry.data.errors,
      });
    }
  return states;
}

const NOTHING_MEASURED = { proofs: [], parts: [], ratio: null, asksPin: null, errors: [] } as const;

/** What was shown; a code that was not is left out. */
const shownAt = (values: Readonly<Record<string, number | null>>): Readonly<Record<string, number>> =>
  Object.fromEntries(Object.entries(values).flatMap(([label, raw]) => (raw === null ? [] : [[label, raw]])));

const without = (
  values: Readonly<Record<string, number>>,
  others: Readonly<Record<string, unknown>>,
): Readonly<Record<string, number>> =>
  Object.fromEntries(Object.entries(values).filter(([label]) => !Object.hasOwn(others, label)));

function ratioOf({ calibration: { result } }: VisitState): UnitState['ratio'] {
  return result === null ? null : { k: result.ratio.k, low: result.ratio.low, high: result.ratio.high };
}
