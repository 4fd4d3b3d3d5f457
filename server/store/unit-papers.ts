import {
  classLabel,
  dayIn,
  draftOf,
  foldVisit,
  kmhWords,
  lastShown,
  makeRecord,
  odometerLetter,
  provingInputsOf,
  receivedAtOf,
  riderCard,
  riderFacts,
  shownToRider,
  showsMiles,
  LANGUAGE_CODES,
  thingsAlong,
  type ClassLabel,
  type Language,
  type VisitRecord,
} from '@decurio/core';
import type { PapersView } from '@decurio/contract';
import dayjs from 'dayjs';
import type { DataSource } from 'typeorm';
import { inclusionOf } from '../ledger/inclusions.js';
import { HttpProblem } from '../problems.js';
import type { DeliveryNote } from '../papers/delivery-note.js';
import type { UnitPapers } from '../papers/draw.js';
import { paperTime } from '../papers/paper-text.js';
import { Orders, Units, Visits } from './entities.js';
import { houseOf } from './house.js';
import { getDocument } from './library.js';
import { inputsFor, termsOf, wishesOf } from './setups.js';
import { readEvidence } from './evidence-rows.js';

/** What the papers of one unit say, by the documents that its record names and by what it showed last. */
export async function papersOf(
  source: DataSource,
  visitId: string,
): Promise<{ readonly view: PapersView; readonly papersIn: (language: Language) => UnitPapers }> {
  const { manager } = source;
  const visit = await manager.findOneBy(Visits, { id: visitId });
  if (!visit) throw new HttpProblem('visitNotFound');
  const evidence = await readEvidence(manager, visitId);
  const fold = foldVisit(evidence);
  const [first] = evidence;
  const last = evidence.at(-1);
  if (!fold.ok || first?.kind !== 'opened' || !last) throw new HttpProblem('recordDamaged');
  const state = fold.value;
  const { versions, order } = state.opened;
  const unit = await manager.findOneByOrFail(Units, { id: visit.unitId });
  const orderRow = await manager.findOneByOrFail(Orders, { id: unit.orderId });
  const deciding = {
    type: await getDocument(manager, 'vehicleType', versions.type.id, versions.type.version),
    map: await getDocument(manager, 'displayMap', versions.map.id, visit.mapVersion),
    rulePack: await getDocument(manager, 'rulePack', versions.rulePack.id, versions.rulePack.version),
    houseRules: await getDocument(manager, 'houseRules', versions.houseRules.id, versions.houseRules.version),
    today: last.at.slice(0, 10),
  };
  // The order may have moved on since: the class is the one that this record names.
  const named = deciding.rulePack.document.classes.find(({ title }) => title === order.className);
  const inputs = inputsFor(deciding, { ...orderRow, classId: named?.id ?? orderRow.classId }, unit, {});
  const limit = state.opened.setup.speed?.limit ?? null;
  const draft = draftOf(inputs);
  const left = lastShown(state);
  const proving = {
    ...provingInputsOf(draft),
    limit,
    shows: (code: { readonly label: string }) => left[code.label] ?? state.values[code.label] ?? 0,
  };
  const facts = riderFacts(proving, showsMiles({ ...state.values, ...left }, deciding.map.document));
  const { zone } = await houseOf(manager);
  const isSealed = visit.sealedAt !== null;
  const record: VisitRecord = isSealed
    ? makeRecord(evidence, {}, (await inclusionOf(manager, visitId, visit.headHash)) ?? undefined)
    : {
        format: 'decurio-record/2',
        serial: visit.serial,
        visitId,
        seal: visit.headHash,
        sealedAt: receivedAtOf(last),
        evidence,
        salts: {},
      };
  const label = classLabel({
    type: deciding.type.document,
    vehicleClass: inputs.vehicleClass,
    limitWords: limit?.words ?? null,
    serial: visit.serial,
    customer: order.customer,
    month: dayjs(dayIn(zone, Date.parse(record.sealedAt))).format('MMM YYYY'),
    privateLand: order.privateLand ?? null,
  });
  const cardIn = (language: Language) => riderCard(facts, language);
  const papers: Omit<UnitPapers, 'card'> = {
    record,
    map: deciding.map.document,
    zone,
    isSealed,
    isPrivateLand: order.privateLand !== undefined,
    typeName: versions.type.name,
    label,
    tag: {
      serial: visit.serial,
      typeName: versions.type.name,
      orderNumber: order.number,
      customer: order.customer,
      square: visit.serial,
    },
    odometer: odometerLetter(evidence),
  };
  return {
    papersIn: (language) => ({ ...papers, card: cardIn(language) }),
    view: {
      isSealed,
      hasOdometerLetter: papers.odometer !== null,
      label,
      cards: LANGUAGE_CODES.map(cardIn),
      toShow: [...shownToRider(state, deciding.map.document)],
      cameWith: [...thingsAlong(state)],
      pins: pinsOf(inputs.houseRules.choices, wishesOf(unit)?.choices ?? {}),
      order: { id: orderRow.id, number: order.number, units: orderRow.units, sealed: orderRow.sealed },
    },
  };
}

