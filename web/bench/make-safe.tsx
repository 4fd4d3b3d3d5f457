import { IconCheck } from '@tabler/icons-react';
import { useState } from 'react';
import type { VisitState } from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { useHotkeys } from '../ui/use-hotkeys.js';
import type { Visit } from './use-visit.js';
import classes from './make-safe.module.css';
import panel from './panel.module.css';

/** Step 2, and again whenever the unit came back to a stand: each caution that applies, acknowledged one by one. */
export function MakeSafe({ state, visit }: { readonly state: VisitState; readonly visit: Visit }) {
  const cautions = state.opened.bench?.cautions ?? [];
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  const next = cautions.find((caution) => !seen.has(caution));
  const isAgain = state.step !== 'makeSafe';
  const finish = () => void visit.act('madeSafe', { cautions });
  const acknowledge = (caution: string) => setSeen((before) => new Set([...before, caution]));
  const go = () => (next === undefined ? finish() : acknowledge(next));
  useHotkeys({ Space: go });
  return (
    <div className={panel['panel']}>
      <p className="cap">Make safe{isAgain && ' · it came back to a stand'}</p>
      <h2 className={panel['title']}>{isAgain ? 'Once more before hands go on' : 'Before hands go on'}</h2>
      <ol className={classes['cautions']} aria-label="Cautions">
        {cautions.map((caution) => (
          <li
            key={caution}
            data-mark={seen.has(caution) ? 'done' : caution === next ? 'now' : 'todo'}
            aria-current={caution === next ? 'step' : undefined}
          >
            <button type="button" aria-pressed={seen.has(caution)} onClick={() => acknowledge(caution)}>
              <span aria-hidden="true">{seen.has(caution) && <IconCheck size={18} stroke={2.6} />}</span>
              {caution}
            </button>
          </li>
        ))}
      </ol>
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={go}>
          {next === undefined ? (isAgain ? 'Safe, go on' : 'Safe, to as found') : 'Done or understood, next'}
        </ActButton>
        <span className="soft" aria-live="polite">
          {cautions.length - seen.size === 0 ? 'All acknowledged' : `${cautions.length - seen.size} to go`}
        </span>
      </div>
    </div>
  );
}
