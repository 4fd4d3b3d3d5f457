import { useState } from 'react';
import { learntBy, whyNotClosed, whyNotLearnt, type CalibrationOf, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { KeyButton } from '../../ui/keys/key-button.js';
import { Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import type { Visit } from '../use-visit.js';
import { AsKeyed } from './as-keyed.js';
import { CandidateTable } from './candidate-table.js';
import { percent, signedPercent } from './calibrate-words.js';
import { LeaveOutStep } from './leave-out-step.js';
import { isConfirmed, nextAct } from './next-act.js';
import { useIsSpaceOwned } from '../../measuring/space-key.js';
import { useStandInFeed } from '../../measuring/stand-in-feed.js';
import { useCalibration } from './use-calibration.js';
import { KeyCap } from '../../ui/keys/key-cap.js';
import classes from './verdict.module.css';

export interface VerdictProps {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}

/** Step 7, at the right: what the vehicle would do as keyed, what to key instead, and the next act. */
export function Verdict({ bench, state, visit }: VerdictProps) {
  const found = useCalibration(state, bench.map);
  const [chosen, setChosen] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const act = found ? nextAct(found, state, bench.map, chosen) : null;
  const go = async () => {
    if (!act || busy) return;
    setBusy(true);
    if (act.kind === 'fit') await visit.act('wheelFitted', act.data);
    if (act.kind === 'close') await visit.act('calibrated', act.data);
    setBusy(false);
  };
  // Under the drawer of the stand-in unit, or beside a stopwatch, Space is not this button's.
  const isSpaceOwned = useIsSpaceOwned();
  const isCovered = useStandInFeed() !== null;
  const hasSpace = act !== null && !isSpaceOwned && !isCovered;
  useHotkeys({ Space: hasSpace ? () => void go() : undefined, Q: () => setLeaving(true) });
  if (!found) return null;
  const { calibrate } = state.opened.bench ?? {};
  const drive = bench.map.ride?.modes ? 'Drive' : 'Assist';
  const shut = whyNotClosed(found, state);
  const learnt = learntBy(state, bench.map);
  const learntShut = learnt && whyNotLearnt(learnt, state);
  return (
    <div className={classes['verdict']}>
      {visit.problem && (
        <Notice kind="care" says={visit.problem.message} act={{ label: 'Understood', onAct: visit.dismiss }} />
      )}
      {found.estimate === null && calibrate && <Learnt state={state} />}
      {found.estimate === null && learntShut !== null && <Notice kind="stop" says={learntShut} />}
      <Doubts found={found} onMiles={() => void inMiles(found, visit)} />
      {found.wrongCount && (
        <div className={classes['main']}>
          <KeyButton
            hotkey="Y"
            onAct={() =>
              void visit.act('countStands', {
                words:
                  found.wrongCount?.kind === 'miles'
                    ? 'the unit on the glass is as typed'
                    : 'the pulses were counted again',
              })
            }
          >
            The readings were right
          </KeyButton>
        </div>
      )}
      {found.estimate && <AsKeyed found={found} state={state} drive={drive} />}
      {found.check && <CheckCard found={found} />}
      {hasChoice(found) && !isConfirmed(found, state) && (
        <CandidateTable found={found} drive={drive} chosen={chosen} onChoose={setChosen} />
      )}
      {act && (
        <div className={`${classes['main']} ${classes['leads']}`}>
          <ActButton look="main" {...(hasSpace ? { hotkey: 'Space' } : {})} busy={busy} onAct={() => void go()}>
            {act.label}
          </ActButton>
          {act.note && <p className="soft">{act.note}</p>}
        </div>
      )}
      {!act && found.estimate && shut && <p className="soft">{shut}</p>}
      <button type="button" className={classes['leave']} onClick={() => setLeaving(true)}>
        Done otherwise, or left out <KeyCap of="Q" />
      </button>
      {leaving && <LeaveOutStep visit={visit} onClose={() => setLeaving(false)} />}
    </div>
  );
}

/** Whether there is anything to choose: a wheel code, or a cap that counts in the shown speed. */
const hasChoice = ({ candidates, codes, question }: CalibrationOf): boolean =>
  candidates.length > 0 && (codes.wheel !== null || (question?.caps.length ?? 0) > 0);

function Learnt({ state }: { readonly state: VisitState }) {
  const { calibrate } = state.opened.bench ?? {};
  if (!calibrate || calibrate.why === '') return null;
  const { family } = calibrate;
  return (
    <section className={classes['card']} data-kind="note">
      <p className="cap">{calibrate.runs === 'sample' ? 'Learnt' : 'To be run'}</p>
      <p>{calibrate.why}</p>
      {family && (
        <p className="soft">
          The next one should read {signedPercent(family.nextLow - 1)} to {signedPercent(family.nextHigh - 1)} with
          wheel {family.wheelRaw}.
        </p>
      )}
    </section>
  );
}

/** The same readings, the shown figures taken for the other unit: the first ones stay in the record, left out. */
async function inMiles({ kept, wrongCount }: CalibrationOf, visit: Visit): Promise<void> {
  if (wrongCount?.kind !== 'miles') return;
  for (const { id, reference, instrument, trueKmh, uKmh, uCommon, shown, offGround, words } of kept) {
    await visit.act('speedJudged', { reading: id, isUsed: false, words: `shown in ${wrongCount.meant}` });
    await visit.act('speedRead', {
      reference,
      instrument,
      trueKmh,
      uKmh,
      uCommon,
      shown,
      unit: wrongCount.meant,
      offGround,
      words,
    });
  }
}

function Doubts({ found, onMiles }: { readonly found: CalibrationOf; readonly onMiles: () => void }) {
  const { wrongCount, bent, isTwoSpeeds, doubts, estimate, glass, codes } = found;
  return (
    <>
      {wrongCount?.kind === 'miles' && (
        <Notice
          kind="stop"
          title="Miles for kilometres?"
          says={`The shown speeds are ${wrongCount.meant === 'mph' ? '0.62' : '1.61'} of the true ones, as if one of them were in miles an hour. Look at the unit on the glass: were the shown figures ${wrongCount.meant}?`}
          act={{ label: `They were ${wrongCount.meant}`, onAct: onMiles }}
        />
      )}
      {wrongCount?.kind === 'pulses' && (
        <Notice
          kind="stop"
          title={`${wrongCount.pulses} pulses a turn?`}
          says={`No wheel reads ${percent(estimate?.k ?? 1, 0)} of true. With ${wrongCount.pulses} pulses a turn instead of ${codes.pulsesSet} it would be ${percent(wrongCount.ratio)}. Count the magnets; a display of another unit, or a motor of another type, may be fitted.`}
        />
      )}
      {bent && (
        <Notice
          kind="care"
          title={
            bent.kind === 'offset'
              ? `Off by ${Math.abs(bent.fit.amount).toFixed(1)} km/h at every speed`
              : 'The display falls behind as speed rises'
          }
          says={
            bent.kind === 'offset'
              ? `The readings lie on a line that misses zero. No wheel code cures that: the end speed is worked out by that line, and no wheel value is offered.${isTwoSpeeds ? ' Two speeds alone cannot tell this from rounding: the worse of both answers stands. Read at a third speed.' : ''}`
              : 'The readings bend, as missed pulses or a slow filter make them. No wheel code cures that: the end speed is worked out by the bend, and no wheel value is offered.'
          }
        />
      )}
      {doubts.length > 0 && (
        <Notice
          kind="care"
          says={`${doubts.length === 1 ? 'One reading does' : `${doubts.length} readings do`} not fit the others. Leave out what was braking or misread, or read again: nothing is left out by itself.`}
        />
      )}
      {glass.rounding === 'truncated' && estimate && (
        <p className="soft">
          This display cuts its figures off: half a step is added to each before they are compared.
        </p>
      )}
      {glass.rounding === null && estimate?.ifTruncated !== null && estimate && (
        <p className="soft">
          Nobody has noted whether this display rounds or cuts off. Taken as rounding, which makes the cap the slower
          one; cut off, the ratio would be {estimate.ifTruncated?.toFixed(3)}.
        </p>
      )}
    </>
  );
}

function CheckCard({ found: { check } }: { readonly found: CalibrationOf }) {
  if (!check) return null;
  const { count, run } = check;
  const kind = run === null || count < 2 ? 'care' : run.agrees ? 'done' : 'stop';
  return (
    <section className={classes['card']} data-kind={kind} role="status">
      <p className="cap">Check run</p>
      {count < 2 ? (
        <p>{count} of 2 readings with the codes chosen. They are held against what was predicted.</p>
      ) : (
        <p>
          {run?.agrees ? 'As predicted' : 'Not as predicted'}: {signedPercent(run?.off ?? 0)} off, and ±{' '}
          {percent(run?.within ?? 0)} is chance.
        </p>
      )}
    </section>
  );
}
