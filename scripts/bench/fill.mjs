import { randomUUID } from 'node:crypto';
import { withDays } from '../lib/demo-files.mjs';

/** An order file of `count` units.
 * @param {string} order @param {number} count */
export function orderFile(order, count) {
  const rows = Array.from(
    { length: count },
    (_, i) =>
      `${order},Causeway Holiday Park,${withDays('{Thu+1}', new Date())} 08:00,Port Isel,pedelec-25,Samphire 26,${order}-${String(i + 1).padStart(5, '0')}`,
  );
  return ['order,customer,due,place,class,type,serial', ...rows].join('\n');
}

/**
 * Checks and takes an order of `count` units through the API.
 * @param {import('../lib/api-client.mjs').Client} person @param {string} order @param {number} count
 * @returns {Promise<string>} the order's id
 */
export async function takeOrder(person, order, count) {
  const id = randomUUID();
  const report = await person.postText(`/api/intakes?id=${id}&fileName=bench.csv`, orderFile(order, count), 'text/csv');
  if (report.rowsGood !== count) throw new Error(`only ${report.rowsGood} of ${count} rows are good`);
  const { orderId } = await person.post(`/api/intakes/${id}/take`, {});
  return orderId;
}

/** Gives `count` units a sealed visit each, straight in the database: lists read nothing else of a visit.
 * @param {import('mysql2/promise').Connection} owner @param {number} count */
export async function sealUnits(owner, count) {
  await owner.query(
    `INSERT INTO visit (id, unitId, serial, typeName, orderNumber, customer, mapId, mapVersion, lastSeq, headHash, openedAt, sealedAt, sealedBy)
     SELECT UUID(), u.id, u.serial, u.typeName, o.number, o.customer, u.mapId, 1, 30, SHA2(u.id, 256), NOW(3),
            NOW(3) - INTERVAL u.position SECOND, 'Teo R.'
     FROM unit u JOIN customer_order o ON o.id = u.orderId ORDER BY u.orderId, u.position LIMIT ?`,
    [count],
  );
}

/** Visits that were sealed long ago, `old` of them under serials of their own: what a search by a beginning has to find
 * far down. All of one unit, which no list minds.
 * @param {import('mysql2/promise').Connection} owner @param {{ count: number, old: number }} how */
export async function sealLongAgo(owner, { count, old }) {
  await owner.query(
    `INSERT INTO visit (id, unitId, serial, typeName, orderNumber, customer, mapId, mapVersion, lastSeq, headHash, openedAt, sealedAt, sealedBy)
     SELECT UUID(), u.id, CONCAT(IF(s.seq <= ?, 'OLD-', 'NEW-'), LPAD(s.seq, 6, '0')), u.typeName, CONCAT('L', s.seq DIV 300), 'Gull Point Hotel', u.mapId, 1, 30, SHA2(s.seq, 256), NOW(3),
            NOW(3) - INTERVAL (2000000 - s.seq) MINUTE, 'Teo R.'
     FROM seq_1_to_1000000 s JOIN (SELECT * FROM unit LIMIT 1) u WHERE s.seq <= ?`,
    [old, count],
  );
}
