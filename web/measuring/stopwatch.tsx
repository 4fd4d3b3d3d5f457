import { useCallback, useEffect, useState } from 'react';

export interface Watch {
  /** By `performance.now()`; null while it stands. */
  readonly startedAt: number | null;
  readonly start: () => void;
  /** Stops it. @returns seconds since it was started, 0 where it was not */
  readonly stop: () => number;
}

export function useWatch(): Watch {
  const [startedAt, setStartedAt] = useState<number | null>(null);
  const start = useCallback(() => setStartedAt(performance.now()), []);
  const stop = useCallback(() => {
    setStartedAt(null);
    return startedAt === null ? 0 : Math.round(performance.now() - startedAt) / 1000;
  }, [startedAt]);
  return { startedAt, start, stop };
}

/** Seconds since a moment of `performance.now()`, as they run, or as they were stopped. */
export function StopwatchFace({
  startedAt,
  stopped,
  className,
}: {
  readonly startedAt: number | null;
  readonly stopped: number | null;
  readonly className?: string | undefined;
}) {
  const [now, setNow] = useState(() => performance.now());
  useEffect(() => {
    if (startedAt === null) return;
    const timer = setInterval(() => setNow(performance.now()), 50);
    return () => clearInterval(timer);
  }, [startedAt]);
  const seconds = stopped ?? (startedAt === null ? 0 : Math.max(0, now - startedAt) / 1000);
  return <output className={className ?? ''}>{seconds.toFixed(stopped === null ? 1 : 2)}</output>;
}
