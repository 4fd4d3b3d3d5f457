import type { Entry, HoldReason } from '../bench/evidence.js';
import { foldAll, resume, type Fold } from '../bench/fold-visit.js';
import { isAfter, type StepId } from '../bench/steps.js';

/** Between two entries nobody was at the unit for longer than this: such a gap counts for no step. */
const PAUSE_MS = 10 * 60_000;

/** How one step of a visit went. */
export interface StepQuality {
  readonly step: StepId;
  /** Active minutes: gaps between entries, without pauses and without the time it was held. */
  readonly minutes: number;
  /** Never sent back to, or from it, and nothing taken back, misread, stuck or held in it. */
  readonly isFirstRight: boolean;
  /** Whoever made all its entries; null where several did. */
  readonly userId: string | null;
}

/** What a visit says of the work itself. */
export interface VisitQuality {
  readonly steps: readonly StepQuality[];
  /** Codes that were typed otherwise than they were read a moment later, by label, how often. */
  readonly slips: Readonly<Record<string, number>>;
  readonly holds: readonly { readonly reason: HoldReason; readonly hours: number }[];
}

interface Step {
  ms: number;
  isFirstRight: boolean;
  readonly users: Set<string>;
}

const HOUR_MS = 3_600_000;

/**
 * How the work of a visit went, step by step. Times are what the stands said; where those run backwards nothing is
 * counted.
 * @param deeds every entry of the visit, oldest first
 * @throws Error where they do not fold
 */
export function visitQuality(deeds: readonly Entry[]): VisitQuality {
  const [first, ...rest] = deeds;
  const opening = foldAll(first ? [first] : []);
  if (!opening.ok) throw new Error(`not a visit: ${opening.problem.message}`);
  let fold: Fold = opening.value;
  const steps = new Map<StepId, Step>();
  const slips: Record<string, number> = {};
  const holds: { reason: HoldReason; hours: number }[] = [];
  for (const deed of rest) {
    const { step, held, lastAt, readings } = fold.state;
    const next = resume(fold, deed);
    if (step !== null) {
      const own = steps.get(step) ?? { ms: 0, isFirstRight: true, users: new Set<string>() };
      steps.set(step, own);
      if (held === null) {
        own.ms += activeMs(lastAt, deed.at);
        own.users.add(deed.by.userId);
      }
      const slipped = deed.kind === 'codeRead' ? slipOf(readings[deed.data.label], deed.data.raw) : false;
      if (deed.kind === 'codeRead' && slipped) slips[deed.data.label] = (slips[deed.data.label] ?? 0) + 1;
      const back = sentBackTo(step, next.state.step, deed);
      const again = back === null ? undefined : steps.get(back);
      if (again) again.isFirstRight = false;
      if (slipped || back !== null || AMISS.has(deed.kind)) own.isFirstRight = false;
    }
    if (held !== null && next.state.held === null)
      holds.push({ reason: held.reason, hours: Math.max(0, Date.parse(deed.at) - Date.parse(held.at)) / HOUR_MS });
    fold = next;
  }
  return {
    steps: [...steps].map(([step, { ms, isFirstRight, users }]) => ({
      step,
      minutes: ms / 60_000,
      isFirstRight,
      userId: users.size === 1 ? ([...users][0] ?? null) : null,
    })),
    slips,
    holds,
  };
}

/** The step that has to be gone through once more, since what was done there did not hold; null where it goes on. */
function sentBackTo(step: StepId, next: StepId | null, { kind }: Entry): StepId | null {
  // Wheel and cap that were chosen by runs are keyed and read as a matter of course.
  const isPlanned = kind === 'wheelFitted' || kind === 'setupRevised';
  return next !== null && !isPlanned && isAfter(step, next) ? next : null;
}

/** Entries after which a step was not right at first. */
const AMISS: ReadonlySet<Entry['kind']> = new Set([
  'undone',
  'codeStuck',
  'held',
  'proofAgain',
  'wentBack',
  'speedJudged',
  'numberClash',
]);

function activeMs(from: string, to: string): number {
  const ms = Date.parse(to) - Date.parse(from);
  return ms > 0 && ms <= PAUSE_MS ? ms : 0;
}

/** A code read once more, and shown to be something else than was typed before. */
function slipOf(before: readonly (number | null)[] | undefined, raw: number | null): boolean {
  const last = before?.at(-1);
  return last !== undefined && last !== raw;
}
