import { shortened } from '../../text.js';
import type { Code, DisplayMap } from '../map/display-map.js';
import { valueWords } from '../map/raw-value.js';
import type { TrialJudgement, TrialShift } from './judge-trial.js';
import { QUANTITIES, type Quantity, type TrialPlan } from './trial.js';

/**
 * What a trial has shown, in sentences: each difference with its interval, or how small one could not be seen, and what
 * would settle it. The first sentence is the verdict.
 */
export function trialSays(
  { quantity, matters, values }: Pick<TrialPlan, 'quantity' | 'matters' | 'values'>,
  judged: TrialJudgement,
  code: Code,
): readonly string[] {
  const of: Quantity = QUANTITIES[quantity];
  const first = values[0] ?? 0;
  const shown = judged.shifts.filter(({ low, high }) => low > 0 || high < 0);
  return [...verdictWords(judged, shown, code, first, of, matters), ...driftWords(judged, of)];
}

function verdictWords(
  { verdict, medians, moreEach, p, shifts }: TrialJudgement,
  shown: readonly TrialShift[],
  code: Code,
  first: number,
  of: Quantity,
  matters: number,
): readonly string[] {
  const runs = medians.map((each) => each.runs);
  const made = `${Math.min(...runs)} runs of each`;
  switch (verdict) {
    case 'differs':
      return shown.length > 0
        ? shown.map((shift) => `${shiftWords(shift, code, first, of)}, in ${made}.`)
        : [`The values differ (chance alone: ${chanceWords(p)}), and by how much is not told by ${made}.`];
    case 'alike':
      return [`No difference of more than ${figure(matters, of)} seen in ${made}.`];
    case 'open': {
      const seen = shifts.map(({ raw, shift }) => `${valueWords(code, raw)}: ${signed(shift, of)}`).join('; ');
      return [
        `Not settled by ${made} (beside ${valueWords(code, first)}: ${seen}; chance alone: ${chanceWords(p)}).`,
        `${moreEach} more of each would settle it, as far as can be told.`,
      ];
    }
  }
}

function shiftWords({ raw, shift, low, high }: TrialShift, code: Code, first: number, of: Quantity): string {
  const [near, far] = [Math.min(Math.abs(low), Math.abs(high)), Math.max(Math.abs(low), Math.abs(high))];
  const by = `${figure(Math.abs(shift), of)} ${shift < 0 ? of.less : of.greater}`;
  return `${valueWords(code, raw)} is ${by} than ${valueWords(code, first)} (95 %: ${near.toFixed(of.decimals)} to ${far.toFixed(of.decimals)})`;
}

const driftWords = ({ drift }: TrialJudgement, of: Quantity): readonly string[] =>
  drift === null
    ? []
    : [
        `From run to run it becomes ${drift < 0 ? of.less : of.greater}, whatever the value (${signed(drift, of, 3)} a run): the pack sinks or something warms up. The order was drawn, so it does not pass for the code; charge and rest, and less will do.`,
      ];

const figure = (value: number, { decimals, unit }: Quantity): string => `${value.toFixed(decimals)} ${unit}`;
const signed = (value: number, { decimals, unit }: Quantity, digits = decimals): string =>
  `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(digits)} ${unit}`;
const chanceWords = (p: number): string => (p < 0.001 ? 'under 1 in 1000' : `${(p * 100).toFixed(1)} %`);

const MOST_NOTE = 400;

/**
 * The map as a trial makes it, as a draft: what was shown becomes the source and effect of the code. A difference: it
 * acts, as measured, and no doubt of the whole entry stands. None: it does nothing that was measured, and counts as one
 * that only changes what is shown. Not settled: the map stays as it is.
 * @param tried on which unit and when, in words
 */
export function withTrial(map: DisplayMap, plan: TrialPlan, judged: TrialJudgement, tried: string): DisplayMap {
  if (judged.verdict === 'open') return map;
  const codes = map.codes.map((code): Code => {
    if (code.label !== plan.label) return code;
    const { doubts = [], note = '', ...rest } = code;
    const says = `${QUANTITIES[plan.quantity].title}, ${tried}: ${trialSays(plan, judged, code)[0] ?? ''}`;
    const left = doubts.filter(({ raws }) => raws !== undefined);
    return {
      ...rest,
      source: 'measured',
      effect: judged.verdict === 'differs' ? 'acts' : 'displayOnly',
      ...(left.length > 0 ? { doubts: left } : {}),
      note: shortened([says, note].filter((each) => each !== '').join(' '), MOST_NOTE),
    };
  });
  return { ...map, confirmed: null, codes };
}
