import { Checkbox, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { MovedDocument, Recalled } from '@decurio/contract';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { ledgerApi } from '../ledger-api.js';
import { byCustomer, type CustomerMoved } from './by-customer.js';
import type { Held } from './use-held.js';
import classes from './moved-page.module.css';

const MOST_SHOWN = 12;

export interface CustomersProps {
  readonly about: MovedDocument;
  readonly held: Held;
  readonly onDecided: () => void;
}

/** Who would no longer comply, by customer with the reasons; and what becomes of their units, in writing. */
export function Customers({ about, held, onDecided }: CustomersProps) {
  const groups = byCustomer(held.moved);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [recalled, setRecalled] = useState<Recalled | null>(null);
  const visitIds = groups.flatMap(({ customer, open }) =>
    chosen.has(customer) ? open.map(({ visitId }) => visitId) : [],
  );
  const choose = (customer: string, isChosen: boolean) =>
    setChosen((before) => new Set([...before].filter((each) => each !== customer).concat(isChosen ? [customer] : [])));
  return (
    <section className={classes['customers']} aria-label="Who would no longer comply">
      <h2>
        {held.moved.length === 1 ? '1 unit does' : `${held.moved.length} units do`} not comply with version{' '}
        {held.version} of {held.name}
      </h2>
      {groups.map((group) => (
        <Customer key={group.customer} group={group} isChosen={chosen.has(group.customer)} onChoose={choose} />
      ))}
      {recalled && <RecallMade recalled={recalled} />}
      <Decide
        about={about}
        version={held.version}
        visitIds={visitIds}
        onDone={(made) => {
          setRecalled(made);
          setChosen(new Set());
          onDecided();
        }}
      />
    </section>
  );
}

interface CustomerProps {
  readonly group: CustomerMoved;
  readonly isChosen: boolean;
  readonly onChoose: (customer: string, isChosen: boolean) => void;
}

function Customer({ group: { customer, units, open, settled, reasons }, isChosen, onChoose }: CustomerProps) {
  return (
    <article className={classes['customer']}>
      <Checkbox
        label={
          <>
            <b>{customer}</b> {units.length === 1 ? '1 unit' : `${units.length} units`}
            {open.length < units.length && `, ${open.length} of them open`}
          </>
        }
        checked={isChosen}
        disabled={open.length === 0}
        onChange={({ target }) => onChoose(customer, target.checked)}
      />
      <ul>
        {reasons.map(({ says, isGrave, serials }) => (
          <li key={says} data-grave={isGrave}>
            {says} <Serials serials={serials} />
          </li>
        ))}
      </ul>
      {settled.map(({ what, by, words, units: own }) => (
        <p key={`${what} ${by} ${words}`} className="soft">
          {own.length === 1 ? '1 ' : `${own.length} `}
          {what === 'recalled'
            ? own.length === 1
              ? 'is called back'
              : 'are called back'
            : own.length === 1
              ? 'stays'
              : 'stay'}
          , by {by}: {words}. <Serials serials={own.map(({ serial }) => serial)} />
        </p>
      ))}
    </article>
  );
}

/** The first of them, none of them broken at its hyphen. */
function Serials({ serials }: { readonly serials: readonly string[] }) {
  return (
    <small className={`num ${classes['serials']}`}>
      {serials.slice(0, MOST_SHOWN).map((serial) => (
        <span key={serial}>{serial} </span>
      ))}
      {serials.length > MOST_SHOWN && `and ${serials.length - MOST_SHOWN} more`}
    </small>
  );
}

function RecallMade({ recalled: { orders, left } }: { readonly recalled: Recalled }) {
  const navigate = useNavigate();
  return (
    <>
      {orders.map(({ orderId, number, units }) => (
        <Notice
          key={orderId}
          kind="done"
          says={`Recall order ${number} holds ${units === 1 ? '1 unit' : `${units} units`}.`}
          act={{ label: 'Open it', onAct: () => void navigate(`/orders/${orderId}`) }}
        />
      ))}
      {left.map(({ serial, says }) => (
        <Notice key={serial} kind="care" says={`${serial} was not called back. ${says}`} />
      ))}
    </>
  );
}

interface DecideProps {
  readonly about: MovedDocument;
  readonly version: number;
  readonly visitIds: readonly string[];
  /** With what was made of a recall; null where units stay. */
  readonly onDone: (made: Recalled | null) => void;
}

/** One step for all that are chosen: called back in an order of their own, or left as they are, in writing. */
function Decide({ about, version, visitIds, onDone }: DecideProps) {
  const draft = useDraft(`moved.${about.kind}.${about.id}.${version}`, {
    words: '',
    number: `R-${about.id.slice(0, 24)}-${version}`,
    dueAt: '',
  });
  const { words, number, dueAt } = draft.value;
  const [recall, recalling] = ledgerApi.useRecallMutation();
  const [letStay, staying] = ledgerApi.useLetStayMutation();
  const [id, setId] = useState(() => crypto.randomUUID());
  const problem = asProblem(recalling.error) ?? asProblem(staying.error);
  const many = visitIds.length === 1 ? '1 unit' : `${visitIds.length} units`;
  const canSay = visitIds.length > 0 && words.trim().length >= 3;
  const done = (made: Recalled | null) => {
    draft.startAfresh();
    setId(crypto.randomUUID());
    onDone(made);
  };
  const recallThem = async () => {
    if (!canSay || dueAt === '' || number.trim() === '') return;
    const body = { id, version, visitIds, words: words.trim(), number: number.trim(), dueAt };
    const answer = await recall({ about, body });
    if (!('error' in answer)) done(answer.data);
  };
  return (
    <form
      className={classes['decide']}
      onSubmit={(event) => {
        event.preventDefault();
        void recallThem();
      }}
    >
      <Begun draft={draft} />
      <TextInput
        label="Why, as it will stand in the order or the record"
        value={words}
        onChange={({ target }) => draft.change({ words: target.value })}
        maxLength={500}
        data-scan-guard="words"
      />
      <TextInput
        label="Number of the recall order"
        value={number}
        onChange={({ target }) => draft.change({ number: target.value })}
        maxLength={34}
        data-scan-guard="words"
      />
      <TextInput
        label="Ready again by"
        type="datetime-local"
        value={dueAt}
        onChange={({ target }) => draft.change({ dueAt: target.value })}
      />
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton
          look="main"
          type="submit"
          busy={recalling.isLoading}
          disabled={!canSay || dueAt === '' || number.trim() === ''}
          onAct={() => undefined}
        >
          Make the recall order
        </ActButton>
        <ActButton
          look="care"
          busy={staying.isLoading}
          disabled={!canSay}
          onAct={() => {
            void letStay({ about, body: { version, visitIds, words: words.trim() } }).then((answer) => {
              if (!('error' in answer)) done(null);
            });
          }}
        >
          Let them stay as they are
        </ActButton>
        <span className="soft">{visitIds.length === 0 ? 'Tick whose units it is about.' : `It is about ${many}.`}</span>
      </div>
    </form>
  );
}
