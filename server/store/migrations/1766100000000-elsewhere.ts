import type { MigrationInterface, QueryRunner } from 'typeorm';

const ASCII = 'CHARACTER SET ascii COLLATE ascii_bin';

/** Archives of other houses, checked before they were taken in, apart from the house's own ledger. */
export class Elsewhere1766100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE elsewhere_archive (
      id CHAR(64) ${ASCII} NOT NULL PRIMARY KEY,
      origin VARCHAR(120) NOT NULL,
      name VARCHAR(200) NOT NULL,
      madeAt VARCHAR(40) NOT NULL,
      records INT NOT NULL,
      takenBy CHAR(36) ${ASCII} NOT NULL,
      takenAt DATETIME(3) NOT NULL
    )`);
    await runner.query(`CREATE TABLE elsewhere_record (
      visitId CHAR(36) ${ASCII} NOT NULL PRIMARY KEY,
      archiveId CHAR(64) ${ASCII} NOT NULL,
      serial VARCHAR(40) NOT NULL,
      typeName VARCHAR(60) NOT NULL,
      customer VARCHAR(120) NOT NULL,
      orderNumber VARCHAR(40) NOT NULL,
      mapId VARCHAR(60) ${ASCII} NOT NULL,
      mapVersion INT NOT NULL,
      seal CHAR(64) ${ASCII} NOT NULL,
      sealedAt DATETIME(3) NOT NULL,
      sealedBy VARCHAR(80) NOT NULL,
      body LONGTEXT NOT NULL,
      handover LONGTEXT NOT NULL,
      KEY elsewhereBySerial (serial),
      KEY elsewhereByArchive (archiveId, sealedAt, visitId)
    )`);
    await runner.query(`CREATE TABLE elsewhere_file (
      archiveId CHAR(64) ${ASCII} NOT NULL,
      name VARCHAR(300) ${ASCII} NOT NULL,
      kind VARCHAR(12) ${ASCII} NOT NULL,
      sha256 CHAR(64) ${ASCII} NOT NULL,
      body LONGBLOB NOT NULL,
      PRIMARY KEY (archiveId, name)
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['elsewhere_file', 'elsewhere_record', 'elsewhere_archive'])
      await runner.query(`DROP TABLE ${table}`);
  }
}
