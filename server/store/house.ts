import { dayIn, timeIn } from '@decurio/core';
import { HOUSE_UNSAID, type HouseView } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';

/** How long a process goes by what it last read; a change made through another one is seen by then. */
const FRESH_MS = 5_000;
const known = new WeakMap<DataSource, { readonly house: HouseView; readonly readAt: number }>();

const COLUMNS = Object.keys(HOUSE_UNSAID) as (keyof HouseView)[];

/** What is true of the house, at most some seconds old. */
export async function houseOf({ connection }: Pick<EntityManager, 'connection'>): Promise<HouseView> {
  const kept = known.get(connection);
  if (kept && performance.now() - kept.readAt < FRESH_MS) return kept.house;
  const [row] = await connection.query<HouseView[]>(`SELECT ${COLUMNS.join(', ')} FROM house WHERE id = 1`);
  const house = row ?? HOUSE_UNSAID;
  known.set(connection, { house, readAt: performance.now() });
  return house;
}

export async function changeHouse(source: DataSource, said: HouseView, byName: string): Promise<HouseView> {
  await source.query(
    `UPDATE house SET ${COLUMNS.map((name) => `${name} = ?`).join(', ')}, changedAt = UTC_TIMESTAMP(3), changedBy = ? WHERE id = 1`,
    [...COLUMNS.map((name) => said[name]), byName],
  );
  known.delete(source);
  return houseOf(source.manager);
}

/** Day in the house's calendar. */
export const today = async (manager: EntityManager): Promise<string> =>
  dayIn((await houseOf(manager)).zone, Date.now());

/** Day and time there, as due times are written. */
export const nowInHouse = async (manager: EntityManager): Promise<string> =>
  timeIn((await houseOf(manager)).zone, Date.now());
