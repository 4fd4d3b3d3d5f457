import type { Code, Influence, KeyedMap } from '../map/display-map.js';
import { codeOf, settableValues, shownValue, type DisplayState, type RawValues } from '../machine/display-state.js';
import { editOf } from '../map/edit-rules.js';
import { conditionsOf } from '../map/shown-by.js';
import { pagesListing } from '../map/pages-listing.js';
import { mayHold } from '../map/raw-value.js';
import { HOLD_TOLERANCE_MS } from './pace.js';

/** What is to be brought about, and what one must keep an eye on meanwhile. */
export interface Job {
  /** Codes whose value tells two states apart: targets, what influences them, and what they are shown by. */
  readonly tracked: readonly Code[];
  readonly isTracked: (code: Code) => boolean;
  readonly wanted: (code: Code) => number;
  /** Values worth giving a code on the way: its target, and those that bring a hidden target on the glass. */
  readonly useful: (state: DisplayState, code: Code) => readonly number[];
  /** Whether a change of another code of the job may bring this one to its target. */
  readonly isDragged: (code: Code) => boolean;
  /** Values from which this code may have to be brought to its target: the shown one, and those a bound may push it to. */
  readonly mayStandAt: (state: DisplayState, code: Code) => readonly number[];
  /** Whether changing this code now can last: a code still to be changed may undo it. */
  readonly mayEdit: (state: DisplayState, code: Code) => boolean;
  /** Whether nothing is gained by changing this code later than on arrival. */
  readonly isDueOnArrival: (state: DisplayState, code: Code) => boolean;
}

/** The value on the glass; of an action 1 once it was run. */
export const standsAt = (state: DisplayState, code: Code): number =>
  code.action !== undefined && state.ran.includes(code.label) ? 1 : shownValue(state, code);

interface Influencer {
  readonly code: Code;
  readonly influence: Influence;
}

/** Whether a bound at `aim` brings a value there. */
const isPushed = (as: 'most' | 'least', held: number, aim: number): boolean =>
  as === 'most' ? held > aim : held < aim;

/** The job of bringing these targets about from this state. */
export function jobOf(map: KeyedMap, from: DisplayState, targets: RawValues): Job {
  const touched = touchedBy(map, from, targets);
  const tracked = map.codes.filter(({ label }) => touched.has(label));
  const influencers = influencersOf(tracked, touched);
  const shownBy = conditionsOf(map);
  const conditions = new Set([...shownBy.values()].map(({ code }) => code));
  const revealedBy = new Map<string, Code[]>();
  for (const code of tracked) {
    const by = shownBy.get(code.label)?.code;
    if (by !== undefined) revealedBy.set(by, [...(revealedBy.get(by) ?? []), code]);
  }
  const wanted = (code: Code): number => targets[code.label] ?? from.stored[code.label] ?? code.factory;
  const open = (state: DisplayState, code: Code): readonly Influencer[] =>
    (influencers.get(code.label) ?? []).filter((by) => standsAt(state, by.code) !== wanted(by.code));
  /** Whether a change of `by` may leave this code at its target: a bound only ever pushes a value to itself. */
  const mayBring = ({ code: by, influence }: Influencer, code: Code): boolean => {
    if (influence.kind === 'converts') return true;
    if (influence.kind === 'resets') return code.factory === wanted(code);
    const held = from.stored[code.label] ?? code.factory;
    return isPushed(influence.as, held, wanted(code)) && mayHold(by, wanted(code));
  };
  /** Values that bring another to its target in passing: its bound, or any other that resets it. */
  const tools = (state: DisplayState, code: Code): readonly number[] =>
    (code.influences ?? []).flatMap((influence) => {
      if (!touched.has(influence.code)) return [];
      const other = codeOf(map, influence.code);
      const [shown, aim] = [shownValue(state, other), wanted(other)];
      if (shown === aim) return [];
      if (influence.kind === 'limits') return isPushed(influence.as, shown, aim) && mayHold(code, aim) ? [aim] : [];
      return influence.kind === 'resets' && other.factory === aim ? neighbours(state, code) : [];
    });
  const neighbours = (state: DisplayState, code: Code): readonly number[] => {
    const values = settableValues(map, state, code);
    const at = values.indexOf(shownValue(state, code));
    return [values.at(at - 1), values[(at + 1) % values.length]].filter((raw) => raw !== undefined);
  };
  const isDragged = (code: Code): boolean => (influencers.get(code.label) ?? []).some((by) => mayBring(by, code));
  return {
    tracked,
    isTracked: (code) => touched.has(code.label),
    wanted,
    useful: (state, code) => {
      const hidden = revealedBy.get(code.label) ?? [];
      const revealing = hidden.flatMap((other) =>
        shownValue(state, other) !== wanted(other) ? (shownBy.get(other.label)?.in ?? []) : [],
      );
      return [...new Set([wanted(code), ...revealing, ...tools(state, code)])];
    },
    isDragged,
    mayStandAt: (state, code) => [
      shownValue(state, code),
      ...open(state, code).map((by) => (by.influence.kind === 'resets' ? code.factory : wanted(by.code))),
    ],
    // Where all is stored on leaving, in the order of the map, what comes before does its worst before this is stored.
    mayEdit: (state, code) =>
      open(state, code).every(
        ({ code: by, influence }) =>
          influence.kind === 'limits' ||
          (map.menu.store.on === 'leave' && map.codes.indexOf(by) < map.codes.indexOf(code)),
      ),
    isDueOnArrival: (state, code) =>
      !conditions.has(code.label) &&
      // What comes on the glass again elsewhere may be better changed there.
      pagesListing(map, code.label).length === 1 &&
      open(state, code).length === 0 &&
      tools(state, code).length === 0 &&
      !isDragged(code) &&
      dragsSafely(map, code, touched),
  };
}

