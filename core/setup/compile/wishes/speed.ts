import type { Code } from '../../../display/map/display-map.js';
import { formatRaw, plainValues } from '../../../display/map/raw-value.js';
import { overshootOf, type Overshoot } from '../../../speed/overshoot.js';
import { safeCap, type SpeedRatio } from '../../../speed/safe-cap.js';
import { shownStepKmh } from '../../../display/map/display-map.js';
import { kmhWords, KM_PER_MILE } from '../../../speed/speed.js';
import type { TrailStep } from '../../setup.js';
import { ratioAsKeyed } from '../counts.js';
import { throttlePermission } from '../throttle-permission.js';
import {
  asFound,
  choiceStep,
  lineScale,
  rawOfSentinel,
  step,
  unitOf,
  word,
  type Wish,
  type WishFor,
  type Work,
} from '../wish.js';

/**
 * How many km/h one raw step of a cap means: per cent count from the uncapped speed on a full pack, miles where the
 * code counts in them or follows the units that will be shown. Undefined where the code is no speed.
 */
export function kmhPerRaw(code: Code, { type, counts }: Pick<Work, 'type' | 'counts'>): number | undefined {
  if (code.encoding.kind !== 'line') return undefined;
  const { unit, scale, follows } = code.encoding;
  if (unit === '%') return (scale * type.attainableKmh) / 100;
  const inMiles = follows === undefined ? unit === 'mph' : counts.inMiles;
  return inMiles ? scale * KM_PER_MILE : unit === 'km/h' || unit === 'mph' ? scale : undefined;
}

/** How far beyond its cap drive acts on this unit. */
export const beyondCap = ({ unit, map, counts }: Work): Overshoot =>
  overshootOf({
    measuredKmh: unit.overshootKmh ?? null,
    familyKmh: unit.familyOvershootKmh ?? null,
    mappedKmh: map.speed?.overshootKmh ?? null,
    stepKmh: shownStepKmh(map, counts.inMiles),
  });

/** What a cap that must keep to `limitKmh` is set to, and the sentences that lead there. */
function capWithin(code: Code, work: Work, limitKmh: number, before: readonly TrailStep[]): Wish {
  const per = kmhPerRaw(code, work);
  if (per === undefined)
    return asFound('No speed can be told from this code.', {
      level: 'stop',
      topic: 'noSpeed',
      says: `${code.label} is said to be a speed cap, and the map does not say in which unit it counts.`,
    });
  const isPercent = unitOf(code) === '%';
  const settable = speedsOf(code, per);
  const asKeyed = ratioAsKeyed(work);
  if (!isPercent && !asKeyed.isKnown)
    return asFound('How true the display will count is not known.', {
      level: 'stop',
      topic: 'countUnknown',
      says: `${code.label}: the ratio was measured under another wheel value, and the map does not say what the two count. No cap can be worked out: run the unit as it stands.`,
    });
  const ratio = isPercent || !asKeyed.isKnown ? null : asKeyed.ratio;
  const overshoot = beyondCap(work);
  const cap = safeCap({
    limitKmh,
    ratio,
    overshootKmh: overshoot.kmh,
    tolerance: work.vehicleClass.tolerance,
    settable,
  });
  const steps = [...before];
  if (isPercent) steps.push({ from: 'type', says: `100 % is ${kmhWords(work.type.attainableKmh)} on a full pack.` });
  if (!cap) {
    const lowest = settable[0];
    const least = lowest
      ? `its lowest is ${formatRaw(code, lowest.raw)}, ${kmhWords(lowest.kmh)}`
      : 'it has no value that means a speed';
    const says = `${code.label} cannot be set as low as ${kmhWords(limitKmh)}${ratio ? ' of true speed' : ''}; ${least}. The unit cannot be delivered in this class with this display.`;
    return {
      ...asFound(`${sentences(steps)} Below the range of this code.`, { level: 'stop', topic: 'tooLow', says }),
      trail: steps,
    };
  }
  const greatest = settable.filter(({ kmh }) => kmh <= limitKmh * (1 + 1e-9)).at(-1)?.raw;
  const capWords = isPercent ? `${formatRaw(code, cap.raw)} %, ${kmhWords(cap.shownKmh)}` : formatRaw(code, cap.raw);
  const lowered = cap.raw === greatest ? '' : whyLower(ratio, overshoot);
  if (lowered !== '')
    steps.push({ from: work.unit.ratio ? 'unit' : 'display', says: `${lowered}, so ${capWords}.`, decided: true });
  else if (ratio !== null && !isPercent)
    steps.push({
      from: 'unit',
      says: `As it was run, ${countsWords(ratio)}: ${capWords} stays within ${kmhWords(limitKmh)}.`,
      decided: true,
    });
  else if (Math.abs(cap.shownKmh - limitKmh) > 1e-6)
    steps.push({ from: 'display', says: `The code steps by ${kmhWords(code.range.step * per)}, so ${capWords}.` });
  return {
    raw: cap.raw,
    because: sentences(steps),
    trail: [...steps, ...openQuestions(work.unit.ratio, overshoot, isPercent)],
  };
}

