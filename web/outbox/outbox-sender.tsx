import { useEffect, useMemo, useRef, useState } from 'react';
import { useDispatch, useStore } from 'react-redux';
import type { ApiProblem } from '../state/api.js';
import type { AppDispatch, RootState } from '../state/store.js';
import { useSession } from '../state/session.js';
import { outbox } from './outbox.js';
import { adoptEntries, keepsAnything } from './outbox-shelf.js';
import { nextToSend } from './next-to-send.js';
import { keepAfterAll, sendEntries } from './send-entries.js';
import { useOutbox } from './use-outbox.js';

const RETRY_MS = 3_000;
const ADOPT_MS = 4_000;

const ON_THIS_DEVICE: ApiProblem = {
  status: 0,
  code: 'device',
  message: 'This device cannot reach what it keeps. Entries stay on it; reload the page.',
};

/** Sends what waits on this device, the oldest first, whatever page is open. Draws nothing. */
export function OutboxSender() {
  const dispatch = useDispatch<AppDispatch>();
  const store = useStore<RootState>();
  const { who, lost } = useSession();
  const { entries, away, isRestored } = useOutbox();
  const sending = useRef(false);
  const [round, setRound] = useState(0);

  useEffect(() => {
    const adopt = () => {
      void adoptEntries()
        .catch(() => [])
        .then((left) => dispatch(outbox.actions.restored(left)));
      const { entries, keepsNothing } = store.getState().outbox;
      if (keepsNothing) void keepAfterAll(entries).then((does) => dispatch(outbox.actions.keeps(does)));
    };
    adopt();
    void keepsAnything().then((does) => dispatch(outbox.actions.keeps(does)));
    // A page that is closing lets go of its entries a moment later.
    const timer = setInterval(adopt, ADOPT_MS);
    return () => clearInterval(timer);
  }, [dispatch, store]);

  const next = useMemo(
    () => (who && !lost && isRestored ? nextToSend(entries, who) : []),
    [entries, who, lost, isRestored],
  );
  useEffect(() => {
    if (next.length === 0 || sending.current) return;
    const timer = setTimeout(
      () => {
        sending.current = true;
        void sendEntries(next, dispatch)
          .catch(() => ON_THIS_DEVICE)
          .then((problem) => {
            sending.current = false;
            dispatch(outbox.actions.away(problem));
            setRound((before) => before + 1);
          });
      },
      away === null ? 0 : RETRY_MS,
    );
    const hurry = () => dispatch(outbox.actions.away(null));
    window.addEventListener('online', hurry);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('online', hurry);
    };
  }, [next, away, round, dispatch]);
  return null;
}
