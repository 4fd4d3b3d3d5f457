import type { DataSource } from 'typeorm';
import { seeded } from '../../../core/statistics/seeded.js';
import { verifyLedger } from '../../../server/ledger/verify-ledger.js';
import { makeDataSource } from '../../../server/store/data-source.js';
import type { House } from './house.js';
import { scheduleOf, type MachineFault } from './schedule.js';
import { makeStand, type Stand, type StandOptions } from './stand.js';

export interface Outcome {
  readonly faults: readonly MachineFault[];
  readonly acknowledged: number;
  readonly refused: number;
  /** Requests that had no answer, or that of a server which could not do it. */
  readonly lost: number;
  /** What is not as it must be; empty where all is well. */
  readonly wrong: readonly string[];
}

/** Works two stands through one schedule of faults, lets all be mended, and looks at what stands in the ledger then. */
export async function runSchedule(
  house: House,
  seed: number,
  people: readonly StandOptions['person'][],
  unitIds: readonly string[],
): Promise<Outcome> {
  const schedule = scheduleOf(seed);
  const { uniform } = seeded(seed + 1);
  const due = schedule.machine.filter(({ fault }) => house.hasSmallDisk || fault !== 'diskFull');
  const came: MachineFault[] = [];
  let [sends, lost, lostInAll] = [0, 0, 0];
  let mending: Promise<void> | null = null;
  let isOver = false;
  const onSend = (isLost: boolean): void => {
    if (isOver) return;
    sends++;
    lost += isLost ? 1 : 0;
    lostInAll += isLost ? 1 : 0;
    const next = due[came.length];
    if (next && sends >= next.afterSends && mending === null) {
      came.push(next.fault);
      lost = 0;
      house.breakBy(next.fault, came.length + seed);
    }
    if (came.length > 0 && lost >= schedule.lasts && mending === null)
      mending = house.mend().finally(() => ((mending = null), (lost = 0)));
  };
  const stands = people.map((person, i) =>
    makeStand({
      name: `bay ${i + 1}`,
      schedule,
      uniform,
      person,
      unitId: unitIds[schedule.sharesUnit ? 0 : i % unitIds.length] ?? '',
      address: () => house.addresses[Math.floor(uniform() * house.addresses.length)] ?? '',
      onSend,
    }),
  );
  await Promise.all(stands.map((stand) => stand.work()));
  isOver = true;
  await house.mend();
  const wrong: string[] = [];
  for (const stand of stands) await stand.drain().catch((error: unknown) => wrong.push(String(error)));
  const source = await makeDataSource(house.databaseUrl, 3).initialize();
  try {
    for (const stand of stands) wrong.push(...(await notAsAcknowledged(source, stand)));
    await verifyLedger(source, ({ of, says }) => wrong.push(`${of}: ${says}`));
  } finally {
    await source.destroy();
  }
  return {
    faults: came,
    acknowledged: stands.reduce((sum, stand) => sum + stand.acknowledged.size, 0),
    refused: stands.reduce((sum, stand) => sum + stand.refused.size, 0),
    lost: lostInAll,
    wrong,
  };
}

/** Entries that were acknowledged and are not there once, as they were; and refused ones that are there after all. */
export async function notAsAcknowledged(
  source: DataSource,
  { name, acknowledged, refused }: Pick<Stand, 'name' | 'acknowledged' | 'refused'>,
): Promise<readonly string[]> {
  const ids = [...acknowledged.keys(), ...refused];
  if (ids.length === 0) return [];
  const rows = await source.query<{ id: string; hash: string }[]>(
    "SELECT id, JSON_VALUE(body, '$.hash') AS hash FROM evidence WHERE id IN (?)",
    [ids],
  );
  const there = new Map(rows.map(({ id, hash }) => [id, hash]));
  return [
    ...[...acknowledged].flatMap(([id, hash]) =>
      there.get(id) === hash
        ? []
        : [`${name}: entry ${id} was acknowledged and is ${there.has(id) ? 'another' : 'gone'}`],
    ),
    ...[...refused].flatMap((id) => (there.has(id) ? [`${name}: entry ${id} was refused and stands`] : [])),
  ];
}
