import { randomUUID } from 'node:crypto';
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { canonicalJson, CHAIN_START, sealEvidence, type Evidence, type VisitRecord } from '@decurio/core';
import type { PhotoKept, SealCheck } from '@decurio/contract';
import { markOpenVisits, markSealedBefore } from '../store/seal-heads.js';
import {
  asDatabaseOwner,
  Bench,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';
import { checkInThreads } from './check-in-threads.js';
import { verifyLedger, type CheckedBy, type LedgerFinding } from './verify-ledger.js';

let server: TestServer;
let teo: Person;
let sealed: Bench;
let open: Bench;
let photoId: string;
let owner: Connection;
beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const { units } = await takeOrder(teo, orderFile(['S26-0001', 'S26-0002']));
  sealed = await new Bench(teo, units[0]!.id).open();
  photoId = await photograph(sealed);
  await sealed.toSignOff();
  expect((await sealed.sign('ready')).statusCode).toBe(201);
  open = await new Bench(teo, units[1]!.id).open();
  await open.toKeyIn();
  owner = await createConnection({ uri: server.ownerUrl, timezone: 'Z', dateStrings: true });
});
afterAll(async () => {
  await owner.end();
  await server.close();
});

async function photograph(bench: Bench): Promise<string> {
  const id = randomUUID();
  const payload = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#7a8' } })
    .jpeg()
    .toBuffer();
  const kept = await server.app.inject({
    method: 'PUT',
    url: `/api/units/${bench.unitId}/visits/${bench.visitId}/photos/${id}`,
    headers: { cookie: teo.cookie, 'content-type': 'image/jpeg' },
    payload,
  });
  await bench.act('photographed', { photoId: id, subject: 'serial', sha256: kept.json<PhotoKept>().sha256, words: '' });
  return id;
}

const sealCheck = async (visitId = sealed.visitId) =>
  (await teo.post(`/api/visits/${visitId}/seal-check`)).json<SealCheck>();
const fileCheck = async (record: unknown) => (await teo.post('/api/record-checks', record)).json<SealCheck>();
async function walk(against: readonly string[] = [], by: CheckedBy = {}): Promise<readonly LedgerFinding[]> {
  const findings: LedgerFinding[] = [];
  await verifyLedger(server.app.source, (finding) => findings.push(finding), { against, ...by });
  return findings;
}

const TABLES = [
  'evidence',
  'visit',
  'unit',
  'photo',
  'seal_head',
  'customer_order',
  'left_visit',
  'left_code',
  'left_proof',
  'handover_entry',
] as const;

/** Changes rows as only the owner of the database could, looks, and puts every table back as it was. */
async function tampered<T>(
  statements: readonly (readonly [string, ...unknown[]])[],
  look: () => Promise<T>,
): Promise<T> {
  const before = new Map<string, RowDataPacket[]>();
  for (const table of TABLES) before.set(table, (await owner.query<RowDataPacket[]>(`SELECT * FROM ${table}`))[0]);
  await owner.query('SET FOREIGN_KEY_CHECKS = 0');
  try {
    for (const [sql, ...values] of statements) await owner.query(sql, values);
    return await look();
  } finally {
    for (const table of TABLES) {
      await owner.query(`DELETE FROM ${table}`);
      for (const row of before.get(table) ?? []) await owner.query(`INSERT INTO ${table} SET ?`, [row]);
    }
    await owner.query('SET FOREIGN_KEY_CHECKS = 1');
  }
}

/** The chain written anew from one entry on, with another cap in it, as a forger with the database in hand would. */
function forged(evidence: readonly Evidence[]): readonly Evidence[] {
  const forgery: Evidence[] = [];
  for (const entry of evidence) {
    const text = JSON.stringify(entry).replace('"station":"bay 7"', '"station":"bay 8"');
    forgery.push(
      sealEvidence(
        JSON.parse(entry.seq > 1 ? text : JSON.stringify(entry)) as Evidence,
        forgery.at(-1)?.hash ?? CHAIN_START,
      ),
    );
  }
  return forgery;
}

const withHead = (evidence: readonly Evidence[]) => [
  ...evidence.map((entry) => ['UPDATE evidence SET body = ? WHERE id = ?', canonicalJson(entry), entry.id] as const),
  [
    'UPDATE visit SET headHash = ?, lastSeq = ? WHERE id = ?',
    evidence.at(-1)?.hash,
    evidence.length,
    evidence[0]?.visitId,
  ] as const,
];

