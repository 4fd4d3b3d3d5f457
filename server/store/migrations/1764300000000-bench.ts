import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
const TABLE = 'ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci';

/** House rules of before had no word on photographs, the unplug check and who reads back; these are the defaults. */
const NEW_CHOICES = "'$.choices.photos', 'none', '$.choices.unplugCheck', 'whereKept', '$.choices.reader', 'same'";

/** What the bench needs: how a batch was found, photographs, and a feed of changes for screens that look on. */
export class Bench1764300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE unit ADD foundAt DATETIME(3) NULL, ADD surprises INT NOT NULL DEFAULT 0, ADD KEY unitByBatch (orderId, typeId, mapId, foundAt)',
    );
    await runner.query(`CREATE TABLE photo (
      id ${UUID} PRIMARY KEY,
      visitId ${UUID} NOT NULL,
      sha256 CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      body MEDIUMBLOB NOT NULL,
      bytes INT NOT NULL,
      widthPx INT NOT NULL,
      heightPx INT NOT NULL,
      byName VARCHAR(80) NOT NULL,
      takenAt DATETIME(3) NOT NULL,
      KEY photoByVisit (visitId, takenAt),
      CONSTRAINT photoVisit FOREIGN KEY (visitId) REFERENCES visit (id)
    ) ${TABLE}`);
    await runner.query(`CREATE TABLE line_change (
      id BIGINT AUTO_INCREMENT PRIMARY KEY,
      orderId ${UUID} NOT NULL,
      unitId ${UUID} NULL,
      seq INT NOT NULL,
      at DATETIME(3) NOT NULL,
      KEY changeByTime (at)
    ) ${TABLE}`);
    await runner.query(
      `UPDATE library_document SET body = JSON_INSERT(body, ${NEW_CHOICES}) WHERE kind = 'houseRules'`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['photo', 'line_change']) await runner.query(`DROP TABLE ${table}`);
    await runner.query('ALTER TABLE unit DROP KEY unitByBatch, DROP foundAt, DROP surprises');
  }
}