/**
 * Codes that differ from their target, in store or on the glass, those a change of them drags along, and those they are
 * shown by. What stands on the glass and is not stored yet is stored on the way out: a code without a target goes back to
 * what is in store.
 */
function touchedBy(map: KeyedMap, from: DisplayState, targets: RawValues): ReadonlySet<string> {
  const touched = new Set(
    map.codes
      .filter(({ label }) => {
        const wanted = targets[label] ?? from.stored[label];
        return wanted !== from.stored[label] || (label in from.unstored && from.unstored[label] !== wanted);
      })
      .map(({ label }) => label),
  );
  for (let before = -1; before !== touched.size;) {
    before = touched.size;
    for (const label of [...touched]) {
      const code = codeOf(map, label);
      for (const { code: other } of code.influences ?? []) if (targets[other] !== undefined) touched.add(other);
      const by = conditionsOf(map).get(label)?.code;
      if (by !== undefined) touched.add(by);
      const [held, aim] = [from.stored[label] ?? code.factory, targets[label] ?? from.stored[label] ?? code.factory];
      for (const by of map.codes)
        for (const influence of by.influences ?? [])
          if (influence.code === label && held !== aim && mayHelp(by, influence, code, held, aim))
            touched.add(by.label);
    }
  }
  return touched;
}

/** Whether changing a code, and changing it back, may bring another to its target. */
const mayHelp = (by: Code, influence: Influence, code: Code, held: number, aim: number): boolean =>
  influence.kind === 'limits'
    ? isPushed(influence.as, held, aim) && mayHold(by, aim)
    : influence.kind === 'resets' && code.factory === aim;

function influencersOf(
  tracked: readonly Code[],
  touched: ReadonlySet<string>,
): ReadonlyMap<string, readonly Influencer[]> {
  const by = new Map<string, Influencer[]>();
  for (const code of tracked) {
    for (const influence of code.influences ?? [])
      if (touched.has(influence.code)) by.set(influence.code, [...(by.get(influence.code) ?? []), { code, influence }]);
  }
  return by;
}

/**
 * A code that bounds others is best changed on arrival where their values stop at the ends and a held key can be let go
 * at any value: moving the bound then never lengthens the way to a target. Where values go round, or a key can only be
 * held up to the end, the bound may be a help as it stands.
 */
function dragsSafely(map: KeyedMap, code: Code, touched: ReadonlySet<string>): boolean {
  const { repeat, values } = map.menu;
  const isHoldExact = (other: Code): boolean =>
    repeat === null || repeat.everyMs >= 2 * HOLD_TOLERANCE_MS || editOf(map.menu, other).style === 'digits';
  return (code.influences ?? []).every(({ kind, code: other }) => {
    if (kind !== 'limits' || !touched.has(other)) return true;
    const bounded = codeOf(map, other);
    return isHoldExact(bounded) && (bounded.values ?? values) === 'stop';
  });
}
