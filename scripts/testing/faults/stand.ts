import { randomUUID } from 'node:crypto';
import { setTimeout as after } from 'node:timers/promises';
import { admit, factsOf, foldAll, type Entry, type Evidence, type Fold, type VisitState } from '@decurio/core';
import type { BenchView, EntriesTaken, EntryTaken, NewEvidence } from '@decurio/contract';
import { likelyActs } from '../../../core/testing/any-visit.js';
import { nextProof } from '../../../core/testing/proofs.js';
import { wayFault, type Schedule } from './schedule.js';
import { sendWith, type Answer } from './send.js';

/** A stand with an outbox, as a bench keeps one: every entry is sent until it was taken or refused. */
export interface Stand {
  readonly name: string;
  /** Makes its acts and sends them, whatever happens meanwhile. */
  readonly work: () => Promise<void>;
  /** Sends what is left once everything is well again. Throws where that does not come to an end. */
  readonly drain: () => Promise<void>;
  /** What the server said it has, by id, and under which hash. */
  readonly acknowledged: ReadonlyMap<string, string>;
  /** What the server refused, or was made on top of that. */
  readonly refused: ReadonlySet<string>;
}

export interface StandOptions {
  readonly name: string;
  readonly schedule: Schedule;
  readonly uniform: () => number;
  readonly person: { readonly cookie: string; readonly userId: string; readonly role: 'technician' | 'lead' };
  readonly unitId: string;
  /** A server that may answer, another one each time. */
  readonly address: () => string;
  /** Called before each request: faults come by it. `isLost`: the one before had no answer. */
  readonly onSend: (isLost: boolean) => void;
}

/** As much as a bench makes before the server has answered. */
const MOST_WAITING = 6;
const MOST_TOGETHER = 20;
const RETRY_MS = 30;
const MOST_TRIES = 400;

