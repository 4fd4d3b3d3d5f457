import { createHash } from 'node:crypto';
import {
  type Crew,
  type HouseRules,
  type SetupInputs,
  type Shop,
  compileSetup,
  stepLengths,
  type StepLengths,
  type StepSeen,
  type Surprises,
  type VehicleType,
  type VisitState,
} from '@decurio/core';
import { LRUCache } from 'lru-cache';
import type { DataSource, EntityManager } from 'typeorm';
import type { OrderRow, UnitRow, VisitRow } from '../store/entities.js';
import { foldedVisit } from '../store/folded-visits.js';
import { houseOf } from '../store/house.js';
import { getDocument, newestDocuments } from '../store/library.js';
import { decidingFor, inputsFor } from '../store/setups.js';
import type { Planner } from './planner.js';

export interface OrderInput {
  readonly id: string;
  readonly number: string;
  readonly customer: string;
  /** Clock time of the house, as orders have it. */
  readonly dueAt: string;
  readonly units: number;
  readonly sealed: number;
}

export interface UnitInput {
  readonly id: string;
  readonly serial: string;
  readonly orderId: string;
  readonly typeName: string;
  readonly type: VehicleType;
  /** Type and display. */
  readonly kind: string;
  readonly status: 'waiting' | 'open' | 'held';
  readonly rules: HouseRules;
  /** Whether its setup asks for a full pack; of units whose visit is open their own tests say it. */
  readonly needsFull: boolean;
  readonly state: VisitState | null;
  readonly waitsUntilMs: number | null;
  readonly heldSinceMs: number | null;
  /** To whom a lead gave it. */
  readonly givenTo: string | null;
  /** When; 0 where nobody did. */
  readonly givenAtMs: number;
}

/** What stands in the house that a plan depends on. */
export interface PlanInputs {
  /** Of all that follows but the time: the same where nothing moved. */
  readonly basis: string;
  readonly zone: string;
  readonly crew: Crew | null;
  readonly crewVersion: number;
  readonly shopVersion: number;
  readonly shop: Shop | null;
  readonly orders: readonly OrderInput[];
  readonly units: readonly UnitInput[];
  /** More units are open than are planned at once. */
  readonly isCut: boolean;
  /** Sign-in names by account. */
  readonly signInNames: ReadonlyMap<string, string>;
  /** Steps that were seen here; 0 in a house that sealed nothing yet. */
  readonly stepsSeen: number;
  readonly lengths: StepLengths;
  readonly surprises: Surprises;
  readonly usualHoldHours: number | null;
}

/** The first so many by their due times are planned. */
const MOST_UNITS = 2_000;
/** Visits whose steps are learnt from: the newest. */
const MOST_SEEN = 3_000;

const UNITS_SQL = `SELECT u.id, u.serial, u.orderId, u.typeId, u.typeName, u.mapId, u.status, u.step, u.visitId, u.waitsUntil, u.ownWishes,
    v.headHash, v.lastSeq, o.houseRulesId, o.classId, o.terms, o.revision, o.rulePackId, g.personId AS givenTo, g.at AS givenAt
  FROM unit u JOIN customer_order o ON o.id = u.orderId
  LEFT JOIN visit v ON v.id = u.visitId LEFT JOIN plan_gift g ON g.unitId = u.id
  WHERE u.status IN ('waiting', 'open', 'held') ORDER BY o.dueAt, o.id, u.position LIMIT ${MOST_UNITS + 1}`;

type RawUnit = Pick<
  UnitRow,
  'id' | 'serial' | 'orderId' | 'typeId' | 'typeName' | 'mapId' | 'visitId' | 'waitsUntil' | 'ownWishes'
> &
  Pick<OrderRow, 'houseRulesId' | 'classId' | 'terms' | 'revision' | 'rulePackId'> & {
    readonly status: UnitInput['status'];
    readonly headHash: string | null;
    readonly lastSeq: number | null;
    readonly givenTo: string | null;
    readonly givenAt: Date | null;
  };

/** What was read last, in this process: it stands for as long as its basis does. */
const last = new WeakMap<DataSource, PlanInputs>();

