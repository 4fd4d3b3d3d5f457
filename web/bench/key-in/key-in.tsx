import { useState } from 'react';
import { functionTitle, findCode, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { Glass } from '../../ui/glass.js';
import { Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/use-hotkeys.js';
import type { Visit } from '../use-visit.js';
import { Fuse } from './fuse.js';
import { NextPresses } from './next-presses.js';
import { gestureKeys, pressWords } from './press-words.js';
import { SomethingElse } from './something-else.js';
import { useKeyRun, type KeyRun } from './use-key-run.js';
import panel from '../panel.module.css';
import classes from './key-in.module.css';

/** Step 4: the codes that must change, press by press, with what the glass should show. */
export function KeyIn({ bench, state, visit }: { readonly bench: BenchView; readonly state: VisitState; readonly visit: Visit }) {
  const { map } = bench;
  const run = useKeyRun(map, state, visit);
  const [asking, setAsking] = useState(false);
  const finish = () => void visit.act('keyInClosed', {});
  const mayFinish = run.due === null && state.toKey.length === 0;
  const isOpen = run.due?.before.kind === 'menu';
  useHotkeys({
    Space: run.due ? run.done : mayFinish ? finish : undefined,
    T: isOpen ? run.menuClosed : undefined,
    D: run.due ? () => setAsking(true) : undefined,
  });
  if (run.due === null) return <Through state={state} run={run} bench={bench} mayFinish={mayFinish} onFinish={finish} />;

  const words = pressWords(map, run.plan, run.index);
  const { gesture, before, serves } = run.due;
  const expected = before.kind === 'menu' ? before.label : (map.codes[0]?.label ?? '');
  return (
    <div className={classes['keyIn']}>
      <Glass map={map} view={before} says="Display should show" />
      <div className={`${panel['panel']} ${classes['press']}`}>
        {!isOpen && run.index === 0 && <p className={classes['before']}>{map.powerUp.first} Then hold {gestureKeys(map, map.powerUp.gesture)} until the glass is lit.</p>}
        <div className={classes['order']} aria-live="polite">
          <span className={classes['key']} data-wide={gesture.kind === 'hold' && gesture.keys.length > 1} aria-hidden="true">
            {gesture.kind === 'hold' ? gesture.keys.map((key) => <b key={key}>{gestureKeys(map, { kind: 'tap', key })}</b>) : <b>{gestureKeys(map, gesture)}</b>}
          </span>
          <div>
            <h2>{words.order}</h2>
            <p>{words.effect}</p>
            {serves !== null && <p className={classes['why']}>{reason(state, serves)}</p>}
          </div>
        </div>
        <NextPresses map={map} plan={run.plan} index={run.index} />
        <div className={classes['foot']}>
          {isOpen && <Fuse key={run.index} idleMs={map.menu.idleMs} />}
          <p className={classes['count']}>
            Press {run.index + 1} of {run.plan.steps.length}, {state.toKey.length} {state.toKey.length === 1 ? 'code' : 'codes'} to go
          </p>
        </div>
        <div className={panel['acts']}>
          <ActButton look="main" hotkey="Space" onAct={run.done}>
            Done, next press
          </ActButton>
          <ActButton hotkey="T" disabled={!isOpen} onAct={run.menuClosed}>
            Menu closed
          </ActButton>
          <ActButton hotkey="D" onAct={() => setAsking(true)}>
            Shows something else
          </ActButton>
        </div>
      </div>
      {asking && <SomethingElse map={map} run={run} expected={expected} onClose={() => setAsking(false)} />}
    </div>
  );
}

const reason = (state: VisitState, label: string): string => state.opened.setup.targets.find((target) => target.label === label)?.because ?? '';

interface ThroughProps {
  readonly state: VisitState;
  readonly run: KeyRun;
  readonly bench: BenchView;
  readonly mayFinish: boolean;
  readonly onFinish: () => void;
}

/** The plan is through: leave, or say what no key of this display can reach. */
function Through({ state, run, bench, mayFinish, onFinish }: ThroughProps) {
  const keyed = state.keyedThisRound.length;
  return (
    <div className={panel['panel']}>
      <p className="cap">Key in</p>
      <h2 className={panel['title']}>{keyed === 0 ? 'No code has to change' : `${keyed} ${keyed === 1 ? 'code' : 'codes'} keyed, menu closed`}</h2>
      <p className={panel['lead']}>The glass shows speed again. Power is cycled next, so that codes that act after a restart do act.</p>
      {run.plan.unreachable.map(({ label, why }) => (
        <Notice key={label} kind="care" says={why} act={{ label: 'It stays as it is', onAct: () => run.doesNotChange(label, state.known[label] ?? 0) }} />
      ))}
      {[...state.stuck].map((label) => {
        const code = findCode(bench.map, label);
        return <Notice key={label} kind="care" says={`${label}${code ? `, ${functionTitle(code.function).toLowerCase()},` : ''} would not change. Read-back will hold the unit if it differs from its target.`} />;
      })}
      {!mayFinish && run.plan.unreachable.length === 0 && (
        <Notice kind="care" says={`Still to be keyed: ${state.toKey.join(', ')}.`} act={{ label: 'Plan them', onAct: run.menuClosed }} />
      )}
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" disabled={!mayFinish} onAct={onFinish}>
          To restart
        </ActButton>
      </div>
    </div>
  );
}
