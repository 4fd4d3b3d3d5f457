import {
  benchTermsFor,
  checkedLine,
  classValues,
  compileSetup,
  hashOf,
  NO_FACTS,
  SPARE_STEPS,
  spareTerms,
  STEPS_OFFERED,
  toldToRider,
  type BatchRead,
  type CheckList,
  type EvidenceData,
  type OrderOfVisit,
  type OrderTerms,
  type SetupGround,
  type SetupInputs,
  type UnitFacts,
  type UnitOverride,
  type VehicleClass,
} from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import type { OrderRow, UnitRow } from './entities.js';
import { today } from './house.js';
import { getDocument, getDocuments } from './library.js';
import { withFamily } from './wheel-families.js';

export const termsOf = (order: Pick<OrderRow, 'terms'>): OrderTerms => JSON.parse(order.terms) as OrderTerms;
export const wishesOf = (unit: Pick<UnitRow, 'ownWishes'>): UnitOverride | null =>
  unit.ownWishes === null ? null : (JSON.parse(unit.ownWishes) as UnitOverride);

/** The class of an order in a version of its rule pack. */
export function classOf(pack: LibraryEntry<'rulePack'>, classId: string): VehicleClass {
  const found = pack.document.classes.find((each) => each.id === classId);
  if (!found)
    throw new HttpProblem('notFound', { message: `The rule pack "${pack.name}" has no class "${classId}" any more.` });
  return found;
}

/** What decides a setup: documents at their newest, and the day. */
export interface Deciding {
  readonly type: LibraryEntry<'vehicleType'>;
  readonly map: LibraryEntry<'displayMap'>;
  readonly rulePack: LibraryEntry<'rulePack'>;
  readonly houseRules: LibraryEntry<'houseRules'>;
  readonly today: string;
}

/** @param mapVersion of a visit that is under way; the newest where left out */
export async function decidingFor(
  manager: EntityManager,
  unit: Pick<UnitRow, 'typeId' | 'mapId'>,
  order: OrderRow,
  mapVersion?: number,
): Promise<Deciding> {
  return {
    type: await getDocument(manager, 'vehicleType', unit.typeId),
    map: await getDocument(manager, 'displayMap', unit.mapId, mapVersion),
    rulePack: await getDocument(manager, 'rulePack', order.rulePackId),
    houseRules: await getDocument(manager, 'houseRules', order.houseRulesId),
    today: await today(manager),
  };
}

export function inputsFor(
  { type, map, rulePack, houseRules, today: day }: Deciding,
  order: Pick<OrderRow, 'classId' | 'terms'>,
  unit: Pick<UnitRow, 'ownWishes'>,
  known: Partial<UnitFacts> = {},
): SetupInputs {
  return {
    type: type.document,
    map: map.document,
    vehicleClass: classOf(rulePack, order.classId),
    houseRules: houseRules.document,
    terms: termsOf(order),
    unit: { ...NO_FACTS, override: wishesOf(unit), ...known },
    today: day,
  };
}

const ref = ({ id, version, name }: LibraryEntry) => ({ id, version, name });

/** What visits and papers repeat of an order. */
export function orderOfVisit(
  order: OrderRow,
  { vehicleClass, type: { tyre } }: Pick<SetupInputs, 'vehicleClass' | 'type'>,
  day: string,
): OrderOfVisit {
  const { privateLand } = termsOf(order);
  return {
    number: order.number,
    customer: order.customer,
    className: vehicleClass.title,
    classChecked: checkedLine(vehicleClass.checked, day),
    asks: {
      rider: toldToRider(vehicleClass),
      label: vehicleClass.labelFields,
      labelLetterMm: vehicleClass.labelLetterMm,
      tyreBar: tyre.barFrom !== null && tyre.barTo !== null ? { from: tyre.barFrom, to: tyre.barTo } : null,
    },
    ...(privateLand
      ? { privateLand: { label: privateLand.label, endsOn: privateLand.endsOn, authorityBy: privateLand.authorityBy } }
      : {}),
  };
}

/** What an earlier visit of the unit measured of its wheel. */
export type OwnKnown = Pick<UnitFacts, 'ratio' | 'rolled' | 'overshootKmh'>;

