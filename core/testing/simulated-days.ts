import { forecast, drawer, NO_SURPRISES, type LengthOf, type Surprises } from '../fleet/plan/forecast.js';
import { indexed } from '../fleet/plan/indexed-problem.js';
import { planDay } from '../fleet/plan/plan-day.js';
import type { PlanProblem } from '../fleet/plan/plan-problem.js';
import { playedThrough, playOf } from '../fleet/plan/play-through.js';
import { meanSeconds, stepLengths, type Length, type StepSeen } from '../fleet/step-lengths.js';
import { seeded } from '../statistics/seeded.js';
import { someDays } from './any-day.js';

/** How steps really are in one shop, which nobody there knows: by kind, natural logarithms of seconds. */
interface Truth {
  readonly of: (step: string, kind: string) => Length;
}

const STEPS = ['keyIn', 'readBack', 'calibrate', 'prove', 'signOff'] as const;
const MINUTES = { keyIn: 9, readBack: 4, calibrate: 2.5, prove: 3, signOff: 1 } as const;
const KINDS = ['k0', 'k1', 'k2'] as const;

function shop(seed: number): Truth {
  const { normal } = seeded(seed);
  const lengths = new Map(
    STEPS.flatMap((step) =>
      KINDS.map((kind): [string, Length] => [
        `${step} ${kind}`,
        { mean: Math.log(MINUTES[step] * 60) + 0.3 * normal(), sd: 0.35, unsure: 0, count: 0 },
      ]),
    ),
  );
  return {
    of: (step, kind) => lengths.get(`${step} ${kind}`) ?? { mean: Math.log(120), sd: 0.2, unsure: 0, count: 0 },
  };
}

/** What was seen there of some visits, few of one kind and many of another. */
function logsOf(truth: Truth, seed: number): readonly StepSeen[] {
  const { normal } = seeded(seed);
  return KINDS.flatMap((kind, k) =>
    Array.from({ length: [4, 12, 60][k] ?? 0 }, () =>
      STEPS.map((step): StepSeen => {
        const { mean, sd } = truth.of(step, kind);
        return { step, kind, personId: null, seconds: Math.exp(mean + sd * normal()) };
      }),
    ).flat(),
  );
}

export interface WorkedOrder {
  /** By when it was said to be ready with so many of 100, and when it was, seconds. */
  readonly said: Readonly<Record<50 | 80 | 90 | 95, number>>;
  readonly readyS: number;
}

/**
 * A day as it is planned, forecast and then worked: lengths are learnt from a shop's logs, the plan is made with them,
 * and the day brings what that shop really is, with units held up that nobody foresaw.
 */
export function workedDay(seed: number, surprises: Surprises = NO_SURPRISES): readonly WorkedOrder[] {
  const truth = shop(seed * 3 + 1);
  const learnt = stepLengths(logsOf(truth, seed * 3 + 2));
  const day = someDays(seed, { units: 14, people: 3, orders: 3, days: 4 });
  const kindOf = new Map(
    day.units.flatMap(({ kind, tasks }) => tasks.map((task) => [task.id, { kind, task }] as const)),
  );
  const lengthOf: LengthOf = (id) => {
    const { kind, task } = kindOf.get(id) ?? {};
    if (!task || !kind || task.kind !== 'hands') return null;
    return { ...learnt.of(task.step, kind), kindOf: `${task.step} ${kind}` };
  };
  const problem: PlanProblem = {
    ...day,
    units: day.units.map((unit) => ({
      ...unit,
      tasks: unit.tasks.map((task) => {
        const length = lengthOf(task.id);
        return length ? { ...task, lengthS: Math.max(1, Math.round(meanSeconds(length))) } : task;
      }),
    })),
  };
  const plan = planDay(problem, seed, 8);
  const said = forecast(problem, plan, lengthOf, seed, { runs: 250, surprises });
  const given = indexed(problem);
  const real: LengthOf = (id) => {
    const { kind, task } = kindOf.get(id) ?? {};
    return task?.kind === 'hands' && kind ? { ...truth.of(task.step, kind), kindOf: '' } : null;
  };
  const endS = playedThrough(given, playOf(given, plan), drawer(given, real, surprises)(seeded(seed * 3 + 3)));
  return said.flatMap(({ ready }, o) => {
    const ends = given.units.filter(({ order }) => order === o).map(({ last }) => endS[last] as number);
    return ready && ends.length > 0 ? [{ said: ready, readyS: Math.max(...ends) }] : [];
  });
}