it('a ledger that nobody touched holds, by its screens and as a whole', async () => {
  expect(await sealCheck()).toMatchObject({
    holds: true,
    findings: [],
    entries: sealed.evidence.length,
    says: expect.stringContaining('and 1 photograph'),
  });
  expect(await sealCheck(open.visitId)).toMatchObject({ holds: true });
  expect(await walk()).toEqual([]);
});

describe('what is altered in the database is found, on the screen and by the whole walk', () => {
  const one = (sql: string) => () => [[sql, sealed.visitId] as const];
  it.each<readonly [string, () => readonly (readonly [string, ...unknown[]])[], RegExp]>([
    [
      'a reading',
      one(`UPDATE evidence SET body = REPLACE(body, '"raw":24', '"raw":30') WHERE visitId = ?`),
      /was changed after it was written/,
    ],
    [
      'a key that no seal covers',
      one(
        `UPDATE evidence SET body = REPLACE(body, '"kind":"signedOff"', '"kind":"signedOff","note":"by two"') WHERE visitId = ?`,
      ),
      /"note", which no seal covers/,
    ],
    [
      'a body written otherwise',
      one(`UPDATE evidence SET body = CONCAT(body, ' ') WHERE visitId = ? AND seq = 3`),
      /Entry 3 is not written as it was sealed/,
    ],
    [
      'a body that is no JSON',
      one(`UPDATE evidence SET body = '{' WHERE visitId = ? AND seq = 1`),
      /Entry 1 cannot be read/,
    ],
    [
      'the kind beside an entry',
      one(`UPDATE evidence SET kind = 'held' WHERE visitId = ? AND seq = 4`),
      /Entry 4: its kind/,
    ],
    [
      'the id beside an entry',
      one(`UPDATE evidence SET id = '00000000-0000-4000-8000-000000000000' WHERE visitId = ? AND seq = 4`),
      /Entry 4: its id/,
    ],
    [
      'when an entry arrived',
      one(`UPDATE evidence SET receivedAt = '2020-01-01' WHERE visitId = ? AND seq = 4`),
      /Entry 4: its time of arrival/,
    ],
    ['an entry that is taken out', one('DELETE FROM evidence WHERE visitId = ? AND seq = 5'), /Entry 5 is missing/],
    ['the serial', one("UPDATE visit SET serial = 'S26-9999' WHERE id = ?"), /Serial: the ledger shows S26-9999/],
    ['the customer', one("UPDATE visit SET customer = 'Another' WHERE id = ?"), /Customer: the ledger shows Another/],
    ['the order', one("UPDATE visit SET orderNumber = '1' WHERE id = ?"), /Order: the ledger shows 1,/],
    [
      'when it was sealed',
      one("UPDATE visit SET sealedAt = '2020-01-01' WHERE id = ?"),
      /When it was sealed: the ledger shows/,
    ],
    [
      'who sealed it',
      one("UPDATE visit SET sealedBy = 'Nobody' WHERE id = ?"),
      /Who sealed it: the ledger shows Nobody/,
    ],
    [
      'the display map',
      one("UPDATE visit SET mapId = 'fescue-three-key' WHERE id = ?"),
      /Display map: the ledger shows fescue/,
    ],
    [
      'the version of the map',
      one('UPDATE visit SET mapVersion = 7 WHERE id = ?'),
      /Version of the display map: the ledger shows 7/,
    ],
    ['that it is sealed', one('UPDATE visit SET sealedAt = NULL WHERE id = ?'), /When it was sealed: the ledger shows/],
    [
      'the status of its unit',
      one("UPDATE unit SET status = 'open' WHERE visitId = ?"),
      /Status of its unit: Line shows open, the entries say sealed/,
    ],
    [
      'the bytes of a photograph',
      () => [["UPDATE photo SET body = 'x' WHERE id = ?", photoId]],
      /is not the one that was sealed/,
    ],
    [
      'a photograph with its hash',
      () => [["UPDATE photo SET body = 'x', sha256 = SHA2('x', 256) WHERE id = ?", photoId]],
      /is not the one that was sealed/,
    ],
    ['a photograph that is gone', () => [['DELETE FROM photo WHERE id = ?', photoId]], /is gone/],
    ['the whole chain, with its head', () => withHead(forged(sealed.evidence)), /the chain was written anew/],
    [
      'the end cut off, the head set back',
      () => [
        ['DELETE FROM evidence WHERE visitId = ? AND seq = ?', sealed.visitId, sealed.evidence.length],
        [
          'UPDATE visit SET lastSeq = ?, headHash = ?, sealedAt = NULL, sealedBy = NULL WHERE id = ?',
          sealed.evidence.length - 1,
          sealed.evidence.at(-2)?.hash,
          sealed.visitId,
        ],
      ],
      /Entries are missing: it had come to entry/,
    ],
    [
      'the mark of its seal taken out',
      one('DELETE FROM seal_head WHERE visitId = ?'),
      /Nothing marks that it was sealed/,
    ],
    ['the mark of its seal', one('UPDATE seal_head SET seq = 3 WHERE visitId = ?'), /was changed/],
    [
      'a value that a question finds',
      one('UPDATE left_code SET raw = raw + 1 WHERE visitId = ?'),
      /^Codes: what a question/,
    ],
    ['a proof that a question finds', one("UPDATE left_proof SET verdict = 'left' WHERE visitId = ?"), /^Proofs: what/],
    [
      'a speed that a question finds',
      one('UPDATE left_visit SET worstKmh = 1 WHERE visitId = ?'),
      /^Fastest speed: what/,
    ],
    [
      'what was handed over, so that it cannot be read',
      one(
        "INSERT INTO handover_entry (id, visitId, seq, kind, body, at) VALUES (UUID(), ?, 1, 'handedOver', '[]', UTC_TIMESTAMP(3))",
      ),
      /What was handed over cannot be read/,
    ],
  ])('%s', async (_, statements, says) => {
    const [screen, found] = await tampered(statements(), async () => [await sealCheck(), await walk()] as const);
    expect(screen.holds).toBe(false);
    expect(screen.findings.join(' ')).toMatch(says);
    expect(found.map((finding) => finding.says).join(' ')).toMatch(says);
    expect(found.some(({ of }) => of.includes(sealed.visitId))).toBe(true);
    expect((await sealCheck()).holds).toBe(true);
  });

  it('a damaged first entry is a finding, and its page says so', async () => {
    const answer = await tampered(
      [["UPDATE evidence SET body = 'null' WHERE visitId = ? AND seq = 1", sealed.visitId]],
      async () =>
        [
          await sealCheck(),
          await teo.get(`/api/visits/${sealed.visitId}`),
          await teo.get(`/api/visits/${sealed.visitId}/record.json`),
          await teo.get(`/api/visits/${sealed.visitId}/certificate.pdf`),
        ] as const,
    );
    expect(answer[0]).toMatchObject({ holds: false });
    for (const page of answer.slice(1) as unknown as Awaited<ReturnType<Person['get']>>[])
      expect([page.statusCode, errorOf(page).code]).toEqual([409, 'recordDamaged']);
  });

  it('by threads as by one', async () => {
    const threads = checkInThreads(server.applicationUrl);
    try {
      const [alone, together] = await tampered(
        [
          ['UPDATE evidence SET body = CONCAT(body, " ") WHERE seq = 3'],
          ['UPDATE visit SET customer = "Another" WHERE id = ?', sealed.visitId],
        ],
        async () => [await walk(), await walk([], threads)] as const,
      );
      expect(together).toEqual(alone);
      expect(new Set(together.map(({ of }) => of)).size).toBe(2);
    } finally {
      await threads.close();
    }
  });

  it('a visit that is gone altogether', async () => {
    const says = await tampered(
      [
        ['DELETE FROM evidence WHERE visitId = ?', sealed.visitId],
        ['DELETE FROM photo WHERE visitId = ?', sealed.visitId],
        ['DELETE FROM visit WHERE id = ?', sealed.visitId],
        ['UPDATE unit SET visitId = NULL WHERE visitId = ?', sealed.visitId],
      ],
      walk,
    );
    expect(says.map((finding) => `${finding.of}: ${finding.says}`).join(' ')).toMatch(
      new RegExp(`visit ${sealed.visitId}: This visit is gone. It had ${sealed.evidence.length} entries`),
    );
  });

  it('what an order counts', async () => {
    expect((await tampered([['UPDATE customer_order SET sealed = 5']], walk)).map(({ says }) => says)).toEqual([
      'It shows 5 sealed units and has 1.',
    ]);
  });

  it('a mark in the middle taken out', async () => {
    await asDatabaseOwner(server, 'DELETE FROM seal_head WHERE why = "open"');
    expect(await markOpenVisits(server.app.source)).toBe(1);
    const says = await tampered([['DELETE FROM seal_head WHERE n = 1']], walk);
    expect(says.map((finding) => finding.says).join(' ')).toContain('Between mark 0 and mark 2 some are missing.');
  });
});

