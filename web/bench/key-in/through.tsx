import { findCode, codeTitle, type VisitState } from '@decurio/core';
import { useEffect } from 'react';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import type { KeyRun } from './use-key-run.js';
import panel from '../panel.module.css';

interface ThroughProps {
  readonly state: VisitState;
  readonly run: KeyRun;
  readonly bench: BenchView;
  /** It was come to by the last press of the plan, not by looking at the unit anew. */
  readonly isJustDone: boolean;
  readonly onFinish: () => void;
}

/** The plan is through: leave, or say what no key of this display can reach. */
export function Through({ state, run, bench, isJustDone, onFinish }: ThroughProps) {
  const keyed = state.keyedThisRound.length;
  const mayFinish = state.toKey.length === 0;
  const goesOn = isJustDone && mayFinish && state.stuck.length === 0 && run.plan.unreachable.length === 0;
  // Nothing is left to be said of it: the press that left the menu led on.
  useEffect(() => {
    if (goesOn) onFinish();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, as it is come to
  }, []);
  useHotkeys({ Space: mayFinish ? onFinish : undefined });
  return (
    <div className={panel['panel']}>
      <p className="cap">Key in</p>
      <h2 className={panel['title']}>
        {keyed === 0 ? 'No code has to change' : `${keyed} ${keyed === 1 ? 'code' : 'codes'} keyed, menu closed`}
      </h2>
      <p className={panel['lead']}>
        The glass shows speed again. Power is cycled next, so that codes that act after a restart do act.
      </p>
      {run.plan.unreachable.map(({ label, why }) => (
        <Notice
          key={label}
          kind="care"
          says={why}
          act={{ label: 'It stays as it is', onAct: () => run.doesNotChange(label, state.values[label] ?? 0) }}
        />
      ))}
      {state.stuck.map((label) => {
        const code = findCode(bench.map, label);
        return (
          <Notice
            key={label}
            kind="care"
            says={`${label}${code ? `, ${codeTitle(code).toLowerCase()},` : ''} would not change. Read-back will hold the unit if it differs from its target. Its map is disputed now: a lead looks at it in Library.`}
          />
        );
      })}
      {!mayFinish && run.plan.unreachable.length === 0 && (
        <Notice
          kind="care"
          says={`Still to be keyed: ${state.toKey.join(', ')}.`}
          act={{ label: 'Plan them', onAct: run.menuClosed }}
        />
      )}
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" disabled={!mayFinish} onAct={onFinish}>
          To restart
        </ActButton>
      </div>
    </div>
  );
}
