import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is true of the house as a whole: one row. Its time zone is that of the machine until an owner says otherwise. */
export class House1764700000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE house (
        id TINYINT PRIMARY KEY,
        zone VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        fireService VARCHAR(60) NOT NULL,
        changedAt DATETIME(3) NOT NULL,
        changedBy VARCHAR(80) NOT NULL
      ) ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`,
    );
    await runner.query(
      "INSERT INTO house (id, zone, fireService, changedAt, changedBy) VALUES (1, ?, '', UTC_TIMESTAMP(3), '')",
      [new Intl.DateTimeFormat().resolvedOptions().timeZone],
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE house');
  }
}
