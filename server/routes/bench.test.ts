import { createHash, randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  foldAll,
  setupAnew,
  verifyChain,
  visitAhead,
  type Evidence,
  type ReviseSetup,
  type Unnumbered,
} from '@decurio/core';
import type { BenchView, EntryTaken, LineUnit, LineView, PhotoKept, UnitFound } from '@decurio/contract';
import { buildApp } from '../app.js';
import { PHOTO_LIMITS } from '../store/photos.js';
import {
  Bench,
  CHECK_IN,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  testConfig,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let teo: Person;
let ines: Person;
let units: readonly LineUnit[];
let orderId: string;
let taken = 0;
beforeAll(async () => {
  server = await startTestServer();
  ines = await signInAs(server, 'lead');
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const order = await takeOrder(
    teo,
    orderFile(Array.from({ length: 30 }, (_, i) => `S26-${String(i + 1).padStart(4, '0')}`)),
  );
  ({ units } = order);
  orderId = order.taken.orderId;
});
afterAll(() => server.close());

const nextUnit = (): LineUnit => units[taken++]!;
const newBench = () => new Bench(teo, nextUnit().id).open();
const onLine = async (unitId: string) =>
  (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>().units.find((u) => u.id === unitId)!;

describe('a visit', () => {
  it('opens with a setup compiled from the library, and names the versions it used', async () => {
    const bench = await newBench();
    const { opened } = bench.state;
    expect(opened.versions.map).toMatchObject({ id: 'tallow-four-key', version: 1, revision: 'C' });
    expect(opened.setup.targets.find((t) => t.label === 'L4.1')).toMatchObject({
      raw: 24,
      because: '25 km/h: the class. Drive acts 0.3 km/h beyond the cap, so 24.',
    });
    expect(bench.state.toKey).toEqual(['L1.1', 'L1.2', 'L2.1', 'L2.4', 'L4.1', 'L4.3', 'L5.2', 'L6.1']);
  });

  it('keeps its setup when the library moves on, and the next one uses the new version', async () => {
    const before = await newBench();
    const shelf = (await ines.get('/api/library/houseRules')).json<{ document: { choices: object } }[]>();
    const document = { ...shelf[0]!.document, choices: { ...shelf[0]!.document.choices, walk: 'on' } };
    expect((await ines.post('/api/library', { kind: 'houseRules', document })).json()).toMatchObject({ version: 2 });
    const after = await newBench();
    const walk = (bench: Bench) => bench.state.opened.setup.targets.find((t) => t.label === 'L5.2')?.raw;
    expect([walk(before), walk(after)]).toEqual([51, 52]);
    expect(after.state.opened.versions.houseRules.version).toBe(2);
    expect(errorOf(await ines.post('/api/library', { kind: 'houseRules', document })).code).toBe('sameDocument');
  });

  it('goes from check-in to the seal, and Line and the serial follow it', async () => {
    const bench = await newBench();
    await bench.toSignOff();
    expect(await onLine(bench.unitId)).toMatchObject({
      status: 'open',
      step: 'signOff',
      ladder: 'ddddddldnt',
      worker: 'The technician',
      station: 'bay 7',
    });
    const sealedBefore = (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>().order.sealed;
    expect((await bench.sign('ready')).statusCode).toBe(201);
    const line = (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>();
    expect(line.order.sealed).toBe(sealedBefore + 1);
    const { serial } = await onLine(bench.unitId);
    expect((await teo.get(`/api/units?serial=${serial.toLowerCase()}`)).json<UnitFound>()).toMatchObject({
      status: 'sealed',
      visitId: bench.visitId,
    });
    expect(errorOf(await bench.send(bench.draft('held', { reason: 'other', words: 'too late' }))).code).toBe('sealed');
  });

  it('of a sealed unit frees its serial for a later order', async () => {
    const bench = await newBench();
    await bench.toSignOff();
    expect((await bench.sign()).statusCode).toBe(201);
    const { serial } = await onLine(bench.unitId);
    const later = await takeOrder(teo, orderFile([serial], '2699'));
    expect(later.units).toHaveLength(1);
    expect((await teo.get(`/api/units?serial=${serial}`)).json<UnitFound>().orderNumber).toBe('2699');
  });

  it('is one a unit, and opening it again with the same ids is harmless', async () => {
    const unit = nextUnit();
    const body = { visitId: randomUUID(), entryId: randomUUID(), at: new Date().toISOString() };
    const one = await teo.post(`/api/units/${unit.id}/visits`, body);
    const two = await teo.post(`/api/units/${unit.id}/visits`, body);
    expect(two.json<Evidence>().hash).toBe(one.json<Evidence>().hash);
    expect(
      errorOf(
        await ines.post(`/api/units/${unit.id}/visits`, { ...body, visitId: randomUUID(), entryId: randomUUID() }),
      ).code,
    ).toBe('visitOpen');
  });
});

describe('an entry', () => {
  it('sent twice is kept once', async () => {
    const bench = await newBench();
    const draft = bench.draft('checkedIn', CHECK_IN);
    const [one, two] = await Promise.all([bench.send(draft), bench.send(draft)]);
    expect([one.statusCode, two.statusCode].sort()).toEqual([200, 201]);
    expect(one.json()).toEqual(two.json());
    const evidence = (await teo.get(`/api/units/${bench.unitId}/bench`)).json<BenchView>().evidence;
    expect(evidence).toHaveLength(2);
  });

  it('under an id that says something else already is refused', async () => {
    const bench = await newBench();
    const draft = bench.draft('checkedIn', CHECK_IN);
    await bench.send(draft);
    const changed = await bench.send({ ...draft, data: { ...CHECK_IN, packV: 38 } } as typeof draft);
    expect(errorOf(changed).code).toBe('idReused');
    const other = await newBench();
    expect(errorOf(await other.send(draft)).code).toBe('idReused');
  });

  it('with a stale seq is refused with the one error shape, whoever is second', async () => {
    const bench = await newBench();
    await bench.toKeyIn();
    const mine = bench.draft('codeSeen', { label: 'L1.1', raw: 11 });
    const theirs = bench.draft('codeSeen', { label: 'L1.2', raw: 4 });
    const answers = await Promise.all([bench.send(mine), bench.send(theirs, ines)]);
    expect(answers.map((a) => a.statusCode).sort()).toEqual([201, 409]);
    expect(errorOf(answers.find((a) => a.statusCode === 409)!)).toMatchObject({
      code: 'staleSeq',
      message: expect.stringContaining('newer state'),
    });
  });

  it('for a visit of another unit or order is refused', async () => {
    const [a, b] = [await newBench(), await newBench()];
    const answer = await teo.post(
      `/api/units/${a.unitId}/visits/${b.visitId}/evidence`,
      b.draft('checkedIn', CHECK_IN),
    );
    expect(answer.statusCode).toBe(409);
    expect(errorOf(answer).code).toBe('otherVisit');
    const nowhere = await teo.post(
      `/api/units/${a.unitId}/visits/${randomUUID()}/evidence`,
      a.draft('checkedIn', CHECK_IN),
    );
    expect(errorOf(nowhere).code).toBe('visitNotFound');
  });

  it('that cannot follow is refused in the words of the visit', async () => {
    const bench = await newBench();
    const answer = await bench.send(bench.draft('restarted', { acts: ['x'] }));
    expect(answer.statusCode).toBe(409);
    expect(errorOf(answer)).toEqual({ code: 'wrongStep', message: 'This unit is at check in now.' });
  });

  it('with fields that make no sense names each of them', async () => {
    const bench = await newBench();
    const answer = await bench.send(
      bench.draft('checkedIn', { ...CHECK_IN, packV: -1, revisionConfirmed: false, colour: 'red' }),
    );
    expect(answer.statusCode).toBe(400);
    expect(Object.keys(errorOf(answer).fields ?? {})).toEqual(
      expect.arrayContaining(['data.packV', 'data.revisionConfirmed']),
    );
  });

  it('from a clock far ahead is refused', async () => {
    const bench = await newBench();
    const draft = { ...bench.draft('checkedIn', CHECK_IN), at: new Date(Date.now() + 3_600_000).toISOString() };
    expect(errorOf(await bench.send(draft)).code).toBe('clockAhead');
  });

  it('is refused signed out, as broken JSON, and when far too large, each in the one shape', async () => {
    const bench = await newBench();
    const url = `/api/units/${bench.unitId}/visits/${bench.visitId}/evidence`;
    const out = await server.app.inject({ method: 'POST', url, payload: bench.draft('checkedIn', CHECK_IN) });
    expect([out.statusCode, errorOf(out).code]).toEqual([401, 'signedOut']);
    const headers = { cookie: teo.cookie, 'content-type': 'application/json' };
    const broken = await server.app.inject({ method: 'POST', url, headers, payload: '{"id": ' });
    expect([broken.statusCode, errorOf(broken).code]).toEqual([400, 'badJson']);
    const large = await server.app.inject({
      method: 'POST',
      url,
      headers,
      payload: JSON.stringify({ x: 'x'.repeat(300_000) }),
    });
    expect([large.statusCode, errorOf(large).code]).toEqual([413, 'tooLarge']);
    const media = await server.app.inject({
      method: 'POST',
      url,
      headers: { ...headers, 'content-type': 'text/plain' },
      payload: 'x',
    });
    expect([media.statusCode, errorOf(media).code]).toEqual([415, 'wrongMedia']);
  });

  it('releasing a held unit needs a lead', async () => {
    const bench = await newBench();
    await bench.act('held', { reason: 'damage', words: 'bent fork' });
    expect((await onLine(bench.unitId)).heldWords).toBe('bent fork');
    const draft = bench.draft('released', { words: 'fork changed' });
    expect((await bench.send(draft)).statusCode).toBe(403);
    expect((await bench.send(draft, ines)).statusCode).toBe(201);
    expect((await onLine(bench.unitId)).status).toBe('open');
  });
});

describe('what was found', () => {
  it('works the setup out anew, in an entry that names the one it follows from, and once however often it is sent', async () => {
    const bench = await newBench();
    await bench.act('checkedIn', CHECK_IN);
    await bench.makeSafe();
    await bench.readFound({ 'L7.1': 30 });
    const draft = bench.draft('asFoundClosed', {});
    const [first, again] = [await bench.send(draft), await bench.send(draft)];
    expect([first.statusCode, again.statusCode]).toEqual([201, 200]);
    const taken = first.json<EntryTaken>();
    expect(again.json()).toEqual(taken);
    expect(taken.followed.map(({ kind }) => kind)).toEqual(['setupRevised']);
    expect(taken.followed[0]?.data).toMatchObject({ cause: draft.id, why: 'Held against what was found' });
    bench.keep(first);
    expect(bench.state.opened.setup.findings).toContainEqual(expect.objectContaining({ label: 'L7.1' }));
    expect((await teo.get(`/api/units/${bench.unitId}/bench`)).json<BenchView>().evidence).toHaveLength(
      bench.evidence.length,
    );
  });

  it('is what a stand without its server makes of it too, from what it was told', async () => {
    const bench = await newBench();
    await bench.act('checkedIn', CHECK_IN);
    await bench.makeSafe();
    await bench.readFound({ 'L7.1': 30 });
    const { map, ground, evidence } = (await teo.get(`/api/units/${bench.unitId}/bench`)).json<BenchView>();
    const draft = bench.draft('asFoundClosed', {});
    const { by, station, visitId } = evidence[0]!;
    const waiting = { ...draft, by, station, visitId };
    const fold = foldAll(evidence);
    const revise: ReviseSetup = (state, why, cause) => ground && setupAnew(state, map, ground, why, cause);
    const ahead = fold.ok ? visitAhead(fold.value, [waiting as Unnumbered], revise) : null;
    bench.keep(await bench.send(draft));
    expect(bench.evidence.at(-1)?.kind).toBe('setupRevised');
    expect(ahead?.state.opened).toEqual(bench.state.opened);
    expect(ahead?.state.seq).toBe(bench.state.seq);
  });

  it('of the first three of a batch is read in full, then by sample until something surprises', async () => {
    const rows = Array.from({ length: 6 }, (_, i) => `S27-000${i + 1}`);
    const batch = (await takeOrder(teo, orderFile(rows, '2651'))).units;
    const reads: number[] = [];
    for (const [i, unit] of batch.entries()) {
      const bench = await new Bench(teo, unit.id).open();
      reads.push(bench.state.toFind.length);
      await bench.toKeyIn(i === 3 ? { 'L4.1': 28 } : {});
    }
    const [full] = reads;
    expect(reads.slice(0, 3)).toEqual([full, full, full]);
    expect(reads[3]).toBeLessThan(full!);
    expect(reads.slice(4)).toEqual([full, full]);
  });
});

describe('a code that does not change', () => {
  const heldWith = async (shows: number, stuck = 'L4.1') => {
    const bench = await newBench();
    await bench.toKeyIn(stuck === 'L4.1' ? {} : { [stuck]: shows });
    for (const label of bench.state.toKey) {
      const { values: known, opened } = bench.state;
      if (label === stuck) await bench.act('codeStuck', { label, raw: shows });
      else
        await bench.act('codeKeyed', {
          label,
          fromRaw: known[label],
          raw: opened.setup.targets.find((t) => t.label === label)?.raw,
          presses: 2,
        });
    }
    await bench.act('keyInClosed');
    await bench.act('restarted', { acts: ['Off and on.'] });
    for (const label of bench.state.toRead)
      for (let n = 0; n < (label === stuck ? 2 : 1); n++)
        await bench.act('codeRead', { label, raw: label === stuck ? shows : bench.state.values[label] });
    await bench.act('readBackClosed');
    return bench;
  };

  it('above the limit cannot be accepted, and the lead is told what it would mean', async () => {
    const bench = await heldWith(30);
    const view = (await ines.get(`/api/units/${bench.unitId}/bench`)).json<BenchView>();
    expect(view.ifAccepted).toContainEqual(expect.objectContaining({ level: 'stop', label: 'L4.1' }));
    const refused = await bench.send(
      bench.draft('released', { words: 'let it be', decision: { way: 'accept', labels: ['L4.1'] } }),
      ines,
    );
    expect(errorOf(refused)).toMatchObject({ code: 'cannotAccept', message: expect.stringContaining('30') });
    const open = await bench.send(bench.draft('released', { words: 'let it be', decision: { way: 'accept' } }), ines);
    expect(errorOf(open).fields).toMatchObject({ 'data.decision.labels': 'Say which codes are accepted.' });
  });

  it('that is the wheel brings the cap down with it: no unit goes on with a cap for a wheel that it does not have', async () => {
    const bench = await heldWith(20, 'L3.2');
    const capOf = () => bench.state.opened.setup.targets.find(({ label }) => label === 'L4.1')?.raw;
    expect([bench.state.step, capOf()]).toEqual(['readBack', 24]);
    bench.keep(
      await bench.send(
        bench.draft('released', {
          words: 'The wheel code is locked on these.',
          decision: { way: 'accept', labels: ['L3.2'] },
        }),
        ines,
      ),
    );
    expect(bench.evidence.at(-1)).toMatchObject({
      kind: 'setupRevised',
      data: { why: 'Codes let stand as they show' },
    });
    // 47-559 rolls 2,092 mm at most, 20 in count 1,596: (V + 0.3) / 0.763 within 25.
    expect(bench.state).toMatchObject({
      step: 'keyIn',
      toKey: ['L4.1'],
      accepted: { 'L3.2': { raw: 20, by: 'The lead' } },
    });
    expect(capOf()).toBe(18);
  });

  it('below it can: the record says who let it stand, and why', async () => {
    const bench = await heldWith(22);
    bench.keep(
      await bench.send(
        bench.draft('released', { words: 'Slower is fine for them.', decision: { way: 'accept', labels: ['L4.1'] } }),
        ines,
      ),
    );
    await bench.makeSafe();
    await bench.act('readBackClosed');
    expect(bench.state).toMatchObject({ step: 'calibrate', accepted: { 'L4.1': { raw: 22, by: 'The lead' } } });
  });
});

describe('a photograph', () => {
  const jpeg = (size = 800) =>
    sharp({ create: { width: size, height: 400, channels: 3, background: '#386' } })
      .jpeg()
      .toBuffer();
  const keep = (bench: Bench, id: string, body: Buffer, type = 'image/jpeg') =>
    server.app.inject({
      method: 'PUT',
      url: `/api/units/${bench.unitId}/visits/${bench.visitId}/photos/${id}`,
      headers: { cookie: teo.cookie, 'content-type': type },
      payload: body,
    });

  it('is drawn anew and kept, and the hash of what is kept stands in the evidence', async () => {
    const bench = await newBench();
    const [id, body] = [
      randomUUID(),
      await sharp(await jpeg())
        .withExif({ IFD3: { GPSLatitudeRef: 'N' } })
        .jpeg()
        .toBuffer(),
    ];
    const kept = (await keep(bench, id, body)).json<PhotoKept>();
    expect(kept).toMatchObject({ id, widthPx: 800, heightPx: 400 });
    expect((await keep(bench, id, body)).json()).toEqual(kept);
    await bench.act('photographed', { photoId: id, subject: 'damage', sha256: kept.sha256, words: 'scratch' });
    const { rawPayload } = await teo.get(`/api/photos/${id}`);
    expect(createHash('sha256').update(rawPayload).digest('hex')).toBe(kept.sha256);
    expect((await sharp(rawPayload).metadata()).exif).toBeUndefined();
  });

  it('that is none is refused in words, and one that is too large is made small', async () => {
    const bench = await newBench();
    const answers = [
      await keep(bench, randomUUID(), Buffer.from('no picture')),
      await keep(bench, randomUUID(), Buffer.alloc(0)),
      await keep(
        bench,
        randomUUID(),
        await sharp(await jpeg())
          .png()
          .toBuffer(),
      ),
      await keep(bench, randomUUID(), Buffer.from('{}'), 'application/json'),
    ];
    expect(answers.map((answer) => answer.statusCode)).toEqual([400, 400, 400, 415]);
    expect((await keep(bench, randomUUID(), await jpeg(1700))).json<PhotoKept>().widthPx).toBe(1600);
  });

  it('is one of few: a visit keeps so many and no more', async () => {
    const bench = await newBench();
    const body = await jpeg(64);
    const codes = [];
    for (let i = 0; i <= PHOTO_LIMITS.perVisit.photos; i++)
      codes.push((await keep(bench, randomUUID(), body)).statusCode);
    expect(codes.slice(0, -1).every((code) => code === 200)).toBe(true);
    expect(codes.at(-1)).toBe(409);
  });

  it('must have arrived before an entry names it, with its own hash', async () => {
    const bench = await newBench();
    const entry = (photoId: string, sha256: string) =>
      bench.send(bench.draft('photographed', { photoId, subject: 'display', sha256, words: '' }));
    expect(errorOf(await entry(randomUUID(), 'a'.repeat(64))).code).toBe('photoMissing');
    const id = randomUUID();
    await keep(bench, id, await jpeg());
    expect(errorOf(await entry(id, 'a'.repeat(64))).code).toBe('photoMissing');
  });
});

describe('two servers on one database', () => {
  it('take entries of one visit in turn, and its chain stays whole', async () => {
    const second = await buildApp(testConfig(server.applicationUrl));
    try {
      const bench = await newBench();
      await bench.toKeyIn();
      const before = bench.evidence.length;
      const drafts = Array.from({ length: 12 }, (_, i) => ({
        id: randomUUID(),
        kind: 'codeSeen',
        at: new Date().toISOString(),
        data: { label: 'L1.2', raw: (i % 5) + 1 },
      }));
      const url = `/api/units/${bench.unitId}/visits/${bench.visitId}/evidence`;
      const write = async (draft: (typeof drafts)[number], app: typeof second) => {
        for (let seq = before + 1; ; seq++) {
          const answer = await app.inject({
            method: 'POST',
            url,
            headers: { cookie: teo.cookie },
            payload: { ...draft, seq },
          });
          if (answer.statusCode === 201) return;
          expect(errorOf(answer).code).toBe('staleSeq');
          if (seq > before + 40) seq = before;
        }
      };
      await Promise.all(drafts.map((draft, i) => write(draft, i % 2 === 0 ? server.app : second)));
      const { evidence } = (await teo.get(`/api/units/${bench.unitId}/bench`)).json<BenchView>();
      expect(evidence).toHaveLength(before + 12);
      expect(verifyChain(evidence).ok).toBe(true);
    } finally {
      await second.close();
    }
  });
});
