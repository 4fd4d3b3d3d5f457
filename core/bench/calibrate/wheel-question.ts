import { shownStepKmh, type Code, type DisplayMap } from '../../display/map/display-map.js';
import { unsureOf } from '../../display/map/doubt.js';
import { plainValues, valuesInOrder } from '../../display/map/raw-value.js';
import type { SpeedTerms } from '../../setup/setup.js';
import type { WheelQuestion } from '../../speed/choose/choose-wheel-codes.js';
import type { SpeedGlass } from '../../speed/ratio/reading.js';
import { circumferenceMm, type WheelChoice } from '../../speed/wheel-code.js';
import type { VisitState } from '../visit-state.js';

/** The codes that a wheel is fitted by, with what they show now. */
export interface WheelCodes {
  readonly wheel: Code | null;
  readonly pulses: Code | null;
  readonly cap: Code | null;
  readonly wheelRaw: number | null;
  readonly pulsesRaw: number | null;
  readonly capRaw: number | null;
  /** What the display counts a turn of the wheel as, mm; 1 where its map does not say. */
  readonly wheelMm: number;
  readonly pulsesSet: number;
  /** The cap as it is keyed, km/h; null for none. */
  readonly capKmh: number | null;
  /** `shown`: counted in the speed that the display shows. `share`: a share of what motor and pack attain, whatever is shown. */
  readonly capCounts: 'shown' | 'share';
}

type Known = VisitState['values'];

const first = (map: DisplayMap, what: Code['function']): Code | null =>
  map.codes.find((code) => code.function === what && code.access !== 'absent' && code.access !== 'tool') ?? null;

/** The codes that make pulses into a speed and end drive at one, by what the unit shows. */
export function wheelCodes(known: Known, map: DisplayMap, terms: SpeedTerms): WheelCodes {
  const [wheel, pulses, cap] = [first(map, 'wheelSize'), first(map, 'wheelPulses'), first(map, 'speedCap')];
  const rawOf = (code: Code | null): number | null => code && (known[code.label] ?? code.factory);
  const [wheelRaw, pulsesRaw, capRaw] = [rawOf(wheel), rawOf(pulses), rawOf(cap)];
  const per = cap ? terms.kmhPerRaw[cap.label] : undefined;
  return {
    capCounts: isShare(cap) ? 'share' : 'shown',
    wheel,
    pulses,
    cap,
    wheelRaw,
    pulsesRaw,
    capRaw,
    wheelMm: (wheel && wheelRaw !== null ? circumferenceMm(wheel, wheelRaw) : undefined) ?? 1,
    pulsesSet: pulsesOf(pulses, pulsesRaw) ?? terms.pulses,
    capKmh:
      per === undefined || capRaw === null || cap === null || !plainValues(cap).includes(capRaw) ? null : capRaw * per,
  };
}

/** Pulses a turn that digits of the pulse code mean. */
export const pulsesOf = (code: Code | null, raw: number | null): number | null =>
  code?.encoding.kind === 'line' && raw !== null ? raw * code.encoding.scale : null;

/** What the figures on the glass can tell: miles an hour where the unit shows miles. */
export function speedGlass(known: Known, map: DisplayMap): SpeedGlass {
  const rounding = map.speed?.rounding ?? 'unknown';
  return {
    resolutionKmh: shownStepKmh(map, showsMiles(known, map)),
    rounding: rounding === 'unknown' ? null : rounding,
  };
}

/** Whether the display shows miles as it is keyed. */
export function showsMiles(known: Known, map: DisplayMap): boolean {
  const code = map.codes.find((each) => each.function === 'units');
  return (
    code?.encoding.kind === 'table' &&
    code.encoding.entries.find(({ raw }) => raw === (known[code.label] ?? code.factory))?.value === 'mph'
  );
}

const isShare = (cap: Code | null): boolean => cap?.encoding.kind === 'line' && cap.encoding.unit === '%';

/** What may be chosen among, by what the promise asks. */
export function questionFor(
  codes: WheelCodes,
  terms: SpeedTerms,
  overshootKmh: number,
  { k, low, high }: { readonly k: number; readonly low: number; readonly high: number },
): WheelQuestion {
  const { wheel, pulses, cap, wheelRaw, pulsesSet, wheelMm } = codes;
  // What a setup would never set is not offered either.
  const mayTurn = (code: Code): boolean =>
    code.access === 'open' && unsureOf(code) === null && code.effect !== 'displayOnly' && !terms.isFixed;
  const standing: WheelChoice = { raw: wheelRaw ?? 0, mm: wheelMm };
  const per = cap ? terms.kmhPerRaw[cap.label] : undefined;
  return {
    ratio: { k, low, high, wheelMm, pulses: pulsesSet },
    wheel: wheel && mayTurn(wheel) ? wheelChoices(wheel, standing) : [standing],
    pulses:
      terms.mayTrim && pulses && mayTurn(pulses)
        ? plainValues(pulses).flatMap((raw) => (raw > 0 ? [pulsesOf(pulses, raw) ?? pulsesSet] : []))
        : [pulsesSet],
    caps:
      cap && per !== undefined && codes.capCounts === 'shown'
        ? (mayTurn(cap) ? plainValues(cap) : [codes.capRaw ?? cap.factory]).map((raw) => ({ raw, kmh: raw * per }))
        : [],
    limitKmh: terms.limit?.kmh ?? null,
    overshootKmh,
    tolerance: terms.tolerance,
    shown: terms.shown,
  };
}

function wheelChoices(wheel: Code, standing: WheelChoice): readonly WheelChoice[] {
  const choices = valuesInOrder(wheel).flatMap((raw) => {
    const mm = circumferenceMm(wheel, raw);
    return mm === undefined ? [] : [{ raw, mm }];
  });
  return choices.length === 0 ? [standing] : choices;
}
