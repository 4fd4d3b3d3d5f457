import { riskOf, timeIn, type Moved, type OrderForecast } from '@decurio/core';
import type { NextUnit, PlanBar, PlanMoves, PlanOrderView, PlanView, ReadyBy } from '@decurio/contract';
import type { UnitInput } from './inputs.js';
import { personOf } from './prepare.js';
import type { CurrentPlan } from './the-plan.js';

/** The plan as a screen shows it, to one person. */
export function viewOf(current: CurrentPlan, userId: string): PlanView {
  const { kept, inputs, prepared } = current;
  const { startMs, plan, forecasts, tightest, gap, beyondS, moves } = kept.body;
  const ms = (s: number): number => startMs + s * 1000;
  const you = personOf(inputs.crew, inputs, userId);
  // Hours are told as they are now: what was planned on may have been changed since.
  const hours = (windows: readonly { readonly fromS: number; readonly toS: number }[]) =>
    windows.map(({ fromS, toS }) => ({ fromMs: prepared.startMs + fromS * 1000, toMs: prepared.startMs + toS * 1000 }));
  const unitOf = new Map(inputs.units.map((unit) => [unit.id, unit]));
  const bars = plan.tasks.flatMap((task): readonly PlanBar[] => {
    const unit = unitOf.get(task.unitId);
    return unit
      ? [
          {
            unitId: unit.id,
            orderId: unit.orderId,
            step: task.step,
            tone: toneOf(task),
            fromMs: ms(task.startS),
            toMs: ms(task.endS),
            personId: task.personId,
            placeId: task.placeId,
          },
        ]
      : [];
  });
  const orders = inputs.orders.map((order): PlanOrderView => {
    const told = forecasts.find(({ orderId }) => orderId === order.id);
    const due = prepared.problem.orders.find(({ id }) => id === order.id)?.dueS ?? null;
    const readyS = plan.orders.find(({ orderId }) => orderId === order.id)?.readyS ?? null;
    return {
      id: order.id,
      number: order.number,
      customer: order.customer,
      dueMs: due === null ? null : prepared.startMs + due * 1000,
      left: inputs.units.filter(({ orderId }) => orderId === order.id).length,
      units: order.units,
      readyMs: readyS === null ? null : ms(readyS),
      readyBy: readyByOf(told?.ready ?? null, startMs),
      inTime: told?.inTime ?? null,
      tightest: tightest[order.id] ?? null,
    };
  });
  return {
    revision: kept.revision,
    madeAtMs: kept.madeAtMs,
    zone: inputs.zone,
    people: prepared.problem.people.map(({ id, name, skills, hours: windows }) => ({
      id,
      name,
      isYou: id === you,
      skills,
      hours: hours(windows),
    })),
    places: prepared.problem.places.map(({ id, name, kind, hours: windows }) => ({
      id,
      name,
      kind,
      hours: hours(windows),
    })),
    orders,
    units: inputs.units.map(({ id, serial, typeName, orderId, status, givenTo }) => ({
      id,
      serial,
      typeName,
      orderId,
      status,
      givenTo,
    })),
    bars,
    unplaced: plan.unplaced.filter(({ unitId }) => unitOf.has(unitId)),
    gap,
    beyondS,
    moves: moves && { atMs: moves.atMs, why: moves.why, moved: movesOf(moves.moved, moves.startMs) },
    notes: prepared.notes,
    nextForYou: you === null ? [] : nextFor(you, current, bars, orders),
  };
}

const TONES = { calibrate: 'ride', prove: 'prove', signOff: 'sign' } as const;
const toneOf = ({ kind, step }: { readonly kind: string; readonly step: string }): PlanBar['tone'] =>
  kind === 'wait' ? 'wait' : kind === 'charge' ? 'charge' : (TONES[step as keyof typeof TONES] ?? 'stand');

export const readyByOf = (ready: OrderForecast['ready'], startMs: number): ReadyBy | null =>
  ready && {
    50: Math.round(startMs + ready[50] * 1000),
    80: Math.round(startMs + ready[80] * 1000),
    90: Math.round(startMs + ready[90] * 1000),
    95: Math.round(startMs + ready[95] * 1000),
  };

export const movesOf = (moved: readonly Moved[], startMs: number): PlanMoves['moved'] =>
  moved.map(({ unitId, why, from, to }) => ({
    unitId,
    why,
    from: from && { personId: from.personId, atMs: startMs + from.startS * 1000 },
    to: to && { personId: to.personId, atMs: startMs + to.startS * 1000 },
  }));

const NEXT_SHOWN = 5;

/** What somebody takes up next, by the plan, and why. */
function nextFor(
  you: string,
  { inputs, prepared }: CurrentPlan,
  bars: readonly PlanBar[],
  orders: readonly PlanOrderView[],
): readonly NextUnit[] {
  const seen = new Set<string>();
  const now = prepared.startMs;
  return bars
    .filter(({ personId, toMs }) => personId === you && toMs > now)
    .flatMap((bar): readonly NextUnit[] => {
      const unit = inputs.units.find(({ id }) => id === bar.unitId);
      if (!unit || unit.status === 'held' || seen.has(bar.unitId)) return [];
      seen.add(bar.unitId);
      const order = orders.find(({ id }) => id === unit.orderId);
      const wait = bars.find(
        (each) =>
          each.unitId === unit.id &&
          (each.tone === 'wait' || each.tone === 'charge') &&
          each.fromMs <= now &&
          each.toMs > now,
      );
      const because = whyNext(unit, order, wait, inputs.zone, now);
      return [{ unitId: unit.id, serial: unit.serial, step: bar.step, atMs: Math.max(now, bar.fromMs), because }];
    })
    .slice(0, NEXT_SHOWN);
}

/** Why a unit is next, in the fewest words. */
function whyNext(
  unit: UnitInput,
  order: PlanOrderView | undefined,
  wait: PlanBar | undefined,
  zone: string,
  nowMs: number,
): string {
  if (wait) return `${wait.tone === 'wait' ? 'restarts' : 'charges'} until ${dayAndClock(zone, nowMs, wait.toMs)}`;
  if (unit.status === 'open') return 'in your hands';
  if (unit.givenTo !== null) return 'given to you';
  if (!order) return '';
  if (order.dueMs !== null && order.dueMs < nowMs) return `${order.number} is late`;
  if (riskOf(order.inTime) !== null) return `${order.number} is at risk`;
  return order.dueMs === null
    ? `of ${order.number}`
    : `${order.number} is due ${dayAndClock(zone, nowMs, order.dueMs)}`;
}

function dayAndClock(zone: string, nowMs: number, ms: number): string {
  const [day = '', clock = ''] = timeIn(zone, ms).split('T');
  return day === timeIn(zone, nowMs).slice(0, 10) ? clock : `${day} ${clock}`;
}
