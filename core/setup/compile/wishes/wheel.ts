import type { Code } from '../../../display/map/display-map.js';
import { formatRaw } from '../../../display/map/raw-value.js';
import { parseTyreMarking, rollOutGuess } from '../../../speed/tyre-marking.js';
import { circumferenceMm, wheelValueFor } from '../../../speed/wheel-code.js';
import type { KnownRatio } from '../../inputs/setup-inputs.js';
import type { TrailStep } from '../../setup.js';
import { asFound, choiceStep, lineScale, number, step, unitOf, type Wish, type WishFor, type Work } from '../wish.js';

/** As fitted to a reference speed where there are runs, else as rolled out, else as marked. */
export const wheelSize: WishFor = (code, work) => {
  const school = choiceStep(work, 'wheelValue');
  const { ratio } = work.unit;
  if (work.choices.wheelValue === 'fitted' && ratio && ratio.atWheelRaw !== null) {
    const counted = circumferenceMm(code, ratio.atWheelRaw);
    const { taken } = ratio;
    const wheelRaw = taken?.wheelRaw ?? null;
    if (taken && wheelRaw !== null) return takenAs(code, wheelRaw, taken, school);
    if (counted !== undefined)
      return nearestTo(
        code,
        counted / (work.choices.shownSpeed === 'neverUnder' ? ratio.low : ratio.k),
        work,
        runsStep(ratio, counted),
        school,
      );
  }
  const { rolledMm, marking, wheelInch } = work.type.tyre;
  const own = work.unit.rolled ?? null;
  if (work.choices.wheelValue !== 'marked' && own !== null)
    return nearestTo(
      code,
      // Where it must never read under, the wheel may roll as far as its measure allows.
      work.choices.shownSpeed === 'neverUnder' ? own.toMm : own.mm,
      work,
      {
        from: 'unit',
        says: `Rolled out on this unit: ${Math.round(own.mm)} mm a turn, ${Math.round(own.fromMm)} to ${Math.round(own.toMm)}.`,
        decided: true,
      },
      school,
    );
  if (work.choices.wheelValue !== 'marked' && rolledMm !== null)
    return nearestTo(
      code,
      rolledMm,
      work,
      { from: 'type', says: `Rolled out: ${rolledMm} mm a turn.`, decided: true },
      school,
    );
  if (unitOf(code) !== 'mm') {
    const wish = number(code, wheelInch, step('type', `As marked: ${marking}, not yet measured`));
    return { ...wish, trail: [{ ...school, says: `${school.says}.` }, ...(wish.trail ?? [])] };
  }
  const tyre = parseTyreMarking(marking);
  if (!tyre)
    return asFound(`The marking ${marking} tells no circumference: stays as found.`, {
      level: 'decide',
      topic: 'rollOut',
      says: `${code.label} wants millimetres, and the marking ${marking} tells none. Roll the wheel out and put it into the type.`,
    });
  const guess = rollOutGuess(tyre);
  return nearestTo(
    code,
    guess.mm,
    work,
    {
      from: 'type',
      says: `As marked, ${marking}: about ${Math.round(guess.mm)} mm, ${Math.round(guess.fromMm)} to ${Math.round(guess.toMm)}; not yet measured.`,
      decided: true,
    },
    school,
  );
};

const runsStep = ({ k, learntFrom }: KnownRatio, counted: number): TrailStep =>
  learntFrom === undefined
    ? { from: 'unit', says: `Fitted to runs: a turn is ${Math.round(counted / k)} mm.`, decided: true }
    : {
        from: 'unit',
        says: `Learnt from ${learntFrom} units of this type, display and tyre, this one not itself measured: a turn is ${Math.round(counted / k)} mm.`,
        decided: true,
      };

/** The value that was chosen at the stand among those that its runs allow. */
function takenAs(code: Code, raw: number, { by, count }: NonNullable<KnownRatio['taken']>, school: TrailStep): Wish {
  const why: TrailStep = {
    from: 'unit',
    says: `Fitted to ${count} readings, and chosen by ${by}: ${formatRaw(code, raw)}.`,
    decided: true,
  };
  return { raw, because: why.says, trail: [{ ...school, says: `${school.says}.` }, why] };
}

function nearestTo(code: Code, trueMm: number, { choices }: Work, why: TrailStep, school: TrailStep): Wish {
  const choice = wheelValueFor(code, trueMm, choices.shownSpeed);
  if (!choice) return asFound(`${why.says} The map does not say what the values of this code mean.`);
  const off = Math.abs(choice.mm / trueMm - 1);
  const shows =
    off < 0.0005
      ? ''
      : ` At ${formatRaw(code, choice.raw)} the display shows ${(off * 100).toFixed(1)} % too ${choice.mm > trueMm ? 'much' : 'little'}.`;
  return {
    raw: choice.raw,
    because: `${why.says}${shows}`,
    trail: [
      { ...school, says: `${school.says}.` },
      why,
      ...(shows ? [{ from: 'display' as const, says: shows.trim() }] : []),
    ],
  };
}

export const wheelPulses: WishFor = (code, work) => {
  const { type, choices, unit } = work;
  const taken = unit.ratio?.taken;
  const raw = taken?.pulsesRaw ?? null;
  if (!taken || raw === null || raw * lineScale(code) === type.wheelPulses) return asCounted(code, type, choices);
  const why: TrailStep = {
    from: 'unit',
    says: `Trimmed to ${taken.count} readings, and chosen by ${taken.by}; ${type.wheelPulses} were counted.`,
    decided: true,
  };
  return { raw, because: why.says, trail: [choiceStep(work, 'wheelPulses'), why] };
};

const asCounted = (code: Code, type: Work['type'], choices: Work['choices']): Wish =>
  number(
    code,
    type.wheelPulses,
    step(
      'type',
      `As counted: ${type.wheelPulses} a turn, ${choices.wheelPulses === 'counted' ? 'never a trim' : 'until runs ask for a trim'}`,
    ),
  );
