import { api, asProblem, entryAccepted, type ApiProblem } from '../state/api.js';
import type { AppDispatch } from '../state/store.js';
import { outbox, type OutboxEntry } from './outbox.js';
import { dropEntry, dropPhoto, putEntry, takePhoto, type Waiting } from './outbox-shelf.js';

/** Writes of this device's shelf, one after another per entry: nothing is sent before it is kept. */
const kept = new Map<string, Promise<void>>();

/** Keeps an entry on this device; it is sent as soon as the server answers. */
export const keepEntry = (waiting: Waiting) => (dispatch: AppDispatch): void => {
  kept.set(waiting.entry.id, putEntry(waiting).catch(() => undefined));
  dispatch(outbox.actions.made(waiting));
};

/** Sends one entry. Gives back the problem where it may work later, null otherwise. */
export async function sendEntry(waiting: OutboxEntry, dispatch: AppDispatch): Promise<ApiProblem | null> {
  const { entry, unitId, visitId } = waiting;
  await kept.get(entry.id);
  const noPhoto = entry.kind === 'photographed' ? await sendPhoto(unitId, visitId, entry.data.photoId, dispatch) : null;
  const answer = noPhoto ? { error: noPhoto, data: undefined } : await dispatch(api.endpoints.addEvidence.initiate({ unitId, visitId, body: entry }));
  const problem = asProblem(answer.error);
  if (problem && mayWorkLater(problem)) return problem;
  if (answer.data) {
    const { followed } = answer.data;
    dispatch(entryAccepted(unitId, [answer.data.entry, ...followed]));
    dispatch(outbox.actions.taken({ id: entry.id, followed: followed.length }));
    await dropEntry(entry.id);
    if (entry.kind === 'photographed') await dropPhoto(entry.data.photoId);
    return null;
  }
  dispatch(outbox.actions.refused({ id: entry.id, problem: problem ?? { status: 409, code: 'refused', message: 'This was not taken.' } }));
  void dispatch(api.endpoints.bench.initiate(unitId, { forceRefetch: true, subscribe: false }));
  return null;
}

async function sendPhoto(unitId: string, visitId: string, photoId: string, dispatch: AppDispatch): Promise<ApiProblem | null> {
  const jpeg = await takePhoto(photoId);
  if (!jpeg) return null;
  return asProblem((await dispatch(api.endpoints.keepPhoto.initiate({ unitId, visitId, photoId, jpeg }))).error);
}

/** The entry itself is not at fault: the server is away, or the session ended. */
const mayWorkLater = ({ status }: ApiProblem): boolean => status === 0 || status === 401 || status === 429 || status >= 500;
