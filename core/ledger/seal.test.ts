import fc from 'fast-check';
import { base64 } from '@scure/base';
import { describe, expect, it } from 'vitest';
import type { Evidence } from '../bench/evidence.js';
import { cleanVisit, deedsOf } from '../testing/visit-script.js';
import { checkpointLeaf, checkpointText, signedNote } from './checkpoint.js';
import { includeLeaf } from './inclusion.js';
import { merkleTree } from './merkle.js';
import { checkRecord, makeRecord } from './record.js';
import { canonicalJson, hashOf } from './canonical-json.js';
import { asSealed, CHAIN_START, sealedWithText, sealEvidence, shortSeal, verifyChain } from './seal.js';

const chain = (): Evidence[] => {
  const entries: Evidence[] = [];
  for (const deed of deedsOf(cleanVisit)) entries.push(sealEvidence(deed, entries.at(-1)?.hash ?? CHAIN_START));
  return entries;
};

describe('canonical JSON', () => {
  it('is that of RFC 8785: keys sorted by UTF-16, numbers as ECMAScript writes them', () => {
    expect(canonicalJson({ b: 1e30, a: 4.5, '€': '\u000f', '1': [56, { d: true, 10: null }] })).toBe(
      '{"1":[56,{"10":null,"d":true}],"a":4.5,"b":1e+30,"€":"\\u000f"}',
    );
  });

  it.each([
    ['a lone surrogate', { a: 'x\ud83d' }],
    ['the other half alone', ['\ude00']],
    ['half a letter in a key', { '\ud800': 1 }],
    ['undefined', undefined],
    ['an undefined field', { a: undefined }],
    ['undefined in a list', [1, undefined]],
    // eslint-disable-next-line no-sparse-arrays
    ['a hole', [1, , 2]],
    ['a function', { a: () => 1 }],
    ['a symbol', { a: Symbol('x') }],
    ['a field named by a symbol', { [Symbol('x')]: 1 }],
    ['a bigint', { a: 1n }],
    ['NaN', { a: NaN }],
    ['an endless figure', [Infinity]],
    ['a date', { a: new Date(0) }],
    ['a map', new Map()],
    ['what makes itself JSON', { toJSON: () => 'x' }],
  ])('refuses %s', (_what, value) => {
    expect(() => hashOf(value)).toThrow();
  });

  it('takes whatever JSON can say, and says it so that it reads back the same', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 5, stringUnit: 'binary' }), (value) => {
        if (/\p{Surrogate}/u.test(JSON.stringify(value))) return;
        expect(JSON.parse(canonicalJson(value))).toEqual(JSON.parse(JSON.stringify(value)));
      }),
    );
  });

  it('of an entry is the text that it is stored by, and without the hash the one that is hashed', () => {
    const received = fc.record(
      { receivedAt: fc.constant('2026-03-02T08:00:01.000Z'), clockOffS: fc.integer() },
      { requiredKeys: [] },
    );
    const named = fc.record({ nameSha256: fc.constant('ab'.repeat(32)) }, { requiredKeys: [] });
    fc.assert(
      fc.property(fc.constantFrom(...deedsOf(cleanVisit)), received, named, fc.string(), (deed, said, apart, words) => {
        const by = { ...deed.by, ...apart };
        const whole = { ...deed, ...said, by, data: { ...deed.data, words } } as typeof deed;
        const { entry, text } = sealedWithText(whole, CHAIN_START);
        expect(text).toBe(canonicalJson(asSealed(entry)));
        const { hash, ...unhashed } = asSealed(entry);
        expect(hash).toBe(hashOf(unhashed));
      }),
    );
  });

  it('hashes to the SHA-256 of its UTF-8', () => {
    expect(hashOf({})).toBe('44136fa355b3678a1146ad16f7e8649e94fb4fc21fe77e8310c060f61caaff8a');
  });
});