/** Reads what a plan is made of; where nothing of it moved, what was read before stands. */
export async function readInputs(source: DataSource, planner: Planner): Promise<PlanInputs> {
  const { manager } = source;
  const [raw, orders, [crew], [shop], { zone }, sealed] = await Promise.all([
    manager.query<RawUnit[]>(UNITS_SQL),
    manager.query<OrderInput[]>(
      `SELECT id, number, customer, dueAt, units, sealed FROM customer_order o
       WHERE EXISTS (SELECT 1 FROM unit u WHERE u.orderId = o.id AND u.status IN ('waiting', 'open', 'held')) ORDER BY dueAt, id`,
    ),
    newestDocuments(manager, 'crew'),
    newestDocuments(manager, 'shop'),
    houseOf(manager),
    sealedSoFar(source),
  ]);
  const said = {
    units: raw.map(({ id, status, headHash, waitsUntil, givenTo, revision }) => [
      id,
      status,
      headHash,
      waitsUntil,
      givenTo,
      revision,
    ]),
    orders,
    crew: crew?.version ?? 0,
    shop: shop?.version ?? 0,
    zone,
    sealed,
  };
  const basis = createHash('sha256').update(JSON.stringify(said)).digest('hex');
  const known = last.get(source);
  if (known?.basis === basis) return known;
  const [{ seen, ...learnt }, accounts] = await Promise.all([
    learntFrom(source, sealed),
    manager.query<{ id: string; signInName: string }[]>('SELECT id, signInName FROM account'),
  ]);
  const units = await unitInputs(manager, raw.slice(0, MOST_UNITS));
  const taken = new Set(units.map(({ orderId }) => orderId));
  const planned = await keySeconds(source, planner, units, seen, raw);
  const inputs: PlanInputs = {
    basis,
    zone,
    crew: crew?.document ?? null,
    shop: shop?.document ?? null,
    crewVersion: crew?.version ?? 0,
    shopVersion: shop?.version ?? 0,
    orders: orders.filter(({ id }) => taken.has(id)),
    units,
    isCut: raw.length > MOST_UNITS,
    signInNames: new Map(accounts.map(({ id, signInName }) => [id, signInName])),
    stepsSeen: seen.length,
    lengths: stepLengths(seen, (step, kind) => planned.get(`${step} ${kind}`) ?? null),
    ...learnt,
  };
  last.set(source, inputs);
  return inputs;
}

