import { Suspense, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { gestureWords, DEFAULT_PACE, type DisplayMap, type PlanStep, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { api } from '../../state/api.js';
import { isWaiting, type UnitAtHand } from '../../state/at-hand.js';
import { useNow, useAtHand } from '../../state/use-at-hand.js';
import { ActButton } from '../../ui/act-button.js';
import { Fuse } from '../../ui/fuse.js';
import { Glass } from '../../ui/glass.js';
import { Said } from '../../ui/said.js';
import { Busy, Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { part } from '../lazy-part.js';
import type { Visit } from '../use-visit.js';
import { ByInstruction } from './by-instruction.js';
import { codePresses, codeSays } from './code-presses.js';
import { DueCode } from './due-code.js';
import { DuePress } from './due-press.js';
import { NextPresses } from './next-presses.js';
import { pressWords } from './press-words.js';
import { Saved } from './saved.js';
import { Through } from './through.js';
import { tick } from './tick.js';
import { useKeyRun, type KeyRun } from './use-key-run.js';
import { useWay } from './use-way.js';
import { WayBar } from './way-bar.js';
import panel from '../panel.module.css';
import classes from './key-in.module.css';

const SomethingElse = part(() => import('./something-else.js').then((m) => ({ default: m.SomethingElse })));

interface KeyInProps {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}

/** Step 4: the codes that must change, with what the glass should show. */
export function KeyIn(props: KeyInProps) {
  return props.bench.map.menu === null ? <ByInstruction {...props} /> : <ByKeys {...props} />;
}

function ByKeys({ bench, state, visit }: KeyInProps) {
  const { map } = bench;
  const pace = api.usePaceQuery(null);
  const keying = useWay();
  const navigate = useNavigate();
  const twins = useTwins(bench.unit.id, map.id);
  const inTurn = keying.way === 'code' && keying.inTurn && twins.length > 0;
  const [next] = twins;
  const run = useKeyRun(map, state, visit, pace.isLoading ? null : (pace.data?.pace ?? DEFAULT_PACE), {
    oneCode: inTurn,
    onCode: () => inTurn && next && void navigate(`/bench/${next.unitId}`),
  });
  const [asking, setAsking] = useState(false);
  const [goes, setGoes] = useState(false);
  const isPaced = keying.way === 'paced';
  const due = run?.due ?? null;
  // A press was due since this page shows the unit.
  const [worked, setWorked] = useState(false);
  if (due !== null && !worked) setWorked(true);
  const isOpen = due?.before.kind === 'menu' || due?.before.kind === 'entry' || due?.before.kind === 'pin';
  const index = run?.index ?? 0;
  useEffect(() => {
    if (goes && index > 0) tick();
  }, [goes, index]);
  const stopped = (then: (() => void) | undefined) => () => {
    setGoes(false);
    then?.();
  };
  const closed = stopped(run?.menuClosed);
  const ask = stopped(() => setAsking(true));
  useHotkeys({
    Space: isPaced && due ? () => setGoes(!goes) : undefined,
    T: isOpen ? closed : undefined,
    D: due ? ask : undefined,
    W: keying.nextWay,
    V: keying.toggleSpoken,
    I: twins.length > 0 && keying.way === 'code' ? keying.toggleInTurn : undefined,
  });
  if (!run) return <Busy />;
  if (due === null)
    return (
      <Through
        state={state}
        run={run}
        bench={bench}
        isJustDone={worked}
        onFinish={() => void visit.act('keyInClosed', {})}
      />
    );
  const { before } = due;
  const says = spokenOrder(map, run, keying.way === 'code');
  const expected = before.kind === 'menu' ? before.label : (map.codes[0]?.label ?? '');
  const foot = (
    <div className={classes['foot']}>
      {isOpen && map.menu && (
        <Fuse
          key={run.index}
          whenOut="The menu has probably closed by itself. Look at the glass; if so, press T."
          idleMs={
            before.kind === 'pin'
              ? map.menu.idle.pinMs
              : before.kind === 'menu' && before.focus === 'value'
                ? map.menu.idle.editMs
                : map.menu.idle.browseMs
          }
        />
      )}
      <p className={classes['count']}>
        Press {run.index + 1} of {run.plan.steps.length}, {state.toKey.length}{' '}
        {state.toKey.length === 1 ? 'code' : 'codes'} to go
      </p>
      <Saved bench={bench} state={state} run={run} isOwnPace={(pace.data?.pace ?? null) !== null} />
    </div>
  );
  const acts = (
    <>
      {isPaced && (
        <ActButton look="main" hotkey="Space" onAct={() => setGoes(!goes)}>
          {goes ? 'Stop' : run.index === 0 ? 'Go at your pace' : 'Go on'}
        </ActButton>
      )}
      <ActButton hotkey="T" disabled={!isOpen} onAct={closed}>
        Menu closed
      </ActButton>
      <ActButton hotkey="D" onAct={ask}>
        Shows something else
      </ActButton>
    </>
  );
  return (
    <div className={classes['keyIn']}>
      <Said words={says} />
      <Glass view={before} says="Display should show" />
      <div className={`${panel['panel']} ${classes['press']}`}>
        {run.index === 0 && before.kind === 'riding' && (
          <p className={classes['before']}>
            {map.power.first}
            {map.power.on
              ? ` Then ${gestureWords(map, map.power.on)}, until the glass is lit.`
              : ' Until the glass is lit.'}
          </p>
        )}
        <Caution run={run} due={due} isCode={keying.way === 'code'} />
        {keying.way === 'code' ? (
          <DueCode bench={bench} state={state} run={run} acts={acts}>
            {foot}
          </DueCode>
        ) : (
          <DuePress
            key={`${run.index} ${run.plan.steps.length} ${isPaced && goes}`}
            bench={bench}
            state={state}
            run={run}
            due={due}
            paced={isPaced}
            goes={goes}
            acts={acts}
          >
            <NextPresses map={map} plan={run.plan} index={run.index} />
            {foot}
          </DuePress>
        )}
        <WayBar keying={keying} twins={twins.length} />
      </div>
      <Suspense fallback={null}>
        {asking && <SomethingElse map={map} run={run} expected={expected} onClose={() => setAsking(false)} />}
      </Suspense>
    </div>
  );
}

/** What is to be pressed now, in words: the next press, or all of one code. */
function spokenOrder(map: DisplayMap, { plan, index }: KeyRun, isCode: boolean): string {
  if (isCode) return codeSays(codePresses(map, plan, index));
  const { order, effect } = pressWords(map, plan, index);
  return `${order}. ${effect}`;
}

/** Before a press that starts the motor, not after: of a whole code, before its first press. */
function Caution({ run, due, isCode }: { readonly run: KeyRun; readonly due: PlanStep; readonly isCode: boolean }) {
  const ahead = isCode
    ? run.plan.steps
        .slice(run.index)
        .filter(
          (step, i, all) =>
            all.slice(0, i + 1).every(({ serves }) => serves === due.serves) && step.serves === due.serves,
        )
    : [due];
  const says = ahead.find(({ caution }) => caution !== null)?.caution ?? null;
  return says !== null && <Notice kind="stop" title="Before this press" says={says} />;
}

/** Other units on one's stands with the same display at key in, the next in turn first. */
function useTwins(unitId: string, mapId: string): readonly UnitAtHand[] {
  const units = useAtHand();
  const now = useNow(units);
  const here = units.findIndex((unit) => unit.unitId === unitId);
  const turn = [...units.slice(here + 1), ...units.slice(0, Math.max(here, 0))];
  return turn.filter((unit) => unit.mapId === mapId && unit.step === 'keyIn' && !isWaiting(unit, now));
}
