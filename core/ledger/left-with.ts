import type { Verdict } from '../bench/judge-readback.js';
import { lastShown } from '../bench/last-shown.js';
import type { VisitState } from '../bench/visit-state.js';
import type { Code, DisplayMap } from '../display/map/display-map.js';
import type { CodeFunction } from '../display/map/functions.js';
import { formatRaw, meaningBeside, sentinelOf } from '../display/map/raw-value.js';
import { judgeProof } from '../prove/judge-proof.js';

/** What one code was left at: raw digits, and what they mean in the vocabulary of its function. */
export interface LeftCode {
  readonly label: string;
  readonly function: CodeFunction;
  readonly raw: number;
  /** As the glass shows it, and what that means, to stand beside it. */
  readonly shown: string;
  readonly says: string;
  /** Its meaning as a number: of a speed in km/h, whatever the display counts in; null where it is a word or no cap at all. */
  readonly value: number | null;
  readonly unit: string;
  /** Its meaning as a word; null where it is a number. */
  readonly word: string | null;
  readonly verdict: Verdict;
}

export interface LeftProof {
  readonly test: string;
  readonly title: string;
  readonly verdict: 'shows' | 'doesNot' | 'open' | 'left';
}

/**
 * Every code as it was last read back, with its meaning: what one may ask for later. A code of two functions is two.
 * Codes that were never read, or are kept secret, are not among them.
 */
export function leftCodes(state: VisitState, map: DisplayMap): readonly LeftCode[] {
  const shown = lastShown(state);
  const perRaw = state.opened.setup.speed?.kmhPerRaw ?? {};
  const verdicts = new Map(state.verdicts.map(({ label, verdict }) => [label, verdict]));
  return map.codes.flatMap((code) => {
    const raw = shown[code.label];
    if (raw === undefined) return [];
    const base = {
      label: code.label,
      raw,
      shown: formatRaw(code, raw),
      says: meaningBeside(code, raw),
      verdict: verdicts.get(code.label) ?? ('asFound' as const),
    };
    return meanings(code, raw, perRaw[code.label]).map((meaning) => ({ ...base, ...meaning }));
  });
}

type Meaning = Pick<LeftCode, 'function' | 'value' | 'unit' | 'word'>;

function meanings(code: Code, raw: number, kmhPerRaw: number | undefined): readonly Meaning[] {
  const { encoding, function: own } = code;
  switch (encoding.kind) {
    case 'pair':
      return ([encoding.first, encoding.second] as const).map((half, i) => ({
        function: half.function,
        value: null,
        unit: '',
        word: half.entries.find((entry) => entry.raw === (i === 0 ? Math.floor(raw / 10) : raw % 10))?.value ?? null,
      }));
    case 'table': {
      const word = encoding.entries.find((entry) => entry.raw === raw)?.value ?? null;
      const number = word === null ? Number.NaN : Number(word);
      return [{ function: own, value: Number.isFinite(number) ? number : null, unit: '', word }];
    }
    case 'line': {
      const sentinel = sentinelOf(code, raw);
      if (sentinel) return [{ function: own, value: null, unit: '', word: sentinel.means }];
      return kmhPerRaw === undefined
        ? [{ function: own, value: raw * encoding.scale, unit: encoding.unit, word: null }]
        : [{ function: own, value: raw * kmhPerRaw, unit: 'km/h', word: null }];
    }
    case 'clock':
    case 'date':
      return [{ function: own, value: raw, unit: '', word: null }];
  }
}

/** Every test the unit had to pass, with what it showed; `left` where it was left out, in writing. */
export function leftProofs({ opened, proving }: VisitState): readonly LeftProof[] {
  const left = new Set(proving.left.flatMap((each) => ('test' in each ? [each.test] : [])));
  return (opened.setup.tests ?? []).map((test) => ({
    test: test.id,
    title: test.title,
    verdict: left.has(test.id)
      ? 'left'
      : judgeProof(
          test,
          proving.seen.filter((each) => each.test === test.id).map(({ seen }) => seen),
          opened.pack,
        ).verdict,
  }));
}

/**
 * The greatest true speed, km/h, that help was worked out or measured to reach as the unit left; null where nothing caps
 * it. Of two answers the faster one.
 */
export function leftWorstKmh({ opened, calibration }: VisitState): number | null {
  const known = [opened.setup.worst?.kmh, calibration.result?.ends?.worst].filter((kmh) => kmh !== undefined);
  return known.length === 0 ? null : Math.max(...known);
}

/** Something that was not as it should be at some time of a visit, in the words it was said in. */
export interface LeftFinding {
  readonly kind: 'surprise' | 'accepted' | 'decided' | 'notice' | 'leftOut' | 'provisional';
  readonly says: string;
}

/** What was found and what was decided of it: all that one may look for a year later. */
export function leftFindings(state: VisitState): readonly LeftFinding[] {
  const { opened, surprises, accepted, notices, proving, calibration } = state;
  const of = (kind: LeftFinding['kind'], says: string): LeftFinding => ({ kind, says });
  return [
    ...surprises.map((surprise) => of('surprise', surprise.says)),
    ...Object.entries(accepted).map(([label, { words }]) => of('accepted', `${label}: ${words}`)),
    ...opened.setup.findings.flatMap(({ says, decided }) =>
      decided ? [of('decided', `${says} ${decided.words}`)] : [],
    ),
    ...notices.map(({ name, says }) => of('notice', `${name}: ${says}`)),
    ...proving.left.map(({ words }) => of('leftOut', words)),
    ...(calibration.result?.provisional ? [of('provisional', calibration.result.provisional)] : []),
  ].filter(({ says }) => says.trim() !== '');
}
