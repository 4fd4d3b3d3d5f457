import { useEffect, useState } from 'react';
import { useDispatch, useStore } from 'react-redux';
import type { BenchView, ChangeSeen } from '@decurio/contract';
import { api } from './api.js';
import { reach } from './reach.js';
import { useSession } from './session.js';
import type { AppDispatch, RootState } from './store.js';
import { serverAnswers } from './watch-reach.js';

/** A stream that ended for good, as behind a proxy whose server is away, is opened anew after this. */
const REOPEN_MS = 3_000;
/** Changes that come close together are looked up once. */
const GATHER_MS = 300;

/** What may have changed while nobody listened, a release among it: a server that was away may be another. */
const EVERYTHING = ['Line', 'Orders', 'Ledger', 'Bench', 'Release'] as const;

/** Hears from the server which units and orders moved, on whatever stand, and looks them up anew. Draws nothing. */
export function LiveChanges() {
  const dispatch = useDispatch<AppDispatch>();
  const store = useStore<RootState>();
  const { lost } = useSession();
  const [opening, setOpening] = useState(0);
  useEffect(() => {
    if (lost) return;
    const source = new EventSource('/api/changes');
    let reopen: ReturnType<typeof setTimeout> | undefined;
    source.addEventListener('error', () => {
      void serverAnswers().then((isThere) => isThere || dispatch(reach.actions.unanswered(Date.now())));
      if (source.readyState === EventSource.CLOSED)
        reopen = setTimeout(() => setOpening((before) => before + 1), REOPEN_MS);
    });
    // What moved while nobody listened is looked up once.
    if (opening > 0) dispatch(api.util.invalidateTags([...EVERYTHING]));
    let gathered: ChangeSeen[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      timer = undefined;
      const moved = gathered.filter((change) => !isKnown(store.getState(), change));
      gathered = [];
      if (moved.length === 0) return;
      const units = [...new Set(moved.flatMap(({ unitId }) => unitId ?? []))];
      const movedOrders = [...new Set(moved.map(({ orderId }) => orderId))];
      const orders = moved.some(({ unitId }) => unitId === null);
      dispatch(
        api.util.invalidateTags([
          ...movedOrders.map((id) => ({ type: 'Line' as const, id })),
          ...['list', ...movedOrders].map((id) => ({ type: 'Orders' as const, id })),
          'Ledger',
          ...units.map((id) => ({ type: 'Bench' as const, id })),
          ...(orders ? ['Bench' as const] : []),
        ]),
      );
    };
    source.addEventListener('moved', (event: MessageEvent<string>) => {
      gathered.push(JSON.parse(event.data) as ChangeSeen);
      timer ??= setTimeout(look, GATHER_MS);
    });
    source.addEventListener('missed', () => dispatch(api.util.invalidateTags([...EVERYTHING])));
    return () => {
      clearTimeout(timer);
      clearTimeout(reopen);
      source.close();
    };
  }, [dispatch, store, lost, opening]);
  return null;
}

/** This page's own entry, which its bench shows already. Lists still want to know of it. */
function isKnown(state: RootState, { unitId, seq }: ChangeSeen): boolean {
  if (unitId === null) return false;
  const bench = api.endpoints.bench.select(unitId)(state).data as BenchView | undefined;
  const lists = Object.values(state.api.queries).some(
    (query) =>
      query?.status === 'fulfilled' &&
      (query.endpointName === 'line' || query.endpointName === 'orders' || query.endpointName === 'ledger'),
  );
  return !lists && (bench?.evidence.at(-1)?.seq ?? 0) >= seq;
}
