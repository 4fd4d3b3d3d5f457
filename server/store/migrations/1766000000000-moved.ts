import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
const NAME = 'VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin';

/**
 * What a sealed unit was worked out from and how fast it may run, so that it can be held against newer rules; who worked on
 * it, what was found, and whether it came back unlike how it left. Rows that are there are written anew by and by, by
 * whoever fills them: until then `packId` is null.
 */
export class Moved1766000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE left_visit
      ADD COLUMN orderId ${UUID} NULL,
      ADD COLUMN typeId ${NAME} NULL,
      ADD COLUMN typeVersion INT NULL,
      ADD COLUMN packId ${NAME} NULL,
      ADD COLUMN packVersion INT NULL,
      ADD COLUMN houseId ${NAME} NULL,
      ADD COLUMN houseVersion INT NULL,
      ADD COLUMN worstKmh DOUBLE NULL,
      ADD COLUMN isMoved BOOLEAN NOT NULL DEFAULT 0,
      ADD KEY leftFromPack (packId, isNewest, packVersion),
      ADD KEY leftFromType (typeId, isNewest, typeVersion),
      ADD KEY leftFromHouse (houseId, isNewest, houseVersion),
      ADD KEY leftFromOrder (orderId, isNewest),
      ADD KEY leftMoved (isMoved, sealedAt, visitId)`);
    await runner.query(`CREATE TABLE left_person (
      visitId ${UUID} NOT NULL,
      userId ${UUID} NOT NULL,
      PRIMARY KEY (visitId, userId),
      KEY leftByWorker (userId, visitId)
    )`);
    await runner.query(`CREATE TABLE left_finding (
      visitId ${UUID} NOT NULL,
      n SMALLINT UNSIGNED NOT NULL,
      kind VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      says VARCHAR(500) NOT NULL,
      PRIMARY KEY (visitId, n),
      KEY leftByKind (kind, visitId)
    )`);
    await runner.query(`CREATE TABLE left_step (
      visitId ${UUID} NOT NULL,
      step VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      minutes DOUBLE NOT NULL,
      isFirstRight BOOLEAN NOT NULL,
      userId ${UUID} NULL,
      PRIMARY KEY (visitId, step)
    )`);
    await runner.query(`CREATE TABLE left_slip (
      visitId ${UUID} NOT NULL,
      label VARCHAR(12) NOT NULL,
      n SMALLINT UNSIGNED NOT NULL,
      PRIMARY KEY (visitId, label)
    )`);
    await runner.query(`CREATE TABLE left_hold (
      visitId ${UUID} NOT NULL,
      n SMALLINT UNSIGNED NOT NULL,
      reason VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      hours DOUBLE NOT NULL,
      PRIMARY KEY (visitId, n)
    )`);
    await runner.query('ALTER TABLE account ADD COLUMN agreesToCount BOOLEAN NOT NULL DEFAULT 0');
    await runner.query('ALTER TABLE left_proof ADD KEY leftByProof (test, verdict, visitId)');
    await runner.query(`CREATE TABLE moved_decision (
      kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      docId ${NAME} NOT NULL,
      version INT NOT NULL,
      visitId ${UUID} NOT NULL,
      decided VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      words VARCHAR(500) NOT NULL,
      recallId ${UUID} NULL,
      decidedBy ${UUID} NOT NULL,
      at DATETIME(3) NOT NULL,
      PRIMARY KEY (kind, docId, version, visitId)
    )`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE account DROP COLUMN agreesToCount');
    for (const table of ['left_hold', 'left_slip', 'left_step', 'moved_decision', 'left_finding', 'left_person'])
      await runner.query(`DROP TABLE ${table}`);
    await runner.query('ALTER TABLE left_proof DROP KEY leftByProof');
    await runner.query(`ALTER TABLE left_visit DROP KEY leftFromPack, DROP KEY leftFromType, DROP KEY leftFromHouse,
      DROP KEY leftFromOrder, DROP KEY leftMoved, DROP COLUMN orderId, DROP COLUMN typeId, DROP COLUMN typeVersion,
      DROP COLUMN packId, DROP COLUMN packVersion, DROP COLUMN houseId, DROP COLUMN houseVersion, DROP COLUMN worstKmh,
      DROP COLUMN isMoved`);
  }
}
