import { Radio, Select, Textarea } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import {
  HOLD_REASONS,
  isAfter,
  isAgainst,
  offers,
  SENT_BACK_TO,
  stepTitle,
  type HoldDecision,
  type StepId,
  type VisitState,
} from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { KeyButton } from '../ui/keys/key-button.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import { FindingList } from '../ui/finding-list.js';
import { Notice } from '../ui/notice.js';
import { whenClock } from '../ui/when.js';
import { PackAgain, Quarantine } from './pack/pack-again.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

interface HeldProps {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}

/** A held unit: why, since when, and, for a lead, what is decided about it in writing. */
export function Held({ bench, state, visit }: HeldProps) {
  const { who } = useSession();
  const [measures, setMeasures] = useState(false);
  if (!state.held) return null;
  const isPack =
    state.held.reason === 'pack' &&
    who !== null &&
    offers(state, 'packMeasured', { by: who, station: who.station }) === null;
  const again = isPack && (
    <KeyButton hotkey="M" onAct={() => setMeasures(true)}>
      Measure the pack again
    </KeyButton>
  );
  const { reason, words: why, at, by } = state.held;
  return (
    <div className={classes['panel']}>
      <Notice kind="stop" title={`Held: ${HOLD_REASONS[reason].toLowerCase()}`} says={why} />
      <p className={classes['lead']}>
        Held by {by.name} at {whenClock(at)}. A lead decides in writing; until then nothing goes on.
      </p>
      {isPack && <Quarantine />}
      {measures && <PackAgain bench={bench} visit={visit} onDone={() => setMeasures(false)} />}
      {measures ? null : who !== null && who.role !== 'technician' ? (
        <Decide bench={bench} state={state} visit={visit} beside={again} />
      ) : (
        <>
          {again && <div className={classes['acts']}>{again}</div>}
          <p className="soft">Call a lead, or put the unit aside and scan the next one.</p>
        </>
      )}
    </div>
  );
}

type Way = HoldDecision['way'] | 'withdraw';

function Decide({ bench, state, visit, beside }: HeldProps & { readonly beside: ReactNode }) {
  const draft = useDraft(`decide.${state.visitId}.${state.held?.at ?? ''}`, {
    way: 'goOn' as Way,
    to: 'keyIn' as StepId,
    words: '',
  });
  const { way, to, words } = draft.value;
  const [busy, setBusy] = useState(false);
  const [withdraw, withdrawing] = api.useWithdrawUnitsMutation();
  const against = state.step === 'readBack' ? state.verdicts.filter(isAgainst).map(({ label }) => label) : [];
  const isStopped = bench.ifAccepted.some(({ level }) => level === 'stop');
  const back = SENT_BACK_TO.filter(
    (step) =>
      state.opened.steps.includes(step) && state.step !== null && (step === state.step || isAfter(state.step, step)),
  );
  const decide = async () => {
    setBusy(true);
    if (way === 'withdraw')
      await withdraw({
        id: bench.orderId,
        body: { id: crypto.randomUUID(), unitIds: [bench.unit.id], reason: words.trim() },
      });
    else
      await visit.act('released', {
        words: words.trim(),
        decision: way === 'accept' ? { way, labels: against } : way === 'sendBack' ? { way, to } : { way },
      });
    setBusy(false);
  };
  const problem = asProblem(withdrawing.error);
  return (
    <form
      className={classes['stack']}
      onSubmit={(event) => {
        event.preventDefault();
        void decide();
      }}
    >
      <Begun draft={draft} />
      {against.length > 0 && bench.ifAccepted.length > 0 && <FindingList findings={bench.ifAccepted} />}
      <Radio.Group label="You decide" value={way} onChange={(value) => draft.change({ way: value as Way })}>
        <div className={classes['ways']}>
          <Radio
            size="md"
            value="goOn"
            label={
              against.length > 0
                ? `Its cause is gone: read ${against.join(', ')} once more`
                : 'It goes on: its cause is gone'
            }
          />
          {against.length > 0 && (
            <Radio
              size="md"
              value="accept"
              disabled={isStopped}
              label={
                isStopped
                  ? `${against.join(', ')} cannot be accepted as shown`
                  : `Accept ${against.join(', ')} as shown`
              }
            />
          )}
          {back.length > 0 && <Radio size="md" value="sendBack" label="Send it back to a step" />}
          <Radio size="md" value="withdraw" label="Withdraw it from its order" />
        </div>
      </Radio.Group>
      {way === 'sendBack' && (
        <Select
          label="Back to"
          allowDeselect={false}
          value={to}
          onChange={(value) => draft.change({ to: (value ?? 'keyIn') as StepId })}
          data={back.map((step) => ({ value: step, label: stepTitle(step) }))}
        />
      )}
      {state.held?.reason !== 'pack' && (
        <p className="soft">
          To set it up otherwise, change <Link to={`/orders/${bench.orderId}`}>order {bench.orderNumber}</Link> or its
          own wishes there, then decide here.
        </p>
      )}
      <Textarea
        label="Why"
        placeholder="Stands in the record under your name"
        value={words}
        onChange={(e) => draft.change({ words: e.target.value })}
        minLength={3}
        maxLength={500}
        required
        rows={2}
      />
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton
          type="submit"
          look={way === 'withdraw' ? 'care' : 'main'}
          busy={busy || visit.isAwaited}
          onAct={() => undefined}
        >
          {way === 'goOn'
            ? 'Release'
            : way === 'accept'
              ? 'Accept and release'
              : way === 'sendBack'
                ? `Send back to ${stepTitle(to).toLowerCase()}`
                : 'Withdraw'}
        </ActButton>
        {beside}
      </div>
    </form>
  );
}