/** Which PINs somebody has to be told of, by policy; never their digits. */
function pinsOf(
  { pin, startPin }: { readonly pin: string; readonly startPin: string },
  own: { readonly pin?: string; readonly startPin?: string },
): PapersView['pins'] {
  return [
    ...((own.pin ?? pin) === 'asFound' ? [] : (['menu'] as const)),
    ...((own.startPin ?? startPin) === 'asFound' ? [] : (['start'] as const)),
  ];
}

const PIN_POLICY = {
  asFound: 'as found',
  perOrder: 'one for the order, told separately',
  perUnit: 'one for each unit, told separately',
} as const;

/** The labels that stand on one sheet of an order's, of its units that are signed off, in the order's own order. */
export async function labelsOf(
  source: DataSource,
  orderId: string,
  { sheet, perSheet }: { readonly sheet: number; readonly perSheet: number },
): Promise<{ readonly orderNumber: string; readonly labels: readonly ClassLabel[] }> {
  const order = await source.manager.findOneBy(Orders, { id: orderId });
  if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  const units = await source.manager.find(Units, {
    where: { orderId, status: 'sealed', isSpare: false },
    order: { position: 'ASC' },
    skip: (sheet - 1) * perSheet,
    take: perSheet,
  });
  if (units.length === 0)
    throw new HttpProblem('notFound', {
      message: `No unit of ${order.number} stands on sheet ${sheet} of its labels.`,
    });
  const labels: ClassLabel[] = [];
  for (const { visitId } of units) if (visitId !== null) labels.push((await papersOf(source, visitId)).view.label);
  return { orderNumber: order.number, labels };
}

/** What the delivery note of an order says now. */
export async function deliveryNoteOf(source: DataSource, orderId: string): Promise<DeliveryNote> {
  const { manager } = source;
  const order = await manager.findOneBy(Orders, { id: orderId });
  if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  const units = await manager
    .createQueryBuilder(Units, 'u')
    .where("u.orderId = :orderId AND u.status <> 'withdrawn'", { orderId })
    .orderBy('u.position')
    .getMany();
  const visits = new Map(
    (units.length === 0
      ? []
      : await source.query<{ id: string; headHash: string; sealedAt: Date | null }[]>(
          'SELECT v.id, v.headHash, v.sealedAt FROM visit v JOIN unit u ON u.visitId = v.id WHERE u.orderId = ?',
          [orderId],
        )
    ).map((row) => [row.id, row]),
  );
  const rules = (await getDocument(manager, 'houseRules', order.houseRulesId)).document;
  const { zone } = await houseOf(manager);
  const now = new Date().toISOString();
  const stands = (unit: (typeof units)[number]): string =>
    unit.handedTo !== null
      ? `${unit.isSpare ? 'spare display, on' : 'handed over to'} ${unit.handedTo}`
      : unit.status === 'sealed'
        ? 'signed off'
        : unit.status === 'held'
          ? 'held'
          : 'not signed off';
  const land = termsOf(order).privateLand;
  return {
    orderNumber: order.number,
    customer: order.customer,
    place: order.place,
    className: land ? `${order.className}; ${land.label}, until ${land.endsOn}` : order.className,
    classChecked:
      order.classCheck === null ? 'not checked' : `checked by ${(JSON.parse(order.classCheck) as { by: string }).by}`,
    due: order.dueAt.replace('T', ' '),
    madeAt: now,
    units: units.map((unit) => {
      const visit = unit.visitId === null ? undefined : visits.get(unit.visitId);
      return {
        serial: unit.serial,
        typeName: unit.typeName,
        stands: stands(unit),
        seal: visit?.sealedAt ? visit.headHash.slice(0, 16) : '',
      };
    }),
    pinPolicy: `Menu: ${PIN_POLICY[rules.choices.pin]}. Start: ${PIN_POLICY[rules.choices.startPin]}. No digits stand on any paper.`,
    papers: [
      'For each unit that is signed off: its configuration certificate, class label, rider card and tag.',
      `Made ${paperTime(now, zone)}${order.limitKmh === null ? '' : `; limited to ${kmhWords(order.limitKmh)} by site or order`}.`,
    ],
    isDraft: units.some(({ status }) => status !== 'sealed'),
  };
}
