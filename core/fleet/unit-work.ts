import { isAfter, type StepId } from '../bench/steps.js';
import { meanSeconds, type Length, type StepLengths } from './step-lengths.js';
import type { HandsTask, PlanTask, Skill } from './plan/plan-problem.js';

/** What decides the work that is left at a unit. */
export interface UnitWork {
  readonly id: string;
  /** Type and display. */
  readonly kind: string;
  /** The step it is at; null where it was not begun. */
  readonly step: StepId | null;
  /** Steps its visit goes through. */
  readonly steps: readonly StepId[];
  readonly proveAt: 'yard' | 'roller';
  /** The place where it is ridden for calibrating; null where that is done at a stand. */
  readonly rideAt: 'yard' | 'roller' | null;
  /** Seconds its pack is to be charged before it is proved, and by which name posts know the pack; null where it is not. */
  readonly charge: { readonly seconds: number; readonly pack: string } | null;
  /** Whether somebody else than who keyed reads back, proves, or signs beside. */
  readonly apart: { readonly reader: boolean; readonly prover: boolean; readonly signers: boolean };
  /** Persons who keyed already. */
  readonly keyedBy: readonly string[];
  /** Whose pace counts, where it is one person's; null for all. */
  readonly personId: string | null;
}

/** A length as it is planned with and drawn: of the task, by its id. */
export interface TaskLength extends Length {
  /** What is wrong of one is wrong of all of these. */
  readonly kindOf: string;
}

export interface PlannedWork {
  readonly tasks: readonly PlanTask[];
  readonly lengths: Readonly<Record<string, TaskLength>>;
  /** Steps that a task stands for, each with the seconds planned for it. */
  readonly parts: Readonly<Record<string, readonly { readonly step: StepId; readonly seconds: number }[]>>;
}

type Hands = {
  readonly steps: readonly StepId[];
  readonly skill: Skill;
  readonly at: 'stand' | 'aside' | 'ride' | 'prove';
};

/** Steps that are done without leaving the unit are one task. */
const BLOCKS: readonly Hands[] = [
  { steps: ['checkIn', 'makeSafe', 'asFound', 'keyIn'], skill: 'bench', at: 'stand' },
  { steps: ['readBack'], skill: 'bench', at: 'stand' },
  { steps: ['calibrate'], skill: 'ride', at: 'ride' },
  { steps: ['prove'], skill: 'ride', at: 'prove' },
  { steps: ['signOff'], skill: 'sign', at: 'aside' },
];

/** The tasks that are left at a unit, in order, with how long each takes. */
export function workOf(unit: UnitWork, lengths: StepLengths): PlannedWork {
  const left = unit.steps.filter(
    (step) => step !== 'handOver' && (unit.step === null || step === unit.step || isAfter(step, unit.step)),
  );
  const tasks: PlanTask[] = [];
  const known: Record<string, TaskLength> = {};
  const parts: Record<string, readonly { readonly step: StepId; readonly seconds: number }[]> = {};
  const lengthOf = (step: StepId): Length => lengths.of(step, unit.kind, unit.personId);
  const add = (steps: readonly StepId[], make: (id: string, lengthS: number) => PlanTask): void => {
    const [first] = steps;
    if (first === undefined) return;
    const id = `${unit.id} ${first}`;
    const each = steps.map((step) => ({ step, length: lengthOf(step) }));
    const length = summed(each.map((one) => one.length));
    tasks.push(make(id, Math.max(1, Math.round(meanSeconds(length)))));
    known[id] = { ...length, kindOf: `${first} ${unit.kind}` };
    parts[id] = each.map((one) => ({ step: one.step, seconds: meanSeconds(one.length) }));
  };
  const keyTask = left.includes('keyIn') ? `${unit.id} ${left[0]}` : null;
  const hands = (block: Hands, steps: readonly StepId[]): void =>
    add(steps, (id, lengthS): HandsTask => {
      const asked = { readBack: unit.apart.reader, prove: unit.apart.prover } as Partial<Record<StepId, boolean>>;
      const isApart = asked[steps[0] as StepId] === true;
      const at = block.at === 'ride' ? (unit.rideAt ?? 'stand') : block.at === 'prove' ? unit.proveAt : block.at;
      return {
        kind: 'hands',
        id,
        step: steps[0] as StepId,
        lengthS,
        skill: block.skill,
        at,
        notBy: isApart ? unit.keyedBy : [],
        apartFrom: isApart ? keyTask : null,
      };
    });
  for (const block of BLOCKS) {
    const steps = block.steps.filter((step) => left.includes(step));
    if (block.steps[0] === 'readBack' && left.includes('restart'))
      add(['restart'], (id, lengthS) => ({ kind: 'wait', id, step: 'restart', lengthS }));
    if (block.steps[0] === 'prove' && unit.charge !== null && steps.length > 0)
      tasks.push({
        kind: 'charge',
        id: `${unit.id} charge`,
        step: 'prove',
        lengthS: unit.charge.seconds,
        pack: unit.charge.pack,
      });
    hands(block, steps);
    if (block.steps[0] === 'signOff' && steps.length > 0 && unit.apart.signers) {
      const signed = tasks.at(-1) as HandsTask;
      const id = `${unit.id} countersign`;
      tasks.push({ ...signed, id, skill: 'bench', apartFrom: signed.id });
      known[id] = { ...(known[signed.id] as TaskLength) };
      parts[id] = [];
    }
  }
  return { tasks, lengths: known, parts };
}

/**
 * A sum of lognormal lengths as one, by its mean and variance (L. F. Fenton, IRE Transactions on Communication Systems 8,
 * 1960). What is unsure of the parts is taken as unsure of all of them alike.
 */
function summed(lengths: readonly Length[]): Length {
  const [only] = lengths;
  if (lengths.length === 1 && only) return only;
  const means = lengths.map(({ mean, sd }) => Math.exp(mean + (sd * sd) / 2));
  const total = means.reduce((sum, each) => sum + each, 0);
  const variance = lengths.reduce((sum, { sd }, i) => sum + (means[i] as number) ** 2 * (Math.exp(sd * sd) - 1), 0);
  const square = Math.log(1 + variance / (total * total));
  const unsure = lengths.reduce((sum, each, i) => sum + ((means[i] as number) / total) * each.unsure, 0);
  return {
    mean: Math.log(total) - square / 2,
    sd: Math.sqrt(square),
    unsure,
    count: Math.min(...lengths.map(({ count }) => count)),
  };
}
