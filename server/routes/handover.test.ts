import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { foldHandover, type Evidence, type HandoverEntry } from '@decurio/core';
import type { HandoverView, LineView, PapersView, PhotoKept } from '@decurio/contract';
import { saidBy, seenPdf } from '../testing/seen-pdf.js';
import {
  asDatabaseOwner,
  Bench,
  errorOf,
  fillLibrary,
  orderFile,
  PASSWORD,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let teo: Person;
let ines: Person;
let orderId: string;
let bench: Bench;

beforeAll(async () => {
  server = await startTestServer();
  ines = await signInAs(server, 'lead');
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const { taken, units } = await takeOrder(teo, orderFile(['S-hand-1', 'S-hand-2', 'S-hand-3'], 'hand'));
  orderId = taken.orderId;
  bench = await new Bench(teo, units[0]!.id).open();
  await bench.toSignOff();
});
afterAll(() => server.close());

const add = (kind: string, data: object, person = teo, id: string = randomUUID()) =>
  person.post(`/api/visits/${bench.visitId}/handover`, { id, kind, data });
const strokes = [Array.from({ length: 20 }, (_, i) => [i / 20, 0.5])];

describe('what is handed over', () => {
  it('waits for the seal', async () => {
    expect(errorOf(await add('labelFixed', { where: 'Stem' })).code).toBe('notSealed');
    expect(errorOf(await teo.get(`/api/visits/${bench.visitId}/handover`)).code).toBe('notSealed');
    expect((await bench.sign()).statusCode).toBe(201);
  });

  it('is a chain of its own that begins with the seal; sent twice it stands once', async () => {
    const id = randomUUID();
    const first = await add('labelFixed', { where: 'Stem' }, teo, id);
    expect(first.statusCode).toBe(200);
    expect((await add('labelFixed', { where: 'Stem' }, teo, id)).json<HandoverView>().entries).toHaveLength(1);
    await add('wentAlong', { things: ['charger', '2 keys'] });
    const view = (await teo.get(`/api/visits/${bench.visitId}/handover`)).json<HandoverView>();
    expect(view.entries[0]!.prevHash).toBe(view.seal);
    expect(view.state).toMatchObject({ seq: 2, label: { where: 'Stem' }, things: ['charger', '2 keys'], out: null });
    const changed = view.entries.map((entry, i) =>
      i === 0 ? { ...entry, data: { where: 'Fork' } } : entry,
    ) as HandoverEntry[];
    expect(foldHandover(view.seal, changed)).toMatchObject({ ok: false, problem: { code: 'changed' } });
    expect(foldHandover(view.seal, view.entries.slice(1))).toMatchObject({ ok: false, problem: { code: 'missing' } });
  });

  it('names the photograph of the label by the hash of what is kept, and no other', async () => {
    const photoId = randomUUID();
    const payload = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#386' } })
      .jpeg()
      .toBuffer();
    const headers = { cookie: teo.cookie, 'content-type': 'image/jpeg' };
    const url = `/api/units/${bench.unitId}/visits/${bench.visitId}/photos/${photoId}`;
    const { sha256 } = (await server.app.inject({ method: 'PUT', url, headers, payload })).json<PhotoKept>();
    const foreign = await add('labelFixed', { where: 'Stem', photo: { photoId, sha256: '0'.repeat(64) } });
    expect(errorOf(foreign).code).toBe('photoMissing');
    const named = await add('labelFixed', { where: 'Stem', photo: { photoId, sha256 } });
    expect(named.json<HandoverView>().state.label).toEqual({ where: 'Stem', photo: { photoId, sha256 } });
    const check = () => teo.post(`/api/visits/${bench.visitId}/seal-check`, {});
    expect((await check()).json()).toMatchObject({ holds: true });
    await asDatabaseOwner(server, `UPDATE photo SET body = CONCAT(body, 'x') WHERE id = '${photoId}'`);
    expect((await check()).json<{ says: string }>().says).toContain('is not the one that was sealed');
    await asDatabaseOwner(server, `UPDATE photo SET body = LEFT(body, LENGTH(body) - 1) WHERE id = '${photoId}'`);
  });

  it.each([
    ['the digits of a PIN', 'pinTold', { opens: 'menu', to: '4711' }],
    ['a signature that is none', 'received', { name: 'R. Maddock', strokes: [[[2, 0.5]]] }],
    ['nobody', 'received', { name: ' ', strokes }],
    ['an unsigned one without a why', 'unsigned', { name: 'Porter', words: '' }],
    ['a paper without its hash', 'paperMade', { paper: 'label', language: null, sha256: 'x' }],
  ])('refuses %s', async (_, kind, data) => {
    expect(errorOf(await add(kind, data)).code).toBe('badFields');
  });

  it('a dot is no signature', async () => {
    expect(errorOf(await add('received', { name: 'R. Maddock', strokes: [[[0.5, 0.5]]] })).code).toBe('notHandedOver');
  });

  it('makes the unit count as out, and closes; the record beneath stays as it was sealed', async () => {
    const before = (await teo.get(`/api/visits/${bench.visitId}`)).json<{ seal: string }>().seal;
    expect((await add('received', { name: 'R. Maddock', strokes }, ines)).statusCode).toBe(200);
    const { units } = (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>();
    expect(units[0]).toMatchObject({ status: 'sealed', handedTo: 'R. Maddock', ladder: expect.stringMatching(/d$/) });
    expect(errorOf(await add('labelFixed', { where: 'Fork' })).message).toContain('handed over to R. Maddock already');
    expect((await teo.get(`/api/visits/${bench.visitId}`)).json<{ seal: string }>().seal).toBe(before);
    expect((await teo.post(`/api/visits/${bench.visitId}/seal-check`, {})).json()).toMatchObject({ holds: true });
  });

  it('an entry changed in the database is found, and said', async () => {
    await asDatabaseOwner(
      server,
      `UPDATE handover_entry SET body = JSON_SET(body, '$.data.where', 'Fork') WHERE visitId = '${bench.visitId}' AND seq = 1`,
    );
    const check = (await teo.post(`/api/visits/${bench.visitId}/seal-check`, {})).json<{
      holds: boolean;
      says: string;
    }>();
    expect(check).toMatchObject({ holds: false });
    expect(check.says).toContain('was changed after it was written');
  });
});

describe('papers', () => {
  it('say what they hold, and are drawn for sealed and begun units alike', async () => {
    const view = (await teo.get(`/api/visits/${bench.visitId}/papers`)).json<PapersView>();
    expect(view).toMatchObject({ isSealed: true, order: { number: 'hand' }, cameWith: ['charger'] });
    expect(view.cards.map(({ language }) => language)).toEqual(['en', 'de', 'fr', 'es']);
    for (const name of ['certificate', 'label', 'rider-card', 'tag', 'papers']) {
      const answer = await teo.get(`/api/visits/${bench.visitId}/${name}.pdf?language=fr&size=large`);
      expect([name, answer.statusCode, answer.headers['content-type']]).toEqual([name, 200, 'application/pdf']);
      expect(answer.headers['x-paper-sha256']).toMatch(/^[0-9a-f]{64}$/);
    }
    expect((await teo.get(`/api/orders/${orderId}/delivery-note.pdf`)).rawPayload.subarray(0, 5).toString()).toBe(
      '%PDF-',
    );
  });

  it('are the same bytes each time they are made of a sealed unit', async () => {
    const hash = async () => (await teo.get(`/api/visits/${bench.visitId}/rider-card.pdf`)).headers['x-paper-sha256'];
    expect(await hash()).toBe(await hash());
  });

  it('say what was sealed, whatever the order says since', async () => {
    const papers = async () => (await teo.get(`/api/visits/${bench.visitId}/papers`)).json<PapersView>();
    const { label, cards } = await papers();
    const set = (classId: string) =>
      asDatabaseOwner(server, `UPDATE customer_order SET classId = ${classId} WHERE id = '${orderId}'`);
    await set("CONCAT('x-', classId)");
    const after = await papers();
    await set('SUBSTRING(classId, 3)');
    expect(after).toMatchObject({ label, cards });
  });

  it('the labels of an order stand on sheets, those of units that are signed off alone', async () => {
    const sheet = (at: number, size = 'usual') => teo.get(`/api/orders/${orderId}/labels.pdf?size=${size}&sheet=${at}`);
    const pages = await seenPdf((await sheet(1)).rawPayload);
    expect(pages).toHaveLength(1);
    expect(saidBy(pages)).toContain('S-hand-1');
    expect(saidBy(pages)).not.toContain('S-hand-2');
    expect((await sheet(2)).statusCode).toBe(404);
    expect((await sheet(0)).statusCode).toBe(400);
    expect((await sheet(1, 'huge')).statusCode).toBe(400);
  });

  it('in a language or at a size that there is not are refused, and so is what is nobody’s', async () => {
    expect((await teo.get(`/api/visits/${bench.visitId}/rider-card.pdf?language=xx`)).statusCode).toBe(400);
    expect((await teo.get(`/api/visits/${randomUUID()}/tag.pdf`)).statusCode).toBe(404);
    expect((await server.app.inject({ url: `/api/visits/${bench.visitId}/tag.pdf` })).statusCode).toBe(401);
  });
});

describe('a second signature', () => {
  async function atSignOff(): Promise<Bench> {
    const shelf = (await ines.get('/api/library/houseRules')).json<{ document: { choices: object } }[]>();
    const document = { ...shelf[0]!.document, choices: { ...shelf[0]!.document.choices, signers: 'two' } };
    await ines.post('/api/library', { kind: 'houseRules', document });
    const { units } = (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>();
    const second = await new Bench(teo, units[1]!.id).open();
    return second.toSignOff();
  }
  const beside = (at: Bench, name: string, password: string) =>
    teo.post(`/api/units/${at.unitId}/visits/${at.visitId}/countersignature`, {
      id: randomUUID(),
      seq: at.state.seq + 1,
      at: new Date().toISOString(),
      name,
      password,
      words: '',
    });

  it('is by another person with their own password, on the same stand; the first stays signed in', async () => {
    const at = await atSignOff();
    expect(errorOf(await at.sign()).code).toBe('secondMissing');
    expect(errorOf(await beside(at, 'lead', 'wrong')).code).toBe('wrongSecond');
    expect(errorOf(await beside(at, 'technician', PASSWORD)).code).toBe('samePerson');
    const signed = await beside(at, 'lead', PASSWORD);
    expect(signed.statusCode).toBe(201);
    expect(signed.json()).toMatchObject({ kind: 'countersigned', station: 'bay 7', by: { role: 'lead' } });
    at.evidence.push(signed.json<Evidence>());
    expect((await at.sign()).statusCode).toBe(201);
    expect((await teo.get('/api/sessions')).statusCode).toBe(200);
  });

  it('cannot be written by a client of its own', async () => {
    const { units } = (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>();
    const third = await new Bench(teo, units[2]!.id).open();
    await third.toSignOff();
    expect((await third.send(third.draft('countersigned' as never, { words: '' }))).statusCode).toBe(400);
  });
});
