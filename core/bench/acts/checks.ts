import type { VisitAsks, VisitCheck } from '../../setup/inputs/check-list.js';
import type { EvidenceData } from '../evidence.js';
import { refusal, type Refusal } from '../refusals.js';
import { stepTitle, type StepId } from '../steps.js';
import type { VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';

type Made = EvidenceData['checkMade'];

/** Whether a check is made at a step: its own; and the number of a part that was replaced later, before anything is signed. */
const isOfStep = (check: VisitCheck, step: StepId | null): boolean =>
  check.step === step || (check.asks.kind === 'number' && step === 'prove');

/** Checks of a step that nobody has made yet, in order. */
export const checksLeft = ({ opened, checks }: VisitState, step: VisitCheck['step']): readonly VisitCheck[] =>
  (opened.bench?.checks ?? []).filter((check) => isOfStep(check, step) && !(check.id in checks));

/** Refuses to leave a step while its checks are not made. */
export function checksMissing(state: VisitState, step: VisitCheck['step']): Refusal | null {
  const left = checksLeft(state, step);
  return left.length === 0 ? null : refusal('checksLeft', left.map(({ title }) => title.toLowerCase()).join(', '));
}

/** `4 to 6 Nm`, `at least 20 stops`; empty where nobody has said. */
export function askedRange(asks: VisitAsks): string {
  if (asks.kind !== 'figure') return '';
  const { from, to, unit } = asks;
  if (from !== null && to !== null) return `${from} to ${to} ${unit}`;
  return from !== null ? `at least ${from} ${unit}` : to !== null ? `at most ${to} ${unit}` : '';
}

/** Whether a figure lies outside what the check asks for. */
const isOutside = (asks: VisitAsks, figure: number | null): boolean =>
  asks.kind === 'figure' &&
  figure !== null &&
  ((asks.from !== null && figure < asks.from) || (asks.to !== null && figure > asks.to));

/** Whether something is noted that nobody here has seen, such as a firmware. */
const isUnknown = (asks: VisitAsks, text: string): boolean =>
  asks.kind === 'number' &&
  asks.known !== undefined &&
  text.trim() !== '' &&
  !asks.known.some((each) => each.trim().toLowerCase() === text.trim().toLowerCase());

/** A check that holds the unit: not good, a figure outside its range, or what nobody here has seen. */
export const isBad = (
  { asks }: VisitCheck,
  { outcome, figure, text }: Pick<Made, 'outcome' | 'figure' | 'text'>,
): boolean => outcome === 'notGood' || isOutside(asks, figure) || (outcome === 'good' && isUnknown(asks, text));

/** Tyre pressure as it was checked last during this visit, bar; null where it was not read among the checks. */
export const pressureRead = ({ opened, checks }: Pick<VisitState, 'opened' | 'checks'>): number | null =>
  (opened.bench?.checks ?? [])
    .filter(({ asks }) => asks.kind === 'figure' && asks.unit === 'bar')
    .map(({ id }) => checks[id]?.figure ?? null)
    .findLast((figure) => figure !== null) ?? null;

/** A figure so far beyond its range is a slip of the hand, not of the vehicle. */
const FAR_BEYOND = 3;

/** One check before delivery. One that is not good holds the unit until a lead has decided, and is then made again. */
export const checkMade: ActOf<'checkMade'> = {
  refuses: (state, { data }) => {
    const check = state.opened.bench?.checks?.find(({ id }) => id === data.check);
    if (!check) return refusal('noSuchCheck');
    if (!isOfStep(check, state.step)) return refusal('wrongStep', stepTitle(state.step ?? check.step).toLowerCase());
    return data.outcome === 'notFitted' ? null : unsound(check, data);
  },
  then: (state, { data, at, by }) => {
    const check = state.opened.bench?.checks?.find(({ id }) => id === data.check);
    const checks = { ...state.checks, [data.check]: { ...data, at, by: by.name } };
    if (!check || !isBad(check, data)) return { ...state, checks };
    return { ...state, checks, held: state.held ?? { reason: 'damage', words: badWords(check, data), at, by } };
  },
};

function unsound({ asks }: VisitCheck, { outcome, figure, tool, text, words }: Made): Refusal | null {
  if (outcome === 'notGood' && words.trim() === '') return refusal('sayWhatIsWrong');
  if (asks.kind === 'number' && outcome === 'good' && text.trim() === '') return refusal('numberMissing');
  if (asks.kind !== 'figure' || outcome !== 'good') return null;
  if (figure === null) return refusal('figureMissing', asks.unit);
  if (figure < 0 || (asks.to !== null && figure > FAR_BEYOND * asks.to))
    return refusal('absurdFigure', figure, asks.unit, askedRange(asks));
  return asks.withTool && tool.trim() === '' ? refusal('toolMissing') : null;
}

function badWords(check: VisitCheck, { figure, text, words }: Made): string {
  if (check.asks.kind === 'number' && isUnknown(check.asks, text))
    return `${check.title} ${text.trim()}: the map of this display was held against ${check.asks.known?.join(', ')}, and nobody here has seen this one. Codes may mean something else. A lead decides: hold the map against this unit, or send it back.`;
  const read = isOutside(check.asks, figure) && check.asks.kind === 'figure';
  const says = read ? `${figure} ${check.asks.unit}, and ${askedRange(check.asks)} is asked` : '';
  return [
    `${check.title}: ${[says, words].filter((part) => part !== '').join('. ')}`,
    'A lead decides; then it is checked again.',
  ]
    .join('. ')
    .replace('..', '.');
}

/** Once a lead has decided that its cause is gone, what was not good is checked again. */
export const withoutBad = (state: VisitState): VisitState['checks'] =>
  Object.fromEntries(
    Object.entries(state.checks).filter(([id, made]) => {
      const check = state.opened.bench?.checks?.find((each) => each.id === id);
      // What a lead let pass although nobody had seen it stands: asked again it would only be held again.
      return !check || !isBad(check, made) || (made.outcome === 'good' && isUnknown(check.asks, made.text));
    }),
  );

/** A number that stands on another unit too: whose part is it? */
export const numberClash: ActOf<'numberClash'> = {
  then: (state, { data: { of, number, serial }, at, by }) => ({
    ...state,
    checks: Object.fromEntries(Object.entries(state.checks).filter(([id]) => id !== `number-${of}`)),
    held: state.held ?? {
      reason: 'parts',
      words: `The number ${number} is noted at ${serial} too. Look at both: a part was swapped, or one of the two was misread. A lead decides.`,
      at,
      by,
    },
  }),
};
