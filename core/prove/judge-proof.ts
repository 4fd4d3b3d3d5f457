import { percentWords, classesThatExplain, gaugeUnderEachClass } from '../electrical/voltage-class.js';
import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { judgeSpeed } from './judge-speed.js';
import type { Cure, Judgement, Observation, ProvingTest, Watch } from './proving-test.js';

/** Volts by which a gauge may be off the meter: its own step, and a pack that is not quite at rest. */
const GAUGE_OFF_V = 1;
/** Percent by which one may be off the curve: gauges differ. */
const GAUGE_OFF_PERCENT = 20;

/**
 * What the observations of a test amount to, oldest first: those of figures count together, of the others the newest.
 * Pure; it knows what is right, and the person who looks is not told before.
 * @param pack of the unit; a gauge is judged by it
 */
export function judgeProof(
  { watch, cure }: Pick<ProvingTest, 'watch' | 'cure'>,
  observations: readonly Observation[],
  pack: LabelledPack,
): Judgement {
  const last = observations.filter(({ kind }) => kind === watch.kind).at(-1);
  if (watch.kind === 'speed')
    return judgeSpeed(
      watch,
      observations.filter((each) => each.kind === 'speed'),
      cure,
    );
  if (!last) return { verdict: 'open', says: 'Not tried yet.', more: 1 };
  return judgeOne(watch, last, cure, pack);
}

function judgeOne(watch: Watch, seen: Observation, cure: Cure, pack: LabelledPack): Judgement {
  const not = (says: string, by: Cure = cure): Judgement => ({ verdict: 'doesNot', says, cure: by });
  const shows = (says: string): Judgement => ({ verdict: 'shows', says });
  switch (seen.kind) {
    case 'outcome': {
      if (watch.kind !== 'outcome') break;
      const says = watch.outcomes.find(({ id }) => id === seen.outcome)?.says ?? seen.outcome;
      return watch.right.includes(seen.outcome) ? shows(`${says}.`) : not(`${says}.`);
    }
    case 'seconds':
    case 'turns': {
      if (watch.kind !== seen.kind) break;
      const unit = seen.kind === 'seconds' ? 's' : seen.figure === 1 ? 'turn' : 'turns';
      return seen.figure <= watch.most
        ? shows(`${seen.figure} ${unit}; at most ${watch.most}.`)
        : not(`${seen.figure} ${unit}, and at most ${watch.most} is asked.`);
    }
    case 'metres':
      return seen.metres <= seen.besideMetres
        ? shows(`${seen.metres} m; one as delivered took ${seen.besideMetres}.`)
        : not(`${seen.metres} m, and one as delivered took ${seen.besideMetres}.`);
    case 'gauge':
      return watch.kind === 'gauge' ? judgeGauge(watch.as, seen, pack, cure) : not('');
    case 'errors':
      return seen.shown.length === 0 ? shows('None stands.') : not(`It shows ${seen.shown.join(', ')}.`);
    case 'speed':
      break;
  }
  return { verdict: 'open', says: 'Not tried yet.', more: 1 };
}

function judgeGauge(
  as: 'percent' | 'volts',
  { meterV, shown }: Observation & { readonly kind: 'gauge' },
  { chemistry, labelV, cellsInSeries }: LabelledPack,
  cure: Cure,
): Judgement {
  const both = `${meterV.toFixed(1)} V by meter, ${shown} ${as === 'volts' ? 'V' : '%'} shown`;
  if (as === 'volts')
    return Math.abs(shown - meterV) <= GAUGE_OFF_V
      ? { verdict: 'shows', says: `${both}.` }
      : { verdict: 'doesNot', says: `${both}: more than ${GAUGE_OFF_V} V apart.`, cure };
  const own = gaugeUnderEachClass(chemistry, meterV).find((each) => each.labelV === labelV)?.charge ?? null;
  const fits =
    own !== null &&
    shown >= own.fromPercent - GAUGE_OFF_PERCENT &&
    shown <= own.toPercent + GAUGE_OFF_PERCENT &&
    shown <= 100;
  if (fits) return { verdict: 'shows', says: `${both}; ${percentWords(own)} % is to be expected.` };
  const other = classesThatExplain(chemistry, meterV, shown).filter((each) => each !== labelV);
  const why =
    other.length > 0
      ? ` A gauge set to ${other.join(' or ')} V would show that.`
      : own === null
        ? ` ${meterV.toFixed(1)} V is more than a pack of ${cellsInSeries} cells holds.`
        : ` ${percentWords(own)} % is to be expected.`;
  return { verdict: 'doesNot', says: `${both}.${why}`, cure };
}