const sealedSoFar = async (source: DataSource): Promise<number> =>
  Number((await source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM left_visit'))[0]?.n ?? 0);

async function unitInputs(manager: EntityManager, rows: readonly RawUnit[]): Promise<readonly UnitInput[]> {
  const types = new Map<string, VehicleType>();
  const rules = new Map<string, HouseRules>();
  const full = new Map<string, boolean>();
  const units: UnitInput[] = [];
  for (const row of rows) {
    const type = types.get(row.typeId) ?? (await getDocument(manager, 'vehicleType', row.typeId)).document;
    types.set(row.typeId, type);
    const house = rules.get(row.houseRulesId) ?? (await getDocument(manager, 'houseRules', row.houseRulesId)).document;
    rules.set(row.houseRulesId, house);
    const state = await stateOf(manager, row);
    const like = [row.orderId, row.typeId, row.mapId].join(' ');
    const needsFull = state !== null ? false : (full.get(like) ?? (await fullAsked(manager, row)));
    if (state === null) full.set(like, needsFull);
    units.push({
      id: row.id,
      serial: row.serial,
      orderId: row.orderId,
      typeName: row.typeName,
      type,
      kind: `${row.typeName}|${row.mapId}`,
      status: row.status,
      rules: house,
      needsFull,
      state,
      waitsUntilMs: row.waitsUntil === null ? null : Date.parse(row.waitsUntil) || null,
      heldSinceMs: state?.held ? Date.parse(state.held.at) : null,
      givenTo: row.givenTo,
      givenAtMs: row.givenAt?.getTime() ?? 0,
    });
  }
  return units;
}

/** By the hash of the newest entry: what a visit folds to as the plan found it. Nothing is decided by it. */
async function stateOf(manager: EntityManager, { visitId, headHash, status }: RawUnit): Promise<VisitState | null> {
  if (visitId === null || headHash === null || status === 'waiting') return null;
  const { fold } = await foldedVisit(manager, { id: visitId, headHash } as VisitRow);
  return fold.state;
}

const asked = new LRUCache<string, boolean>({ max: 500 });

async function fullAsked(manager: EntityManager, row: RawUnit): Promise<boolean> {
  const order = { houseRulesId: row.houseRulesId, rulePackId: row.rulePackId } as OrderRow;
  const deciding = await decidingFor(manager, row, order);
  const { type, map, rulePack, houseRules } = deciding;
  const key = [
    row.orderId,
    row.revision,
    type.id,
    type.version,
    map.id,
    map.version,
    rulePack.version,
    houseRules.version,
  ].join(' ');
  const known = asked.get(key);
  if (known !== undefined) return known;
  const answer = await asksSafely(() => asksForFull(inputsFor(deciding, row, { ownWishes: null })));
  asked.set(key, answer);
  return answer;
}

/** Whether a setup of the order has a test on every unit that asks for a full pack. */
const asksForFull = (inputs: SetupInputs): boolean =>
  (compileSetup(inputs).tests ?? []).some(({ pack, sampled }) => pack === 'full' && sampled === 'every');

/** An order whose class is gone is no reason to plan nothing. */
async function asksSafely(ask: () => boolean): Promise<boolean> {
  try {
    return ask();
  } catch {
    return false;
  }
}

/** Kinds for which nothing was seen of keying, at most so many at once: what a key plan says stands in. */
const MOST_UNSEEN = 6;
const keyed = new LRUCache<string, number>({ max: 300 });

async function keySeconds(
  source: DataSource,
  planner: Planner,
  units: readonly UnitInput[],
  seen: readonly StepSeen[],
  raw: readonly RawUnit[],
): Promise<ReadonlyMap<string, number>> {
  const known = new Set(seen.filter(({ step }) => step === 'keyIn').map(({ kind }) => kind));
  const planned = new Map<string, number>();
  for (const { kind, id } of units) {
    if (known.has(kind) || planned.size >= MOST_UNSEEN) continue;
    known.add(kind);
    const row = raw.find((each) => each.id === id);
    if (!row) continue;
    const deciding = await decidingFor(source.manager, row, row as unknown as OrderRow);
    const key = [row.orderId, row.revision, kind, deciding.map.version, deciding.type.version].join(' ');
    const inputs = inputsFor(deciding, row, { ownWishes: null });
    // Where no thread is free the step's own assumption stands in, this once.
    const seconds = keyed.get(key) ?? (await planner.keySeconds({ inputs }).catch(() => null));
    if (seconds !== null) keyed.set(key, seconds);
    if (seconds !== null && seconds > 0) planned.set(`keyIn ${kind}`, seconds);
  }
  return planned;
}

interface Learnt {
  readonly seen: readonly StepSeen[];
  readonly surprises: Surprises;
  readonly usualHoldHours: number | null;
}

/** Shorter than this is no work that anybody did: entries that a machine made. */
const LEAST_S = 3;

async function learntFrom(source: DataSource, count: number): Promise<Learnt> {
  const newest = `(SELECT visitId, typeName, mapId, sealedAt FROM left_visit ORDER BY sealedAt DESC LIMIT ${MOST_SEEN}) l`;
  const [steps, holds] = await Promise.all([
    source.query<
      { step: StepSeen['step']; minutes: number; typeName: string; mapId: string; personId: string | null }[]
    >(
      `SELECT s.step, s.minutes, l.typeName, l.mapId, IF(a.agreesToCount, s.userId, NULL) AS personId
       FROM ${newest} JOIN left_step s ON s.visitId = l.visitId LEFT JOIN account a ON a.id = s.userId WHERE s.minutes * 60 >= ${LEAST_S}`,
    ),
    source.query<{ n: string; mean: number | null; sd: number | null }[]>(
      `SELECT COUNT(DISTINCT h.visitId) AS n, AVG(LN(GREATEST(h.hours, 0.02) * 3600)) AS mean, STDDEV_POP(LN(GREATEST(h.hours, 0.02) * 3600)) AS sd
       FROM ${newest} JOIN left_hold h ON h.visitId = l.visitId`,
    ),
  ]);
  const held = Number(holds[0]?.n ?? 0);
  const mean = holds[0]?.mean ?? null;
  return {
    seen: steps.map(({ step, minutes, typeName, mapId, personId }) => ({
      step,
      kind: `${typeName}|${mapId}`,
      personId,
      seconds: minutes * 60,
    })),
    // One more unit, of which half was held: none seen held yet is not none ever.
    surprises: {
      chance: (held + 0.5) / (Math.min(count, MOST_SEEN) + 10),
      mean: mean ?? Math.log(3 * 3600),
      sd: Math.max(0.5, holds[0]?.sd ?? 1),
    },
    usualHoldHours: mean === null ? null : Math.exp(mean) / 3600,
  };
}
