import { useEffect, useState } from 'react';

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
