import { TextInput } from '@mantine/core';
import { nowInHouse } from '../../ui/house-zone.js';
import { useMemo, useState } from 'react';
import type { RulePack } from '@decurio/core';
import { amendRequest, type AmendRequest, type OrderActed, type OrderPageView } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { Notice } from '../../ui/notice.js';
import { slipsIn } from '../../ui/slips.js';
import { Doubts } from '../promise/doubts.js';
import { doubtsAbout, promisedOf, type Promised } from '../promise/promise.js';
import { PromiseFields } from '../promise/promise-fields.js';
import classes from '../promise/order-form.module.css';

export interface AmendOrderProps {
  readonly view: OrderPageView;
  /** Its time on private land is over: a class for roads is chosen, and every unit comes back. */
  readonly bringsBack?: boolean;
  readonly onDone: (acted: OrderActed) => void;
  readonly onLeave: () => void;
}

const AMEND = { once: 'Amend', asked: 'Amend it as it stands' } as const;
const BRING_BACK = { once: 'Bring them back', asked: 'Bring them back all the same' } as const;

/** What is left to choose is the class under which they go on. */
const broughtBack = (view: OrderPageView): { promised: Promised; reason: string } => {
  const { terms, ...promised } = promisedOf(view);
  const endsOn = terms.privateLand?.endsOn;
  return {
    promised: { ...promised, classId: '', terms: { ...terms, privateLand: null } },
    reason: endsOn ? `Private land: the authority ends on ${endsOn}` : '',
  };
};

/** Another promise, with its reason. */
export function AmendOrder({ view, bringsBack = false, onDone, onLeave }: AmendOrderProps) {
  const [empty] = useState(() => (bringsBack ? broughtBack(view) : { promised: promisedOf(view), reason: '' }));
  const draft = useDraft(`${bringsBack ? 'bringBack' : 'amend'}.${view.order.id}.${view.changes.length}`, empty);
  const { promised, reason } = draft.value;
  const setPromised = (next: Promised) => draft.change({ promised: next });
  const [slips, setSlips] = useState<Readonly<Record<string, string>>>({});
  const [asked, setAsked] = useState<string | null>(null);
  const [amend, amending] = api.useAmendOrderMutation();
  const packs = api.useLibraryQuery('rulePack').data;
  const vehicleClass = packs
    ?.map((entry) => entry.document as RulePack)
    .find((pack) => pack.id === promised.rulePackId)
    ?.classes.find((each) => each.id === promised.classId);
  const doubts = useMemo(() => doubtsAbout(promised, vehicleClass, nowInHouse()), [promised, vehicleClass]);
  const doubtKey = doubts.map((doubt) => doubt.id).join('|');
  const isAsking = asked === doubtKey && doubtKey !== '';
  const submit = async () => {
    const body: AmendRequest = {
      id: crypto.randomUUID(),
      reason: reason.trim(),
      ...promised,
      customer: promised.customer.trim(),
      notes: promised.notes.trim(),
    };
    const found = slipsIn(amendRequest, body);
    setSlips(found);
    if (Object.keys(found).length > 0) return;
    if (doubtKey !== '' && asked !== doubtKey) return setAsked(doubtKey);
    const answer = await amend({ id: view.order.id, body });
    if (!answer.data) return;
    draft.forget();
    onDone(answer.data);
  };
  const problem = asProblem(amending.error);
  return (
    <form
      className={classes['form']}
      aria-label="Amend the order"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <h2>
        {bringsBack ? 'Bring back the units of' : 'Amend'} order {view.order.number}
      </h2>
      <Begun draft={draft} />
      <PromiseFields value={promised} onChange={setPromised} slips={slips} />
      <TextInput
        label={bringsBack ? 'Why they come back' : 'Why it is amended'}
        value={reason}
        onChange={(e) => draft.change({ reason: e.target.value })}
        error={slips['reason']}
        maxLength={500}
      />
      {isAsking && <Doubts doubts={doubts} promised={promised} onMend={setPromised} />}
      {problem && <Notice kind="stop" title="Nothing was amended" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" busy={amending.isLoading} onAct={() => undefined}>
          {(bringsBack ? BRING_BACK : AMEND)[isAsking ? 'asked' : 'once']}
        </ActButton>
        <ActButton onAct={onLeave}>Leave it</ActButton>
        <span className="soft">
          {bringsBack
            ? 'Every unit that is done comes back to the line: read in full, set to the class, and proved in full before it leaves.'
            : 'Units under way are worked out anew; those that are done and differ come back to the line.'}
        </span>
      </div>
    </form>
  );
}
