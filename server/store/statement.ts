import type { EntityManager } from 'typeorm';

/** SQL with what its question marks stand for. */
export type Statement = readonly [sql: string, values: readonly unknown[]];

/** Runs them one after another. */
export async function runAll(manager: EntityManager, statements: readonly Statement[]): Promise<void> {
  for (const [sql, values] of statements) await manager.query(sql, [...values]);
}
