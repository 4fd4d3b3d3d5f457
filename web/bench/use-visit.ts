import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useDispatch, useStore } from 'react-redux';
import {
  admit,
  factsOf,
  foldAll,
  numbered,
  visitAhead,
  whyAnew,
  type Evidence,
  type EvidenceData,
  type EvidenceKind,
  type Fold,
  type Unnumbered,
  type VisitState,
  type WrittenKind,
} from '@decurio/core';
import type { BenchView, NewEvidence } from '@decurio/contract';
import { outbox, type OutboxEntry } from '../outbox/outbox.js';
import { dropEntry, dropPhoto, type Waiting } from '../outbox/outbox-shelf.js';
import { keepEntry } from '../outbox/send-entries.js';
import { useOutbox } from '../outbox/use-outbox.js';
import type { AppDispatch, RootState } from '../state/store.js';
import { api, asProblem, type ApiProblem } from '../state/api.js';
import { recordTime } from '../state/clock.js';
import { useReach } from '../state/reach.js';
import { useSession } from '../state/session.js';
import { useReviseSetup } from './use-revise-setup.js';

export interface Visit {
  /** The visit as it stands with the entries that still wait; null before it is opened. */
  readonly state: VisitState | null;
  /** Writes an entry. Settles with null once it is kept here, or, where the next step needs the server's answer, taken there. */
  readonly act: <K extends WrittenKind>(kind: K, data: EvidenceData[K]) => Promise<ApiProblem | null>;
  readonly begin: () => Promise<void>;
  /** The server is asked to open it. */
  readonly isBeginning: boolean;
  /** Why the newest entry cannot follow, or was not taken. */
  readonly problem: ApiProblem | null;
  /** Entries of this visit that the server refused, oldest first; kept until somebody looked. */
  readonly refused: readonly OutboxEntry[];
  readonly sendAgain: () => void;
  readonly drop: () => void;
  readonly dismiss: () => void;
  /** The setup shown was worked out on this stand; the server, which decides, has not said its own yet. */
  readonly isSetupOwn: boolean;
  /** An entry is on its way whose answer the next step needs. */
  readonly isAwaited: boolean;
  /** What that entry is, where nobody answers; null while the server does. */
  readonly waitsFor: EvidenceKind | null;
}

/** How it is with this stand where entries wait. */
interface Standing {
  readonly isAway: boolean;
  /** A setup can be worked out anew here. */
  readonly mayRevise: boolean;
}

/**
 * Whether the next step waits for what the server makes of an entry. All others show at once; so do those that one may
 * go on from where nobody answers, and what somebody went on from.
 */
function waitsForAnswer({ status, entry }: OutboxEntry, isNewest: boolean, { isAway, mayRevise }: Standing): boolean {
  const { isAwaited } = factsOf(entry.kind);
  if (status !== 'waiting' || isAwaited === false) return false;
  return isAwaited === true || (whyAnew(entry) !== null && !mayRevise) || (!isAway && isNewest);
}

/** As the server answers to an entry that cannot follow. */
const CANNOT_FOLLOW = 409;
/** The same act within this time is one press too many of a key or a foot switch, and no mistake. */
const TWICE_MS = 1_000;

