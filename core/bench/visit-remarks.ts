import { PARTS } from '../setup/inputs/parts.js';
import { PHOTO_SUBJECTS, type EvidenceData } from './evidence.js';
import { proofsOf } from './proving/proving-of.js';
import { STEPS, stepTitle, type StepId } from './steps.js';
import type { VisitState } from './visit-state.js';

/** Whether a step was passed by hand without being done. */
export const isLeftOut = ({ byHand }: Pick<VisitState, 'byHand'>, id: StepId): boolean =>
  byHand.some(({ step, done }) => step === id && !done);

/** Steps that were left out of a visit, as a person reads them; handing over comes after the seal. */
export function stepsLeftOut(state: VisitState): readonly string[] {
  const { steps, isSpare } = state.opened;
  return STEPS.filter(({ id }) => (!isSpare && !steps.includes(id) && id !== 'handOver') || isLeftOut(state, id)).map(
    ({ title }) => title.toLowerCase(),
  );
}

/** What is known of the unit's true speed, as every paper says it. */
export function trueSpeedSays(state: VisitState): string {
  if (state.opened.isSpare)
    return 'A spare display on no vehicle: nothing of a vehicle was checked, measured or proved. It is, once it is fitted.';
  const ends = endsShown(state);
  const says = ratioSays(state, ends !== null);
  return ends === null ? says : `${ends} ${says}`.trim();
}

/** Where drive was seen to end on this very unit, worst first; null where nothing was seen of it. */
function endsShown(state: VisitState): string | null {
  const seen = proofsOf(state).filter(
    ({ test, judgement }) => test.id.startsWith('end:') && judgement.verdict === 'shows',
  );
  return seen.length === 0
    ? null
    : `Measured on this unit: ${seen.map(({ test, judgement }) => `${test.title.charAt(0).toLowerCase()}${test.title.slice(1)}: ${judgement.says}`).join(' ')}`;
}

function ratioSays({ calibration: { result }, opened }: VisitState, isEndShown: boolean): string {
  const limit = opened.setup.limitKmh;
  if (!result && isEndShown) return 'How true the display counts below that was not measured.';
  if (!result)
    return `True speed against the ground was not measured: the cap counts what the display shows, and may let it run above ${limit} km/h.`;
  const { k, low, high } = result.ratio;
  const reads = `The display reads ${Math.abs((k - 1) * 100).toFixed(1)} % ${k < 1 ? 'low' : 'high'} (95 %: ${((low - 1) * 100).toFixed(1)} to ${((high - 1) * 100).toFixed(1)} %)`;
  const by =
    result.how === 'runs'
      ? `by ${result.count} readings of this unit`
      : `as learnt from ${result.count} units; this one was not itself measured`;
  const ends = result.ends
    ? ` Drive should end at ${result.ends.kmh.toFixed(1)} km/h against the ground, ${result.ends.worst.toFixed(1)} at worst; ${limit} is allowed.`
    : '';
  const open = result.provisional === '' || result.how === 'learnt' ? '' : ` Provisional: ${result.provisional}.`;
  return `${reads}, ${by}.${ends}${open}${isEndShown ? '' : ' Where drive really falls to zero is measured when it is proved.'}`;
}

/** What whoever rides it has to know, and what the label has to say, as papers tell it. */
export function askedBeside({ opened: { order } }: VisitState): readonly string[] {
  if (!order.asks) return [];
  const { rider, label, labelLetterMm, tyreBar } = order.asks;
  return [
    ...rider,
    ...(label.length > 0
      ? [
          `The label on the vehicle says: ${label.join(', ')}${labelLetterMm === null ? '' : `; letters of at least ${labelLetterMm} mm`}.`,
        ]
      : []),
    ...(tyreBar ? [`Tyres cold at ${tyreBar.from} to ${tyreBar.to} bar: shown speed and braking go by it.`] : []),
  ];
}

/** How a unit reads beside its family, where it does not read as they do. */
export function oddWords({ k, count, low, high }: EvidenceData['outOfFamily']): string {
  const off = (ratio: number): string => `${Math.abs((ratio - 1) * 100).toFixed(1)} % ${ratio < 1 ? 'low' : 'high'}`;
  return `Reads ${off(k)}; the ${count} others of its type, display and tyre lead one to expect ${off(low)} to ${off(high)}.`;
}

/** What was looked at before delivery, with the figures that were read. */
function checkRemarks({ bench }: VisitState['opened'], made: VisitState['checks']): readonly string[] {
  const all = (bench?.checks ?? []).flatMap((check) => {
    const one = made[check.id];
    return one ? [{ check, one }] : [];
  });
  const rows = all.map(({ check: { title, asks }, one: { outcome, figure, tool, text, words } }) => {
    const read = [
      figure !== null && asks.kind === 'figure' ? `${figure} ${asks.unit}` : '',
      tool === '' ? '' : `tool ${tool}`,
      text,
      outcome === 'good' ? '' : outcome === 'notFitted' ? 'not fitted' : 'not good',
      words,
    ].filter((part) => part !== '');
    return read.length > 0 ? `${title} (${read.join(', ')})` : title;
  });
  return rows.length > 0
    ? [
        `Checked before delivery${bench?.checkList ? ` by "${bench.checkList.name}" version ${bench.checkList.version}` : ''}: ${rows.join('; ')}.`,
      ]
    : [];
}

/** What a visit's papers repeat beyond its codes: what was done by other means, let stand, replaced and photographed. */
export function visitRemarks({
  byHand,
  accepted,
  parts,
  photos,
  carriedKm,
  surprises,
  found,
  calibration: { outOfFamily },
  checkedIn,
  opened,
  checks,
  notices,
}: VisitState): readonly string[] {
  const read = Object.keys(found).length;
  return [
    ...(read > 0
      ? [
          `${read} codes were read as found before any was touched; ${surprises.length === 0 ? 'all were as expected' : surprises.map(({ says }) => says).join(' ')}${surprises.length === 0 ? '.' : ''}`,
        ]
      : []),
    ...Object.entries(accepted).map(
      ([label, { words, by }]) => `${label} differs from its target and stays as it shows. Accepted by ${by}: ${words}`,
    ),
    ...(checkedIn && !checkedIn.cablesFree ? ['At check in a cable was not free.'] : []),
    ...(checkedIn && !checkedIn.clampSound ? ['At check in the display clamp was not sound.'] : []),
    ...notices.map(({ name, version, says }) => `Named by the notice "${name}" version ${version}: ${says}`),
    ...checkRemarks(opened, checks),
    ...(outOfFamily ? [oddWords(outOfFamily)] : []),
    ...parts.map(({ part, words, by }) => `${PARTS[part]} replaced by ${by.name}: ${words}`),
    ...(carriedKm > 0 ? [`Kilometres on an odometer that is not on the vehicle any more: ${carriedKm}.`] : []),
    ...byHand
      .filter(({ words }) => words.trim() !== '')
      .map(({ step, done, words }) => `${stepTitle(step)}, ${done ? 'done by other means' : 'left out'}: ${words}`),
    ...(photos.length > 0
      ? [
          `Photographs kept with their hashes: ${photos.map(({ subject }) => PHOTO_SUBJECTS[subject].toLowerCase()).join(', ')}.`,
        ]
      : []),
  ];
}
