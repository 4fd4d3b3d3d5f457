import { useCallback, useRef, useState } from 'react';
import type { ErrorBody, HeldLine, MovingKind, UnitMoved } from '@decurio/contract';
import { linesOf } from '../../state/lines-of.js';

/** How far the units that are out were held against a newer version. */
export interface Held {
  readonly version: number;
  readonly name: string;
  readonly units: number;
  readonly sofar: number;
  readonly moved: readonly UnitMoved[];
  /** `stopped`: by a person, or the line broke; what stands here is not all. */
  readonly state: 'running' | 'ended' | 'stopped';
  /** Units of which a document could not be read. */
  readonly unreadable: number;
  readonly problem: string | null;
}

const BEGUN: Held = {
  version: 0,
  name: '',
  units: 0,
  sofar: 0,
  moved: [],
  state: 'running',
  unreadable: 0,
  problem: null,
};

/** Holds units against a version, line by line as they come, until all were looked at or somebody stops it. */
export function useHeld() {
  const [held, setHeld] = useState<Held | null>(null);
  const running = useRef<AbortController | null>(null);
  const stop = useCallback(() => running.current?.abort(), []);
  const hold = useCallback(async (kind: MovingKind, id: string) => {
    running.current?.abort();
    const control = new AbortController();
    running.current = control;
    setHeld(BEGUN);
    const change = (part: (before: Held) => Held) => {
      if (running.current === control) setHeld((before) => part(before ?? BEGUN));
    };
    try {
      const answer = await fetch(`/api/ledger/moved/${kind}/${encodeURIComponent(id)}`, { signal: control.signal });
      if (!answer.ok || !answer.body) throw new Error(((await answer.json()) as ErrorBody).error.message);
      for await (const lines of linesOf<HeldLine>(answer.body)) change((before) => lines.reduce(withLine, before));
      change((before) => (before.state === 'running' ? { ...before, state: 'stopped' } : before));
    } catch (error) {
      const problem = control.signal.aborted ? null : error instanceof Error ? error.message : String(error);
      change((before) => ({ ...before, state: 'stopped', problem }));
    }
  }, []);
  return { held, hold, stop };
}

function withLine(held: Held, line: HeldLine): Held {
  switch (line.line) {
    case 'begun':
      return { ...held, version: line.version, name: line.name, units: line.units };
    case 'unit':
      return { ...held, moved: [...held.moved, line.unit] };
    case 'sofar':
      return { ...held, sofar: line.units };
    case 'ended':
      return { ...held, state: 'ended', unreadable: line.unreadable };
  }
}
