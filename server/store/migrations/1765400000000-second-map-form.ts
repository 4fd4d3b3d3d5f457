import { canonicalJson } from '@decurio/core';
import type { MigrationInterface, QueryRunner } from 'typeorm';

const FIRST = 'decurio-display-map/1';
const SECOND = 'decurio-display-map/2';

/** Maps of the first form state everything that the second may leave out: only the name of the form is another. */
export class SecondMapForm1765400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await renamed(runner, FIRST, SECOND);
  }

  /** What only the second form can say is unknown to an older release: such maps it refuses. */
  async down(runner: QueryRunner): Promise<void> {
    await renamed(runner, SECOND, FIRST);
  }
}

async function renamed(runner: QueryRunner, from: string, to: string): Promise<void> {
  const rows = (await runner.query("SELECT docId, version, body FROM library_document WHERE kind = 'displayMap'")) as {
    docId: string;
    version: number;
    body: string;
  }[];
  for (const { docId, version, body } of rows) {
    const map = JSON.parse(body) as { format?: unknown };
    if (map.format === from)
      await runner.query(
        "UPDATE library_document SET body = ? WHERE kind = 'displayMap' AND docId = ? AND version = ?",
        [canonicalJson({ ...map, format: to }), docId, version],
      );
  }
}
