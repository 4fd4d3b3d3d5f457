import type { MigrationInterface, QueryRunner } from 'typeorm';

const UUID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';
const KEY = (length: number) => `VARCHAR(${length}) CHARACTER SET ascii COLLATE ascii_general_ci`;

const TABLES = [
  `CREATE TABLE account (
    id ${UUID} PRIMARY KEY,
    signInName VARCHAR(60) NOT NULL,
    displayName VARCHAR(80) NOT NULL,
    role VARCHAR(12) NOT NULL,
    passwordHash VARCHAR(200) NOT NULL,
    isDemo BOOLEAN NOT NULL,
    createdAt DATETIME(3) NOT NULL,
    UNIQUE KEY accountByName (signInName)
  )`,
  `CREATE TABLE session (
    tokenHash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
    accountId ${UUID} NOT NULL,
    station VARCHAR(40) NOT NULL,
    expiresAt DATETIME(3) NOT NULL,
    KEY sessionByExpiry (expiresAt),
    CONSTRAINT sessionAccount FOREIGN KEY (accountId) REFERENCES account (id)
  )`,
  `CREATE TABLE library_document (
    kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    docId ${KEY(60)} NOT NULL,
    version INT NOT NULL,
    name VARCHAR(80) NOT NULL,
    body LONGTEXT NOT NULL,
    addedAt DATETIME(3) NOT NULL,
    addedBy ${UUID} NOT NULL,
    PRIMARY KEY (kind, docId, version)
  )`,
  `CREATE TABLE intake (
    id ${UUID} PRIMARY KEY,
    accountId ${UUID} NOT NULL,
    createdAt DATETIME(3) NOT NULL,
    body LONGTEXT NOT NULL,
    takenOrderId ${UUID} NULL,
    unitsTaken INT NOT NULL,
    KEY intakeByAge (createdAt)
  )`,
  `CREATE TABLE customer_order (
    id ${UUID} PRIMARY KEY,
    number VARCHAR(40) NOT NULL,
    customer VARCHAR(120) NOT NULL,
    place VARCHAR(60) NOT NULL,
    rulePackId ${KEY(60)} NOT NULL,
    classId ${KEY(60)} NOT NULL,
    className VARCHAR(80) NOT NULL,
    houseRulesId ${KEY(60)} NOT NULL,
    limitKmh DOUBLE NULL,
    dueAt VARCHAR(16) NOT NULL,
    takenAt DATETIME(3) NOT NULL,
    takenBy ${UUID} NOT NULL,
    units INT NOT NULL,
    sealed INT NOT NULL,
    held INT NOT NULL,
    UNIQUE KEY orderByNumber (number),
    KEY orderByTaken (takenAt, id)
  )`,
  `CREATE TABLE unit (
    id ${UUID} PRIMARY KEY,
    orderId ${UUID} NOT NULL,
    position INT NOT NULL,
    serial ${KEY(40)} NOT NULL,
    openSerial ${KEY(40)} NULL,
    typeId ${KEY(60)} NOT NULL,
    typeName VARCHAR(60) NOT NULL,
    mapId ${KEY(60)} NOT NULL,
    status VARCHAR(8) NOT NULL,
    step VARCHAR(12) NULL,
    ladder CHAR(10) NOT NULL,
    heldReason VARCHAR(40) NULL,
    heldWords VARCHAR(1000) NULL,
    worker VARCHAR(80) NULL,
    station VARCHAR(40) NULL,
    visitId ${UUID} NULL,
    UNIQUE KEY unitByOpenSerial (openSerial),
    UNIQUE KEY unitByOrderSerial (orderId, serial),
    KEY unitByOrder (orderId, position),
    KEY unitBySerial (serial),
    CONSTRAINT unitOrder FOREIGN KEY (orderId) REFERENCES customer_order (id)
  )`,
  `CREATE TABLE visit (
    id ${UUID} PRIMARY KEY,
    unitId ${UUID} NOT NULL,
    serial VARCHAR(40) NOT NULL,
    typeName VARCHAR(60) NOT NULL,
    orderNumber VARCHAR(40) NOT NULL,
    customer VARCHAR(120) NOT NULL,
    mapId ${KEY(60)} NOT NULL,
    mapVersion INT NOT NULL,
    lastSeq INT NOT NULL,
    headHash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    openedAt DATETIME(3) NOT NULL,
    sealedAt DATETIME(3) NULL,
    sealedBy VARCHAR(80) NULL,
    KEY visitBySealed (sealedAt, id),
    KEY visitBySerial (serial, sealedAt),
    KEY visitByOrder (orderNumber, sealedAt),
    KEY visitByCustomer (customer, sealedAt),
    KEY visitByHead (headHash),
    CONSTRAINT visitUnit FOREIGN KEY (unitId) REFERENCES unit (id)
  )`,
  `CREATE TABLE evidence (
    id ${UUID} PRIMARY KEY,
    visitId ${UUID} NOT NULL,
    seq INT NOT NULL,
    kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    body LONGTEXT NOT NULL,
    receivedAt DATETIME(3) NOT NULL,
    UNIQUE KEY evidenceBySeq (visitId, seq),
    CONSTRAINT evidenceVisit FOREIGN KEY (visitId) REFERENCES visit (id)
  )`,
];

export class Ground1764000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) {
      await runner.query(`${table} ENGINE=InnoDB DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of [
      'evidence',
      'visit',
      'unit',
      'customer_order',
      'intake',
      'library_document',
      'session',
      'account',
    ]) {
      await runner.query(`DROP TABLE ${table}`);
    }
  }
}
