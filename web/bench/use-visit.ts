import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import { foldVisit, type Deed, type Evidence, type EvidenceData, type VisitState } from '@decurio/core';
import type { BenchView, NewEvidence, WrittenKind } from '@decurio/contract';
import type { AppDispatch } from '../state/store.js';
import { api, asProblem, entryAccepted, type ApiProblem } from '../state/api.js';
import { useSession } from '../state/session.js';

/** An entry made here. It stays until the evidence read from the server holds it, so that it never undoes itself on the screen. */
interface Made {
  readonly entry: NewEvidence;
  /** The server has it; the evidence on this device may not show it for a moment yet. */
  readonly taken: boolean;
  /** Told to the maker once the server answered; forms keep what was typed until then. */
  readonly settle: (problem: ApiProblem | null) => void;
}

export interface Visit {
  /** The visit as it stands with the entries that still wait; null before it is opened. */
  readonly state: VisitState | null;
  /** Writes an entry; settles with null once the server took it. */
  readonly act: <K extends WrittenKind>(kind: K, data: EvidenceData[K]) => Promise<ApiProblem | null>;
  readonly begin: () => Promise<void>;
  /** Why the newest entry was not taken, if so. */
  readonly problem: ApiProblem | null;
  readonly waiting: number;
  readonly retry: () => void;
  readonly dismiss: () => void;
}

/** Acts on forms wait for the server before the page moves on; all others show at once. */
const SHOWN_WHEN_TAKEN: ReadonlySet<WrittenKind> = new Set<WrittenKind>(['checkedIn', 'held', 'released', 'signedOff', 'undone']);
const RETRY_MS = 3_000;

/** One unit's visit: folds what the server has with what waits here, and sends entries one after another. */
export function useVisit(unitId: string, bench: BenchView): Visit {
  const dispatch = useDispatch<AppDispatch>();
  const { who, lost } = useSession();
  const [queue, setQueue] = useState<readonly Made[]>([]);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [open, opening] = api.useOpenVisitMutation();
  const sending = useRef(false);
  const { evidence } = bench;
  const visitId = evidence[0]?.visitId ?? null;

  const waiting = queue.filter(({ taken }) => !taken).length;

  const shownDeeds = useMemo(() => {
    if (!who) return evidence;
    const by = { userId: who.userId, name: who.name, role: who.role };
    const known = new Set(evidence.map((entry) => entry.id));
    const early = queue.filter(({ entry, taken: isTaken }) => (isTaken || !SHOWN_WHEN_TAKEN.has(entry.kind)) && !known.has(entry.id));
    return [...evidence, ...early.map(({ entry }) => ({ ...entry, visitId: visitId ?? '', by, station: who.station }) as Deed)];
  }, [evidence, queue, visitId, who]);
  const state = useMemo(() => foldOrKnown(shownDeeds, evidence), [shownDeeds, evidence]);

  const act = useCallback(
    <K extends WrittenKind>(kind: K, data: EvidenceData[K]) =>
      new Promise<ApiProblem | null>((settle) => {
        setProblem(null);
        setQueue((before) => {
          const ahead = before.filter(({ entry }) => !evidence.some((known) => known.id === entry.id));
          const seq = evidence.length + ahead.length + 1;
          const entry = { id: crypto.randomUUID(), seq, kind, at: new Date().toISOString(), data } as NewEvidence;
          return [...ahead, { entry, taken: false, settle }];
        });
      }),
    [evidence],
  );

  const latest = useRef(queue);
  useEffect(() => {
    latest.current = queue;
  });
  const send = useCallback(async () => {
    const first = latest.current.find(({ taken }) => !taken);
    if (!first || sending.current || visitId === null) return;
    sending.current = true;
    const answer = await dispatch(api.endpoints.addEvidence.initiate({ unitId, visitId, body: first.entry }));
    sending.current = false;
    const refusal = asProblem(answer.error);
    setProblem(refusal);
    if (refusal && mayWorkLater(refusal)) return;
    if (answer.data) {
      dispatch(entryAccepted(unitId, answer.data));
      setQueue((now) => now.map((made) => (made === first ? { ...made, taken: true } : made)));
      return first.settle(null);
    }
    for (const { settle } of latest.current) settle(refusal);
    setQueue([]);
    void dispatch(api.endpoints.bench.initiate(unitId, { forceRefetch: true, subscribe: false }));
  }, [dispatch, unitId, visitId]);

  useEffect(() => {
    if (waiting === 0 || lost) return;
    const timer = setTimeout(() => void send(), problem === null ? 0 : RETRY_MS);
    return () => clearTimeout(timer);
  }, [queue, waiting, problem, lost, send]);

  useEffect(() => {
    if (waiting === 0) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [waiting]);

  const firstId = useRef({ visitId: crypto.randomUUID(), entryId: crypto.randomUUID() });
  const begin = useCallback(async () => {
    setProblem(null);
    const answer = await open({ unitId, body: { ...firstId.current, at: new Date().toISOString() } });
    setProblem(asProblem(answer.error));
  }, [open, unitId]);

  return {
    state,
    act,
    begin,
    problem: opening.isLoading ? null : problem,
    waiting,
    retry: () => void send(),
    dismiss: () => setProblem(null),
  };
}

/** The entry itself is not at fault: the server is away, or the session ended. */
const mayWorkLater = ({ status }: ApiProblem): boolean => status === 0 || status === 401 || status === 429 || status >= 500;

function foldOrKnown(deeds: readonly Deed[], evidence: readonly Evidence[]): VisitState | null {
  const shown = foldVisit(deeds);
  if (shown.ok) return shown.value;
  const known = foldVisit(evidence);
  return known.ok ? known.value : null;
}
