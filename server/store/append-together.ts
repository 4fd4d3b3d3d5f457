import type { DataSource } from 'typeorm';
import { decideAll, TwinFound, type AllAppended, type DecidedOfVisit, type OfVisit } from './append-entries.js';
import { entriesInserted } from './evidence-rows.js';
import { bothLocked, freeOnes, freeOnesLocked, lockedRows } from './locked-rows.js';
import { projected } from './project-rows.js';
import type { Statement } from './statement.js';
import { codeOf, inTwoTrips, inTwoTripsOnce } from './transaction.js';

/*
 * Twenty stands that write at once are twenty transactions, each with two trips to the database and a commit of its own.
 * Here what came while the last trip was under way goes in one transaction: what is needed to decide comes with the
 * locks, and what was decided is written with the commit. Whatever is out of the ordinary, for one visit or for the
 * whole trip, sends each of them alone, where locks are waited for and broken knots are tried again.
 */

/** Visits in one trip: a commit of these is still a short one. */
const MOST_VISITS = 24;

interface Waiting {
  readonly of: OfVisit;
  readonly settle: (appended: Promise<AllAppended>) => void;
}

interface Queue {
  waiting: readonly Waiting[];
  isAway: boolean;
}

const queues = new WeakMap<DataSource, Queue>();

/**
 * Adds entries that are of their visit alone and thought to be new, together with what other visits sent meanwhile.
 * @throws TwinFound where one of them is there already
 */
export function appendTogether(source: DataSource, of: OfVisit): Promise<AllAppended> {
  const queue = queues.get(source) ?? { waiting: [], isAway: false };
  queues.set(source, queue);
  return new Promise((resolve) => {
    queue.waiting = [...queue.waiting, { of, settle: resolve }];
    // What came in the same breath goes along.
    setImmediate(() => void leave(source, queue));
  });
}

async function leave(source: DataSource, queue: Queue): Promise<void> {
  while (queue.waiting.length > 0 && !queue.isAway) {
    const trip = nextTrip(queue.waiting);
    queue.waiting = queue.waiting.filter((each) => !trip.includes(each));
    queue.isAway = true;
    const appended = await taken(source, trip);
    queue.isAway = false;
    for (const { of, settle } of trip) {
      const all = appended.get(of);
      settle(all ? Promise.resolve(all) : appendAlone(source, of));
    }
  }
}

/** The first of each visit: what one visit sent goes one after another. */
function nextTrip(waiting: readonly Waiting[]): readonly Waiting[] {
  const visits = new Set<string>();
  return waiting.filter(({ of: { visitId } }) => !visits.has(visitId) && visits.add(visitId)).slice(0, MOST_VISITS);
}

/** What became of those that could be taken in this trip. */
async function taken(source: DataSource, trip: readonly Waiting[]): Promise<ReadonlyMap<OfVisit, AllAppended>> {
  const first = freeOnesLocked(trip.map(({ of }) => of.visitId));
  try {
    return await inTwoTripsOnce(source, first, async (manager, rows) => {
      const free = freeOnes(rows);
      const decided = new Map<OfVisit, DecidedOfVisit>();
      for (const { of } of trip) {
        const locked = free.get(of.visitId);
        if (locked && locked.unit.id === of.unitId) decided.set(of, await decideAll(manager, locked, of));
      }
      const all = [...decided.values()];
      return {
        result: new Map([...decided].map(([of, { result }]) => [of, result])),
        statements: written(all),
        onceCommitted: () => all.forEach(({ onceCommitted }) => onceCommitted()),
      };
    });
  } catch {
    // Nothing of it was done; what is wrong comes up again where each is taken alone.
    return new Map();
  }
}

function written(decided: readonly DecidedOfVisit[]): readonly Statement[] {
  const entries = decided.flatMap((each) => each.entries);
  return [
    ...(entries.length > 0 ? [entriesInserted(entries)] : []),
    ...projected(decided.flatMap(({ projection }) => projection ?? [])),
  ];
}

const TAKEN = 'ER_DUP_ENTRY';

/** The same for entries of one visit, in two trips to the database of their own. */
const appendAlone = (source: DataSource, of: OfVisit): Promise<AllAppended> =>
  inTwoTrips(source, bothLocked(of.visitId), async (manager, rows) => {
    const decided = await decideAll(manager, lockedRows(rows, of.unitId), of);
    return { result: decided.result, statements: written([decided]), onceCommitted: decided.onceCommitted };
  }).catch((error: unknown) => {
    throw codeOf(error) === TAKEN ? new TwinFound() : error;
  });
