import type { EntryTaken, NewEvidence } from '@decurio/contract';
import { api, asProblem, entryAccepted, type ApiProblem } from '../state/api.js';
import type { AppDispatch } from '../state/store.js';
import { entriesApi } from './entries-api.js';
import { keepTaken } from '../state/kept-answers.js';
import { outbox, type OutboxEntry } from './outbox.js';
import { dropEntry, dropPhoto, keepsAnything, putEntry, takePhoto, type Waiting } from './outbox-shelf.js';

/** Writes of this device's shelf, one after another per entry: nothing is sent before it is kept. */
const kept = new Map<string, Promise<void>>();

/** Keeps an entry on this device; it is sent as soon as the server answers. */
export const keepEntry =
  (waiting: Waiting) =>
  (dispatch: AppDispatch): void => {
    kept.set(
      waiting.entry.id,
      putEntry(waiting).catch(() => void dispatch(outbox.actions.keeps(false))),
    );
    dispatch(outbox.actions.made(waiting));
  };

/** Keeps again what could not be kept, on a device that keeps nothing so far. Gives whether it does now. */
export async function keepAfterAll(waiting: readonly OutboxEntry[]): Promise<boolean> {
  if (!(await keepsAnything())) return false;
  return Promise.all(waiting.map(({ status: _status, problem: _problem, ...each }) => putEntry(each))).then(
    () => true,
    () => false,
  );
}

/** Sends what goes in one request. Gives back the problem where it may work later, null otherwise. */
export async function sendEntries(waiting: readonly OutboxEntry[], dispatch: AppDispatch): Promise<ApiProblem | null> {
  for (const { entry } of waiting) await kept.get(entry.id);
  const [first] = waiting;
  if (!first) return null;
  return waiting.length === 1 ? sendOne(first, dispatch) : sendTogether(first, waiting, dispatch);
}

async function sendOne(waiting: OutboxEntry, dispatch: AppDispatch): Promise<ApiProblem | null> {
  const { entry, unitId, visitId } = waiting;
  const sent =
    entry.kind === 'photographed'
      ? await withPhoto(unitId, visitId, entry, dispatch)
      : { body: entry, error: undefined };
  const answer =
    sent.body === null
      ? { error: sent.error, data: undefined }
      : await dispatch(entriesApi.endpoints.addEvidence.initiate({ unitId, visitId, body: sent.body }));
  const problem = asProblem(answer.error);
  if (problem && mayWorkLater(problem)) return problem;
  if (answer.data) await wasTaken(waiting, answer.data, dispatch);
  else refuse(waiting, problem, dispatch);
  return null;
}

async function sendTogether(
  { unitId, visitId }: OutboxEntry,
  waiting: readonly OutboxEntry[],
  dispatch: AppDispatch,
): Promise<ApiProblem | null> {
  const entries = waiting.map(({ entry }) => entry);
  const answer = await dispatch(entriesApi.endpoints.addEntries.initiate({ unitId, visitId, entries }));
  const problem = asProblem(answer.error);
  if (problem && mayWorkLater(problem)) return problem;
  const { taken, refused } = answer.data ?? { taken: [], refused: problem };
  for (const [i, each] of taken.entries()) {
    const sent = waiting[i];
    if (sent) await wasTaken(sent, each, dispatch);
  }
  const next = waiting[taken.length];
  if (refused && mayWorkLater(refused)) return refused;
  if (refused && next) refuse(next, refused, dispatch);
  return null;
}

async function wasTaken(
  { entry, unitId }: OutboxEntry,
  { entry: taken, followed }: EntryTaken,
  dispatch: AppDispatch,
): Promise<void> {
  dispatch(entryAccepted(unitId, [taken, ...followed]));
  await keepTaken(unitId, [taken, ...followed]);
  dispatch(outbox.actions.taken({ id: entry.id, followed: followed.length }));
  // What is taken and still stands here is only sent once more.
  await dropEntry(entry.id).catch(() => undefined);
  if (entry.kind === 'photographed') await dropPhoto(entry.data.photoId);
}

function refuse({ entry, unitId }: OutboxEntry, problem: ApiProblem | null, dispatch: AppDispatch): void {
  dispatch(
    outbox.actions.refused({
      id: entry.id,
      problem: problem ?? { status: 409, code: 'refused', message: 'This was not taken.' },
    }),
  );
  void dispatch(api.endpoints.bench.initiate(unitId, { forceRefetch: true, subscribe: false }));
}

/** Sends the photograph first. The server draws it anew, and the entry names what is kept of it. */
async function withPhoto(
  unitId: string,
  visitId: string,
  entry: Extract<NewEvidence, { kind: 'photographed' }>,
  dispatch: AppDispatch,
): Promise<{ readonly body: NewEvidence | null; readonly error?: unknown }> {
  const { photoId } = entry.data;
  const jpeg = await takePhoto(photoId);
  if (!jpeg) return { body: entry };
  const { data: kept, error } = await dispatch(api.endpoints.keepPhoto.initiate({ unitId, visitId, photoId, jpeg }));
  return kept ? { body: { ...entry, data: { ...entry.data, sha256: kept.sha256 } } } : { body: null, error };
}

/** The entry itself is not at fault: the server is away, or the session ended. */
const mayWorkLater = ({ status }: ApiProblem): boolean =>
  status === 0 || status === 401 || status === 429 || status >= 500;
