import { Textarea } from '@mantine/core';
import { useLayoutEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { isOpen, offers, shortSeal, stepsLeftOut, trueSpeedSays, visitRemarks, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import { FindingList } from '../ui/finding-list.js';
import { mayAct, shownAnew } from '../ui/keys/bounce.js';
import { Notice } from '../ui/notice.js';
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
  const mayNot = bench.classStanding !== 'checked' || closed !== null;
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
      </h2>
      <p className={classes['lead']}>
        Set up for {state.opened.order.className}. You answer for it as {who?.name}, {who?.role}.
      </p>
      <div className={classes['reads']} tabIndex={0} role="region" aria-label="What you answer for">
        <Notice
          kind="care"
          title="What this does not prove"
          says={`${trueSpeedSays(state)} Legal values: ${bench.classChecked}.${left.length > 0 ? ` Left out: ${left.join(', ')}.` : ''}`}
        />
        {stands.length > 0 && <Notice kind="note" title="What stands beside the codes" says={stands.join(' ')} />}
        {bench.classStanding !== 'checked' && (
          <Notice
            kind="stop"
            title={
              bench.classStanding === 'expired'
                ? 'The check of this class has run out'
                : 'Nobody here has checked this class'
            }
            says="It cannot be signed off. A lead confirms the class under Library, Rule packs, with the local authority."
          />
        )}
        {closed?.code === 'oddInFamily' && (
          <Notice kind="stop" title="It does not read as its family" says={closed.message} />
        )}
        <FindingList findings={state.opened.setup.findings} />
        {state.opened.setup.findings.some(isOpen) && (
          <p className={classes['lead']}>
            A lead chooses on the page of <Link to={`/orders/${bench.orderId}`}>order {bench.orderNumber}</Link>; then
            it can be signed off.
          </p>
        )}
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

/** Right after the seal: the papers, and on to the next unit. */
export function SealedNow({ bench, state }: { readonly bench: BenchView; readonly state: VisitState }) {
  const navigate = useNavigate();
  const head = bench.evidence.at(-1)?.hash ?? '';
  return (
    <div className={classes['panel']}>
      <Notice
        kind="done"
        title={`${bench.unit.serial} is sealed`}
        says={`${bench.evidence.length} entries end in the seal ${shortSeal(head)}.`}
      />
      <ul className={classes['links']}>
        <li>
          <a href={`/api/visits/${state.visitId}/certificate.pdf`} target="_blank" rel="noreferrer">
            Configuration certificate (PDF)
          </a>
        </li>
        <li>
          <a href={`/api/visits/${state.visitId}/record.json`} download>
            The whole record (JSON)
          </a>
        </li>
      </ul>
      <div className={classes['acts']}>
        <ActButton look="main" onAct={() => void navigate(`/line/${bench.orderId}`)}>
          To Line
        </ActButton>
        <ActButton onAct={() => void navigate(`/ledger/${state.visitId}`)}>See it in the ledger</ActButton>
      </div>
      <p className="soft">Or scan the next serial.</p>
    </div>
  );
}