/** Why a cap lies under the greatest that the limit alone would allow. */
function whyLower(ratio: SpeedRatio | null, { kmh, from }: Overshoot): string {
  const counts = ratio === null ? '' : capital(countsWords(ratio));
  if (kmh === 0) return ratio !== null && ratio.low < 1 ? counts : '';
  const acts = `${from === 'unknown' ? 'drive may act' : 'drive acts'} ${kmhWords(kmh)} beyond the cap`;
  return counts === '' ? capital(acts) : `${counts} and ${acts}`;
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** How what the display shows lies to true speed; where the interval leaves it open, the side on which a cap is unsafe. */
function countsWords({ k, low }: SpeedRatio): string {
  if (k < 1) return `the display counts ${percent(1 - k)} low`;
  if (low < 1) return `the display may count up to ${percent(1 - low)} low`;
  return k === 1 ? 'the display counts true' : `the display counts ${percent(k - 1)} high`;
}

const percent = (share: number): string => `${Number((share * 100).toFixed(1))} %`;

interface Settable {
  readonly raw: number;
  readonly kmh: number;
}
const speeds = new WeakMap<Code, { readonly per: number; readonly settable: readonly Settable[] }>();

/** Every value of a cap that means a speed, with that speed, rising. */
function speedsOf(code: Code, per: number): readonly Settable[] {
  const kept = speeds.get(code);
  if (kept?.per === per) return kept.settable;
  const settable = plainValues(code).map((raw) => ({ raw, kmh: raw * per }));
  speeds.set(code, { per, settable });
  return settable;
}

/** What keeps a cap provisional: it stands in the trail, not in the reason. */
function openQuestions(ratio: SpeedRatio | null, overshoot: Overshoot, isPercent: boolean): readonly TrailStep[] {
  const steps: TrailStep[] = [];
  if (ratio === null && !isPercent)
    steps.push({ from: 'display', says: 'Nobody has measured yet how true this display counts: provisional.' });
  if (overshoot.from === 'unknown')
    steps.push({
      from: 'display',
      says: `How far drive acts beyond the cap is not known: one step of the display, ${kmhWords(overshoot.kmh)}, stands for it until it is measured.`,
    });
  if (overshoot.from === 'family')
    steps.push({
      from: 'display',
      says: `On others of this type and display drive was seen to act ${overshoot.kmh.toFixed(1)} km/h beyond the cap: the farthest of them counts until this one is measured.`,
    });
  return steps;
}

const sentences = (steps: readonly TrailStep[]): string => steps.map(({ says }) => says).join(' ');

/** The whole vehicle's cap. */
export const speedCap: WishFor = (code, work) => {
  const { limit, terms } = work;
  if (
    terms.privateLand?.isUncapped === true &&
    work.choices.uncapped === 'inWriting' &&
    work.vehicleClass.regime === 'privateLand' &&
    limit === null
  ) {
    const raw = rawOfSentinel(code, 'noCap') ?? plainValues(code).at(-1);
    const why = step(
      'lead',
      `Uncapped on private land until ${terms.privateLand.endsOn}, by ${terms.privateLand.authorityBy}`,
    );
    return raw === undefined ? asFound(why.says) : { raw, because: why.says, trail: [why] };
  }
  if (limit === null) return asFound('Nothing limits it: stays as found.');
  return capWithin(code, work, limit.kmh, limit.trail);
};

/** Where the throttle has a cap of its own: its own limit, never above the vehicle's. */
export const throttleCap: WishFor = (code, work) => {
  const permission = throttlePermission(work);
  const limitKmh = work.limit?.kmh ?? Infinity;
  if (!permission.allowed) {
    const lowest = plainValues(code)[0];
    if (!work.type.throttleFitted || lowest === undefined) return asFound(`${permission.why.says}: stays as found.`);
    return { raw: lowest, because: `${permission.why.says}: as low as it goes.`, trail: [permission.why] };
  }
  const before =
    permission.toKmh < limitKmh ? [{ ...permission.why, says: `${permission.why.says}.` }] : (work.limit?.trail ?? []);
  const within = Math.min(permission.toKmh, limitKmh);
  return within === Infinity ? asFound('Nothing limits it: stays as found.') : capWithin(code, work, within, before);
};

/** Cap of one ride mode: as delivered where that is within the limit, else the greatest that is. A slow mode stays slow. */
export const modeSpeedPercent: WishFor = (code, work) => {
  if (work.limit === null) return asFound('Nothing limits it: stays as found.');
  const wish = capWithin(code, work, work.limit.kmh, work.limit.trail);
  const per = kmhPerRaw(code, work);
  if (wish.raw === null || per === undefined || code.factory > wish.raw) return wish;
  const delivered = step(
    'display',
    `As the maker delivers this mode: ${formatRaw(code, code.factory)} ${unitOf(code)}, ${kmhWords(code.factory * per)}, within ${kmhWords(work.limit.kmh)}.`,
  );
  return { raw: code.factory, because: delivered.says, trail: [...work.limit.trail, delivered] };
};

/** Turbo lifts the cap: only where the vehicle cannot outrun the limit anyhow. */
export const modeTurbo: WishFor = (code, work) => {
  const holds = work.limit === null || work.type.attainableKmh <= work.limit.kmh;
  if (work.choices.turbo === 'whereCapHolds' && holds) return asFound('The limit holds with it: stays as found.');
  const why =
    work.choices.turbo === 'off'
      ? choiceStep(work, 'turbo')
      : step(
          'type',
          `Off: with it ${kmhWords(work.type.attainableKmh)} can be reached, and ${kmhWords(work.limit?.kmh ?? 0)} is allowed`,
        );
  return offOr(code, why);
};

function offOr(code: Code, why: TrailStep): Wish {
  const off = rawOfSentinel(code, 'off');
  if (off !== undefined) return { raw: off, because: why.says, trail: [why] };
  return code.encoding.kind === 'line' && plainValues(code)[0] === 0 && lineScale(code) > 0
    ? { raw: 0, because: why.says, trail: [why] }
    : word(code, ['off', 'no'], why);
}
