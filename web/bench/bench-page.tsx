import { lazy, Suspense, useState } from 'react';
import { useParams } from 'react-router';
import { mapTitle, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Busy, Notice } from '../ui/notice.js';
import { PrivateLandStrip } from '../ui/private-land.js';
import { useHotkeys } from '../ui/use-hotkeys.js';
import { BeginVisit } from './begin-visit.js';
import { Held } from './held.js';
import { KeyIn } from './key-in/key-in.js';
import { ReadBack } from './read-back/read-back.js';
import { ReadProgress } from './read-back/read-progress.js';
import { Restart } from './restart.js';
import { SealedNow, SignOff } from './sign-off.js';
import { StepLadder } from './step-ladder.js';
import { TargetList } from './target-list.js';
import { useVisit, type Visit } from './use-visit.js';
import classes from './bench-page.module.css';

const CheckIn = lazy(() => import('./check-in.js').then((m) => ({ default: m.CheckIn })));
const CutPower = lazy(() => import('./cut-power.js').then((m) => ({ default: m.CutPower })));
const HoldDialog = lazy(() => import('./correcting-dialogs.js').then((m) => ({ default: m.HoldDialog })));
const UndoDialog = lazy(() => import('./correcting-dialogs.js').then((m) => ({ default: m.UndoDialog })));

/** One unit on the stand: its ladder at the left, the work in the middle, targets or verdict at the right. */
export function BenchPage() {
  const { unitId = '' } = useParams();
  const bench = api.useBenchQuery(unitId, { refetchOnMountOrArgChange: true });
  const problem = asProblem(bench.error);
  if (problem && !bench.currentData) return <Notice kind="stop" title="This unit cannot be shown" says={problem.message} act={{ label: 'Try again', onAct: () => void bench.refetch() }} page />;
  if (!bench.currentData) return <Busy />;
  return <Bench key={unitId} unitId={unitId} bench={bench.currentData} />;
}

function Bench({ unitId, bench }: { readonly unitId: string; readonly bench: BenchView }) {
  const visit = useVisit(unitId, bench);
  const [dialog, setDialog] = useState<'hold' | 'undo' | 'cut' | null>(null);
  const { state } = visit;
  const mayHold = state !== null && state.step !== null && !state.held;
  const mayUndo = state?.mayUndo ?? null;
  useHotkeys({
    H: mayHold ? () => setDialog('hold') : undefined,
    U: mayUndo !== null ? () => setDialog('undo') : undefined,
    P: () => setDialog('cut'),
  });
  return (
    <div className={classes['bench']}>
      <header className={classes['head']}>
        <h1 className={classes['serial']}>{bench.unit.serial}</h1>
        <ul className={classes['chips']} aria-label="What this unit is">
          <li>{bench.type.title}</li>
          <li>{mapTitle(bench.map)}</li>
          <li>
            {bench.orderNumber}: {bench.className}, <span title={`Legal values of this class: ${bench.classChecked}`}>{bench.classStanding === 'checked' ? bench.classChecked.replace(/ on .*/, '') : bench.classChecked}</span>
          </li>
        </ul>
        <div className={classes['cautions']}>
          {bench.map.dangers.map((danger) => (
            <strong key={danger.caution}>{danger.caution}</strong>
          ))}
        </div>
      </header>
      <StepLadder state={state} />
      <section className={classes['work']} aria-label="Work">
        {bench.privateLand && <PrivateLandStrip label={bench.privateLand.label} endsOn={bench.privateLand.endsOn} />}
        <Unsent visit={visit} />
        <Step bench={bench} visit={visit} />
        <footer className={classes['aside']}>
          <span className={classes['cut']}>
            Cut power <kbd aria-hidden="true">P</kbd> <b>{bench.type.cutPower}</b>
          </span>
          {mayUndo !== null && (
            <ActButton hotkey="U" onAct={() => setDialog('undo')}>
              Take back last
            </ActButton>
          )}
          {mayHold && (
            <ActButton look="care" hotkey="H" onAct={() => setDialog('hold')}>
              Hold this unit
            </ActButton>
          )}
        </footer>
      </section>
      <aside className={classes['side']}>{state && <Side state={state} bench={bench} />}</aside>
      <Suspense fallback={null}>
        {dialog === 'cut' && <CutPower says={bench.type.cutPower} onClose={() => setDialog(null)} />}
        {dialog === 'hold' && <HoldDialog visit={visit} onClose={() => setDialog(null)} />}
        {dialog === 'undo' && mayUndo !== null && <UndoDialog visit={visit} voids={mayUndo} evidence={bench.evidence} onClose={() => setDialog(null)} />}
      </Suspense>
    </div>
  );
}

function Step({ bench, visit }: { readonly bench: BenchView; readonly visit: Visit }) {
  const { state } = visit;
  if (bench.unit.status === 'withdrawn') return <Notice kind="note" title={`${bench.unit.serial} was withdrawn from order ${bench.orderNumber}`} says={state?.withdrawn ? `${state.withdrawn}. What was done stays in its record.` : 'It had not been begun. It may be taken into an order again.'} />;
  if (state === null) return <BeginVisit bench={bench} visit={visit} />;
  if (state.held) return <Held state={state} visit={visit} />;
  switch (state.step) {
    case 'checkIn':
      return (
        <Suspense fallback={<Busy />}>
          <CheckIn bench={bench} visit={visit} />
        </Suspense>
      );
    case 'keyIn':
      return <KeyIn key={state.round} bench={bench} state={state} visit={visit} />;
    case 'restart':
      return <Restart key={state.round} bench={bench} visit={visit} />;
    case 'readBack':
      return <ReadBack key={state.round} bench={bench} state={state} visit={visit} />;
    case 'signOff':
      return <SignOff bench={bench} state={state} visit={visit} />;
    case null:
      return <SealedNow bench={bench} state={state} />;
    default:
      return <Notice kind="note" says="This step is not offered yet." />;
  }
}

/** Targets while they help, and nothing that could be copied while reading back. */
function Side({ state, bench }: { readonly state: VisitState; readonly bench: BenchView }) {
  return state.step === 'readBack' && !state.held ? <ReadProgress state={state} map={bench.map} /> : <TargetList state={state} map={bench.map} />;
}

function Unsent({ visit }: { readonly visit: Visit }) {
  const { problem, waiting } = visit;
  if (!problem) return null;
  if (waiting > 0) {
    return <Notice kind="care" title={`${waiting} ${waiting === 1 ? 'entry waits' : 'entries wait'} here`} says={problem.message} act={{ label: 'Send now', onAct: visit.retry }} />;
  }
  return <Notice kind="stop" says={problem.message} act={{ label: 'Understood', onAct: visit.dismiss }} />;
}
