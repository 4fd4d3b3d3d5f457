import { Suspense, useEffect, useState } from 'react';
import { useDispatch } from 'react-redux';
import { useParams } from 'react-router';
import {
  checksLeft,
  isAgainst,
  mapTitle,
  needsSafety,
  offers,
  provingTermsOf,
  type EvidenceKind,
  type VisitState,
} from '@decurio/core';
import type { BenchView, SessionView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { atHand } from '../state/at-hand.js';
import type { AppDispatch } from '../state/store.js';
import { ownerOf } from '../state/use-at-hand.js';
import { ActButton } from '../ui/act-button.js';
import { Busy, Notice } from '../ui/notice.js';
import { PrivateLandStrip } from '../ui/private-land.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { FoundSoFar } from './as-found/found-so-far.js';
import { BeginVisit } from './begin-visit.js';
import { forgetHabits } from './gone-through.js';
import { InAnotherTab } from './in-another-tab.js';
import { KeptHere } from './kept-here.js';
import { KeyIn } from './key-in/key-in.js';
import { fetchParts } from './lazy-part.js';
import { MakeSafe } from './make-safe.js';
import { NotTaken } from './not-taken.js';
import {
  AsFound,
  ByHand,
  Calibrate,
  CheckIn,
  Checks,
  CutPower,
  HandOver,
  Held,
  HoldDialog,
  OnAnotherStand,
  PartDialog,
  ProofList,
  Prove,
  RestoreDialog,
  SignOff,
  StandInDrawer,
  StandsAside,
  StrayDialog,
  UndoDialog,
  Verdict,
  WheelDialog,
} from './parts.js';
import { ReadBack } from './read-back/read-back.js';
import { ReadProgress } from './read-back/read-progress.js';
import { Restart } from './restart.js';
import { SideBySide } from './at-hand/side-by-side.js';
import { StepLadder } from './step-ladder.js';
import { TargetList } from './target-list.js';
import { KeyCap } from '../ui/keys/key-cap.js';
import { useOwnTab } from './use-own-tab.js';
import { useVisit, type Visit } from './use-visit.js';
import classes from './bench-page.module.css';

const STAND_IN_OPEN = 'decurio.standInOpen';

/** One unit on the stand: its ladder at the left, the work in the middle, targets or verdict at the right. */
export function BenchPage() {
  const { unitId = '' } = useParams();
  const bench = api.useBenchQuery(unitId, { refetchOnMountOrArgChange: true });
  const problem = asProblem(bench.error);
  if (problem && !bench.currentData)
    return (
      <>
        <Notice
          kind="stop"
          title="This unit cannot be shown"
          says={problem.message}
          act={{ label: 'Try again', onAct: () => void bench.refetch() }}
          page
        />
        <KeptHere />
      </>
    );
  if (!bench.currentData) return <Busy />;
  return <Bench key={unitId} unitId={unitId} bench={bench.currentData} />;
}

function Bench({ unitId, bench }: { readonly unitId: string; readonly bench: BenchView }) {
  const visit = useVisit(unitId, bench);
  const tab = useOwnTab(unitId);
  useEffect(() => void fetchParts(), []);
  const [dialog, setDialog] = useState<'hold' | 'undo' | 'cut' | 'part' | 'restore' | 'wheel' | 'stray' | null>(null);
  const { state } = visit;
  const { who } = useSession();
  useStandOf(bench, state, who);
  const isSurprising = state !== null && hasSurprised(state);
  useEffect(() => {
    if (isSurprising) forgetHabits();
  }, [isSurprising]);
  const person = who && { by: who, station: who.station };
  const may = (kind: EvidenceKind): boolean =>
    state !== null && person !== null && person !== undefined && offers(state, kind, person) === null;
  const mayHold = may('held');
  const [standIn, setStandIn] = useState(() => localStorage.getItem(STAND_IN_OPEN) === 'yes');
  const toggleStandIn = () => {
    localStorage.setItem(STAND_IN_OPEN, standIn ? 'no' : 'yes');
    setStandIn(!standIn);
  };
  // The verdict says all that the list beside it would.
  const isOut = state !== null && state.step === null && state.withdrawn === null;
  const isJudged = state !== null && !state.held && ((state.step === 'readBack' && isAllRead(state)) || isOut);
  // What is sealed is tried no more; its papers need the room.
  const hasStandIn = bench.map.menu !== null && !isOut;
  const isStandInOut = standIn && hasStandIn;
  const isHere = state !== null && isOnStand(state, who?.station ?? '');
  const mayUndo = may('undone') ? (state?.mayUndo ?? null) : null;
  const mayReplace = may('partReplaced');
  const mayRestore = may('restoredAsFound');
  // Calibrate has it among its own ways.
  const mayMeasure = !bench.unit.isSpare && state?.step !== 'calibrate' && may('wheelMeasured');
  const mayStray = state?.step === 'asFound' && may('strayFound');
  useHotkeys({
    A: mayStray ? () => setDialog('stray') : undefined,
    M: mayMeasure ? () => setDialog('wheel') : undefined,
    H: mayHold ? () => setDialog('hold') : undefined,
    U: mayUndo !== null ? () => setDialog('undo') : undefined,
    R: mayReplace ? () => setDialog('part') : undefined,
    B: mayRestore ? () => setDialog('restore') : undefined,
    S: hasStandIn ? toggleStandIn : undefined,
  });
  const cut = () => setDialog('cut');
  useHotkeys({ P: cut, F9: cut }, { neverRest: true });
  // Under the drawer of the stand-in unit they would be out of reach.
  const sideActs = state !== null && state.step !== 'readBack' && (mayRestore || mayMeasure || mayStray) && (
    <div className={classes['sideActs']}>
      {mayStray && (
        <button type="button" onClick={() => setDialog('stray')}>
          A code not asked for <KeyCap of="A" />
        </button>
      )}
      {mayRestore && (
        <button type="button" onClick={() => setDialog('restore')}>
          Restore as found <KeyCap of="B" />
        </button>
      )}
      {mayMeasure && (
        <button type="button" onClick={() => setDialog('wheel')}>
          Wheel rolled out <KeyCap of="M" />
        </button>
      )}
    </div>
  );
  return (
    <div
      className={classes['bench']}
      data-stand-in={isStandInOut || undefined}
      data-wide={isJudged || undefined}
      data-step={state?.step ?? undefined}
    >
      <header className={classes['head']}>
        <h1 className={classes['serial']}>{bench.unit.serial}</h1>
        <ul className={classes['chips']} aria-label="What this unit is">
          <li>{bench.type.title}</li>
          <li>{mapTitle(bench.map)}</li>
          <li>
            {bench.orderNumber}: {bench.className},{' '}
            <span title={`Legal values of this class: ${bench.classChecked}`}>
              {bench.classStanding === 'checked' && bench.classCheck
                ? `checked by ${bench.classCheck.by}`
                : bench.classChecked}
            </span>
          </li>
        </ul>
        <div className={classes['cautions']}>
          {bench.map.dangers.map((danger) => (
            <strong key={danger.caution}>{danger.caution}</strong>
          ))}
        </div>
      </header>
      <div className={classes['left']}>
        <StepLadder state={state} unit={bench.unit} />
        <SideBySide current={unitId}>
          {hasStandIn && (
            <button
              type="button"
              className={classes['standIn']}
              aria-label="Stand-in unit"
              aria-pressed={standIn}
              onClick={toggleStandIn}
            >
              Stand-in <KeyCap of="S" />
            </button>
          )}
        </SideBySide>
      </div>
      <section className={classes['work']} aria-label="Work">
        {bench.privateLand && <PrivateLandStrip label={bench.privateLand.label} endsOn={bench.privateLand.endsOn} />}
        <NotTaken visit={visit} />
        <Suspense fallback={<Busy />}>
          {tab.isMine === false ? (
            <InAnotherTab serial={bench.unit.serial} onTake={tab.take} />
          ) : (
            <Step bench={bench} visit={visit} station={who?.station ?? ''} />
          )}
        </Suspense>
        <footer className={classes['aside']}>
          <button type="button" className={classes['cut']} onClick={() => setDialog('cut')}>
            Cut power <KeyCap of="P" whileTyping="F9" /> <b>{bench.type.cutPower}</b>
          </button>
          {isStandInOut && sideActs}
          {mayUndo !== null && (
            <ActButton hotkey="U" onAct={() => setDialog('undo')}>
              Take back last
            </ActButton>
          )}
          {mayReplace && (
            <ActButton hotkey="R" onAct={() => setDialog('part')}>
              Part replaced
            </ActButton>
          )}
          {mayHold && (
            <ActButton look="care" hotkey="H" onAct={() => setDialog('hold')}>
              Hold this unit
            </ActButton>
          )}
        </footer>
      </section>
      <aside className={classes['side']} aria-label="Codes" hidden={isJudged}>
        <div className={classes['codes']} tabIndex={0} role="region" aria-label="List of codes">
          {state && !isJudged && (
            <Suspense fallback={<Busy />}>
              <Side state={state} bench={bench} visit={visit} isHere={isHere} />
            </Suspense>
          )}
        </div>
        {!isStandInOut && sideActs}
      </aside>
      <Suspense fallback={null}>
        {isStandInOut && <StandInDrawer bench={bench} onClose={toggleStandIn} />}
        {dialog === 'cut' && <CutPower says={bench.type.cutPower} onClose={() => setDialog(null)} />}
        {dialog === 'restore' && state && (
          <RestoreDialog bench={bench} state={state} visit={visit} onClose={() => setDialog(null)} />
        )}
        {dialog === 'wheel' && state && <WheelDialog state={state} visit={visit} onClose={() => setDialog(null)} />}
        {dialog === 'stray' && <StrayDialog visit={visit} onClose={() => setDialog(null)} />}
        {dialog === 'part' && state && (
          <PartDialog bench={bench} state={state} visit={visit} onClose={() => setDialog(null)} />
        )}
        {dialog === 'hold' && <HoldDialog visit={visit} onClose={() => setDialog(null)} />}
        {dialog === 'undo' && mayUndo !== null && (
          <UndoDialog visit={visit} voids={mayUndo} evidence={bench.evidence} onClose={() => setDialog(null)} />
        )}
      </Suspense>
    </div>
  );
}

const isAllRead = ({ toRead, verdicts }: VisitState): boolean =>
  !toRead.some((label) => verdicts.some((each) => each.label === label && each.verdict === 'notRead'));

/** Whether this unit is not as one expects of its kind: what is done by habit is done with care again. */
const hasSurprised = ({ held, surprises, stuck, verdicts }: VisitState): boolean =>
  held !== null || surprises.length > 0 || stuck.length > 0 || verdicts.some(isAgainst);

/** Whether this person's stand is the one the unit is on; visits of the first releases know no stands. */
const isOnStand = ({ opened, stand, step }: VisitState, station: string): boolean =>
  opened.bench === undefined || step === null || stand.station === station;

/** Keeps this unit among those worked side by side, as long as it is on this stand and can be worked on. */
function useStandOf(bench: BenchView, state: VisitState | null, who: SessionView | null): void {
  const dispatch = useDispatch<AppDispatch>();
  const owner = ownerOf(who);
  const { id: unitId, serial } = bench.unit;
  const step = state && !state.held && isOnStand(state, who?.station ?? '') ? state.step : null;
  const mapId = state?.opened.versions.map.id ?? '';
  useEffect(() => {
    dispatch(
      step === null ? atHand.actions.left(unitId) : atHand.actions.worked({ unitId, serial, mapId, owner, step }),
    );
  }, [dispatch, unitId, serial, mapId, owner, step]);
}

function Step({
  bench,
  visit,
  station,
}: {
  readonly bench: BenchView;
  readonly visit: Visit;
  readonly station: string;
}) {
  const { state } = visit;
  if (bench.unit.status === 'withdrawn')
    return (
      <Notice
        kind="note"
        title={`${bench.unit.serial} was withdrawn from order ${bench.orderNumber}`}
        says={
          state?.withdrawn
            ? `${state.withdrawn}. What was done stays in its record.`
            : 'It had not been begun. It may be taken into an order again.'
        }
      />
    );
  if (state === null) return <BeginVisit bench={bench} visit={visit} />;
  if (state.held) return <Held bench={bench} state={state} visit={visit} />;
  if (state.step !== 'signOff' && !isOnStand(state, station)) return <OnAnotherStand state={state} visit={visit} />;
  if (state.proving.wait) return <StandsAside bench={bench} state={state} visit={visit} />;
  if (needsSafety(state)) return <MakeSafe key="again" state={state} visit={visit} />;
  switch (state.step) {
    case 'checkIn':
      if (checksLeft(state, 'checkIn').length > 0) return <Checks state={state} visit={visit} step="checkIn" />;
      return <CheckIn key={state.parts.length} bench={bench} state={state} visit={visit} />;
    case 'makeSafe':
      return <MakeSafe key="first" state={state} visit={visit} />;
    case 'asFound':
      return <AsFound bench={bench} state={state} visit={visit} />;
    case 'keyIn':
      return <KeyIn key={state.round} bench={bench} state={state} visit={visit} />;
    case 'restart':
      return <Restart key={state.round} bench={bench} state={state} visit={visit} />;
    case 'readBack':
      return <ReadBack key={`${state.round} ${state.toRead.join()}`} bench={bench} state={state} visit={visit} />;
    case 'calibrate':
      if (state.opened.setup.speed && state.opened.bench?.calibrate)
        return <Calibrate key={state.wheelFamily} bench={bench} state={state} visit={visit} />;
      return <ByHand key="calibrate" step="calibrate" visit={visit} />;
    case 'prove':
      if (checksLeft(state, 'prove').length > 0) return <Checks state={state} visit={visit} step="prove" />;
      if (provingTermsOf(state.opened)) return <Prove state={state} visit={visit} />;
      return <ByHand key="prove" step="prove" visit={visit} />;
    case 'signOff':
      return <SignOff bench={bench} state={state} visit={visit} />;
    case null:
      return <HandOver bench={bench} state={state} />;
    default:
      return <Notice kind="note" says="This step is not offered yet." />;
  }
}

/** Targets while they help, and nothing that could be copied while reading. */
function Side({
  state,
  bench,
  visit,
  isHere,
}: {
  readonly state: VisitState;
  readonly bench: BenchView;
  readonly visit: Visit;
  readonly isHere: boolean;
}) {
  if (state.step === 'readBack' && !state.held) return <ReadProgress state={state} map={bench.map} />;
  if (state.step === 'asFound' && !state.held) return <FoundSoFar state={state} map={bench.map} />;
  if (
    state.step === 'calibrate' &&
    !state.held &&
    isHere &&
    !needsSafety(state) &&
    state.opened.setup.speed &&
    state.opened.bench?.calibrate
  )
    return <Verdict bench={bench} state={state} visit={visit} />;
  if (state.step === 'prove' && provingTermsOf(state.opened) && !state.held && !needsSafety(state))
    return <ProofList state={state} />;
  return <TargetList state={state} map={bench.map} isSetupOwn={visit.isSetupOwn} />;
}
