import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';

/** Accounts that are locked or have a password for once, and what came of accounts, which nobody can edit; and the first owner of a house. */
export class Accounts1766300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE account ADD lockedAt DATETIME(3) NULL, ADD isPasswordForOnce BOOLEAN NOT NULL DEFAULT FALSE',
    );
    await runner.query(`CREATE TABLE account_event (
      n BIGINT NOT NULL AUTO_INCREMENT PRIMARY KEY,
      at DATETIME(3) NOT NULL,
      accountId ${UUID} NOT NULL,
      byId ${UUID} NULL,
      kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      says VARCHAR(120) NOT NULL,
      KEY accountEventOf (accountId, n)
    )`);
    await runner.query(`CREATE TABLE first_owner (
      id TINYINT NOT NULL PRIMARY KEY,
      codeSha256 CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE first_owner');
    await runner.query('DROP TABLE account_event');
    await runner.query('ALTER TABLE account DROP lockedAt, DROP isPasswordForOnce');
  }
}