it('holds while somebody goes on working at a unit', async () => {
  let isWalked = false;
  const working = (async () => {
    let acts = 0;
    for (; !isWalked; acts++) await open.act('codeSeen', { label: 'L1.2', raw: 1 + (acts % 5) });
    return acts;
  })();
  const walks = [];
  for (let i = 0; i < 30; i++) walks.push(...(await walk()));
  isWalked = true;
  expect(await working).toBeGreaterThan(5);
  expect(walks).toEqual([]);
});

describe('marks of open visits', () => {
  it('are set for those that gained entries, once an hour, and miss a tail that is cut', async () => {
    const hour = 3_600_000;
    const [last] = await asDatabaseOwner<{ at: Date }[]>(server, 'SELECT MAX(at) AS at FROM seal_head');
    const later = (hours: number) => new Date(last!.at.getTime() + hours * hour);
    await open.act('codeSeen', { label: 'L1.2', raw: 3 });
    expect(await markOpenVisits(server.app.source, later(0.5))).toBe(0);
    expect(await markOpenVisits(server.app.source, later(1))).toBe(1);
    expect(await markOpenVisits(server.app.source, later(2))).toBe(0);
    expect(await walk()).toEqual([]);
    const cut = [
      ['DELETE FROM evidence WHERE visitId = ? AND seq = ?', open.visitId, open.evidence.length],
      [
        'UPDATE visit SET lastSeq = ?, headHash = ? WHERE id = ?',
        open.evidence.length - 1,
        open.evidence.at(-2)?.hash,
        open.visitId,
      ],
    ] as const;
    expect((await tampered(cut, () => sealCheck(open.visitId))).findings.join(' ')).toMatch(/Entries are missing/);
  });

  it('are set by several processes at once in one chain', async () => {
    await open.act('codeSeen', { label: 'L1.2', raw: 2 });
    const [last] = await asDatabaseOwner<{ at: Date }[]>(server, 'SELECT MAX(at) AS at FROM seal_head');
    const marked = await Promise.all(
      Array.from({ length: 5 }, () => markOpenVisits(server.app.source, new Date(last!.at.getTime() + 3_600_000))),
    );
    expect(marked.toSorted()).toEqual([0, 0, 0, 0, 1]);
    expect(await walk()).toEqual([]);
  });

  it('are set after the fact for what an earlier release sealed', async () => {
    await asDatabaseOwner(server, 'DELETE FROM seal_head');
    expect(await sealCheck()).toMatchObject({ holds: false });
    expect(await markSealedBefore(server.app.source)).toBe(1);
    expect(await sealCheck()).toMatchObject({ holds: true });
  });
});

