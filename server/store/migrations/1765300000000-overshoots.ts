import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How far beyond its cap drive was seen to act on each unit, for the next ones of its type and display. */
export class Overshoots1765300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE overshoot_seen (
      visitId CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
      typeId VARCHAR(60) NOT NULL,
      mapId VARCHAR(60) NOT NULL,
      revision VARCHAR(60) NOT NULL,
      kmh DOUBLE NOT NULL,
      at DATETIME(3) NOT NULL,
      leftOutWords VARCHAR(200) NULL,
      leftOutBy VARCHAR(120) NULL,
      leftOutAt DATETIME(3) NULL,
      KEY overshootOfFamily (typeId, mapId, revision, kmh),
      CONSTRAINT overshootOfVisit FOREIGN KEY (visitId) REFERENCES visit (id)
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE overshoot_seen');
  }
}