/** One unit's visit: folds what the server has with what waits on this device. */
export function useVisit(unitId: string, bench: BenchView): Visit {
  const dispatch = useDispatch<AppDispatch>();
  const store = useStore<RootState>();
  const { who } = useSession();
  const { entries } = useOutbox();
  const isAway = useReach().awaySince !== null;
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const [open, opening] = api.useOpenVisitMutation();
  const { evidence } = bench;
  const revise = useReviseSetup(bench);
  const visitId = evidence[0]?.visitId ?? null;
  const standing = useMemo(() => ({ isAway, mayRevise: revise !== null }), [isAway, revise]);

  const own = useMemo(() => entries.filter((each) => each.visitId === visitId), [entries, visitId]);
  const refused = own.filter(({ status }) => status === 'refused');
  const awaited = own.find((each, i) => waitsForAnswer(each, i === own.length - 1, standing));

  const known = useMemo(() => folded(evidence), [evidence]);
  const shown = useMemo(() => upToAwaited(own, standing), [own, standing]);
  const state = useMemo(
    () => known && (visitAhead(known, notTaken(shown, evidence).map(unnumbered), revise) ?? known).state,
    [known, shown, evidence, revise],
  );

  const waits = useRef(new Map<string, (problem: ApiProblem | null) => void>());
  useEffect(() => {
    for (const [id, settle] of waits.current) {
      const mine = entries.find(({ entry }) => entry.id === id);
      const isNewest = mine === entries.findLast((each) => each.visitId === mine?.visitId);
      if (mine && waitsForAnswer(mine, isNewest, standing)) continue;
      waits.current.delete(id);
      settle(mine?.problem ?? null);
    }
  }, [entries, standing]);

  const latest = useRef({ kind: '', data: '', at: 0 });
  const act = useCallback(
    <K extends WrittenKind>(kind: K, data: EvidenceData[K]): Promise<ApiProblem | null> => {
      if (!who || visitId === null) return Promise.resolve(null);
      // The newest of the outbox, not of the last drawing: two acts may come between two drawings.
      const all = store.getState().outbox.entries.filter((each) => each.visitId === visitId);
      const now = (api.endpoints.bench.select(unitId)(store.getState()).data as BenchView | undefined) ?? bench;
      const waiting = notTaken(
        all.filter(({ status }) => status !== 'refused'),
        now.evidence,
      );
      const { userId, name, role, station } = who;
      const made = {
        entry: {
          id: crypto.randomUUID(),
          // What the server writes because of those that wait moves this on once they are taken.
          seq: now.evidence.length + waiting.length + 1,
          kind,
          at: recordTime(store.getState().clock),
          data,
        } as NewEvidence,
        visitId,
        userId,
        name,
        role,
        station,
      };
      const fold = folded(now.evidence);
      const early = fold && visitAhead(fold, waiting.map(unnumbered), revise);
      const outcome = early && admit(early, numbered(early, unnumbered(made)));
      const again =
        latest.current.kind === kind &&
        JSON.stringify(data) === latest.current.data &&
        Date.now() - latest.current.at < TWICE_MS;
      // Where what waits here does not follow any more the server decides, and says so.
      if (outcome?.refused && again) return Promise.resolve(null);
      if (outcome?.refused) {
        const cannot = { status: CANNOT_FOLLOW, ...outcome.refused };
        setProblem(cannot);
        return Promise.resolve(cannot);
      }
      setProblem(null);
      latest.current = { kind, data: JSON.stringify(data), at: Date.now() };
      const order = 1 + Math.max(0, ...store.getState().outbox.entries.map((each) => each.order));
      const [opened] = now.evidence;
      dispatch(keepEntry({ ...made, unitId, serial: opened?.kind === 'opened' ? opened.data.serial : '', order }));
      if (factsOf(kind).isAwaited === false) return Promise.resolve(null);
      return new Promise((settle) => waits.current.set(made.entry.id, settle));
    },
    [dispatch, store, who, visitId, unitId, bench, revise],
  );

  const firstId = useRef({ visitId: crypto.randomUUID(), entryId: crypto.randomUUID() });
  const begin = useCallback(async () => {
    setProblem(null);
    const answer = await open({ unitId, body: { ...firstId.current, at: recordTime(store.getState().clock) } });
    setProblem(asProblem(answer.error));
  }, [open, store, unitId]);

  return {
    state,
    act,
    begin,
    isBeginning: opening.isLoading,
    problem: opening.isLoading ? null : problem,
    refused,
    sendAgain: () =>
      visitId !== null &&
      dispatch(outbox.actions.sentAgain({ visitId, fromSeq: evidence.length + notTaken(shown, evidence).length + 1 })),
    drop: () => {
      for (const { entry } of refused) {
        void dropEntry(entry.id);
        if (entry.kind === 'photographed') void dropPhoto(entry.data.photoId);
      }
      if (visitId !== null) dispatch(outbox.actions.dropped({ visitId }));
    },
    dismiss: () => setProblem(null),
    isSetupOwn: known !== null && state?.opened.setup !== known.state.opened.setup,
    isAwaited: awaited !== undefined,
    waitsFor: isAway ? (awaited?.entry.kind ?? null) : null,
  };
}

/** What waits, as whoever wrote it says it. */
const unnumbered = ({
  entry: { id, kind, at, data },
  visitId,
  userId,
  name,
  role,
  station,
}: Omit<Waiting, 'order' | 'unitId' | 'serial'>): Unnumbered =>
  ({ id, visitId, kind, at, by: { userId, name, role }, station, data }) as Unnumbered;

/** Of what waits here what the server's log does not have yet. */
function notTaken(waiting: readonly OutboxEntry[], evidence: readonly Evidence[]): readonly OutboxEntry[] {
  const known = new Set(evidence.map(({ id }) => id));
  return waiting.filter(({ entry }) => !known.has(entry.id));
}

/** What is shown of what waits: an entry whose answer the next step needs waits for it, with all behind it. */
function upToAwaited(own: readonly OutboxEntry[], standing: Standing): readonly OutboxEntry[] {
  const early = own.filter(({ status }) => status !== 'refused');
  const first = early.findIndex((each, i) => waitsForAnswer(each, i === early.length - 1, standing));
  return first < 0 ? early : early.slice(0, first);
}

/** What the server has taken; null where that is no visit. */
function folded(evidence: readonly Evidence[]): Fold | null {
  const outcome = foldAll(evidence);
  return outcome.ok ? outcome.value : null;
}