describe('a chain of evidence', () => {
  it('holds as it was written, and ends in its seal', () => {
    const entries = chain();
    expect(verifyChain(entries)).toEqual({ ok: true, entries: entries.length, headHash: entries.at(-1)?.hash });
  });

  it("does not depend on the order of an object's keys", () => {
    const entries = chain().map((entry) => Object.fromEntries(Object.entries(entry).reverse()) as unknown as Evidence);
    expect(verifyChain(entries).ok).toBe(true);
  });

  it('shows any change to any entry at that entry', () => {
    const entries = chain();
    fc.assert(
      fc.property(
        fc.nat(entries.length - 1),
        fc.constantFrom('at', 'station', 'kind', 'id', 'data', 'by'),
        (index, field) => {
          const forged = structuredClone(entries) as unknown as Record<string, unknown>[];
          forged[index]![field] = field === 'data' || field === 'by' ? { forged: true } : 'forged';
          expect(verifyChain(forged as unknown as Evidence[])).toMatchObject({ ok: false, seq: index + 1 });
        },
      ),
      { seed: 1 },
    );
  });

  it('covers what the server says of an entry, and shows whatever it does not cover', () => {
    const entries: Evidence[] = [];
    for (const deed of deedsOf(cleanVisit))
      entries.push(
        sealEvidence(
          { ...deed, receivedAt: '2026-11-24T10:00:00.000Z', clockOffS: -400 },
          entries.at(-1)?.hash ?? CHAIN_START,
        ),
      );
    expect(verifyChain(entries).ok).toBe(true);
    for (const over of [
      { receivedAt: '2026-11-25T10:00:00.000Z' },
      { clockOffS: 0 },
      { receivedAt: undefined },
      { note: 'added' },
    ]) {
      const forged = entries.map((entry, i) => (i === 4 ? ({ ...entry, ...over } as unknown as Evidence) : entry));
      expect(verifyChain(forged)).toMatchObject({ ok: false, seq: 5 });
    }
  });

  it('shows an entry left out, one swapped, and a tail cut off against the printed seal', () => {
    const entries = chain();
    const seal = entries.at(-1)!.hash;
    expect(verifyChain(entries.filter((_, i) => i !== 3))).toMatchObject({ ok: false, seq: 4 });
    const swapped = [...entries];
    [swapped[2], swapped[3]] = [
      { ...swapped[3]!, seq: 3 },
      { ...swapped[2]!, seq: 4 },
    ];
    expect(verifyChain(swapped)).toMatchObject({ ok: false, seq: 3 });
    expect(verifyChain(entries.slice(0, -1)).ok).toBe(true);
    expect(verifyChain(entries.slice(0, -1), seal).ok).toBe(false);
    expect(verifyChain([])).toMatchObject({ ok: false });
  });
});

describe('a record', () => {
  it('is whole in itself', () => {
    const record = makeRecord(chain());
    expect(checkRecord(JSON.parse(JSON.stringify(record)))).toEqual({
      ok: true,
      entries: chain().length,
      seal: record.seal,
      checkpoint: null,
    });
  });

  it('shows by itself where its seal stands in a checkpoint, and nowhere else', () => {
    const plain = makeRecord(chain());
    const own = { visitId: plain.visitId, seq: chain().length, hash: plain.seal };
    const others = Array.from({ length: 11 }, (_, i) => ({ ...own, visitId: `other-${i}` }));
    const tree = merkleTree([...others.slice(0, 6), own, ...others.slice(6)].map(checkpointLeaf));
    const root = base64.encode(tree.at(-1)![0]!);
    const note = signedNote(checkpointText({ origin: 'house', size: 12, root }), 'house', 'AAAA');
    const record = makeRecord(chain(), {}, includeLeaf(tree, 6, note));
    expect(checkRecord(record)).toMatchObject({ ok: true, checkpoint: { origin: 'house', size: 12 } });
    const { inclusion } = record;
    for (const wrong of [
      { ...inclusion, index: 5 },
      { ...inclusion, proof: inclusion!.proof.slice(1) },
      { ...inclusion, proof: ['!', ...inclusion!.proof.slice(1)] },
      { ...inclusion, checkpoint: note.replace('12', '5') },
      { ...inclusion, more: 1 },
      null,
      [],
      'x',
    ])
      expect(checkRecord({ ...record, inclusion: wrong })).toMatchObject({ ok: false });
  });

  it('is refused when its cover, its entries or its sense were changed', () => {
    const record = makeRecord(chain());
    expect(checkRecord({ ...record, serial: 'S26-9999' })).toMatchObject({
      ok: false,
      says: expect.stringContaining('cover'),
    });
    expect(checkRecord({ ...record, seal: '0'.repeat(64) }).ok).toBe(false);
    expect(checkRecord({ ...record, sealedAt: '2026-01-01T00:00:00.000Z' }).ok).toBe(false);
    expect(checkRecord({ ...record, customer: 'Another' })).toMatchObject({
      ok: false,
      says: expect.stringContaining('no seal covers'),
    });
    const reading = structuredClone(record) as unknown as { evidence: { kind: string; data: { raw: number } }[] };
    reading.evidence.find((e) => e.kind === 'codeRead')!.data.raw = 12;
    expect(checkRecord(reading)).toMatchObject({ ok: false, says: expect.stringContaining('was changed') });
  });

  it('is refused when the chain is whole but a step is missing among its entries', () => {
    const deeds = deedsOf(cleanVisit.filter(([kind]) => kind !== 'restarted'));
    const entries: Evidence[] = [];
    for (const deed of deeds) entries.push(sealEvidence(deed, entries.at(-1)?.hash ?? CHAIN_START));
    expect(checkRecord(makeRecord(entries))).toMatchObject({
      ok: false,
      says: expect.stringContaining('not signed off'),
    });
  });

  it.each([
    null,
    4,
    'x',
    {},
    { format: 'decurio-record/1' },
    { format: 'decurio-record/1', seal: 'x', evidence: [null] },
    { format: 'decurio-record/1', seal: 'x', evidence: [] },
  ])('is refused, not thrown at, when it is %j', (data) => {
    expect(checkRecord(data).ok).toBe(false);
  });
});

it('shortens a seal to four groups of four', () => {
  expect(shortSeal('0123456789abcdef'.repeat(4))).toBe('0123 4567 89ab cdef');
});