describe('records that were exported and kept elsewhere', () => {
  it('are met by the ledger, and miss a visit that is gone or was written anew', async () => {
    const record = (await teo.get(`/api/visits/${sealed.visitId}/record.json`)).body;
    expect(await walk([record])).toEqual([]);
    const gone = await tampered([['DELETE FROM visit WHERE id = ?', sealed.visitId]], () => walk([record]));
    expect(gone.map(({ says }) => says)).toContain('This visit is gone. A record of it was exported.');
    const anew = await tampered(withHead(forged(sealed.evidence)), () => walk([record]));
    expect(anew.map(({ says }) => says)).toContain('It ends in another seal than the record that was exported.');
    expect((await walk(['{"format":"decurio-record/2"}']))[0]?.says).toContain('no record that holds');
  });
});

describe('a record file', () => {
  it('does not hold once stored rows were altered, whatever the head says', async () => {
    const record = (await teo.get(`/api/visits/${sealed.visitId}/record.json`)).json<VisitRecord>();
    expect(await fileCheck(record)).toMatchObject({ holds: true });
    const altered = await tampered(
      [[`UPDATE evidence SET body = REPLACE(body, '"raw":24', '"raw":30') WHERE visitId = ?`, sealed.visitId]],
      () => fileCheck(record),
    );
    expect(altered).toMatchObject({
      holds: false,
      says: expect.stringMatching(/Entry \d+ of the file is not as it stands in this ledger/),
    });
    const anew = await tampered(withHead(forged(sealed.evidence)), () => fileCheck(record));
    expect(anew.holds).toBe(false);
  });
});
