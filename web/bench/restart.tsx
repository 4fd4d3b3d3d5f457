import { IconCheck } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../ui/act-button.js';
import { useHotkeys } from '../ui/use-hotkeys.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

/** Step 5: the acts of this display's power cycle, one by one, with a countdown where waiting is needed. */
export function Restart({ bench, visit }: { readonly bench: BenchView; readonly visit: Visit }) {
  const { restart } = bench.map;
  const [at, setAt] = useState(0);
  const [waitedFor, setWaitedFor] = useState(-1);
  const act = restart[at];
  const mustWait = act !== undefined && act.waitMs > 0 && waitedFor !== at;
  const [leftMs, setLeftMs] = useState<number | null>(null);

  useEffect(() => {
    if (leftMs === null) return;
    if (leftMs <= 0) {
      setLeftMs(null);
      setWaitedFor(at);
      setAt((now) => now + 1);
      return;
    }
    const timer = setTimeout(() => setLeftMs(leftMs - 250), 250);
    return () => clearTimeout(timer);
  }, [leftMs, at]);

  const next = () => {
    if (leftMs !== null) return;
    if (act && mustWait) setLeftMs(act.waitMs);
    else if (at < restart.length) setAt(at + 1);
    if (act === undefined) void visit.act('restarted', { acts: restart.map((r) => r.act) });
  };
  useHotkeys({ Space: next });

  return (
    <div className={classes['panel']}>
      <p className="cap">Restart · codes that act only after it, act from now on</p>
      <ol className={classes['acts-list']}>
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
          {leftMs !== null ? 'Waiting' : act === undefined ? 'Restarted, to read back' : mustWait ? 'Done, start the wait' : 'Done, next'}
        </ActButton>
      </div>
    </div>
  );
}
