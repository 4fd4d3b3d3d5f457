import { randomUUID } from 'node:crypto';
import { takeOrder } from './fill.mjs';

const STANDS = 20;
const ENTRIES = 60;

/**
 * Entries that a server accepts a second with twenty stands at work at once, each on a unit of its own, beside as many
 * bare inserts of the same bytes over as many connections to the same database.
 * @param {import('../lib/api-client.mjs').Client} office
 * @param {() => Promise<import('mysql2/promise').Connection>} connect
 */
export async function entriesPerSecond(office, connect) {
  const orderId = await takeOrder(office, 'T20', STANDS);
  const { units } = await office.get(`/api/orders/${orderId}/line`);
  const stands = await Promise.all(units.map((/** @type {{ id: string }} */ unit) => opened(office, unit.id)));
  const accepted = await rate(stands.map(({ write }) => write));

  const owner = await connect();
  await owner.query(
    'CREATE TABLE bare_entry (id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY, visitId CHAR(36) CHARACTER SET ascii COLLATE ascii_bin, seq INT, kind VARCHAR(20), body LONGTEXT, receivedAt DATETIME(3), UNIQUE KEY one (visitId, seq)) ENGINE=InnoDB',
  );
  await owner.end();
  const connections = await Promise.all(stands.map(connect));
  const body = JSON.stringify(stands[0]?.sample);
  const inserted = await rate(
    connections.map((connection) => {
      const visitId = randomUUID();
      return (/** @type {number} */ seq) =>
        connection.query('INSERT INTO bare_entry VALUES (?, ?, ?, ?, ?, UTC_TIMESTAMP(3))', [
          randomUUID(),
          visitId,
          seq,
          'codeSeen',
          body,
        ]);
    }),
  );
  await Promise.all(connections.map((connection) => connection.end()));
  return { accepted, inserted };
}

/** @param {((seq: number) => Promise<unknown>)[]} writers */
async function rate(writers) {
  const start = performance.now();
  await Promise.all(
    writers.map(async (write) => {
      for (let seq = 0; seq < ENTRIES; seq++) await write(seq);
    }),
  );
  return (writers.length * ENTRIES * 1000) / (performance.now() - start);
}

/** A unit at key in on a stand of its own, and how an entry is written there.
 * @param {import('../lib/api-client.mjs').Client} person @param {string} unitId */
async function opened(person, unitId) {
  const visitId = randomUUID();
  const at = () => new Date().toISOString();
  const path = `/api/units/${unitId}/visits/${visitId}/evidence`;
  let seq = 1;
  /** @param {string} kind @param {object} data */
  const post = async (kind, data) => {
    const { entry, followed } = await person.post(path, { id: randomUUID(), seq: seq + 1, kind, at: at(), data });
    seq += 1 + followed.length;
    return entry;
  };
  const { data } = await person.post(`/api/units/${unitId}/visits`, { visitId, entryId: randomUUID(), at: at() });
  await post('checkedIn', {
    revisionConfirmed: true,
    odometerKm: 3,
    packV: 39.8,
    packCondition: 'sound',
    tyreBar: null,
    cablesFree: true,
    clampSound: true,
    accessories: '',
    damage: '',
  });
  await post('madeSafe', { cautions: data.bench.cautions });
  const shown = data.setup.targets.filter((/** @type {{ offGlass?: boolean }} */ target) => target.offGlass !== true);
  for (const { label } of shown) await post('asFoundRead', { label, raw: data.factory[label] });
  const sample = await post('asFoundClosed', {});
  return { sample, write: () => post('codeSeen', { label: 'L1.2', raw: (seq % 5) + 1 }) };
}
