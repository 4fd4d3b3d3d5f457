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

/** Newest first, with all that the ledger shows of them.
 * @param {string} where
 * @param {{ how?: string, from?: string, shown?: string }} [more] how for the database, what it begins from, and which codes are shown of each */
const bare = (where, { how = '', from = '', shown } = {}) =>
  `${how} SELECT ${shown ? `(SELECT GROUP_CONCAT(c.label, c.shown, c.says) FROM left_code c WHERE c.visitId = l.visitId AND c.fn = '${shown}'),` : ''} l.visitId, l.serial, l.typeName, l.orderNumber, l.customer, l.sealedAt, v.sealedBy, v.headHash, u.handedOverAt
   FROM ${from} left_visit l JOIN visit v ON v.id = l.visitId JOIN unit u ON u.id = l.unitId
   WHERE l.isNewest = 1 AND ${where} ORDER BY l.sealedAt DESC, l.visitId DESC LIMIT 51`;
/** Asked of each visit on the way, newest first: by far the fastest where many hold it.
 * @param {string} shown @param {string} code @param {string} [where] */
const onTheWay = (shown, code, where = '1 = 1') =>
  bare(
    `EXISTS (SELECT 1 FROM left_code c WHERE c.visitId = l.visitId AND c.fn = '${shown}' AND ${code}) AND ${where}`,
    { how: "SET STATEMENT optimizer_switch = 'exists_to_in=off' FOR", shown },
  );
/** From those that hold it, where they are few. @param {string} shown @param {string} code @param {string} [where] */
const fromFew = (shown, code, where = '1 = 1') =>
  bare(`l.visitId IN (SELECT c.visitId FROM left_code c WHERE c.fn = '${shown}' AND ${code}) AND ${where}`, { shown });

/** What is asked in words, as a link, and as the fastest single statement we know for it. */
const QUESTIONS = /** @type {const} */ ([
  ['the newest', '', bare('1 = 1')],
  [
    'any part of a serial',
    'serial=9123',
    bare('l.visitId = s.visitId', {
      from: "(SELECT visitId FROM left_visit FORCE INDEX (leftBySerial) WHERE serial LIKE '%9123%') s STRAIGHT_JOIN",
    }),
  ],
  ['a customer', 'customer=Wrack+Hire', bare("l.customer = 'Wrack Hire'")],
  ['an order', 'order=Q200', bare("l.orderNumber = 'Q200'")],
  ['a cap that many have', 'code=speedCap&is=over&value=20', onTheWay('speedCap', 'c.value > 20')],
  ['a cap that few have', 'code=speedCap&is=over&value=40', fromFew('speedCap', 'c.value > 40')],
  [
    'a cap, a customer and a time',
    'code=speedCap&is=over&value=24&customer=Gull+Point+Hotel&from=2026-10-01',
    onTheWay('speedCap', 'c.value > 24', "l.customer = 'Gull Point Hotel' AND l.sealedAt >= '2026-10-01 00:00:00'"),
  ],
  [
    'a word that few have, nowhere else',
    'code=driveMode&is=means&value=throttle&type=Petrel+10',
    fromFew('driveMode', "c.word = 'throttle'", "l.typeName = 'Petrel 10'"),
  ],
  [
    'what nobody has',
    'code=speedCap&is=over&value=90&customer=Reed+Mill',
    fromFew('speedCap', 'c.value > 90', "l.customer = 'Reed Mill'"),
  ],
  ['something accepted', 'finding=accepted', bare('l.accepted > 0')],
]);

/**
 * How long each question takes, beside the fastest single statement for it and a reply with nothing in it; in turn, so
 * that whatever else the machine does falls on all alike.
 * @param {(url: string) => Promise<unknown>} ask
 * @param {(sql: string) => Promise<unknown>} query
 * @param {() => Promise<unknown>} reply
 */
export async function questionFigures(ask, query, reply) {
  const figures = [];
  for (const [what, link, sql] of QUESTIONS) {
    const spreads = await spreadsOf(
      { asked: () => ask(`/api/ledger/answer?${link}`), query: () => query(sql), reply },
      40,
    );
    figures.push({ what, ...spreads });
  }
  return figures;
}
