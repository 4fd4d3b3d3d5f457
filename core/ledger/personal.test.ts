import { describe, expect, it } from 'vitest';
import type { Actor, Evidence } from '../bench/evidence.js';
import { asChained, chainHandover, foldHandover, type HandoverEntry } from '../handover/handover.js';
import { cleanVisit, deedsOf } from '../testing/visit-script.js';
import { ERASED_NAME, personalHash, sealedForm, wronglyNamed } from './personal.js';
import { checkRecord, makeRecord } from './record.js';
import { asSealed, CHAIN_START, sealEvidence, verifyChain } from './seal.js';

const SALT = '0123456789abcdef'.repeat(2);
const hashOfName = (name: string): string => personalHash({ kind: 'worker', salt: SALT, says: name });

/** A whole visit whose names are covered by their hash. */
function visit(): Evidence[] {
  const entries: Evidence[] = [];
  for (const deed of deedsOf(cleanVisit)) {
    const by: Actor = { ...deed.by, nameSha256: hashOfName(deed.by.name) };
    entries.push(sealEvidence({ ...deed, by }, entries.at(-1)?.hash ?? CHAIN_START));
  }
  return entries;
}
const salts = (entries: readonly Evidence[]) =>
  Object.fromEntries(entries.map(({ by }) => [by.nameSha256 ?? '', SALT] as const));
const withName = (entries: readonly Evidence[], name: string): Evidence[] =>
  entries.map((entry) => ({ ...entry, by: { ...entry.by, name } }));

describe('what is kept of a person', () => {
  it('is covered by another hash with another salt, kind or word', () => {
    const one = { kind: 'worker', salt: SALT, says: 'Teo R.' } as const;
    const others = [
      { ...one, salt: SALT.replace('0', '1') },
      { ...one, kind: 'receiver' } as const,
      { ...one, says: 'Teo' },
    ];
    expect(new Set([one, ...others].map(personalHash)).size).toBe(4);
  });

  it('is left out of what a chain covers only where its hash stands there', () => {
    expect(sealedForm({ name: 'Teo R.', role: 'lead' }, ['name'])).toEqual({ name: 'Teo R.', role: 'lead' });
    expect(sealedForm({ name: 'Teo R.', nameSha256: 'ab', role: 'lead' }, ['name'])).toEqual({
      nameSha256: 'ab',
      role: 'lead',
    });
  });
});

describe('a chain that covers names by their hash', () => {
  it('holds with the names, with others, and stored without any', () => {
    for (const entries of [visit(), withName(visit(), ERASED_NAME), visit().map(asSealed)])
      expect(verifyChain(entries, visit().at(-1)?.hash).ok).toBe(true);
    expect(JSON.stringify(visit().map(asSealed))).not.toContain('Teo R.');
  });

  it('does not hold where the hash of a name was put in or altered', () => {
    const entries = visit();
    const other = { ...entries[2]!.by, nameSha256: hashOfName('Ines M.') };
    expect(verifyChain(entries.map((entry, i) => (i === 2 ? { ...entry, by: other } : entry)))).toMatchObject({
      seq: 3,
    });
  });

  it('names whoever its hashes name, or says that they are erased, and nobody else', () => {
    const entries = visit();
    expect(wronglyNamed(entries, salts(entries))).toBeUndefined();
    expect(wronglyNamed(withName(entries, ERASED_NAME), {})).toBeUndefined();
    expect(wronglyNamed(withName(entries, 'Somebody else'), salts(entries))?.seq).toBe(1);
    expect(wronglyNamed(entries, {})?.seq).toBe(1);
    expect(wronglyNamed(entries, { ...salts(entries), [entries[0]!.by.nameSha256!]: 'ff'.repeat(16) })?.seq).toBe(1);
  });

  it('leaves the house as a record that shows it', () => {
    const entries = visit();
    const record = makeRecord(entries, salts(entries));
    expect(checkRecord(JSON.parse(JSON.stringify(record)))).toMatchObject({ ok: true });
    expect(checkRecord(makeRecord(withName(entries, ERASED_NAME)))).toMatchObject({ ok: true });
    expect(checkRecord({ ...record, evidence: withName(entries, 'Somebody else') })).toMatchObject({
      ok: false,
      says: 'Entry 1 names somebody else than was sealed.',
    });
    expect(checkRecord({ ...record, salts: {} })).toMatchObject({ ok: false });
    expect(checkRecord({ ...record, salts: { __proto__: null } }).ok).toBe(false);
  });

  it('is told from one of before, whose names stand inside it', () => {
    const entries: Evidence[] = [];
    for (const deed of deedsOf(cleanVisit)) entries.push(sealEvidence(deed, entries.at(-1)?.hash ?? CHAIN_START));
    const first = Object.fromEntries(Object.entries(makeRecord(entries)).filter(([key]) => key !== 'salts'));
    expect(checkRecord({ ...first, format: 'decurio-record/1' })).toMatchObject({ ok: true });
    expect(checkRecord({ ...first, format: 'decurio-record/1', evidence: withName(entries, 'Other') }).ok).toBe(false);
  });
});

describe('a handing over', () => {
  const by: Actor = { userId: 'u-teo', name: 'Teo R.', nameSha256: hashOfName('Teo R.'), role: 'technician' };
  const data = { name: 'Brook Alder', nameSha256: 'aa', strokes: [[[0.1, 0.2] as const]], strokesSha256: 'bb' };
  const entry = chainHandover(
    { id: 'h', visitId: 'v', seq: 1, kind: 'received', at: '2026-03-02T09:00:00.000Z', by, data },
    CHAIN_START,
  );

  it('holds once name and signature are erased, and is stored without them', () => {
    const erased = { ...entry, data: { ...data, name: ERASED_NAME, strokes: [] } } as HandoverEntry;
    const state = foldHandover(CHAIN_START, [erased]);
    expect(state.ok && state.value.out).toMatchObject({ to: ERASED_NAME, strokes: [], by: 'Teo R.' });
    expect(JSON.stringify(asChained(entry))).not.toMatch(/Alder|0\.1|Teo/);
  });

  it('does not hold with another hash', () => {
    const altered = { ...entry, data: { ...data, nameSha256: 'cc' } } as HandoverEntry;
    expect(foldHandover(CHAIN_START, [altered])).toMatchObject({ ok: false, problem: { code: 'changed' } });
  });
});
