import { randomBytes } from 'node:crypto';
import { personalHash } from '@decurio/core';
import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is said of persons, apart from every chain; the house's times for keeping it; a row for each account's name. */
export class Personal1765500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE personal (
      sha256 CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
      kind VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      subject CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      salt CHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
      says MEDIUMTEXT NULL,
      at DATETIME(3) NOT NULL,
      erasedAt DATETIME(3) NULL,
      erasedBy CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
      why VARCHAR(200) NULL,
      KEY personalOf (subject),
      KEY personalByAge (kind, erasedAt, at)
    )`);
    await runner.query(`ALTER TABLE house
      ADD COLUMN keepWorkerMonths INT UNSIGNED NOT NULL DEFAULT 0,
      ADD COLUMN keepReceiverMonths INT UNSIGNED NOT NULL DEFAULT 0,
      ADD COLUMN keepSignatureMonths INT UNSIGNED NOT NULL DEFAULT 0`);
    await runner.query('ALTER TABLE account ADD COLUMN nameSha256 CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL');
    const accounts = (await runner.query('SELECT id, displayName FROM account')) as {
      id: string;
      displayName: string;
    }[];
    for (const { id, displayName } of accounts) {
      const salt = randomBytes(16).toString('hex');
      const sha256 = personalHash({ kind: 'worker', salt, says: displayName });
      await runner.query(
        "INSERT INTO personal (sha256, kind, subject, salt, says, at) VALUES (?, 'worker', ?, ?, ?, UTC_TIMESTAMP(3))",
        [sha256, id, salt, JSON.stringify(displayName)],
      );
      await runner.query('UPDATE account SET nameSha256 = ? WHERE id = ?', [sha256, id]);
    }
    await runner.query('ALTER TABLE account MODIFY nameSha256 CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL');
  }

  /**
   * @throws Error once a record covers a name by its hash: without what was kept apart its seal would hold no more
   */
  async down(runner: QueryRunner): Promise<void> {
    const [used] = (await runner.query(
      'SELECT 1 FROM evidence WHERE body LIKE \'%"nameSha256":%\' LIMIT 1',
    )) as readonly unknown[];
    if (used) throw new Error('Records cover names by their hash from this release on; an older one cannot read them.');
    await runner.query('ALTER TABLE account DROP COLUMN nameSha256');
    await runner.query(
      'ALTER TABLE house DROP COLUMN keepWorkerMonths, DROP COLUMN keepReceiverMonths, DROP COLUMN keepSignatureMonths',
    );
    await runner.query('DROP TABLE personal');
  }
}
