import { Textarea } from '@mantine/core';
import { useLayoutEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import {
  missingForSeal,
  offers,
  proofsOf,
  stepsLeftOut,
  trueSpeedSays,
  visitRemarks,
  type Missing,
  type VisitState,
} from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { KeyButton } from '../ui/keys/key-button.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import { FindingList } from '../ui/finding-list.js';
import { mayAct, shownAnew } from '../ui/keys/bounce.js';
import { Notice } from '../ui/notice.js';
import { CountersignForm } from './countersign-form.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

/** Step 9: what stands, what was not proved, and the name that answers for it. */
export function SignOff({
  bench,
  state,
  visit,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}) {
  const { who } = useSession();
  const draft = useDraft(`signOff.${state.visitId}`, { words: '' });
  const { words } = draft.value;
  const [busy, setBusy] = useState(false);
  const agreed = state.verdicts.filter((v) => v.verdict === 'agrees').length;
  const recorded = state.verdicts.filter((v) => v.verdict === 'asFound').length;
  const closed = who ? offers(state, 'signedOff', { by: who, station: who.station }) : null;
  const left = stepsLeftOut(state);
  const stands = visitRemarks(state);
  const missing = who ? missingForSeal(state, who) : [];
  const mayNot = bench.classStanding !== 'checked' || closed !== null;
  const proofs = proofsOf(state);
  const shown = proofs.filter(({ judgement }) => judgement.verdict === 'shows').length;
  const sign = async () => {
    if (mayNot || busy) return;
    setBusy(true);
    const problem = await visit.act('signedOff', { words: words.trim(), check: bench.classCheck });
    if (!problem) draft.forget();
    setBusy(false);
  };
  // A seal is for good: by a key that was meant for it, not by one that was still on its way, nor by a foot.
  useLayoutEffect(shownAnew, []);
  return (
    <form
      className={classes['panel']}
      onSubmit={(event) => {
        event.preventDefault();
        void sign();
      }}
    >
      <p className="cap">Sign off</p>
      <h2 className={classes['title']}>
        {agreed} codes agree{recorded > 0 && `, ${recorded} recorded as found`}
        {proofs.length > 0 && `; ${shown} of ${proofs.length} shown on the vehicle`}
      </h2>
      <p className={classes['lead']}>
        Set up for {state.opened.order.className}. You answer for it as {who?.name}, {who?.role}.
      </p>
      <MissingList bench={bench} state={state} visit={visit} missing={missing} />
      <div className={classes['reads']} tabIndex={0} role="region" aria-label="What you answer for">
        <Notice
          kind="care"
          title="What this does not prove"
          says={`${trueSpeedSays(state)} Legal values: ${bench.classChecked}.${left.length > 0 ? ` Left out: ${left.join(', ')}.` : ''}`}
        />
        {stands.length > 0 && <Notice kind="note" title="What stands beside the codes" says={stands.join(' ')} />}
        <FindingList findings={state.opened.setup.findings.filter(({ level }) => level === 'note')} />
      </div>
      <Begun draft={draft} />
      <Textarea
        label="Words for the record, if there is anything to say"
        value={words}
        onChange={(e) => draft.change({ words: e.target.value })}
        onKeyDown={(event) => {
          if (event.defaultPrevented || event.key !== 'Enter' || event.shiftKey) return;
          event.preventDefault();
          if (mayAct()) void sign();
        }}
        maxLength={500}
        autosize
        minRows={1}
        maxRows={5}
        autoFocus
        data-scan-guard="words"
      />
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" busy={busy} hotkey="Enter" disabled={mayNot} onAct={() => undefined}>
          Sign off and seal
        </ActButton>
        <span className="soft">Sealed, the record takes no further entry.</span>
      </div>
    </form>
  );
}

const WAYS: Readonly<Record<Missing['way'], { readonly label: string } | null>> = {
  order: { label: 'To its order' },
  prove: { label: 'Back to Prove' },
  calibrate: { label: 'Back to calibrate' },
  lead: null,
  second: null,
};

/** What keeps it from its seal, each with the key that goes where it is put right. */
function MissingList({
  bench,
  state,
  visit,
  missing,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
  readonly missing: readonly Missing[];
}) {
  const navigate = useNavigate();
  const isUnchecked = bench.classStanding !== 'checked';
  const rows = missing.filter(({ way }) => way !== 'second');
  const wantsSecond = missing.some(({ way }) => way === 'second');
  const [firstTest] = proofsOf(state);
  const go = ({ way, test }: Missing) => {
    const about = test ?? firstTest?.test.id;
    if (way === 'order') void navigate(`/orders/${bench.orderId}`);
    else if ((way === 'prove' || way === 'calibrate') && about !== undefined)
      void visit.act('wentBack', { test: about, to: way, words: '' });
  };
  if (!isUnchecked && rows.length === 0)
    return wantsSecond || state.countersigned ? <CountersignForm bench={bench} state={state} /> : null;
  return (
    <>
      <ul className={classes['missing']} aria-label="What is missing">
        {isUnchecked && (
          <li>
            <span>
              <b>
                {bench.classStanding === 'expired'
                  ? 'The check of this class has run out.'
                  : 'Nobody here has checked this class.'}
              </b>{' '}
              A lead confirms the class under Library, Rule packs, with the local authority.
            </span>
            <KeyButton hotkey="L" onAct={() => void navigate('/library/rules')}>
              To its rules
            </KeyButton>
          </li>
        )}
        {rows.map((each, i) => {
          const way = WAYS[each.way];
          return (
            <li key={i}>
              <span>{each.refused.message}</span>
              {way && (
                <KeyButton hotkey={String(i + 1)} onAct={() => go(each)}>
                  {way.label}
                </KeyButton>
              )}
            </li>
          );
        })}
      </ul>
      {wantsSecond && <CountersignForm bench={bench} state={state} />}
    </>
  );
}
