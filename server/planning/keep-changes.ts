import { timeIn, type Crew, type Once, type Shop } from '@decurio/core';
import type { AskedChange, KeepChangesRequest, PlanHours } from '@decurio/contract';
import type { FastifyInstance } from 'fastify';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { addWithin, newestDocuments } from '../store/library.js';
import { inTransaction } from '../store/transaction.js';
import { moveOn } from './kept-plan.js';
import { onRevision } from './the-plan.js';

type House = Pick<FastifyInstance, 'source' | 'planner'>;
type Given = Extract<AskedChange, { readonly kind: 'give' }>;

/**
 * Keeps what was tried: who was given what, and who is there and what is open until when, as new versions. Whoever
 * decides second, on the same plan, is told: the plan is locked meanwhile, and moves on with what was decided.
 */
export async function keepChanges(
  house: House,
  { revision, changes }: KeepChangesRequest,
  by: { readonly userId: string },
): Promise<void> {
  refuseElsewhere(changes);
  const { inputs, prepared } = await onRevision(house, revision);
  const { zone } = inputs;
  const open: OpenOf = (id) =>
    [...prepared.problem.people, ...prepared.problem.places]
      .find((each) => each.id === id)
      ?.hours.map(({ fromS, toS }) => ({
        fromMs: prepared.startMs + fromS * 1000,
        toMs: prepared.startMs + toS * 1000,
      })) ?? [];
  const units = new Set(inputs.units.map(({ id }) => id));
  await inTransaction(house.source, async (manager) => {
    await moveOn(manager, revision);
    const crew = (await newestDocuments(manager, 'crew'))[0]?.document ?? null;
    const shop = (await newestDocuments(manager, 'shop'))[0]?.document ?? null;
    let nextCrew = crew;
    let nextShop = shop;
    for (const change of changes) {
      if (change.kind === 'stays' || change.kind === 'leaves') nextCrew = crewWith(nextCrew, change, zone, open);
      else if (change.kind === 'opens' || change.kind === 'shuts') nextShop = shopWith(nextShop, change, zone, open);
      else if (change.kind === 'proved' && nextShop)
        nextShop = { ...nextShop, proveAt: { ...nextShop.proveAt, [change.vehicle]: change.at } };
      else if (change.kind === 'give') await give(manager, change, { crew, units, userId: by.userId });
    }
    if (nextCrew && nextCrew !== crew) await addWithin(manager, 'crew', nextCrew, by.userId);
    if (nextShop && nextShop !== shop) await addWithin(manager, 'shop', nextShop, by.userId);
  });
}

/** What is promised or agreed is not the plan's to keep. */
function refuseElsewhere(changes: readonly AskedChange[]): void {
  for (const { kind } of changes) {
    if (kind === 'due')
      throw new HttpProblem('badRequest', {
        message: 'When an order is due is promised: amend the order, with a reason.',
      });
    if (kind === 'takes')
      throw new HttpProblem('badRequest', { message: 'An order is taken in under Orders, by a file or by hand.' });
    if (kind === 'follow')
      throw new HttpProblem('badRequest', {
        message: 'Which units follow later is agreed with the customer: take them out of the order, and into another.',
      });
  }
}

interface GivenBy {
  readonly crew: Crew | null;
  readonly units: ReadonlySet<string>;
  readonly userId: string;
}

async function give(
  manager: EntityManager,
  { unitId, personId }: Given,
  { crew, units, userId }: GivenBy,
): Promise<void> {
  if (personId !== null && !crew?.people.some(({ id }) => id === personId)) throw nobody();
  if (!units.has(unitId)) throw new HttpProblem('badRequest', { message: 'This unit is not to be planned any more.' });
  await manager.query('DELETE FROM plan_gift WHERE unitId = ?', [unitId]);
  if (personId !== null)
    await manager.query('INSERT INTO plan_gift (unitId, personId, byId, at) VALUES (?, ?, ?, UTC_TIMESTAMP(3))', [
      unitId,
      personId,
      userId,
    ]);
}

const nobody = (): HttpProblem => new HttpProblem('badRequest', { message: 'Nobody of the crew has this id.' });

type OpenOf = (id: string) => readonly PlanHours[];
type HoursChange = Extract<AskedChange, { readonly kind: 'stays' | 'leaves' | 'opens' | 'shuts' }>;

function crewWith(
  crew: Crew | null,
  change: Extract<HoursChange, { readonly personId: string }>,
  zone: string,
  open: OpenOf,
): Crew {
  if (!crew?.people.some(({ id }) => id === change.personId)) throw nobody();
  return {
    ...crew,
    people: crew.people.map((person) =>
      person.id !== change.personId
        ? person
        : change.kind === 'leaves'
          ? { ...person, away: [...person.away, awayOf(change, zone)] }
          : { ...person, also: [...person.also, longer(open(change.personId), change.untilMs, zone)] },
    ),
  };
}

function shopWith(
  shop: Shop | null,
  change: Extract<HoursChange, { readonly placeId: string }>,
  zone: string,
  open: OpenOf,
): Shop {
  if (!shop?.places.some(({ id }) => id === change.placeId))
    throw new HttpProblem('badRequest', { message: 'There is no such place.' });
  return {
    ...shop,
    places: shop.places.map((place) =>
      place.id !== change.placeId
        ? place
        : change.kind === 'shuts'
          ? { ...place, shut: [...place.shut, awayOf(change, zone)] }
          : { ...place, also: [...place.also, longer(open(change.placeId), change.untilMs, zone)] },
    ),
  };
}

const awayOf = ({ fromMs, untilMs }: { readonly fromMs: number; readonly untilMs: number }, zone: string): Once => ({
  from: timeIn(zone, fromMs),
  to: timeIn(zone, untilMs),
  why: 'from the plan',
});

/** From when the last stretch before it ends, so that the two are one. */
function longer(open: readonly PlanHours[], untilMs: number, zone: string): Once {
  const last = open.filter(({ fromMs }) => fromMs < untilMs).at(-1);
  if (!last || last.toMs >= untilMs)
    throw new HttpProblem('badRequest', { message: 'They are there until then already.' });
  return { from: timeIn(zone, last.toMs), to: timeIn(zone, untilMs), why: 'from the plan' };
}
