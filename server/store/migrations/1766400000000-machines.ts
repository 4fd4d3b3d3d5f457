import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';

/** Programs of other houses that may ask something, each by a token of which the hash is kept. */
export class Machines1766400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE machine (
      id ${UUID} NOT NULL PRIMARY KEY,
      name VARCHAR(60) NOT NULL,
      purpose VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      tokenSha256 CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      madeAt DATETIME(3) NOT NULL,
      madeById ${UUID} NOT NULL,
      askedAt DATETIME(3) NULL,
      endedAt DATETIME(3) NULL,
      UNIQUE KEY machineByToken (tokenSha256)
    ) ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE machine');
  }
}
