import { canonicalJson } from '@decurio/core';
import { inTodaysForm } from '@decurio/contract';
import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Units that stand aside, that were proved and that are out; what was handed over with each, chained from its seal. */
export class Proving1765200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE unit
      ADD COLUMN waits VARCHAR(200) NULL,
      ADD COLUMN waitsUntil VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
      ADD COLUMN provedAt DATETIME(3) NULL,
      ADD COLUMN proofsFailed INT NOT NULL DEFAULT 0,
      ADD COLUMN handedTo VARCHAR(120) NULL,
      ADD COLUMN handedOverAt DATETIME(3) NULL`);
    await runner.query(`CREATE TABLE handover_entry (
      id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
      visitId CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      seq INT NOT NULL,
      kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      body MEDIUMTEXT NOT NULL,
      at DATETIME(3) NOT NULL,
      UNIQUE KEY handoverByVisit (visitId, seq),
      CONSTRAINT handoverOfVisit FOREIGN KEY (visitId) REFERENCES visit (id)
    )`);
    const rows = (await runner.query(
      "SELECT docId, version, body FROM library_document WHERE kind = 'houseRules'",
    )) as {
      docId: string;
      version: number;
      body: string;
    }[];
    for (const { docId, version, body } of rows) {
      const document: unknown = JSON.parse(body);
      const upgraded = inTodaysForm(document);
      if (upgraded !== document)
        await runner.query(
          "UPDATE library_document SET body = ? WHERE kind = 'houseRules' AND docId = ? AND version = ?",
          [canonicalJson(upgraded), docId, version],
        );
    }
  }

  /** The documents stay as they are, and what was handed over goes: an older release knows of neither. */
  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE handover_entry');
    await runner.query(
      'ALTER TABLE unit DROP COLUMN waits, DROP COLUMN waitsUntil, DROP COLUMN provedAt, DROP COLUMN proofsFailed, DROP COLUMN handedTo, DROP COLUMN handedOverAt',
    );
  }
}
