import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
const NAME = 'VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin';

/** What sealed units left with, to be asked for: a row a visit, a row a code, a row a proof; and questions kept by name. */
export class Left1765800000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE left_visit (
      visitId ${UUID} NOT NULL PRIMARY KEY,
      unitId ${UUID} NOT NULL,
      serial VARCHAR(40) NOT NULL,
      typeName VARCHAR(60) NOT NULL,
      mapId ${NAME} NOT NULL,
      mapVersion INT NOT NULL,
      className VARCHAR(120) NOT NULL,
      customer VARCHAR(120) NOT NULL,
      orderNumber VARCHAR(40) NOT NULL,
      limitKmh DOUBLE NULL,
      signedBy ${UUID} NOT NULL,
      accepted SMALLINT UNSIGNED NOT NULL,
      unproved SMALLINT UNSIGNED NOT NULL,
      isNewest BOOLEAN NOT NULL,
      sealedAt DATETIME(3) NOT NULL,
      KEY leftNewest (isNewest, sealedAt, visitId),
      KEY leftByCustomer (customer, isNewest, sealedAt, visitId),
      KEY leftBySerial (serial, isNewest),
      KEY leftByOrder (orderNumber, sealedAt, visitId),
      KEY leftByType (typeName, isNewest, sealedAt, visitId),
      KEY leftByMap (mapId, isNewest, sealedAt, visitId),
      KEY leftByClass (className, isNewest, sealedAt, visitId),
      KEY leftByPerson (signedBy, isNewest, sealedAt, visitId),
      KEY leftByUnit (unitId)
    )`);
    await runner.query(`CREATE TABLE left_code (
      visitId ${UUID} NOT NULL,
      label VARCHAR(12) NOT NULL,
      fn VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      raw DOUBLE NOT NULL,
      shown VARCHAR(16) NOT NULL,
      says VARCHAR(120) NOT NULL,
      value DOUBLE NULL,
      unit VARCHAR(12) NOT NULL,
      word VARCHAR(40) NULL,
      verdict VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      PRIMARY KEY (visitId, label, fn),
      KEY leftByValue (fn, value, visitId),
      KEY leftByWord (fn, word, visitId)
    )`);
    await runner.query(`CREATE TABLE left_proof (
      visitId ${UUID} NOT NULL,
      test VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      title VARCHAR(160) NOT NULL,
      verdict VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      PRIMARY KEY (visitId, test)
    )`);
    await runner.query(`CREATE TABLE kept_question (
      id ${UUID} NOT NULL PRIMARY KEY,
      name VARCHAR(80) NOT NULL,
      question TEXT NOT NULL,
      keptBy ${UUID} NOT NULL,
      keptAt DATETIME(3) NOT NULL
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['kept_question', 'left_proof', 'left_code', 'left_visit'])
      await runner.query(`DROP TABLE ${table}`);
  }
}