/** What a visit of this unit opens with, from the newest documents. */
export async function openingOf(
  manager: EntityManager,
  unit: UnitRow,
  order: OrderRow,
  own?: OwnKnown,
): Promise<{ readonly data: EvidenceData['opened']; readonly mapVersion: number }> {
  const deciding = await decidingFor(manager, unit, order);
  const { inputs, calibrate } = await withFamily(manager, inputsFor(deciding, order, unit, own));
  const { type, map, rulePack, houseRules } = deciding;
  const data = {
    serial: unit.serial,
    order: orderOfVisit(order, inputs, deciding.today),
    ...(unit.isSpare ? { steps: SPARE_STEPS, isSpare: true as const } : { steps: STEPS_OFFERED }),
    versions: {
      type: ref(type),
      map: { ...ref(map), revision: map.document.revision },
      rulePack: ref(rulePack),
      houseRules: ref(houseRules),
    },
    pack: type.document.pack,
    factory: Object.fromEntries(map.document.codes.map((code) => [code.label, code.factory])),
    setup: compileSetup(inputs),
    bench: (unit.isSpare ? spareTerms : asItIs)(
      benchTermsFor({
        ...(await checkListOf(manager, type.document.checkList)),
        type: type.document,
        map: map.document,
        houseRules: houseRules.document,
        batch: await batchSoFar(manager, unit, 'found'),
        proved: await batchSoFar(manager, unit, 'proved'),
        calibrate: own ? { ...calibrate, own } : calibrate,
      }),
    ),
  };
  return { data, mapVersion: map.version };
}

const asItIs = <T>(terms: T): T => terms;

/** The list of checks that a type names, at its newest. */
async function checkListOf(
  manager: EntityManager,
  id: string | null,
): Promise<{ readonly checkList?: { readonly list: CheckList; readonly version: number } }> {
  const [entry] = id === null ? [] : await getDocuments(manager, 'checkList', [id]);
  return entry ? { checkList: { list: entry.document, version: entry.version } } : {};
}

/** When a unit was read as found or proved, and how much of it was not as expected. */
const SAMPLED = {
  found: ['foundAt', 'surprises'],
  proved: ['provedAt', 'proofsFailed'],
} as const;

function batchSql([at, odd]: readonly [string, string]): string {
  const same = `orderId = ? AND typeId = ? AND mapId = ? AND ${at} IS NOT NULL AND id <> ?`;
  return `SELECT COUNT(*) AS units, SUM(${at} > latest.surprisedAt) AS sinceSurprise
    FROM unit, (SELECT MAX(${at}) AS surprisedAt FROM unit WHERE ${same} AND ${odd} > 0) latest WHERE ${same}`;
}

/** What was read as found, or proved, of the same type and display in the same order so far. */
async function batchSoFar(
  manager: EntityManager,
  { orderId, typeId, mapId, id }: Pick<UnitRow, 'id' | 'orderId' | 'typeId' | 'mapId'>,
  what: keyof typeof SAMPLED,
): Promise<BatchRead> {
  const batch = [orderId, typeId, mapId, id];
  const [row] = await manager.query<{ units: string; sinceSurprise: string | null }[]>(batchSql(SAMPLED[what]), [
    ...batch,
    ...batch,
  ]);
  const since = row?.sinceSurprise ?? null;
  return { units: Number(row?.units ?? 0), sinceSurprise: since === null ? null : Number(since) };
}

/** What the setup of a unit is worked out anew from. */
export function groundOf(deciding: Deciding, order: OrderRow, unit: Pick<UnitRow, 'ownWishes'>): SetupGround {
  const { type, rulePack, houseRules, today: day } = deciding;
  const { type: own, vehicleClass, houseRules: rules, terms, unit: facts } = inputsFor(deciding, order, unit);
  const inputs = { type: own, vehicleClass, houseRules: rules, terms, unit: facts, today: day };
  return {
    order: orderOfVisit(order, inputs, day),
    versions: { type: ref(type), rulePack: ref(rulePack), houseRules: ref(houseRules) },
    inputs,
  };
}

/** Whether two classes say the same, whoever checked them. */
export const saysTheSame = (a: VehicleClass, b: VehicleClass): boolean =>
  hashOf(classValues(a)) === hashOf(classValues(b));
