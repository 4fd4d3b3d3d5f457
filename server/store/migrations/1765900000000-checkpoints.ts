import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How far the ledger had come at some time, signed by a key that is not in the database. */
export class Checkpoints1765900000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE checkpoint (
      size BIGINT UNSIGNED NOT NULL PRIMARY KEY,
      note TEXT NOT NULL,
      at DATETIME(3) NOT NULL
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE checkpoint');
  }
}
