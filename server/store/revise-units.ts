import { randomUUID } from 'node:crypto';
import {
  compileSetup,
  findCode,
  formatRaw,
  unitFactsOf,
  lastShown,
  setupAnew,
  shortened,
  STEPS_OFFERED,
  untouchedLadder,
  type Setup,
  type UnitFacts,
} from '@decurio/core';
import type { OrderActed } from '@decurio/contract';
import type { EntityManager } from 'typeorm';
import { Units, type OrderRow, type UnitRow } from './entities.js';
import { decidingFor, groundOf, inputsFor, type Deciding } from './setups.js';
import { foldAccepted } from './visit-columns.js';
import { readEvidence } from './evidence-rows.js';
import { appendIn } from './append-entries.js';
import { lockVisit } from './locked-rows.js';
import type { Writer } from './writer.js';

export interface Revision {
  readonly why: string;
  readonly writer: Writer;
  /** What becomes of units that are sealed. `compare`: they come back where they differ. `leave`: nothing that decides a setup moved. `restore`: all come back from private land. */
  readonly sealedUnits: 'compare' | 'leave' | 'restore';
  /** The entry it follows from. */
  readonly cause?: string;
}

const UNTOUCHED: OrderActed = { revised: 0, returned: [] };

/** Works the setup of one unit out anew, in an entry of its visit's log where it changes. */
export async function reviseUnit(
  manager: EntityManager,
  order: OrderRow,
  unit: UnitRow,
  { why, writer, sealedUnits, cause }: Revision,
): Promise<OrderActed> {
  if (unit.visitId === null || unit.status === 'waiting' || unit.status === 'withdrawn') return UNTOUCHED;
  const visit = await lockVisit(manager, unit.id, unit.visitId);
  const deciding = await decidingFor(manager, unit, order, visit.mapVersion);
  const evidence = await readEvidence(manager, visit.id);
  const state = foldAccepted(evidence);
  if (state.step === null)
    return sealedUnits === 'leave'
      ? UNTOUCHED
      : comeBack(
          manager,
          order,
          unit,
          deciding,
          { ...unitFactsOf(state, deciding.map.document), asFound: lastShown(state) },
          why,
          sealedUnits === 'restore' ? 'Its time on private land is over: it is restored and proved.' : null,
        );
  const data = setupAnew(state, deciding.map.document, groundOf(deciding, order, unit), why, cause);
  if (data === null) return UNTOUCHED;
  await appendIn(
    manager,
    unit.id,
    visit.id,
    { id: randomUUID(), seq: visit.lastSeq + 1, kind: 'setupRevised', at: new Date().toISOString(), data },
    writer,
  );
  return { revised: 1, returned: [] };
}

/** A unit that was done is taken up again, whatever it differs in: its last visit stands for what it shows. */
export async function takeUpAgain(
  manager: EntityManager,
  order: OrderRow,
  unit: UnitRow,
  why: string,
): Promise<OrderActed> {
  if (unit.visitId === null) return UNTOUCHED;
  const visit = await lockVisit(manager, unit.id, unit.visitId);
  const state = foldAccepted(await readEvidence(manager, visit.id));
  if (state.step !== null) return UNTOUCHED;
  const deciding = await decidingFor(manager, unit, order, visit.mapVersion);
  return comeBack(
    manager,
    order,
    unit,
    deciding,
    { ...unitFactsOf(state, deciding.map.document), asFound: lastShown(state) },
    'It is back',
    why,
  );
}

/** A unit that was done, held against the new setup: where it differs it comes back to the line. */
async function comeBack(
  manager: EntityManager,
  order: OrderRow,
  unit: UnitRow,
  deciding: Deciding,
  known: Pick<UnitFacts, 'ratio' | 'rolled' | 'overshootKmh' | 'familyOvershootKmh'> & {
    readonly asFound: Readonly<Record<string, number>>;
  },
  why: string,
  /** Brings it back whether or not it differs. */
  anyway: string | null,
): Promise<OrderActed> {
  const { asFound: left, ratio, rolled, overshootKmh, familyOvershootKmh } = known;
  const setup = compileSetup(
    inputsFor(deciding, order, unit, {
      asFound: left,
      ratio,
      rolled: rolled ?? null,
      overshootKmh: overshootKmh ?? null,
      familyOvershootKmh: familyOvershootKmh ?? null,
    }),
  );
  const differs = differences(setup, left, deciding);
  if (differs === null && anyway === null) return UNTOUCHED;
  const says = [anyway, differs].filter((words) => words !== null).join(' ');
  const elsewhere = await manager.findOneBy(Units, { openSerial: unit.serial });
  if (elsewhere)
    return {
      revised: 0,
      returned: [{ serial: unit.serial, says: `${says} It is in another open order, and stays there.` }],
    };
  await manager.update(
    Units,
    { id: unit.id },
    {
      status: 'waiting',
      step: null,
      ladder: untouchedLadder(STEPS_OFFERED),
      openSerial: unit.serial,
      visitId: null,
      foundAt: null,
      surprises: 0,
      odd: null,
      lastVisitId: unit.visitId,
      returnedWhy: shortened(`${why}. ${says}`, 500),
    },
  );
  await manager.query('UPDATE customer_order SET sealed = sealed - 1 WHERE id = ?', [order.id]);
  return { revised: 0, returned: [{ serial: unit.serial, says }] };
}

function differences(setup: Setup, left: Readonly<Record<string, number>>, { map }: Deciding): string | null {
  const stop = setup.findings.find((finding) => finding.level === 'stop');
  if (stop) return stop.says;
  const moved = setup.targets.flatMap(({ label, raw, offGlass }) => {
    const code = findCode(map.document, label);
    const shows = left[label];
    if (raw === null || offGlass === true || shows === raw || !code) return [];
    return [
      `${label} left at ${shows === undefined ? 'an unread value' : formatRaw(code, shows)}, must be ${formatRaw(code, raw)}`,
    ];
  });
  return moved.length === 0
    ? null
    : `${moved.slice(0, 4).join('; ')}${moved.length > 4 ? ` and ${moved.length - 4} more` : ''}.`;
}