export function makeStand({ name, schedule, uniform, person, unitId, address, onSend }: StandOptions): Stand {
  const acknowledged = new Map<string, string>();
  const refused = new Set<string>();
  const visitPath = (visitId: string) => `/api/units/${unitId}/visits/${visitId}`;
  const late: (() => Promise<Answer>)[] = [];
  let known: Evidence[] = [];
  let classCheck: BenchView['classCheck'] = null;
  let waiting: NewEvidence[] = [];
  let addMs = 0;
  let isLost = false;
  let acts = 0;
  let astray = schedule.astray;

  const ask = async (method: 'GET' | 'POST', path: string, body?: object): Promise<Answer> => {
    onSend(isLost);
    const sent = { address: address(), method, path, cookie: person.cookie, ...(body === undefined ? {} : { body }) };
    const answer = await sendWith(wayFault(astray, uniform), sent, (again) => late.push(again));
    isLost = answer === null || answer.status >= 500;
    if (answer && Number.isFinite(answer.serverMs)) addMs = answer.serverMs - Date.now();
    if (late.length > 0 && uniform() < 0.4) void late.shift()?.();
    return answer;
  };

  async function look(): Promise<boolean> {
    const answer = await ask('GET', `/api/units/${unitId}/bench`);
    if (answer?.status !== 200) return false;
    const view = answer.body as BenchView;
    known = [...view.evidence];
    classCheck = view.classCheck;
    return true;
  }

  async function begin(): Promise<void> {
    const ids = { visitId: randomUUID(), entryId: randomUUID() };
    await ask('POST', `/api/units/${unitId}/visits`, { ...ids, at: now() });
    await look();
  }

  const now = (): string => new Date(Date.now() + addMs).toISOString();
  const entryOf = (draft: NewEvidence): Entry =>
    ({
      ...draft,
      visitId: known[0]?.visitId ?? '',
      by: { userId: person.userId, name, role: person.role },
      station: name,
    }) as Entry;

  /** The visit as it will stand once all that waits was taken; null where that cannot be told. */
  function foldNow(): Fold | null {
    const begun = foldAll(known);
    if (!begun.ok) return null;
    let fold = begun.value;
    for (const draft of waiting) {
      const next = admit(fold, entryOf(draft));
      if (next.refused) return null;
      fold = next.fold;
    }
    return fold;
  }

  /** One more entry into the outbox, where somebody could make one now. */
  function make(): void {
    const last = waiting.at(-1);
    if (last && factsOf(last.kind).isAwaited === true) return;
    const fold = foldNow();
    if (!fold || fold.state.step === null) return;
    for (const [kind, data] of someActs(fold.state, uniform)) {
      const sent = kind === 'signedOff' ? { words: '', check: classCheck } : data;
      const draft = { id: randomUUID(), seq: fold.state.seq + 1, kind, at: now(), data: sent } as NewEvidence;
      if (factsOf(kind).writtenBy === 'server' || admit(fold, entryOf(draft)).refused) continue;
      waiting.push(draft);
      return;
    }
  }

  async function send(): Promise<void> {
    const visitId = known[0]?.visitId;
    const [first] = waiting;
    if (visitId === undefined || !first) return;
    const alone = waiting.findIndex(({ kind }) => factsOf(kind).isAwaited !== false || kind === 'released');
    const together = waiting.slice(0, alone < 0 ? MOST_TOGETHER : alone);
    if (together.length > 1 && uniform() < 0.6) {
      const answer = await ask('POST', `${visitPath(visitId)}/entries`, { entries: together });
      if (answer?.status === 200) await takeAll(answer.body as EntriesTaken);
      else await notTaken(answer);
    } else {
      const answer = await ask('POST', `${visitPath(visitId)}/evidence`, first);
      if (answer?.status === 200 || answer?.status === 201) take(answer.body as EntryTaken);
      else await notTaken(answer);
    }
  }

  function take({ entry, followed }: EntryTaken): void {
    acknowledged.set(entry.id, entry.hash);
    waiting = waiting
      .filter(({ id }) => id !== entry.id)
      .map((draft) => ({ ...draft, seq: draft.seq + followed.length }));
    for (const each of [entry, ...followed]) if (each.seq === known.length + 1) known.push(each);
  }

  async function takeAll({ taken, refused: problem }: EntriesTaken): Promise<void> {
    for (const each of taken) take(each);
    if (problem) await notTaken({ status: problem.status, body: null, serverMs: Number.NaN });
  }

  /** Kept where it may work later, given up with what was made on top of it where the server refused it. */
  async function notTaken(answer: Answer): Promise<void> {
    if (answer === null || answer.status >= 500 || answer.status === 401 || answer.status === 429) {
      await after(RETRY_MS);
      return;
    }
    for (const { id } of waiting) refused.add(id);
    waiting = [];
    await look();
  }

  async function turn(): Promise<void> {
    if (known.length === 0 && !(await look())) return void (await after(RETRY_MS));
    if (known.length === 0) return begin();
    if (acts < schedule.acts && waiting.length < MOST_WAITING) {
      acts++;
      make();
    }
    if (waiting.length > 0 && (waiting.length >= MOST_WAITING || uniform() < 0.7)) await send();
  }

  return {
    name,
    acknowledged,
    refused,
    work: async () => {
      for (let tries = 0; acts < schedule.acts && tries < MOST_TRIES; tries++) await turn();
    },
    drain: async () => {
      astray = 0;
      for (const again of late.splice(0)) await again();
      for (let tries = 0; waiting.length > 0; tries++) {
        if (tries === MOST_TRIES) throw new Error(`${name}: ${waiting.length} entries are never taken nor refused`);
        await send();
      }
    },
  };
}

/** What somebody may do next, the likeliest first: mostly what is due, at times anything. */
function someActs(state: VisitState, uniform: () => number) {
  const acts = likelyActs(state);
  const proof = nextProof(state);
  const from = Math.floor(uniform() * acts.length);
  const any = [...acts.slice(from), ...acts.slice(0, from)];
  if (uniform() < 0.12) return any;
  const due = acts.filter(([kind, data]) => DUE.has(kind) && isSound(kind, data));
  return [...(proof ? [proof] : []), ...due, ...any];
}

const DUE: ReadonlySet<string> = new Set([
  'checkedIn',
  'madeSafe',
  'asFoundRead',
  'asFoundClosed',
  'codeKeyed',
  'keyInClosed',
  'restarted',
  'codeRead',
  'readBackClosed',
  'stepByHand',
  'proved',
  'signedOff',
  'released',
]);
const isSound = (kind: string, data: object): boolean =>
  (kind !== 'checkedIn' || ('packCondition' in data && data.packCondition === 'sound')) &&
  (kind !== 'asFoundRead' || ('raw' in data && data.raw !== null));
