import { describe, expect, it } from 'vitest';
import type { BenchView } from '@decurio/contract';
import { newerBench } from './newer-bench.js';

const entry = (seq: number, visitId = 'v') => ({ seq, visitId, kind: 'codeKeyed', data: { raw: seq } });
const bench = (evidence: readonly object[], title = 'Tallow'): BenchView =>
  structuredClone({ map: { title, codes: [{ label: 'L1.1' }] }, type: { title: 'step-through' }, evidence }) as never;

describe('an answer about a unit on the bench', () => {
  it('that says what was known leaves every part the same object', () => {
    const known = bench([entry(1), entry(2)]);
    expect(newerBench(known, bench([entry(1), entry(2)]))).toBe(known);
  });

  it('that brings an entry leaves the map, and the entries before it, the same objects', () => {
    const known = bench([entry(1), entry(2)]);
    const next = newerBench(known, bench([entry(1), entry(2), entry(3)]));
    expect(next.evidence).toHaveLength(3);
    expect(next.map).toBe(known.map);
    expect(next.evidence[1]).toBe(known.evidence[1]);
  });

  it('that set out before an entry was taken does not take it back, and what else it says counts', () => {
    const known = bench([entry(1), entry(2)]);
    const next = newerBench(known, bench([entry(1)], 'Tallow, revision D'));
    expect(next.evidence).toBe(known.evidence);
    expect(next.map).toMatchObject({ title: 'Tallow, revision D' });
  });

  it('about another visit of the unit counts, however short it is', () => {
    const next = newerBench(bench([entry(1), entry(2)]), bench([entry(1, 'another')]));
    expect(next.evidence).toHaveLength(1);
  });
});
