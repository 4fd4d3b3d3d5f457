import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Trials: whether a code of a display does anything. */
export class Trials1765700000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE trial (
      id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
      mapId VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      mapVersion INT NOT NULL,
      body MEDIUMTEXT NOT NULL,
      openedAt DATETIME(3) NOT NULL,
      endedAt DATETIME(3) NULL,
      KEY trialsOf (mapId, endedAt, openedAt)
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE trial');
  }
}
