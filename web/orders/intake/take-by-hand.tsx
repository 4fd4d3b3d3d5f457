import { TextInput } from '@mantine/core';
import { nowInHouse } from '../../ui/house-zone.js';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { RulePack } from '@decurio/core';
import { newOrderRequest, type NewOrderRequest } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { Notice } from '../../ui/notice.js';
import { slipsIn } from '../../ui/slips.js';
import { Doubts } from '../promise/doubts.js';
import { doubtsAbout, nothingPromised, type Promised } from '../promise/promise.js';
import { PromiseFields } from '../promise/promise-fields.js';
import { OfferCard } from './offer-card.js';
import { EMPTY_LINE, serialsOf, UnitLines, type UnitLine } from './unit-lines.js';
import classes from '../promise/order-form.module.css';

/** An order taken in by hand: what was promised, and units by type, scanned now or when they arrive. */
export function TakeByHand() {
  const navigate = useNavigate();
  const packs = api.useLibraryQuery('rulePack').data;
  const [empty] = useState(() => ({
    id: crypto.randomUUID() as string,
    number: '',
    promised: nothingPromised(),
    lines: [EMPTY_LINE] as readonly UnitLine[],
  }));
  const draft = useDraft('orderByHand', empty);
  const { id, number, promised, lines } = draft.value;
  const setPromised = (next: Promised) => draft.change({ promised: next });
  const [slips, setSlips] = useState<Readonly<Record<string, string>>>({});
  const [asked, setAsked] = useState<string | null>(null);
  const [take, taking] = api.useTakeByHandMutation();
  const vehicleClass = packs
    ?.map((entry) => entry.document as RulePack)
    .find((pack) => pack.id === promised.rulePackId)
    ?.classes.find((each) => each.id === promised.classId);
  const doubts = useMemo(() => doubtsAbout(promised, vehicleClass, nowInHouse()), [promised, vehicleClass]);
  const doubtKey = doubts.map((doubt) => doubt.id).join('|');
  const chosen = lines.filter((line) => line.typeId !== null);
  const body: NewOrderRequest = {
    id,
    number: number.trim(),
    ...promised,
    customer: promised.customer.trim(),
    notes: promised.notes.trim(),
    units: chosen.flatMap(({ typeId, mapId, serials }) =>
      serialsOf(serials).map((serial) => ({ serial, typeId: typeId ?? '', mapId })),
    ),
    expected: chosen.flatMap(({ typeId, mapId, toCome }) =>
      toCome > 0 ? [{ typeId: typeId ?? '', mapId, count: toCome }] : [],
    ),
  };
  const submit = async () => {
    const found = slipsIn(newOrderRequest, body);
    const noUnits =
      body.units.length + body.expected.length === 0
        ? { units: 'Say which type, and how many are to come, or scan their serials.' }
        : {};
    setSlips({ ...found, ...noUnits });
    if (Object.keys({ ...found, ...noUnits }).length > 0) return;
    if (doubtKey !== '' && asked !== doubtKey) return setAsked(doubtKey);
    const answer = await take(body);
    if (!answer.data) return;
    draft.forget();
    void navigate(`/orders/${answer.data.orderId}`);
  };
  const problem = asProblem(taking.error);
  const isAsking = asked !== null && asked === doubtKey && doubtKey !== '';
  return (
    <form
      className={classes['page']}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <p>
        <Link to="/orders">Orders</Link>
      </p>
      <h1>Take in an order by hand</h1>
      <Begun draft={draft} />
      <section className={classes['form']} aria-label="What was promised">
        <h2>What was promised</h2>
        <PromiseFields
          value={promised}
          onChange={setPromised}
          slips={slips}
          first={
            <TextInput
              label="Order number"
              value={number}
              onChange={(e) => draft.change({ number: e.target.value })}
              error={slips['number']}
              maxLength={40}
              autoFocus
            />
          }
        />
      </section>
      <section className={classes['form']} aria-label="Units">
        <h2>Units</h2>
        <UnitLines
          lines={lines}
          onChange={(lines) => draft.change({ lines })}
          promised={promised}
          slips={slips}
          serialsBefore={(i) => lines.slice(0, i).reduce((sum, line) => sum + serialsOf(line.serials).length, 0)}
        />
        {slips['units'] !== undefined && <Notice kind="stop" says={slips['units']} />}
      </section>
      <OfferCard
        units={chosen.map(({ typeId, mapId, serials, toCome }) => ({
          typeId: typeId ?? '',
          mapId,
          count: serialsOf(serials).length + toCome,
        }))}
        wanted={promised.dueAt}
      />
      {isAsking && <Doubts doubts={doubts} promised={promised} onMend={setPromised} />}
      {Object.keys(slips).length > 0 && (
        <Notice kind="stop" says="Some fields need another look. Nothing was taken, and nothing you typed is lost." />
      )}
      {problem && <Notice kind="stop" title="The order was not taken" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" busy={taking.isLoading} onAct={() => undefined}>
          {isAsking ? 'Take it as it stands' : 'Take this order in'}
        </ActButton>
        <ActButton onAct={() => void navigate('/orders')}>Leave it</ActButton>
      </div>
    </form>
  );
}
