import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { BenchView, SessionView, UnitFound, WelcomeView } from '@decurio/contract';
import type { Evidence } from '@decurio/core';

/** What the server said last to a question, so that a page that is loaded without it still has an answer. */
export interface KeptAnswer {
  /** The question, as the cache of the page names it. */
  readonly key: string;
  readonly endpoint: string;
  /** When it was said, in ms since 1970. */
  readonly at: number;
  readonly data: unknown;
}

/** An entry that the server took after it last said how its unit stands. */
interface TakenSince {
  readonly id: string;
  readonly unitId: string;
  readonly entry: Evidence;
}

interface Kept extends DBSchema {
  answers: { key: string; value: KeptAnswer; indexes: { endpoint: string } };
  taken: { key: string; value: TakenSince; indexes: { unitId: string } };
}

/** What a stand needs to go on with its open units, and nothing else of the house. */
const WORTH_KEEPING: ReadonlySet<string> = new Set(['welcome', 'bench', 'line', 'orders', 'pace', 'outlook']);
/** Units of which the newest word is kept; a stand has a handful open. */
const MOST_UNITS = 40;
const MOST_LINES = 12;

let opened: Promise<IDBPDatabase<Kept>> | undefined;
const shelf = (): Promise<IDBPDatabase<Kept>> => (opened ??= open());

/** Refused by some browsers before they have promised anything. */
const open = async (): Promise<IDBPDatabase<Kept>> =>
  openDB<Kept>('decurio-kept', 1, {
    upgrade: (db) => {
      db.createObjectStore('answers', { keyPath: 'key' }).createIndex('endpoint', 'endpoint');
      db.createObjectStore('taken', { keyPath: 'id' }).createIndex('unitId', 'unitId');
    },
  });

export const isKeptEndpoint = (endpoint: string): boolean => WORTH_KEEPING.has(endpoint);

/** Keeps an answer in place of the one before. A device that keeps nothing goes on without. */
export async function keepAnswer(answer: KeptAnswer): Promise<void> {
  if (!isKeptEndpoint(answer.endpoint)) return;
  try {
    if (answer.endpoint === 'welcome') await forgetOthers(answer.data as WelcomeView);
    const db = await shelf();
    if (answer.endpoint === 'bench') await forgetTaken(db, answer.data as BenchView);
    await db.put('answers', answer);
    await keepNewest(db, answer.endpoint);
  } catch {
    // What an older answer says would be taken for this one's.
    await forgetAnswer(answer.key);
  }
}

/** What the server said last to this question, with the entries it took since; null where nothing is kept that may still be shown. */
export async function keptAnswer(endpoint: string, key: string, now: number = Date.now()): Promise<KeptAnswer | null> {
  if (!isKeptEndpoint(endpoint)) return null;
  try {
    const db = await shelf();
    const session = await keptSession(db);
    // As long as the server itself would let this person go on.
    if (!session || Date.parse(session.endsAt) < now) return null;
    const kept = await db.get('answers', key);
    if (!kept || endpoint !== 'bench') return kept ?? null;
    return { ...kept, data: await withTaken(db, kept.data as BenchView) };
  } catch {
    return null;
  }
}

/** A unit that this device can show without the server, by its serial. */
export async function keptUnit(serial: string): Promise<UnitFound | null> {
  const wanted = serial.trim().toUpperCase();
  try {
    const views = (await (await shelf()).getAllFromIndex('answers', 'endpoint', 'bench')).map(
      ({ data }) => data as BenchView,
    );
    const view = views.find(({ unit }) => unit.serial.toUpperCase() === wanted);
    if (!view) return null;
    const { unit, orderId, orderNumber, evidence } = view;
    const visitId = evidence[0]?.visitId ?? null;
    return { id: unit.id, serial: unit.serial, orderId, orderNumber, status: unit.status, visitId, handedTo: null };
  } catch {
    return null;
  }
}

/** Serials of the units that this device can show without the server. */
export async function keptUnits(): Promise<readonly { readonly id: string; readonly serial: string }[]> {
  const kept = await shelf()
    .then((db) => db.getAllFromIndex('answers', 'endpoint', 'bench'))
    .catch(() => []);
  return kept
    .sort((a, b) => b.at - a.at)
    .map(({ data }) => (data as BenchView).unit)
    .filter(({ status }) => status === 'open')
    .map(({ id, serial }) => ({ id, serial }));
}

/** Keeps entries that the server took, until it says again how the unit stands. */
export async function keepTaken(unitId: string, entries: readonly Evidence[]): Promise<void> {
  try {
    const store = (await shelf()).transaction('taken', 'readwrite');
    await Promise.all([...entries.map((entry) => store.store.put({ id: entry.id, unitId, entry })), store.done]);
  } catch {
    // A unit that is shown as it stood before them would be keyed twice.
    await forgetAnswer(`bench("${unitId}")`);
  }
}

/** Drops all that is kept, as when somebody signs out. */
export async function forgetAnswers(): Promise<void> {
  try {
    const db = await shelf();
    await Promise.all([db.clear('answers'), db.clear('taken')]);
  } catch {
    // A device that keeps nothing has nothing to forget.
  }
}

/** What is kept is kept for one person: another one's first answer drops it. */
async function forgetOthers(welcome: WelcomeView): Promise<void> {
  const before = await keptSession(await shelf());
  // Where nobody was, nothing was kept; what came with the sign-in of this moment stays.
  if (before && before.userId !== welcome.session?.userId) await forgetAnswers();
}

async function keptSession(db: IDBPDatabase<Kept>): Promise<SessionView | null> {
  const [welcome] = await db.getAllFromIndex('answers', 'endpoint', 'welcome');
  return (welcome?.data as WelcomeView | undefined)?.session ?? null;
}

async function forgetAnswer(key: string): Promise<void> {
  await shelf()
    .then((db) => db.delete('answers', key))
    .catch(() => undefined);
}

async function forgetTaken(db: IDBPDatabase<Kept>, { unit, evidence }: BenchView): Promise<void> {
  const said = new Set(evidence.map(({ id }) => id));
  const visitId = evidence[0]?.visitId;
  const taken = await db.getAllFromIndex('taken', 'unitId', unit.id);
  const over = taken.filter(({ id, entry }) => said.has(id) || entry.visitId !== visitId);
  await Promise.all(over.map(({ id }) => db.delete('taken', id)));
}

async function withTaken(db: IDBPDatabase<Kept>, view: BenchView): Promise<BenchView> {
  const evidence = [...view.evidence];
  const taken = (await db.getAllFromIndex('taken', 'unitId', view.unit.id))
    .map(({ entry }) => entry)
    .sort((a, b) => a.seq - b.seq);
  for (const entry of taken)
    if (entry.visitId === evidence[0]?.visitId && entry.seq === evidence.length + 1) evidence.push(entry);
  return { ...view, evidence };
}

async function keepNewest(db: IDBPDatabase<Kept>, endpoint: string): Promise<void> {
  const most = endpoint === 'bench' ? MOST_UNITS : MOST_LINES;
  if ((await db.countFromIndex('answers', 'endpoint', endpoint)) <= most) return;
  const all = (await db.getAllFromIndex('answers', 'endpoint', endpoint)).sort((a, b) => b.at - a.at);
  await Promise.all(all.slice(most).map(({ key }) => db.delete('answers', key)));
}
