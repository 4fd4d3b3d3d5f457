import { stepTitle, timeIn } from '@decurio/core';
import type { PlanView } from '@decurio/contract';
import { createEvents, type EventAttributes } from 'ics';
import Papa from 'papaparse';
import { HttpProblem } from '../problems.js';

const at = (ms: number) => ({ start: ms, startInputType: 'utc', startOutputType: 'utc' }) as const;

/** A calendar file (iCalendar, RFC 5545). */
function calendar(events: readonly EventAttributes[]): string {
  const { value, error } = createEvents([...events]);
  if (!value || error) throw error ?? new Error('no calendar came of it');
  return value;
}

/** When an order is ready: from the time as likely as not to that with 95 of 100. */
export function orderCalendar({ orders }: PlanView, orderId: string): string {
  const order = orders.find(({ id }) => id === orderId);
  if (!order?.readyBy) throw new HttpProblem('notFound', { message: 'The plan has no time for this order.' });
  const { number, customer, readyBy, inTime } = order;
  return calendar([
    {
      ...at(readyBy[50]),
      end: Math.max(readyBy[95], readyBy[50] + MINUTE_MS),
      endInputType: 'utc',
      endOutputType: 'utc',
      uid: `order-${orderId}@decurio`,
      productId: 'decurio/plan',
      title: `${number} ready, ${customer}`,
      description: `As likely as not by the beginning of this, with 95 of 100 by its end.${inTime === null ? '' : ` In time: ${Math.round(inTime)} of 100.`}`,
    },
  ]);
}

/** Somebody's work, unit by unit, as far as the plan goes. */
export function personCalendar({ people, bars, units }: PlanView, personId: string): string {
  const person = people.find(({ id }) => id === personId);
  if (!person) throw new HttpProblem('notFound', { message: 'Nobody of the crew has this id.' });
  const serialOf = new Map(units.map(({ id, serial }) => [id, serial]));
  const own = bars.filter((bar) => bar.personId === personId).slice(0, MOST_EVENTS);
  return calendar(
    own.map((bar) => ({
      ...at(bar.fromMs),
      end: bar.toMs,
      endInputType: 'utc' as const,
      endOutputType: 'utc' as const,
      uid: `${bar.unitId}-${bar.step}@decurio`,
      productId: 'decurio/plan',
      title: `${serialOf.get(bar.unitId) ?? ''} ${stepTitle(bar.step)}`,
    })),
  );
}

const MINUTE_MS = 60_000;
const MOST_EVENTS = 500;

/** The plan as a table: a line a bar, in clock times of the house. */
export function planCsv({ bars, units, orders, people, places, zone }: PlanView): string {
  const named = <T extends { readonly id: string }>(
    all: readonly T[],
    id: string | null,
    name: (one: T) => string,
  ): string => {
    const one = all.find((each) => each.id === id);
    return one ? name(one) : '';
  };
  return Papa.unparse(
    bars.map((bar) => ({
      from: timeIn(zone, bar.fromMs),
      to: timeIn(zone, bar.toMs),
      order: named(orders, bar.orderId, ({ number }) => number),
      unit: named(units, bar.unitId, ({ serial }) => serial),
      step: bar.tone === 'charge' ? 'Charge' : stepTitle(bar.step),
      person: named(people, bar.personId, ({ name }) => name),
      place: named(places, bar.placeId, ({ name }) => name),
    })),
    { escapeFormulae: true, newline: '\r\n' },
  );
}
