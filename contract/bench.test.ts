import { describe, expect, it } from 'vitest';
import { evidenceSchemas, newEvidenceRequest } from './bench.js';

const valid = (schema: { isValidSync: (data: unknown, options: { strict: boolean }) => boolean }, data: unknown) =>
  schema.isValidSync(data, { strict: true });
const entry = {
  id: '7d4f2d5e-0c7b-4b55-9d0e-6a3f0b1c2d3e',
  seq: 2,
  kind: 'keyInClosed',
  at: '2026-11-24T09:00:00.000Z',
  data: {},
};

describe('an entry on the wire', () => {
  it('has an id, a seq after the opening one, a known kind and a time in UTC', () => {
    expect(valid(newEvidenceRequest, entry)).toBe(true);
    expect(valid(newEvidenceRequest, { ...entry, id: '7' })).toBe(false);
    expect(valid(newEvidenceRequest, { ...entry, seq: 1 })).toBe(false);
    expect(valid(newEvidenceRequest, { ...entry, seq: 2.5 })).toBe(false);
    expect(valid(newEvidenceRequest, { ...entry, kind: 'opened' })).toBe(false);
    expect(valid(newEvidenceRequest, { ...entry, at: '2026-11-24 09:00' })).toBe(false);
    expect(valid(newEvidenceRequest, { ...entry, by: 'someone else' })).toBe(false);
  });

  it.each([
    [{ label: 'L4.1', raw: 25 }, true],
    [{ label: 'L4.1', raw: null }, true],
    [{ label: 'L4.1' }, false],
    [{ label: 'L4.1', raw: '25' }, false],
    [{ label: 'L4.1', raw: 1e9 }, false],
    [{ label: '', raw: 25 }, false],
    [{ label: 'L4.1', raw: 25, target: 25 }, false],
  ])('that reads a code back as %j is valid: %s', (data, is) => {
    expect(valid(evidenceSchemas.codeRead, data)).toBe(is);
  });

  it.each([
    ['held', { reason: 'damage', words: 'bent fork' }, true],
    ['held', { reason: 'damage', words: ' ' }, false],
    ['held', { reason: 'weather', words: 'it rained' }, false],
    ['released', { words: 'ok' }, false],
    ['restarted', { acts: [] }, true],
    ['restarted', { acts: Array.from({ length: 21 }, () => 'Off and on.') }, false],
    ['codeKeyed', { label: 'L1', fromRaw: 1, raw: 2, presses: -1 }, false],
    ['undone', { voids: 'the last one' }, false],
  ] as const)('%s with %j is valid: %s', (kind, data, is) => {
    expect(valid(evidenceSchemas[kind], data)).toBe(is);
  });
});
