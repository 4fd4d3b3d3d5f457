import { describe, expect, it } from 'vitest';
import { MOST_ENTRIES, type SessionView } from '@decurio/contract';
import type { ApiProblem } from '../state/api.js';
import { outbox, waitingOf, type OutboxState } from './outbox.js';
import type { Waiting } from './outbox-shelf.js';

const { made, restored, taken, refused, sentAgain, dropped, away } = outbox.actions;
const waiting = (n: number, visitId = 'v1', more: Partial<Waiting> = {}): Waiting => ({
  entry: { id: `e${n}`, seq: n, kind: 'keyInClosed', at: '2026-11-25T10:00:00.000Z', data: {} },
  unitId: 'u',
  serial: 'S26-0001',
  visitId,
  userId: 'teo',
  name: 'Teo R.',
  role: 'technician',
  station: 'bay 1',
  order: n,
  ...more,
});
const after = (...acts: Parameters<typeof outbox.reducer>[1][]): OutboxState =>
  acts.reduce(outbox.reducer, outbox.getInitialState());
const idsOf = (entries: OutboxState['entries']) => entries.map(({ entry }) => entry.id);
const seqs = ({ entries }: OutboxState) => entries.map(({ entry, status }) => `${entry.id}:${entry.seq}:${status[0]}`);
const problem: ApiProblem = { status: 409, code: 'staleSeq', message: 'Someone else worked on it.' };
const three = [made(waiting(5)), made(waiting(6)), made(waiting(7, 'v2'))];

describe('the outbox', () => {
  it('gives up an entry once it was taken, and moves on what waits behind it by what the server wrote', () => {
    expect(seqs(after(...three, taken({ id: 'e5', followed: 1 })))).toEqual(['e6:7:w', 'e7:7:w']);
    expect(seqs(after(...three, taken({ id: 'e5', followed: 0 })))).toEqual(['e6:6:w', 'e7:7:w']);
  });

  it('keeps what was refused, and what was made on top of it, of that visit alone', () => {
    const state = after(...three, refused({ id: 'e5', problem }));
    expect(seqs(state)).toEqual(['e5:5:r', 'e6:6:r', 'e7:7:w']);
    expect(state.entries[0]?.problem).toEqual(problem);
    expect(waitingOf(state)).toHaveLength(1);
  });

  it('sends refused entries again under the numbers that are due now, or drops them when told', () => {
    const state = [...three, refused({ id: 'e5', problem })];
    expect(seqs(after(...state, sentAgain({ visitId: 'v1', fromSeq: 12 })))).toEqual(['e5:12:w', 'e6:13:w', 'e7:7:w']);
    expect(seqs(after(...state, dropped({ visitId: 'v1' })))).toEqual(['e7:7:w']);
  });

  it('takes up what an earlier page left, before what was made since, and none twice', () => {
    expect(seqs(after(made(waiting(9)), restored([waiting(3), waiting(9)])))).toEqual(['e3:3:w', 'e9:9:w']);
  });

  it('forgets that the server was away once it took something', () => {
    expect(after(...three, away(problem)).away).toEqual(problem);
    expect(after(...three, away(problem), taken({ id: 'e5', followed: 0 })).away).toBeNull();
  });
});

describe('who sends an entry', () => {
  it('is whoever made it, at the stand where it was made', async () => {
    const { nextToSend } = await import('./next-to-send.js');
    const { entries } = after(
      made(waiting(1, 'v1', { userId: 'ines' })),
      made(waiting(2, 'v2', { station: 'bay 2' })),
      made(waiting(3, 'v3')),
    );
    const who = (userId: string, station: string) => ({ userId, station }) as SessionView;
    expect(idsOf(nextToSend(entries, who('teo', 'bay 1')))).toEqual(['e3']);
    expect(idsOf(nextToSend(entries, who('ines', 'bay 1')))).toEqual(['e1']);
    expect(nextToSend(entries, who('asta', 'office'))).toEqual([]);
  });

  const who = { userId: 'teo', station: 'bay 1' } as SessionView;
  const together = async (...each_: Waiting[]) => {
    const { nextToSend } = await import('./next-to-send.js');
    return idsOf(nextToSend(after(...each_.map((each) => made(each))).entries, who));
  };

  it('sends what waits of one visit in one request, in its order, and no more than the server takes', async () => {
    expect(await together(waiting(5), waiting(6), waiting(7))).toEqual(['e5', 'e6', 'e7']);
    expect(await together(waiting(5), waiting(6, 'v2'), waiting(7))).toEqual(['e5']);
    expect(await together(waiting(5), waiting(7))).toEqual(['e5']);
    expect(await together(...Array.from({ length: 50 }, (_, i) => waiting(i + 2)))).toHaveLength(MOST_ENTRIES);
  });

  it('sends alone what is waited for, a photograph, and what is a lead’s', async () => {
    for (const kind of ['asFoundClosed', 'photographed', 'released'] as const) {
      const alone = waiting(6, 'v1', { entry: { ...waiting(6).entry, kind } as Waiting['entry'] });
      expect(await together(waiting(5), alone, waiting(7))).toEqual(['e5']);
      expect(await together(alone, waiting(7))).toEqual(['e6']);
    }
  });
});
