import { useEffect, useRef } from 'react';
import { useDispatch } from 'react-redux';
import { api, TAGS } from './api.js';
import { reach, useReach } from './reach.js';
import type { AppDispatch } from './store.js';

const LOOK_MS = 3_000;
/** Behind a slow network an answer takes its time, and is one. */
const ANSWER_MS = 8_000;

/** While the server does not answer, asks whether it does again, and then for all that is on the screen. Draws nothing. */
export function WatchReach() {
  const dispatch = useDispatch<AppDispatch>();
  const isAway = useReach().awaySince !== null;
  const was = useRef(isAway);
  useEffect(() => {
    if (was.current && !isAway) dispatch(api.util.invalidateTags([...TAGS]));
    was.current = isAway;
  }, [dispatch, isAway]);
  useEffect(() => {
    const look = async () => {
      const isThere = await serverAnswers();
      dispatch(isThere ? reach.actions.answered() : reach.actions.unanswered(Date.now()));
    };
    const lost = () => dispatch(reach.actions.unanswered(Date.now()));
    window.addEventListener('offline', lost);
    window.addEventListener('online', look);
    const looking = isAway ? setInterval(() => void look(), LOOK_MS) : undefined;
    return () => {
      window.removeEventListener('offline', lost);
      window.removeEventListener('online', look);
      clearInterval(looking);
    };
  }, [dispatch, isAway]);
  return null;
}

/** Whether the server and its database answer. */
export const serverAnswers = async (): Promise<boolean> =>
  (await fetch('/api/health', { cache: 'no-store', signal: AbortSignal.timeout(ANSWER_MS) }).catch(() => null))?.ok ??
  false;
