import { IconCheck } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../ui/act-button.js';
import { useHotkeys } from '../ui/use-hotkeys.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

const TICK_MS = 200;

/** Step 5: the acts of this display's power cycle, one by one, with a countdown where waiting is needed. */
export function Restart({ bench, visit }: { readonly bench: BenchView; readonly visit: Visit }) {
  const { restart } = bench.map;
  const [at, setAt] = useState(0);
  const [until, setUntil] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  const act = restart[at];
  const leftMs = until === null ? null : Math.max(0, until - now);

  useEffect(() => {
    if (until === null) return;
    const timer = setInterval(() => {
      setNow(Date.now());
      if (Date.now() < until) return;
      setUntil(null);
      setAt((before) => before + 1);
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [until]);

  const next = () => {
    if (until !== null) return;
    if (act === undefined) void visit.act('restarted', { acts: restart.map((r) => r.act) });
    else if (act.waitMs > 0) {
      setNow(Date.now());
      setUntil(Date.now() + act.waitMs);
    } else setAt(at + 1);
  };
  useHotkeys({ Space: next });

  return (
    <div className={classes['panel']}>
      <p className="cap">Restart · codes that act only after it, act from now on</p>
      <ol className={classes['acts-list']} aria-label="Power cycle">
        {restart.map((step, i) => (
          <li key={step.act} data-mark={i < at ? 'done' : i === at ? 'now' : 'todo'} aria-current={i === at ? 'step' : undefined}>
            <span aria-hidden="true">{i < at ? <IconCheck size={17} stroke={2.6} /> : i + 1}</span>
            <p>
              {step.act}
              {step.waitMs > 0 && i === at && (
                <small role="timer" aria-live="off">
                  {leftMs === null ? `Then wait ${step.waitMs / 1000} s; the countdown starts with your key.` : `Waiting: ${Math.ceil(leftMs / 1000)} s`}
                </small>
              )}
            </p>
          </li>
        ))}
      </ol>
      <div className={classes['acts']}>
        <ActButton look="main" hotkey="Space" disabled={leftMs !== null} onAct={next}>
          {leftMs !== null ? 'Waiting' : act === undefined ? 'Restarted, to read back' : act.waitMs > 0 ? 'Done, start the wait' : 'Done, next'}
        </ActButton>
      </div>
    </div>
  );
}
