import { useEffect, useMemo, type ReactNode } from 'react';
import { targetOf, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { speak } from '../../ui/speak.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { codePresses, codeSays } from './code-presses.js';
import type { KeyRun } from './use-key-run.js';
import panel from '../panel.module.css';
import classes from './key-in.module.css';

export interface DueCodeProps {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly run: KeyRun;
  /** Between the presses and the acts. */
  readonly children: ReactNode;
  /** Beside the main act. */
  readonly acts: ReactNode;
}

/** All presses of one code at once, for hands that know the display; Space once they are done. */
export function DueCode({ bench, state, run, children, acts }: DueCodeProps) {
  const code = useMemo(() => codePresses(bench.map, run.plan, run.index), [bench.map, run.plan, run.index]);
  const serves = run.due?.serves ?? null;
  const done = () => run.doneThrough(code.to);
  useHotkeys({ Space: done }, { shown: run.index });
  const said = codeSays(code);
  useEffect(() => speak(said), [said]);
  return (
    <>
      <div className={classes['code']}>
        <h2>{code.title}</h2>
        <ol aria-label="Presses of this code">
          {code.orders.map((order, i) => (
            <li key={i}>{order}</li>
          ))}
        </ol>
        {code.ends !== null && <p className={classes['ends']}>{code.ends}</p>}
        {serves !== null && <p className={classes['why']}>{targetOf(state.opened.setup, serves)?.because ?? ''}</p>}
      </div>
      {children}
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={done}>
          {serves === null ? 'Menu left' : 'This code is done'}
        </ActButton>
        {acts}
      </div>
    </>
  );
}
