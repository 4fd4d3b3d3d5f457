import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How a house's keys and cautions behave at a stand. */
export class Hands1765000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE house
      ADD COLUMN bounceMs INT UNSIGNED NOT NULL DEFAULT 250,
      ADD COLUMN cautions VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'firstOfType'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE house DROP COLUMN bounceMs, DROP COLUMN cautions');
  }
}
