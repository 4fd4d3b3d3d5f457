import { minutesAhead, momentIn, type PlanProblem } from '@decurio/core';
import type { PlanNote } from '@decurio/contract';
import type { PlanInputs } from './inputs.js';

const WEEK_MS = 7 * 86_400_000;

/** What a person should know of what a plan is made of, and what to do about it. */
export function faultsOf(inputs: PlanInputs, problem: PlanProblem, nowMs: number): readonly PlanNote[] {
  const { crew, shop, orders, zone, stepsSeen, isCut, units } = inputs;
  const notes: PlanNote[] = [];
  const say = (code: PlanNote['code'], says: string): void => void notes.push({ code, says });
  if (!crew || crew.people.length === 0)
    say('noCrew', 'Nobody is entered yet: say under People and places who works here, and when.');
  else if (problem.people.every(({ hours }) => hours.length === 0))
    say('nobodyThere', 'Nobody is there in the next three weeks: look at hours and absences under People and places.');
  else if (problem.people.every(({ skills, hours }) => !skills.includes('sign') || hours.length === 0))
    say('nobodySigns', 'Nobody who is there signs off: units are laid out to their proof, and no order is ready.');
  if (!shop) say('noShop', 'Stands, yard and posts are not entered yet: one stand is reckoned with.');
  else if (!shop.places.some(({ kind }) => kind === 'yard' || kind === 'roller'))
    say('noYard', 'There is neither a yard nor a roller: what is ridden or proved there cannot be laid out.');
  const past = orders.filter(({ dueAt }) => (momentIn(zone, dueAt) ?? Infinity) < nowMs);
  if (past.length > 0)
    say(
      'duePast',
      `${list(past.map(({ number }) => number))} ${past.length === 1 ? 'was' : 'were'} due already: laid out as soon as it goes.`,
    );
  const unread = orders.filter(({ dueAt }) => momentIn(zone, dueAt) === null);
  if (unread.length > 0)
    say('dueUnread', `When ${list(unread.map(({ number }) => number))} is due cannot be read: amend it on its order.`);
  const stretch = Math.max(0, ...problem.people.flatMap(({ hours }) => hours.map(({ fromS, toS }) => toS - fromS)));
  const long = problem.units.find(({ tasks }) =>
    tasks.some(({ kind, lengthS }) => kind === 'hands' && lengthS > stretch && stretch > 0),
  );
  if (long)
    say('unitLong', `${long.name} has a step longer than anybody is there at a stretch: it goes on after breaks.`);
  if (isCut)
    say(
      'tooMany',
      `More units are open than are planned at once: the first ${units.length} by their due times stand here.`,
    );
  const held = units.filter(({ status }) => status === 'held');
  if (held.length > 0)
    say(
      'heldReckoned',
      `${list(held.map(({ serial }) => serial))} ${held.length === 1 ? 'is' : 'are'} held, and reckoned with as held units usually come back.`,
    );
  if (stepsSeen === 0)
    say('nothingSeen', 'No unit was sealed here yet: how long steps take is assumed, and the chances are wide.');
  if (minutesAhead(zone, nowMs) !== minutesAhead(zone, nowMs + WEEK_MS))
    say('clocksMove', 'Clocks are put forward or back within a week: hours are those of the clock on the wall.');
  return notes;
}

const SHOWN = 3;
const list = (names: readonly string[]): string =>
  names.length <= SHOWN
    ? names.join(', ').replace(/, ([^,]*)$/, ' and $1')
    : `${names.slice(0, SHOWN).join(', ')} and ${names.length - SHOWN} more`;
