import type { MigrationInterface, QueryRunner } from 'typeorm';
import { upgradeHouseRules, upgradeRulePack, upgradeType } from './first-documents.js';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
const TABLE = 'ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci';

const UPGRADES = { vehicleType: upgradeType, rulePack: upgradeRulePack, houseRules: upgradeHouseRules } as const;

/** What an order promises beyond its class, how it was changed, what a unit has otherwise, PINs; stored types and rules come to the whole of their formats. */
export class Setups1764200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE customer_order ADD terms LONGTEXT NULL, ADD notes VARCHAR(1000) NOT NULL DEFAULT '', ADD expected LONGTEXT NULL, ADD isPrivateLand BOOLEAN NOT NULL DEFAULT FALSE, ADD classCheck VARCHAR(1000) NULL, ADD KEY orderByClass (rulePackId, classId)",
    );
    await runner.query(`UPDATE customer_order SET expected = '[]', terms = JSON_OBJECT('siteLimit', NULL,
      'orderLimit', IF(limitKmh IS NULL, NULL, JSON_OBJECT('value', limitKmh, 'unit', 'km/h')),
      'throttle', 'asClass', 'privateLand', NULL, 'decisions', JSON_ARRAY())`);
    await runner.query('ALTER TABLE customer_order MODIFY terms LONGTEXT NOT NULL, MODIFY expected LONGTEXT NOT NULL');
    await runner.query(
      'ALTER TABLE unit MODIFY status VARCHAR(12) NOT NULL, ADD ownWishes LONGTEXT NULL, ADD returnedWhy VARCHAR(500) NULL, ADD lastVisitId CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL',
    );
    await runner.query(`CREATE TABLE order_change (
      id ${UUID} PRIMARY KEY,
      orderId ${UUID} NOT NULL,
      kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      at DATETIME(3) NOT NULL,
      byName VARCHAR(80) NOT NULL,
      reason VARCHAR(500) NOT NULL,
      body LONGTEXT NOT NULL,
      KEY changeByOrder (orderId, at),
      CONSTRAINT changeOrder FOREIGN KEY (orderId) REFERENCES customer_order (id)
    ) ${TABLE}`);
    await runner.query(`CREATE TABLE pin (
      id ${UUID} PRIMARY KEY,
      orderId ${UUID} NOT NULL,
      unitId ${UUID} NULL,
      owner ${UUID} NOT NULL,
      sealedDigits VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      madeAt DATETIME(3) NOT NULL,
      UNIQUE KEY pinByOwner (owner),
      CONSTRAINT pinOrder FOREIGN KEY (orderId) REFERENCES customer_order (id)
    ) ${TABLE}`);
    await runner.query(`CREATE TABLE pin_look (
      id ${UUID} PRIMARY KEY,
      pinId ${UUID} NOT NULL,
      byName VARCHAR(80) NOT NULL,
      at DATETIME(3) NOT NULL,
      why VARCHAR(300) NOT NULL,
      KEY lookByPin (pinId, at),
      CONSTRAINT lookPin FOREIGN KEY (pinId) REFERENCES pin (id)
    ) ${TABLE}`);
    const rows = (await runner.query(
      "SELECT kind, docId, version, body FROM library_document WHERE kind <> 'displayMap' ORDER BY version",
    )) as { kind: keyof typeof UPGRADES; docId: string; version: number; body: string }[];
    for (const { kind, docId, version, body } of rows) {
      const upgraded = UPGRADES[kind](JSON.parse(body));
      if (!upgraded) continue;
      await runner.query('UPDATE library_document SET body = ? WHERE kind = ? AND docId = ? AND version = ?', [
        JSON.stringify(upgraded),
        kind,
        docId,
        version,
      ]);
      if (upgraded.format !== 'decurio-rule-pack/2') continue;
      // Versions come in rising order: the newest stays.
      for (const { id, checked } of upgraded.classes)
        await runner.query('UPDATE customer_order SET classCheck = ? WHERE rulePackId = ? AND classId = ?', [
          checked && JSON.stringify(checked),
          docId,
          id,
        ]);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['pin_look', 'pin', 'order_change']) await runner.query(`DROP TABLE ${table}`);
    await runner.query('ALTER TABLE unit DROP ownWishes, DROP returnedWhy, DROP lastVisitId');
    await runner.query(
      'ALTER TABLE customer_order DROP KEY orderByClass, DROP classCheck, DROP terms, DROP notes, DROP expected, DROP isPrivateLand',
    );
  }
}
