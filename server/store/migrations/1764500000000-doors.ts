import { lookOf, plainName } from '@decurio/contract';
import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
const HASH = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';
const TABLE = 'ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci';

/** Plain sign-in names, sessions that can be listed and ended, tries to sign in, and marks of how far each visit had come. */
export class Doors1764500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await plainNames(runner);
    await runner.query(
      'ALTER TABLE account MODIFY signInName VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
    );
    // Sessions of before have no name by which a person could end them: everyone signs in once more.
    await runner.query('DELETE FROM session');
    await runner.query(
      `ALTER TABLE session ADD id ${UUID} NOT NULL, ADD openedAt DATETIME(3) NOT NULL, ADD seenAt DATETIME(3) NOT NULL, ADD UNIQUE KEY sessionById (id), ADD KEY sessionByAccount (accountId, openedAt)`,
    );
    await runner.query(`CREATE TABLE sign_in_try (
      id BIGINT AUTO_INCREMENT PRIMARY KEY,
      name VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      address VARCHAR(45) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      at DATETIME(3) NOT NULL,
      KEY tryByName (name, at),
      KEY tryByAddress (address, at),
      KEY tryByTime (at)
    ) ${TABLE}`);
    await runner.query(`CREATE TABLE seal_head (
      n BIGINT PRIMARY KEY,
      visitId ${UUID} NOT NULL,
      seq INT NOT NULL,
      hash ${HASH} NOT NULL,
      why VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      at DATETIME(3) NOT NULL,
      prevHash ${HASH} NOT NULL,
      rowHash ${HASH} NOT NULL,
      KEY headByVisit (visitId, seq)
    ) ${TABLE}`);
    await runner.query(
      'CREATE TABLE house_lock (name VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY) ENGINE=InnoDB',
    );
    await runner.query("INSERT INTO house_lock (name) VALUES ('sealHead')");
    await runner.query(
      'ALTER TABLE customer_order ADD revision INT NOT NULL DEFAULT 0, ADD revisionWords LONGTEXT NULL',
    );
    await runner.query('ALTER TABLE unit ADD revision INT NOT NULL DEFAULT 0');
    await runner.query('ALTER TABLE photo ADD KEY photoByTime (takenAt)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE unit DROP revision');
    await runner.query('ALTER TABLE customer_order DROP revision, DROP revisionWords');
    await runner.query('ALTER TABLE photo DROP KEY photoByTime');
    for (const table of ['house_lock', 'seal_head', 'sign_in_try']) await runner.query(`DROP TABLE ${table}`);
    await runner.query(
      'ALTER TABLE session DROP KEY sessionById, DROP KEY sessionByAccount, DROP id, DROP openedAt, DROP seenAt',
    );
    await runner.query('ALTER TABLE account MODIFY signInName VARCHAR(60) NOT NULL');
  }
}

/** Names of before may hold any letter: each takes its nearest plain form, told apart by a number where two meet. */
async function plainNames(runner: QueryRunner): Promise<void> {
  const accounts = (await runner.query('SELECT id, signInName FROM account ORDER BY createdAt, id')) as {
    id: string;
    signInName: string;
  }[];
  const looks = new Set<string>();
  for (const { id, signInName } of accounts) {
    const name = freeName(signInName, looks);
    looks.add(lookOf(name));
    if (name !== signInName) await runner.query('UPDATE account SET signInName = ? WHERE id = ?', [name, id]);
  }
}

export function freeName(old: string, taken: ReadonlySet<string>): string {
  const bare = old
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9._-]/g, '')
    .replace(/^[._-]+/, '')
    .slice(0, 36);
  const name = plainName(bare) ?? 'account';
  for (let n = 2, tried = name; ; n++) {
    if (!taken.has(lookOf(tried))) return tried;
    tried = `${name}-${n}x`;
  }
}
