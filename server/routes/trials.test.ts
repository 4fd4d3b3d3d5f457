import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { judgeTrial, trialOrder, withTrial } from '@decurio/core';
import type { LibraryEntry, NewTrial, TrialView } from '@decurio/contract';
import {
  errorOf,
  fillLibrary,
  signInAs,
  startTestServer,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let owner: Person;
let ines: Person;
let teo: Person;
beforeAll(async () => {
  server = await startTestServer();
  owner = await signInAs(server, 'owner');
  await fillLibrary(owner);
  ines = await signInAs(server, 'lead');
  teo = await signInAs(server, 'technician');
});
afterAll(() => server.close());

const MAP = 'tallow-four-key';
const newTrial = (over: Partial<NewTrial> = {}): NewTrial => ({
  id: randomUUID(),
  mapId: MAP,
  mapVersion: 1,
  label: 'L2.1',
  values: [1, 3],
  quantity: 'secondsTo',
  each: 4,
  matters: 0.3,
  seed: 12,
  unit: 'S26-0401',
  ...over,
});
const begin = async (over: Partial<NewTrial> = {}) => (await teo.post('/api/trials', newTrial(over))).json<TrialView>();
const listed = async () => (await teo.get(`/api/trials?mapId=${MAP}`)).json<TrialView[]>();
const run = (id: string, n: number, raw: number, measured: number, person = teo) =>
  person.post(`/api/trials/${id}/runs`, { n, raw, measured });
/** Makes every run that is drawn: `shows` by value, a little more each time. */
async function runAll(trial: TrialView, shows: Readonly<Record<number, number>>): Promise<TrialView> {
  let last = trial;
  for (const [i, raw] of trialOrder(trial.plan, trial.more).entries())
    if (i >= trial.runs.length) last = (await run(trial.id, i + 1, raw, (shows[raw] ?? 0) + i / 100)).json<TrialView>();
  return last;
}

describe('a trial', () => {
  it.each([
    ['of no such code', { label: 'L9.9' }, 'badTrial'],
    ['of a code that is locked', { label: 'L3.3', values: [2, 6] }, 'badTrial'],
    ['of values beyond its range', { values: [1, 9] }, 'badTrial'],
    ['of one value', { values: [1] }, 'badFields'],
    ['of one value twice', { values: [1, 1] }, 'badFields'],
    ['on no unit', { unit: ' ' }, 'badFields'],
    ['in which nothing would matter', { matters: 0 }, 'badFields'],
    ['of a version that is not there', { mapVersion: 99 }, 'notFound'],
  ])('%s is not begun', async (_, over, code) => {
    expect(errorOf(await teo.post('/api/trials', newTrial(over))).code).toBe(code);
    expect(await listed()).toEqual([]);
  });

  it('stands once however often it is sent, and its runs too, in the order drawn', async () => {
    const trial = newTrial();
    await teo.post('/api/trials', trial);
    expect((await teo.post('/api/trials', trial)).statusCode).toBe(201);
    expect(await listed()).toHaveLength(1);
    const [first, second] = trialOrder(trial) as [number, number];
    expect(errorOf(await run(trial.id, 1, first === 1 ? 3 : 1, 5)).code).toBe('trialMoved');
    expect(errorOf(await run(trial.id, 2, second, 5)).code).toBe('trialMoved');
    await run(trial.id, 1, first, 5.2);
    expect((await run(trial.id, 1, first, 5.2)).json<TrialView>().runs).toHaveLength(1);
    expect(errorOf(await run(trial.id, 1, first, 5.3)).code).toBe('trialMoved');
    expect((await run(trial.id, 2, second, -1)).statusCode).toBe(400);
    const [kept] = await listed();
    expect(kept!.runs).toEqual([{ raw: first, measured: 5.2, at: expect.any(String), by: 'The technician' }]);
  });

  it('has its newest run taken back, and no other', async () => {
    const [{ id, runs }] = (await listed()) as [TrialView];
    const back = (n: number) => teo.post(`/api/trials/${id}/runs/taken-back`, { n });
    expect(errorOf(await back(2)).code).toBe('trialMoved');
    expect((await back(1)).json<TrialView>().runs).toEqual(runs.slice(1));
    expect(errorOf(await back(1)).code).toBe('trialMoved');
  });

  it('takes runs of two people at once one by one', async () => {
    const trial = await begin({ seed: 40 });
    const [first] = trialOrder(trial.plan) as [number];
    const both = await Promise.all([run(trial.id, 1, first, 4), run(trial.id, 1, first, 6, ines)]);
    expect(both.map(({ statusCode }) => statusCode).toSorted()).toEqual([200, 409]);
  });

  it('goes on with more runs of each where it is not settled, drawn once', async () => {
    const trial = await runAll(await begin({ seed: 41 }), { 1: 5, 3: 5.05 });
    expect(trial.runs).toHaveLength(8);
    const more = () => teo.post(`/api/trials/${trial.id}/more`, { drawn: 4, each: 3 });
    expect((await more()).json<TrialView>().more).toEqual([3]);
    expect((await more()).json<TrialView>().more).toEqual([3]);
    expect(errorOf(await teo.post(`/api/trials/${trial.id}/more`, { drawn: 9, each: 3 })).code).toBe('trialMoved');
    const [next] = (await listed()).filter(({ id }) => id === trial.id) as [TrialView];
    expect((await runAll(next, { 1: 5, 3: 5.05 })).runs).toHaveLength(14);
    await teo.post(`/api/trials/${trial.id}/more`, { drawn: 7, each: 60 });
    expect(errorOf(await teo.post(`/api/trials/${trial.id}/more`, { drawn: 67, each: 60 })).code).toBe('trialFull');
  });

  it('becomes a draft of the map by a lead, and is ended with it', async () => {
    const trial = await runAll(await begin({ seed: 42 }), { 1: 7, 3: 5 });
    const judged = judgeTrial(trial.plan, trial.runs);
    if (!judged.ok) throw new Error(judged.problem.message);
    expect(judged.value.verdict).toBe('differs');
    const { document } = (await ines.get(`/api/library/displayMap/${MAP}/versions/1`)).json<
      LibraryEntry<'displayMap'>
    >();
    const written = await ines.post('/api/library', {
      kind: 'displayMap',
      document: withTrial(document, trial.plan, judged.value, 'on S26-0401'),
    });
    expect(written.statusCode).toBe(201);
    const { version, document: draft } = written.json<LibraryEntry<'displayMap'>>();
    expect(draft.confirmed).toBeNull();
    expect(draft.codes.find(({ label }) => label === 'L2.1')).toMatchObject({
      effect: 'acts',
      note: expect.stringContaining('quicker than'),
    });
    const end = { words: 'It acts.', version };
    expect(errorOf(await teo.post(`/api/trials/${trial.id}/end`, end)).code).toBe('notAllowed');
    const unwritten = await ines.post(`/api/trials/${trial.id}/end`, { ...end, version: 99 });
    expect(errorOf(unwritten).code).toBe('notFound');
    const ended = (await ines.post(`/api/trials/${trial.id}/end`, end)).json<TrialView>();
    expect(ended.ended).toMatchObject({ by: 'The lead', words: 'It acts.', version });
    expect(errorOf(await run(trial.id, 9, 1, 5)).code).toBe('trialEnded');
    expect((await listed()).at(-1)?.id).toBe(trial.id);
  });
});
