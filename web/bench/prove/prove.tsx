import { useMemo, useState } from 'react';
import {
  fullPackAsked,
  isSettled,
  proofsOf,
  provingTermsOf,
  setUpTitle,
  type Observation,
  type ProofOf,
  type VisitState,
} from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { KeyButton } from '../../ui/keys/key-button.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { Notice } from '../../ui/notice.js';
import type { Visit } from '../use-visit.js';
import { CannotHere } from './cannot-here.js';
import { DoesNot } from './does-not.js';
import { FullPack } from './full-pack.js';
import { dueOf } from './proof-marks.js';
import { SpeedWays } from './speed-ways.js';
import { usePicked } from './use-picked.js';
import { CountField, ErrorsField, GaugeFields, MetresFields, OutcomeKeys } from './watch-fields.js';
import classes from './prove.module.css';
import panel from '../panel.module.css';

export interface ProveProps {
  readonly state: VisitState;
  readonly visit: Visit;
}

/** Step 8: one test at a time, large. What happened is said, and core judges. */
export function Prove({ state, visit }: ProveProps) {
  const proofs = useMemo(() => proofsOf(state), [state]);
  const { test: picked, later, pick, putOff } = usePicked(state.visitId);
  const due = dueOf(proofs, picked, later);
  const done = proofs.filter(isSettled).length;
  const last = state.proving.seen.at(-1);
  const before = last && last.test !== due?.test.id ? proofs.find(({ test }) => test.id === last.test) : undefined;
  if (!due) return <AllShown state={state} proofs={proofs} visit={visit} />;
  const { test } = due;
  const asked = test.pack === 'full' && !isSettled(due) ? fullPackAsked(state) : null;
  return (
    <div
      className={`${panel['panel']} ${classes['work']}`}
      data-test={asked === null ? test.id : 'full'}
      data-verdict={due.judgement.verdict}
      data-seen={state.proving.seen.length}
    >
      <header className={panel['head']}>
        <p className="cap">
          Prove · {done + (isSettled(due) ? 0 : 1)} of {proofs.length} · {setUpTitle(test)}
        </p>
        <p className={classes['before']} role="status">
          {before?.judgement.verdict === 'shows' && `${before.test.title}: ${before.judgement.says} Shows it.`}
        </p>
      </header>
      {asked !== null ? (
        <FullPack
          key={`${state.seq}`}
          state={state}
          visit={visit}
          why={asked}
          onLater={() => {
            for (const each of proofs) if (each.test.pack === 'full' && !isSettled(each)) putOff(each.test.id);
          }}
        />
      ) : (
        <OneTest
          key={`${test.id} ${state.proving.tries[test.id] ?? 0}`}
          proof={due}
          state={state}
          visit={visit}
          onNext={() => pick(null)}
          onLater={() => putOff(test.id)}
        />
      )}
    </div>
  );
}

function OneTest({
  proof,
  state,
  visit,
  onNext,
  onLater,
}: ProveProps & { readonly proof: ProofOf; readonly onNext: () => void; readonly onLater: () => void }) {
  const { test, judgement, seen } = proof;
  const { pick } = usePicked(state.visitId);
  const [cannot, setCannot] = useState(false);
  const isOpen = judgement.verdict === 'open' && proof.left === null;
  const observe = async (what: Observation) => {
    // A figure stays in sight with what it shows; what was only said goes on by itself.
    if (what.kind !== 'outcome') pick(test.id);
    return visit.act('proofSeen', { test: test.id, seen: what });
  };
  useHotkeys({
    Space: !isOpen && judgement.verdict !== 'doesNot' ? onNext : undefined,
    N: isOpen ? () => setCannot(!cannot) : undefined,
  });
  return (
    <>
      <h2 className={panel['title']}>{test.title}</h2>
      {test.first !== null && <Notice kind="care" title="First" says={test.first} />}
      <p className={panel['lead']}>{test.does}</p>
      {test.cautions.length > 0 && (
        <ul className={panel['cautions']} aria-label="Cautions">
          {test.cautions.map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
      )}
      {judgement.verdict === 'doesNot' ? (
        <DoesNot test={test} judgement={judgement} state={state} visit={visit} />
      ) : (
        <>
          {(isOpen || test.watch.kind === 'speed') && (
            <WatchFields proof={proof} state={state} onSeen={observe} onAsked={visit.dismiss} />
          )}
          {proof.left ? (
            <Notice kind="care" title={`Left out by ${proof.left.by}`} says={proof.left.words} />
          ) : judgement.verdict === 'shows' ? (
            <Notice kind="done" title="Shows it" says={judgement.says} />
          ) : (
            seen.length > 0 && <Notice kind="note" title="Not settled" says={judgement.says} />
          )}
          {cannot && isOpen ? (
            <CannotHere test={test} state={state} visit={visit} onLater={onLater} onClose={() => setCannot(false)} />
          ) : (
            <div className={panel['acts']}>
              {!isOpen && (
                <ActButton look="main" hotkey="Space" onAct={onNext}>
                  Next
                </ActButton>
              )}
              {isOpen && (
                <ActButton hotkey="N" onAct={() => setCannot(true)}>
                  Cannot be tried now
                </ActButton>
              )}
              {!isOpen && (
                <KeyButton
                  hotkey="A"
                  onAct={() => void visit.act('proofAgain', { test: test.id, mended: null, words: '' })}
                >
                  Try it anew
                </KeyButton>
              )}
            </div>
          )}
        </>
      )}
    </>
  );
}

function WatchFields({
  proof: { test, seen },
  state,
  onSeen,
  onAsked,
}: {
  readonly proof: ProofOf;
  readonly state: VisitState;
  readonly onSeen: (seen: Observation) => ReturnType<Visit['act']>;
  readonly onAsked: () => void;
}) {
  const { watch } = test;
  const place = `proof.${state.visitId}.${test.id}`;
  const keep = (what: Observation) => void onSeen(what);
  switch (watch.kind) {
    case 'outcome':
      return <OutcomeKeys test={test} watch={watch} onSeen={keep} />;
    case 'speed':
      return (
        <SpeedWays
          test={test}
          watch={watch}
          seen={seen.map((each) => each.seen)}
          place={place}
          onSeen={onSeen}
          onAsked={onAsked}
        />
      );
    case 'seconds':
    case 'turns':
      return <CountField test={test} watch={watch} place={place} onSeen={keep} />;
    case 'metres':
      return <MetresFields test={test} watch={watch} place={place} onSeen={keep} />;
    case 'gauge':
      return <GaugeFields test={test} watch={watch} place={place} onSeen={keep} />;
    case 'errors':
      return <ErrorsField test={test} watch={watch} place={place} onSeen={keep} />;
  }
}

/** Nothing is left to show. */
function AllShown({
  state,
  proofs,
  visit,
}: {
  readonly state: VisitState;
  readonly proofs: readonly ProofOf[];
  readonly visit: Visit;
}) {
  const left = proofs.filter((proof) => proof.left);
  const close = () => void visit.act('proved', {});
  useHotkeys({ Space: close });
  return (
    <div className={panel['panel']}>
      <p className="cap">Prove</p>
      <h2 className={panel['title']}>
        {proofs.length - left.length} of {proofs.length} shown on the vehicle
      </h2>
      <p className={panel['lead']}>{provingTermsOf(state.opened)?.why}</p>
      {left.map(({ test, left: why }) => (
        <Notice key={test.id} kind="care" title={`${test.title}: left out by ${why?.by}`} says={why?.words ?? ''} />
      ))}
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={close}>
          To sign off
        </ActButton>
      </div>
    </div>
  );
}
