import { useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { waitingOf } from '../outbox/outbox.js';
import { useOutbox } from '../outbox/use-outbox.js';
import { api } from '../state/api.js';
import { takeRelease } from '../state/new-release.js';
import classes from './new-release.module.css';

const LOOK_MS = 5 * 60_000;

/**
 * On the strap while the house runs another release than this page. It is taken on the way to the next place, once the
 * server has every entry; what was typed is kept on this device.
 */
export function NewRelease() {
  const { data: isThere = false } = api.useNewReleaseQuery(null, { pollingInterval: LOOK_MS });
  const isEmpty = waitingOf(useOutbox()).length === 0;
  const [isTaking, setIsTaking] = useState(false);
  const { pathname } = useLocation();
  // On the way to the next place, not as soon as it is there: somebody reads this one.
  const readAt = useRef(pathname);
  useEffect(() => {
    if (isThere && isEmpty && readAt.current !== pathname) void takeRelease();
    readAt.current = pathname;
  }, [isThere, isEmpty, pathname]);
  if (!isThere) return null;
  return (
    <button
      type="button"
      className={classes['release']}
      onClick={() => {
        setIsTaking(true);
        void takeRelease();
      }}
      disabled={!isEmpty || isTaking}
    >
      {!isEmpty ? 'New release: once all is sent' : isTaking ? 'New release: loading' : 'New release: load it'}
    </button>
  );
}
