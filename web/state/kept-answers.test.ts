import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import type { BenchView, SessionView } from '@decurio/contract';
import type { Evidence } from '@decurio/core';
import { forgetAnswers, keepAnswer, keepTaken, keptAnswer, keptUnit } from './kept-answers.js';

const NOW = Date.UTC(2026, 10, 30, 9);
const session = (userId: string, hours = 14): SessionView => ({
  id: 's',
  userId,
  name: userId,
  nameSha256: '',
  role: 'technician',
  station: 'bay 1',
  isPasswordForOnce: false,
  endsAt: new Date(NOW + hours * 3_600_000).toISOString(),
});
const entry = (seq: number, visitId = 'v1') => ({ id: `${visitId}e${seq}`, seq, visitId }) as Evidence;
const bench = (id: string, evidence: readonly Evidence[]) =>
  ({
    unit: { id, serial: `S26-${id}`, status: 'open' },
    orderId: 'o',
    orderNumber: '2611',
    evidence,
  }) as unknown as BenchView;
const welcome = (who: SessionView | null) =>
  keepAnswer({ key: 'welcome(null)', endpoint: 'welcome', at: NOW, data: { session: who } });
const say = (id: string, evidence: readonly Evidence[], at = NOW) =>
  keepAnswer({ key: `bench("${id}")`, endpoint: 'bench', at, data: bench(id, evidence) });
const kept = async (id: string, now = NOW) => {
  const answer = await keptAnswer('bench', `bench("${id}")`, now);
  return answer && (answer.data as BenchView).evidence.map((each) => each.id);
};

beforeEach(async () => {
  await forgetAnswers();
  await welcome(session('teo'));
});

describe('what a device keeps of the server', () => {
  it('is what it said last, and when', async () => {
    await say('0420', [entry(1)], NOW - 5);
    await say('0420', [entry(1), entry(2)]);
    expect(await kept('0420')).toEqual(['v1e1', 'v1e2']);
    expect((await keptAnswer('bench', 'bench("0420")', NOW))?.at).toBe(NOW);
    expect(await kept('0421')).toBeNull();
  });

  it('goes on with entries that were taken since, in their order and each once', async () => {
    await say('0420', [entry(1)]);
    await keepTaken('0420', [entry(3)]);
    await keepTaken('0420', [entry(2), entry(1)]);
    expect(await kept('0420')).toEqual(['v1e1', 'v1e2', 'v1e3']);
    await say('0420', [entry(1), entry(2)]);
    expect(await kept('0420')).toEqual(['v1e1', 'v1e2', 'v1e3']);
  });

  it('does not pass over one it never heard, nor mix another visit in', async () => {
    await say('0420', [entry(1)]);
    await keepTaken('0420', [entry(3), entry(2, 'v2')]);
    expect(await kept('0420')).toEqual(['v1e1']);
    await say('0420', [entry(1, 'v2')]);
    expect(await kept('0420')).toEqual(['v2e1', 'v2e2']);
  });

  it('is shown as long as the session lasts, and to its person alone', async () => {
    await say('0420', [entry(1)]);
    expect(await kept('0420', NOW + 13 * 3_600_000)).not.toBeNull();
    expect(await kept('0420', NOW + 15 * 3_600_000)).toBeNull();
    await welcome(session('teo'));
    expect(await kept('0420')).not.toBeNull();
    await welcome(session('ines'));
    expect(await kept('0420')).toBeNull();
  });

  it('is gone once somebody has signed out', async () => {
    await say('0420', [entry(1)]);
    await welcome(null);
    expect(await kept('0420')).toBeNull();
    expect(await keptUnit('S26-0420')).toBeNull();
  });

  it('is of what a stand needs, and of so many units', async () => {
    await keepAnswer({ key: 'ledger({})', endpoint: 'ledger', at: NOW, data: {} });
    expect(await keptAnswer('ledger', 'ledger({})', NOW)).toBeNull();
    for (let i = 0; i < 45; i++) await say(`${i}`, [entry(1)], NOW + i);
    expect(await kept('0')).toBeNull();
    expect(await kept('44')).toEqual(['v1e1']);
  });

  it('names a unit by its serial, however it was typed', async () => {
    await say('0420', [entry(1)]);
    expect(await keptUnit(' s26-0420 ')).toMatchObject({
      id: '0420',
      orderNumber: '2611',
      visitId: 'v1',
      status: 'open',
    });
    expect(await keptUnit('S26-042')).toBeNull();
  });
});
