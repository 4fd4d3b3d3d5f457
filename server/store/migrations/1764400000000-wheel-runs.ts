import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
const TABLE = 'ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci';

/** What units of a family were run to, where a new tyre batch begins, and the house rule that says which are run. */
export class WheelRuns1764400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE wheel_run (
      visitId ${UUID} PRIMARY KEY,
      serial VARCHAR(40) NOT NULL,
      typeId VARCHAR(60) NOT NULL,
      mapId VARCHAR(60) NOT NULL,
      revision VARCHAR(20) NOT NULL,
      tyre VARCHAR(60) NOT NULL,
      how VARCHAR(10) NOT NULL,
      k DOUBLE NOT NULL,
      u DOUBLE NOT NULL,
      uCommon DOUBLE NOT NULL,
      wheelRaw INT NULL,
      pulsesRaw INT NULL,
      at DATETIME(3) NOT NULL,
      KEY runByFamily (typeId, mapId, revision, tyre, at),
      CONSTRAINT runVisit FOREIGN KEY (visitId) REFERENCES visit (id)
    ) ${TABLE}`);
    await runner.query(`CREATE TABLE tyre_batch (
      id BIGINT AUTO_INCREMENT PRIMARY KEY,
      typeId VARCHAR(60) NOT NULL,
      tyre VARCHAR(60) NOT NULL,
      words VARCHAR(200) NOT NULL,
      byName VARCHAR(80) NOT NULL,
      startsAt DATETIME(3) NOT NULL,
      KEY batchByTyre (typeId, tyre, startsAt)
    ) ${TABLE}`);
    await runner.query(
      "UPDATE library_document SET body = JSON_INSERT(body, '$.choices.runs', 'sample') WHERE kind = 'houseRules'",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['wheel_run', 'tyre_batch']) await runner.query(`DROP TABLE ${table}`);
  }
}
