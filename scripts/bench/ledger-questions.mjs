import { spreadsOf } from './timing.mjs';

/** Codes of a unit, as many as a usual display has. */
const CODES = 16;

/**
 * Gives the ledger `count` units to be asked for, straight in the database, each with its codes: caps from 18 to 27, one
 * in two thousand at 45.
 * @param {import('mysql2/promise').Connection} owner @param {number} count
 */
export async function fillAsked(owner, count) {
  await owner.query('SET unique_checks = 0');
  await owner.query(
    `INSERT INTO visit (id, unitId, serial, typeName, orderNumber, customer, mapId, mapVersion, lastSeq, headHash, openedAt, sealedAt, sealedBy)
     SELECT CONCAT('00000000-0000-4000-8000-', LPAD(s.seq, 12, '0')), u.id, CONCAT('ASK-', LPAD(s.seq, 6, '0')), ELT(1 + s.seq % 5, 'Samphire 26', 'Petrel 10', 'Withy 700', 'Cockle 20', 'Campion 24'),
       CONCAT('Q', s.seq DIV 40), ELT(1 + s.seq % 7, 'Gull Point Hotel', 'Causeway Holiday Park', 'Lantern Street Couriers', 'Wrack Hire', 'Reed Mill', 'Ferry Yard', 'Salt Lane'), u.mapId, 1, 30, SHA2(s.seq, 256), NOW(3),
       NOW(3) - INTERVAL (? - s.seq) MINUTE, 'Teo R.'
     FROM seq_1_to_1000000 s JOIN (SELECT * FROM unit LIMIT 1) u WHERE s.seq <= ?`,
    [count, count],
  );
  await owner.query(
    `INSERT INTO left_visit (visitId, unitId, serial, typeName, mapId, mapVersion, className, customer, orderNumber, limitKmh, signedBy, accepted, unproved, isNewest, sealedAt)
     SELECT v.id, v.unitId, v.serial, v.typeName, v.mapId, v.mapVersion, 'pedal assist to 25 km/h', v.customer, v.orderNumber, 25, (SELECT id FROM account LIMIT 1), RIGHT(v.serial, 2) = '13', 0, 1, v.sealedAt
     FROM visit v WHERE v.serial LIKE 'ASK-%'`,
  );
  await owner.query(
    `INSERT INTO left_code (visitId, label, fn, raw, shown, says, value, unit, word, verdict)
     SELECT l.visitId, CONCAT('L', c.seq), ELT(c.seq, 'speedCap', 'wheelSize', 'currentLimit', 'driveMode', 'units', 'brightness', 'walk', 'cruise', 'autoOff', 'cutoffVoltage', 'assistLevels', 'regen', 'info', 'clock', 'odometer', 'wheelPulses'),
       25, '25', 'km/h', IF(c.seq = 1, IF(RIGHT(l.serial, 4) IN ('0777', '5777'), 45, 18 + CAST(RIGHT(l.serial, 6) AS UNSIGNED) % 10), c.seq * 3), 'km/h', IF(c.seq = 4, IF(RIGHT(l.serial, 3) = '500', 'throttle', 'pedal'), NULL), 'agrees'
     FROM left_visit l JOIN seq_1_to_${CODES} c WHERE l.serial LIKE 'ASK-%'`,
  );
  await owner.query('ANALYZE TABLE visit, left_visit, left_code');
}

/** @type {readonly (readonly [string, string])[]} */
export const QUESTIONS = [
  ['the newest', ''],
  ['any part of a serial', 'serial=9123'],
  ['a customer', 'customer=Wrack+Hire'],
  ['an order', 'order=Q200'],
  ['a cap that many have', 'code=speedCap&is=over&value=20'],
  ['a cap that few have', 'code=speedCap&is=over&value=40'],
  ['a cap, a customer and a time', 'code=speedCap&is=over&value=24&customer=Gull+Point+Hotel&from=2026-10-01'],
  ['a word that few have, nowhere else', 'code=driveMode&is=means&value=throttle&type=Petrel+10'],
  ['what nobody has', 'code=speedCap&is=over&value=90&customer=Reed+Mill'],
  ['something accepted', 'finding=accepted'],
];

/**
 * How long each question takes, 95 of 100, beside a bare reply of the same server.
 * @param {(url: string) => Promise<unknown>} ask @param {string} bare an address that asks the database next to nothing
 */
export async function questionFigures(ask, bare) {
  const spreads = await spreadsOf(
    Object.fromEntries([
      ['bare', () => ask(bare)],
      ...QUESTIONS.map(([what, query]) => [what, () => ask(`/api/ledger/answer?${query}`)]),
    ]),
    40,
  );
  const bareMs = spreads['bare']?.p95 ?? 0;
  return QUESTIONS.map(([what]) => ({ what, ms: spreads[what]?.p95 ?? 0, bareMs }));
}
