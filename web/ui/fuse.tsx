import { useEffect, useState, type CSSProperties } from 'react';
import classes from './fuse.module.css';

export interface FuseProps {
  readonly idleMs: number;
  /** What to do once it has burnt down. */
  readonly whenOut: string;
}

/** How long the menu stays open without a press; give it a new `key` with every press. */
export function Fuse({ idleMs, whenOut }: FuseProps) {
  const [out, setOut] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setOut(true), idleMs);
    return () => clearTimeout(timer);
  }, [idleMs]);
  return (
    <div className={classes['fuse']} data-out={out}>
      <div className={classes['track']}>
        <i
          data-clock
          style={{ animationDuration: `${idleMs}ms`, '--seconds': Math.ceil(idleMs / 1000) } as CSSProperties}
        />
      </div>
      <p role="status">{out ? whenOut : `Menu closes by itself after ${idleMs / 1000} s without a press`}</p>
    </div>
  );
}
