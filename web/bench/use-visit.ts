import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useDispatch, useStore } from 'react-redux';
import {
  admit,
  factsOf,
  foldAll,
  type Entry,
  type Evidence,
  type EvidenceData,
  type EvidenceKind,
  type Fold,
  type VisitState,
  type WrittenKind,
} from '@decurio/core';
import type { BenchView, NewEvidence } from '@decurio/contract';
import { outbox, type OutboxEntry } from '../outbox/outbox.js';
import { dropEntry, dropPhoto } from '../outbox/outbox-shelf.js';
import { keepEntry } from '../outbox/send-entries.js';
import { useOutbox } from '../outbox/use-outbox.js';
import type { AppDispatch, RootState } from '../state/store.js';
import { api, asProblem, type ApiProblem } from '../state/api.js';
import { recordTime } from '../state/clock.js';
import { useReach } from '../state/reach.js';
import { useSession } from '../state/session.js';

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
  /** An entry is on its way whose answer the next step needs. */
  readonly isAwaited: boolean;
  /** What that entry is, where nobody answers; null while the server does. */
  readonly waitsFor: EvidenceKind | null;
}

/**
 * Whether the next step waits for what the server makes of an entry. All others show at once; so do those that one may
 * go on from where nobody answers, and what somebody went on from.
 */
const waitsForAnswer = ({ status, entry }: OutboxEntry, isAway: boolean, isNewest: boolean): boolean => {
  const { isAwaited } = factsOf(entry.kind);
  return status === 'waiting' && (isAwaited === true || (isAwaited === 'whileItAnswers' && !isAway && isNewest));
};
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
  const visitId = evidence[0]?.visitId ?? null;

  const own = useMemo(() => entries.filter((each) => each.visitId === visitId), [entries, visitId]);
  const refused = own.filter(({ status }) => status === 'refused');
  const awaited = own.find((each, i) => waitsForAnswer(each, isAway, i === own.length - 1));

  const deeds = useMemo(() => shown(evidence, own, isAway), [evidence, own, isAway]);
  const known = useMemo(() => folded(evidence), [evidence]);
  const state = useMemo(() => (known && (withThese(known, deeds) ?? known).state) ?? null, [known, deeds]);

  const waits = useRef(new Map<string, (problem: ApiProblem | null) => void>());
  useEffect(() => {
    for (const [id, settle] of waits.current) {
      const mine = entries.find(({ entry }) => entry.id === id);
      if (mine && waitsForAnswer(mine, isAway, mine === entries.findLast((each) => each.visitId === mine.visitId)))
        continue;
      waits.current.delete(id);
      settle(mine?.problem ?? null);
    }
  }, [entries, isAway]);

  const latest = useRef({ kind: '', data: '', at: 0 });
  const act = useCallback(
    <K extends WrittenKind>(kind: K, data: EvidenceData[K]): Promise<ApiProblem | null> => {
      if (!who || visitId === null) return Promise.resolve(null);
      // The newest of the outbox, not of the last drawing: two acts may come between two drawings.
      const all = store.getState().outbox.entries.filter((each) => each.visitId === visitId);
      const known =
        (api.endpoints.bench.select(unitId)(store.getState()).data as BenchView | undefined)?.evidence ?? evidence;
      const before = deedsWith(
        known,
        all.filter(({ status }) => status !== 'refused'),
      );
      const entry = {
        id: crypto.randomUUID(),
        seq: before.length + 1,
        kind,
        at: recordTime(store.getState().clock),
        data,
      } as NewEvidence;
      const by = { userId: who.userId, name: who.name, role: who.role };
      const fold = folded(known);
      const early = fold && withThese(fold, before);
      const outcome = early && admit(early, { ...entry, visitId, by, station: who.station } as Entry);
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
      dispatch(
        keepEntry({
          entry,
          unitId,
          serial: known[0]?.kind === 'opened' ? known[0].data.serial : '',
          visitId,
          userId: who.userId,
          name: who.name,
          station: who.station,
          role: who.role,
          order,
        }),
      );
      if (factsOf(kind).isAwaited === false) return Promise.resolve(null);
      return new Promise((settle) => waits.current.set(entry.id, settle));
    },
    [dispatch, store, who, visitId, unitId, evidence],
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
    sendAgain: () => visitId !== null && dispatch(outbox.actions.sentAgain({ visitId, fromSeq: deeds.length + 1 })),
    drop: () => {
      for (const { entry } of refused) {
        void dropEntry(entry.id);
        if (entry.kind === 'photographed') void dropPhoto(entry.data.photoId);
      }
      if (visitId !== null) dispatch(outbox.actions.dropped({ visitId }));
    },
    dismiss: () => setProblem(null),
    isAwaited: awaited !== undefined,
    waitsFor: isAway ? (awaited?.entry.kind ?? null) : null,
  };
}

/** The log as it will be once all that waits here was taken. */
function deedsWith(evidence: readonly Evidence[], waiting: readonly OutboxEntry[]): readonly Entry[] {
  const known = new Set(evidence.map((entry) => entry.id));
  const own = waiting.filter(({ entry }) => !known.has(entry.id));
  return [
    ...evidence,
    ...own.map(
      ({ entry, visitId, userId, name, role, station }, i) =>
        ({ ...entry, seq: evidence.length + i + 1, visitId, by: { userId, name, role }, station }) as Entry,
    ),
  ];
}

/** What is shown: entries whose answer the next step needs wait for it. */
function shown(evidence: readonly Evidence[], own: readonly OutboxEntry[], isAway: boolean): readonly Entry[] {
  const early = own.filter(({ status }) => status !== 'refused');
  const first = early.findIndex((each, i) => waitsForAnswer(each, isAway, i === early.length - 1));
  return deedsWith(evidence, first < 0 ? early : early.slice(0, first));
}

/** What the server has taken; null where that is no visit. */
function folded(evidence: readonly Evidence[]): Fold | null {
  const outcome = foldAll(evidence);
  return outcome.ok ? outcome.value : null;
}

/** A visit with the entries of this list that it does not have yet; null where one of them cannot follow any more. */
function withThese(known: Fold, deeds: readonly Entry[]): Fold | null {
  let fold = known;
  for (const deed of deeds.slice(known.state.seq)) {
    const next = admit(fold, deed);
    if (next.refused) return null;
    fold = next.fold;
  }
  return fold;
}
