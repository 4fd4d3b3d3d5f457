import type { Code } from '../../../display/map/display-map.js';
import { formatRaw, leastRawFrom, plainValues } from '../../../display/map/raw-value.js';
import { CELL_VOLTS } from '../../../electrical/cell.js';
import { cutoffWish } from '../../../electrical/cutoff.js';
import { gaugeSteps } from '../../../electrical/gauge-steps.js';
import { chargeTold } from '../../../electrical/open-circuit.js';
import { certain } from '../../../result.js';
import {
  asFound,
  choiceStep,
  nearest,
  number,
  rawOfSentinel,
  step,
  word,
  type Wish,
  type WishFor,
  type WishFinding,
  type Work,
} from '../wish.js';

export const nominalVoltage: WishFor = (code, { type: { pack } }) => {
  const wish = number(code, pack.labelV, step('type', `Pack of ${pack.labelV} V, ${pack.cellsInSeries} cells`));
  if (wish.raw !== null) return wish;
  return asFound(`No class of this code is ${pack.labelV} V.`, {
    level: 'stop',
    topic: 'noVoltageClass',
    says: `${code.label} has no voltage class for a ${pack.labelV} V pack: the gauge and the cut-off would be wrong.`,
  });
};

export const batteryKind: WishFor = (code, { type: { pack } }) =>
  word(
    code,
    pack.chemistry,
    step('type', { liIon: 'Li-ion cells', lfp: 'LFP cells', leadAcid: 'Sealed lead-acid cells' }[pack.chemistry]),
  );

export const packProfile: WishFor = (code, { type: { pack } }) =>
  pack.profile === undefined || pack.profile === null
    ? asFound("Nobody has said which profile is this pack's: stays as found, and is read back.")
    : word(code, pack.profile, step('type', `Profile ${pack.profile} belongs to this pack`));

/** What the gauge counts down from. */
export const packCapacity: WishFor = (code, { type: { pack } }) =>
  nearest(code, pack.capacityAh, step('type', `Pack of ${pack.capacityAh} Ah`));

/** Volts at which the ride ends gently. */
export const cutoffVoltage: WishFor = (code, work) => {
  const { pack, controllerCutoffV } = work.type;
  const wish = cutoffWish(pack, work.choices.cutoffMarginVPerCell, controllerCutoffV);
  const raw = wish.strictly
    ? plainValues(code).find((value) => meaning(code, value) > wish.volts + 1e-9)
    : leastRawFrom(code, wish.volts);
  const perCell = (wish.volts / pack.cellsInSeries).toFixed(1);
  const why = {
    cells: step('house', `${perCell} V a cell, ${pack.cellsInSeries} cells`),
    controller: step('type', `The controller itself cuts off at ${wish.volts} V`),
    protection: step('type', `The pack's own protection trips at ${wish.volts} V; the controller ends the ride before`),
  }[wish.decidedBy];
  if (raw === undefined)
    return asFound(`${wish.volts} V wanted, not on this code`, {
      level: 'stop',
      topic: 'tooLow',
      says: `${code.label} cannot be set to ${wish.volts} V; its highest is ${formatRaw(code, code.range.max)}. Cells would be run too low.`,
    });
  return { raw, because: why.says, trail: [why], ...withFindings(endsEarly(code, raw, work)) };
};

const meaning = (code: Code, raw: number): number => raw * (code.encoding.kind === 'line' ? code.encoding.scale : 1);
const withFindings = (findings: readonly WishFinding[]) => (findings.length > 0 ? { findings } : {});

/** A code whose lowest value lies far up the curve ends the ride with charge left: a code for another pack. */
function endsEarly(code: Code, raw: number, { type: { pack } }: Work): readonly WishFinding[] {
  const cellV = meaning(code, raw) / pack.cellsInSeries;
  if (cellV >= CELL_VOLTS[pack.chemistry].fullV)
    return [
      {
        level: 'stop',
        topic: 'aboveFull',
        says: `${code.label} goes no lower than ${formatRaw(code, raw)} V, more than this pack has when full: the unit would not ride.`,
      },
    ];
  const left = chargeTold(pack.chemistry, cellV)?.fromPercent ?? 0;
  return left > 20
    ? [
        {
          level: 'decide',
          topic: 'endsEarly',
          says: `${code.label} goes no lower than ${formatRaw(code, raw)} V: the ride would end with about ${Math.round(left)} % of the charge left.`,
        },
      ]
    : [];
}

/** Power tapers off above the cut-off: nothing is promised of it, but below the cut-off it would never act. */
export const taperVoltage: WishFor = (code, work) => {
  const end = cutoffWish(work.type.pack, work.choices.cutoffMarginVPerCell, work.type.controllerCutoffV).volts;
  const found = meaning(code, work.found(code));
  return found > end
    ? asFound('Above the cut-off: stays as found.')
    : asFound('Stays as found.', {
        level: 'note',
        topic: 'taperNeverActs',
        says: `${code.label} tapers from ${found} V, not above the cut-off at ${end} V: it never acts.`,
      });
};

export const gaugeMode: WishFor = (code, work) =>
  word(code, work.choices.batteryShown, choiceStep(work, 'batteryShown'));

const gaugeOf = ({ type: { pack, controllerCutoffV }, map, countOf, choices }: Work) =>
  certain(
    gaugeSteps({
      pack,
      bars: countOf('gaugeStep') + 1,
      goesOutAt: map.gauge?.barGoesOutAt ?? 'edge',
      cutoffV: cutoffWish(pack, choices.cutoffMarginVPerCell, controllerCutoffV).volts,
    }),
  );

function gaugeVolts(code: Code, volts: number, says: string): Wish {
  const raw = leastRawFrom(code, volts);
  return raw === undefined
    ? asFound(`${volts} V wanted, not on this code`, {
        level: 'decide',
        topic: 'gaugeRange',
        says: `${code.label} cannot be set to ${volts} V: the gauge will not be right for this pack.`,
      })
    : { raw, because: says, trail: [step('type', says)] };
}
export const gaugeEmptyV: WishFor = (code, work) =>
  gaugeVolts(code, gaugeOf(work).emptyV, `Empty at the cell floor: ${gaugeOf(work).emptyV} V`);
export const gaugeFullV: WishFor = (code, work) =>
  gaugeVolts(code, gaugeOf(work).fullV, `Full at rest: ${gaugeOf(work).fullV} V`);
export const gaugeStep: WishFor = (code, work) => {
  const at = gaugeOf(work).steps[work.nth(code)];
  return at ? gaugeVolts(code, at.packV, `Bar ${at.bar} goes out below ${at.packV} V`) : asFound('Stays as found.');
};

export const lowBatteryLimp: WishFor = (code, work) => {
  const why = choiceStep(work, 'limpFromPercent');
  const from = work.choices.limpFromPercent;
  if (code.encoding.kind === 'table') return word(code, from === 0 ? ['off', 'no'] : ['on', 'yes', String(from)], why);
  const off = rawOfSentinel(code, 'off');
  return from === 0 && off !== undefined ? { raw: off, because: why.says, trail: [why] } : nearest(code, from, why);
};
