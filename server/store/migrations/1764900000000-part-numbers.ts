import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';

/** Numbers of frames, packs and other parts, with the unit they were scanned at: one part is on one vehicle. */
export class PartNumbers1764900000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE part_number (
      unitId ${UUID} NOT NULL,
      part VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      number VARCHAR(60) NOT NULL,
      at DATETIME(3) NOT NULL,
      PRIMARY KEY (unitId, part),
      KEY partByNumber (part, number),
      CONSTRAINT numberUnit FOREIGN KEY (unitId) REFERENCES unit (id)
    ) ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE part_number');
  }
}
