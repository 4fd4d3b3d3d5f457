import type { MigrationInterface, QueryRunner } from 'typeorm';
import { upgradeMap, type FirstMap } from './first-map-format.js';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
const KEY = (length: number) => `VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_general_ci`;

/** Disputes on maps, a person's pace, the display found at check in; stored maps come to the whole of their format. */
export class Displays1764100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE account ADD pace VARCHAR(200) NULL');
    await runner.query(
      'ALTER TABLE unit ADD displayFoundAt DATETIME(3) NULL, ADD KEY unitByDisplayFound (orderId, typeId, displayFoundAt)',
    );
    await runner.query(`CREATE TABLE dispute (
      id ${UUID} PRIMARY KEY,
      mapId ${KEY(60)} NOT NULL,
      mapVersion INT NOT NULL,
      label VARCHAR(12) NULL,
      kind VARCHAR(20) NOT NULL,
      says VARCHAR(500) NOT NULL,
      serial VARCHAR(40) NULL,
      raisedBy VARCHAR(80) NOT NULL,
      raisedAt DATETIME(3) NOT NULL,
      settledBy VARCHAR(80) NULL,
      settledAt DATETIME(3) NULL,
      settledWords VARCHAR(500) NULL,
      KEY disputeByMap (mapId, raisedAt)
    ) ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
    const rows = (await runner.query(
      "SELECT docId, version, body FROM library_document WHERE kind = 'displayMap'",
    )) as { docId: string; version: number; body: string }[];
    for (const { docId, version, body } of rows) {
      const upgraded = upgradeMap(JSON.parse(body) as FirstMap);
      if (upgraded)
        await runner.query(
          "UPDATE library_document SET body = ? WHERE kind = 'displayMap' AND docId = ? AND version = ?",
          [JSON.stringify(upgraded), docId, version],
        );
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE dispute');
    await runner.query('ALTER TABLE unit DROP KEY unitByDisplayFound, DROP displayFoundAt');
    await runner.query('ALTER TABLE account DROP pace');
  }
}
