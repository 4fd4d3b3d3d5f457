import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Units that are put away until somebody wants them, and displays that are keyed to be kept ready. */
export class StoredAndSpare1765600000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE unit
      ADD COLUMN stored VARCHAR(300) NULL,
      ADD COLUMN isSpare BOOLEAN NOT NULL DEFAULT FALSE,
      ADD KEY spares (isSpare, mapId, status)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE unit DROP KEY spares, DROP COLUMN stored, DROP COLUMN isSpare');
  }
}
