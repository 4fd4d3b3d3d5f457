import { foldVisit, projectVisit, type Evidence } from '@decurio/core';
import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Ladders on Line tell a step that was left out from one that was done. Safe to stop and to run again. */
export class LeftOut1765100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const units = (await runner.query(
      `SELECT u.id, u.visitId, u.ladder FROM unit u
       WHERE u.visitId IS NOT NULL
         AND EXISTS (SELECT 1 FROM evidence e WHERE e.visitId = u.visitId AND e.kind = 'stepByHand')`,
    )) as { id: string; visitId: string; ladder: string }[];
    for (const { id, visitId, ladder } of units) {
      const rows = (await runner.query('SELECT body FROM evidence WHERE visitId = ? ORDER BY seq', [visitId])) as {
        body: string;
      }[];
      const folded = foldVisit(rows.map(({ body }) => JSON.parse(body) as Evidence));
      const now = folded.ok ? projectVisit(folded.value).ladder : ladder;
      if (now !== ladder) await runner.query('UPDATE unit SET ladder = ? WHERE id = ?', [now, id]);
    }
  }

  /** An older release shows both alike. */
  async down(runner: QueryRunner): Promise<void> {
    await runner.query("UPDATE unit SET ladder = REPLACE(ladder, 'l', 'd')");
  }
}
