import type { StepId } from '../bench/steps.js';

/** How long one step of one visit took. */
export interface StepSeen {
  readonly step: StepId;
  /** Type and display: what may make it longer or shorter. */
  readonly kind: string;
  /** Who did it, where that person agreed to be told apart; null for everybody else. */
  readonly personId: string | null;
  /** Hands on it, pauses and holds cut; above 0. */
  readonly seconds: number;
}

/**
 * A length that is not known but learnt: lognormal, of natural logarithms of seconds. `sd` is how one unit differs from
 * the next; `unsure` how far the mean itself may be off, the same for all units of the kind.
 */
export interface Length {
  readonly mean: number;
  readonly sd: number;
  readonly unsure: number;
  /** Observations of the very kind; 0 where only others are known. */
  readonly count: number;
}

export interface StepLengths {
  /** Of a step at a kind of unit, by a person where that one agreed. */
  readonly of: (step: StepId, kind: string, personId?: string | null) => Length;
}

/** What is taken for a step nobody was seen at yet: minutes, and so unsure that the first days tell more. */
const ASSUMED_MIN: Readonly<Record<StepId, number>> = {
  checkIn: 3,
  makeSafe: 0.5,
  asFound: 3,
  keyIn: 4,
  restart: 1,
  readBack: 3,
  calibrate: 4,
  prove: 6,
  signOff: 1,
  handOver: 2,
};
const ASSUMED: Pick<Length, 'sd' | 'unsure'> = { sd: 0.5, unsure: 0.4 };

/** Nobody is so unsure of a step that it may as well take ten times as long. */
const MOST_UNSURE = 0.8;

/** Fewer than this of a step tell nothing of how kinds or persons differ. */
const FEW = 4;
/** No step differs by less from one unit to the next: what looks steadier was seen too seldom. */
const LEAST_SD = 0.15;

/**
 * Lengths of steps as they were seen: lognormal by step and kind, each drawn towards the mean of its step by how few
 * there are of it (empirical Bayes: the variance between kinds by the method of moments, as in B. Efron and C. Morris,
 * JASA 70, 1975). A person's own pace counts likewise, as a factor over all steps, where that person agreed.
 * @param planned seconds a step is worked out to take where nothing was seen of its kind: what a key plan says
 */
export function stepLengths(
  seen: readonly StepSeen[],
  planned: (step: StepId, kind: string) => number | null = () => null,
): StepLengths {
  const bySteps = new Map<StepId, StepModel>();
  for (const [step, ofStep] of grouped(seen, ({ step: each }) => each)) bySteps.set(step, modelOf(ofStep));
  const paces = pacesOf(seen, bySteps);
  const pace = (personId: string | null): Pace => (personId === null ? EVEN : (paces.get(personId) ?? EVEN));
  return {
    of: (step, kind, personId = null) => {
      const model = bySteps.get(step);
      const own = model?.kinds.get(kind);
      const { factor, unsure } = pace(personId);
      const known = own ?? model?.other;
      const worked = own ? null : planned(step, kind);
      if (!known || worked !== null)
        return {
          mean: Math.log((worked ?? (ASSUMED_MIN[step] ?? 3) * 60) || 1) + factor,
          ...ASSUMED,
          count: 0,
        };
      return { ...known, mean: known.mean + factor, unsure: Math.hypot(known.unsure, unsure) };
    },
  };
}

/** Seconds that may be reckoned with on the average. */
export const meanSeconds = ({ mean, sd, unsure }: Length): number => Math.exp(mean + (sd * sd + unsure * unsure) / 2);

interface StepModel {
  readonly kinds: ReadonlyMap<string, Length>;
  /** Of a kind that was not seen. */
  readonly other: Length;
}

function modelOf(seen: readonly StepSeen[]): StepModel {
  const kinds = [...grouped(seen, ({ kind }) => kind)].map(([kind, each]) => ({ kind, ...momentsOf(each) }));
  const all = momentsOf(seen);
  const count = seen.length;
  const within = kinds.reduce((sum, each) => sum + each.squares, 0);
  const freedom = count - kinds.length;
  const variance = Math.max(
    LEAST_SD ** 2,
    freedom >= FEW ? within / freedom : (within + FEW * ASSUMED.sd ** 2) / (freedom + FEW),
  );
  // Between kinds, by moments of an unbalanced one-way layout.
  const spread = kinds.reduce((sum, each) => sum + each.count * (each.mean - all.mean) ** 2, 0);
  const size = count - kinds.reduce((sum, each) => sum + each.count ** 2, 0) / Math.max(1, count);
  // What so few kinds tell of how kinds differ is itself unsure: the spread is taken as much wider as a mean of few is.
  const few = kinds.length > 1 ? (kinds.length + 1) / (kinds.length - 1) : 1;
  const between =
    kinds.length < 2
      ? ASSUMED.unsure ** 2 / 4
      : few * Math.max(0.0025, (spread - (kinds.length - 1) * variance) / Math.max(1, size));
  const ofMean = variance / Math.max(1, count) + between / Math.max(1, kinds.length);
  const sd = Math.sqrt(variance);
  return {
    kinds: new Map(
      kinds.map(({ kind, mean, count: own }) => {
        const share = between / (between + variance / own);
        return [
          kind,
          {
            mean: all.mean + share * (mean - all.mean),
            sd,
            unsure: Math.sqrt((share * variance) / own + (1 - share) ** 2 * ofMean),
            count: own,
          },
        ];
      }),
    ),
    other: { mean: all.mean, sd, unsure: Math.min(MOST_UNSURE, Math.sqrt(between + ofMean)), count: 0 },
  };
}

interface Pace {
  readonly factor: number;
  readonly unsure: number;
}
const EVEN: Pace = { factor: 0, unsure: 0 };

function pacesOf(seen: readonly StepSeen[], bySteps: ReadonlyMap<StepId, StepModel>): ReadonlyMap<string, Pace> {
  const rest = seen.flatMap(({ step, kind, personId, seconds }) => {
    const known = bySteps.get(step)?.kinds.get(kind);
    return personId === null || !known
      ? []
      : [{ personId, off: Math.log(seconds) - known.mean, variance: known.sd ** 2 }];
  });
  const persons = [...grouped(rest, ({ personId }) => personId)].map(([personId, each]) => ({
    personId,
    count: each.length,
    mean: each.reduce((sum, { off }) => sum + off, 0) / each.length,
    variance: each.reduce((sum, one) => sum + one.variance, 0) / each.length,
  }));
  const between = Math.max(
    0,
    persons.reduce((sum, { mean, variance, count }) => sum + mean ** 2 - variance / count, 0) /
      Math.max(1, persons.length),
  );
  return new Map(
    persons
      .filter(({ count }) => count >= FEW)
      .map(({ personId, count, mean, variance }) => {
        const share = between / (between + variance / count || 1);
        return [personId, { factor: share * mean, unsure: Math.sqrt((share * variance) / count) }];
      }),
  );
}

/** Of logarithms: how many, their mean, and the sum of squares about it. */
function momentsOf(seen: readonly StepSeen[]) {
  const logs = seen.map(({ seconds }) => Math.log(seconds));
  const mean = logs.reduce((sum, log) => sum + log, 0) / Math.max(1, logs.length);
  return { count: logs.length, mean, squares: logs.reduce((sum, log) => sum + (log - mean) ** 2, 0) };
}

function grouped<T, K>(all: readonly T[], keyOf: (one: T) => K): ReadonlyMap<K, readonly T[]> {
  const groups = new Map<K, T[]>();
  for (const one of all) {
    const key = keyOf(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return groups;
}
