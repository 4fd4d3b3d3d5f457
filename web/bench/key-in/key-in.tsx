import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { DEFAULT_PACE, findCode, functionTitle, keyLabel, keysOf, naiveWalk, pressCount, targetOf, type PlanStep, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { api } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Fuse } from '../../ui/fuse.js';
import { gestureWords } from '../../ui/gesture-words.js';
import { Glass } from '../../ui/glass.js';
import { Busy, Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/use-hotkeys.js';
import type { Visit } from '../use-visit.js';
import { ByInstruction } from './by-instruction.js';
import { NextPresses } from './next-presses.js';
import { pressWords } from './press-words.js';
import { useKeyRun, type KeyRun } from './use-key-run.js';
import panel from '../panel.module.css';
import classes from './key-in.module.css';

const SomethingElse = lazy(() => import('./something-else.js').then((m) => ({ default: m.SomethingElse })));

interface KeyInProps {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}

/** Step 4: the codes that must change, press by press, with what the glass should show. */
export function KeyIn(props: KeyInProps) {
  return props.bench.map.menu === null ? <ByInstruction {...props} /> : <ByKeys {...props} />;
}

function ByKeys({ bench, state, visit }: KeyInProps) {
  const { map } = bench;
  const pace = api.usePaceQuery(null);
  const run = useKeyRun(map, state, visit, pace.isLoading ? null : (pace.data?.pace ?? DEFAULT_PACE));
  const [asking, setAsking] = useState(false);
  const finish = () => void visit.act('keyInClosed', {});
  const mayFinish = run?.due === null && state.toKey.length === 0;
  const isOpen = run?.due?.before.kind === 'menu' || run?.due?.before.kind === 'entry' || run?.due?.before.kind === 'pin';
  useHotkeys({
    Space: run?.due ? run.done : mayFinish ? finish : undefined,
    T: isOpen ? run.menuClosed : undefined,
    D: run?.due ? () => setAsking(true) : undefined,
  });
  if (!run) return <Busy />;
  if (run.due === null) return <Through state={state} run={run} bench={bench} mayFinish={mayFinish} onFinish={finish} />;
  const { before } = run.due;
  const expected = before.kind === 'menu' ? before.label : (map.codes[0]?.label ?? '');
  return (
    <div className={classes['keyIn']}>
      <Glass view={before} says="Display should show" />
      <div className={`${panel['panel']} ${classes['press']}`}>
        {run.index === 0 && before.kind === 'riding' && (
          <p className={classes['before']}>
            {map.power.first} Then {gestureWords(map, map.power.on)}, until the glass is lit.
          </p>
        )}
        {run.due.caution !== null && <Notice kind="stop" title="Before this press" says={run.due.caution} />}
        <Due bench={bench} state={state} run={run} due={run.due} />
        <NextPresses map={map} plan={run.plan} index={run.index} />
        <div className={classes['foot']}>
          {isOpen && map.menu && <Fuse key={run.index} whenOut="The menu has probably closed by itself. Look at the glass; if so, press T." idleMs={before.kind === 'pin' ? map.menu.idle.pinMs : before.kind === 'menu' && before.focus === 'value' ? map.menu.idle.editMs : map.menu.idle.browseMs} />}
          <p className={classes['count']}>
            Press {run.index + 1} of {run.plan.steps.length}, {state.toKey.length} {state.toKey.length === 1 ? 'code' : 'codes'} to go
          </p>
          <Saved bench={bench} state={state} run={run} isOwnPace={(pace.data?.pace ?? null) !== null} />
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
      <Suspense fallback={null}>{asking && <SomethingElse map={map} run={run} expected={expected} onClose={() => setAsking(false)} />}</Suspense>
    </div>
  );
}

/** The big key with its order. A message on the glass is waited out by itself. */
function Due({ bench, state, run, due }: { readonly bench: BenchView; readonly state: VisitState; readonly run: KeyRun; readonly due: PlanStep }) {
  const { map } = bench;
  const words = pressWords(map, run.plan, run.index);
  const { gesture, serves, purpose } = due;
  const { done } = run;
  const waitMs = gesture.kind === 'wait' && due.before.kind === 'message' ? gesture.ms : null;
  useEffect(() => {
    if (waitMs === null) return;
    const timer = setTimeout(done, waitMs);
    return () => clearTimeout(timer);
    // The wait begins once, with its step.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [waitMs, run.index]);
  return (
    <div className={classes['order']} aria-live="polite">
      <span className={classes['key']} data-wide={gesture.kind === 'hold' && gesture.keys.length > 1} aria-hidden="true">
        {gesture.kind === 'wait' ? <b data-wait="true">…</b> : keysOf(gesture).map((key) => <b key={key}>{keyLabel(map, key)}</b>)}
      </span>
      <div>
        <h2>{words.order}</h2>
        <p>{words.effect}</p>
        {serves !== null && (purpose === 'change' || purpose === 'store' || purpose === 'move') && <p className={classes['why']}>{targetOf(state.opened.setup, serves)?.because ?? ''}</p>}
      </div>
    </div>
  );
}

/** What is left at one's pace, and what working through every code in turn would have taken. */
function Saved({ bench, state, run, isOwnPace }: { readonly bench: BenchView; readonly state: VisitState; readonly run: KeyRun; readonly isOwnPace: boolean }) {
  const walk = useMemo(() => {
    const targets = Object.fromEntries(state.opened.setup.targets.flatMap((t) => (t.raw === null || t.locked ? [] : [[t.label, t.raw]])));
    return naiveWalk(bench.map, targets, state.atRoundStart);
  }, [bench.map, state.opened.setup, state.atRoundStart]);
  const leftMs = run.plan.steps.slice(run.index).reduce((sum, step) => sum + step.ms, 0);
  const presses = pressCount(run.plan);
  return (
    <p className={classes['saved']}>
      {Math.round(leftMs / 1000)} s left at {isOwnPace ? 'your' : 'a usual'} pace
      {walk && walk.presses > presses ? `; ${presses} presses, where every code in turn would take ${walk.presses}` : ''}
    </p>
  );
}

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
        return <Notice key={label} kind="care" says={`${label}${code ? `, ${functionTitle(code.function).toLowerCase()},` : ''} would not change. Read-back will hold the unit if it differs from its target. Its map is disputed now: a lead looks at it in Library.`} />;
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
