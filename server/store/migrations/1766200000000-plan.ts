import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';

/** The plan of the day: the one that stands, what leads decided in it, and what it said of units and orders. */
export class Plan1766200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE day_plan (
      id TINYINT NOT NULL PRIMARY KEY,
      revision INT NOT NULL,
      basis CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      madeAt DATETIME(3) NOT NULL,
      body LONGTEXT NOT NULL
    )`);
    await runner.query(
      "INSERT INTO day_plan (id, revision, basis, madeAt, body) VALUES (1, 0, '', UTC_TIMESTAMP(3), 'null')",
    );
    await runner.query(`CREATE TABLE plan_gift (
      unitId ${UUID} NOT NULL PRIMARY KEY,
      personId VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      byId ${UUID} NOT NULL,
      at DATETIME(3) NOT NULL
    )`);
    await runner.query(`CREATE TABLE planned_step (
      unitId ${UUID} NOT NULL,
      step VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      seconds DOUBLE NOT NULL,
      PRIMARY KEY (unitId, step)
    )`);
    await runner.query(`CREATE TABLE planned_order (
      orderId ${UUID} NOT NULL PRIMARY KEY,
      saidAt DATETIME(3) NOT NULL,
      body VARCHAR(300) NOT NULL
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['planned_order', 'planned_step', 'plan_gift', 'day_plan'])
      await runner.query(`DROP TABLE ${table}`);
  }
}
