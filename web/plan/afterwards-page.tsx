import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { stepTitle } from '@decurio/core';
import type { AfterwardsView } from '@decurio/contract';
import { asProblem } from '../state/api.js';
import { planApi } from '../state/plan-api.js';
import { ActButton } from '../ui/act-button.js';
import { today } from '../ui/house-zone.js';
import { Busy, Notice } from '../ui/notice.js';
import { clockOf } from './plan-words.js';
import classes from './what-if/what-if-page.module.css';

const WEEK_MS = 7 * 86_400_000;

/** What was planned, and what came of it: by step, and by order. Lengths of the next plans are learnt from the same. */
export function AfterwardsPage() {
  const navigate = useNavigate();
  const [from, setFrom] = useState(() => today(Date.now() - WEEK_MS));
  const [to, setTo] = useState(() => today());
  const { data, error, isFetching } = planApi.useAfterwardsQuery({ from, to }, { skip: from === '' || to === '' });
  const problem = asProblem(error);
  return (
    <div className={classes['page']}>
      <header className={classes['head']}>
        <div>
          <p className="cap">Plan</p>
          <h1>Planned against real</h1>
        </div>
        <div className={classes['new']}>
          <TextInput type="date" label="Sealed from" value={from} onChange={(event) => setFrom(event.target.value)} />
          <TextInput type="date" label="to" value={to} onChange={(event) => setTo(event.target.value)} />
          <ActButton onAct={() => void navigate('/plan')}>To the plan</ActButton>
        </div>
      </header>
      {problem && <Notice kind="stop" says={problem.message} />}
      {!data && isFetching && <Busy />}
      {data && <Afterwards told={data} />}
    </div>
  );
}

function Afterwards({ told }: { readonly told: AfterwardsView }) {
  if (told.steps.length === 0)
    return (
      <Notice
        kind="note"
        title="Nothing to compare yet"
        says="No unit that was planned was sealed on these days. What is planned from now on is held against what comes of it."
      />
    );
  return (
    <>
      <table className={classes['table']}>
        <caption className="cap">Minutes a unit, hands on</caption>
        <thead>
          <tr>
            <th scope="col">Step</th>
            <th scope="col">Units</th>
            <th scope="col">Planned</th>
            <th scope="col">Real</th>
            <th scope="col">So</th>
          </tr>
        </thead>
        <tbody>
          {told.steps.map(({ step, units, planned, real }) => (
            <tr key={step}>
              <th scope="row">{stepTitle(step)}</th>
              <td className="num">{units}</td>
              <td className="num">{planned.toFixed(1)}</td>
              <td className="num">{real.toFixed(1)}</td>
              <td>{offWords(planned, real)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className={classes['table']}>
        <caption className="cap">Orders</caption>
        <thead>
          <tr>
            <th scope="col">Order</th>
            <th scope="col">Said at</th>
            <th scope="col">As likely as not</th>
            <th scope="col">With 95 of 100</th>
            <th scope="col">Ready</th>
          </tr>
        </thead>
        <tbody>
          {told.orders.map(({ number, customer, saidAtMs, said, readyMs }) => (
            <tr key={number}>
              <th scope="row">
                {number} <span className="soft">{customer}</span>
              </th>
              <td className="num">{clockOf(saidAtMs)}</td>
              <td className="num">{clockOf(said[50])}</td>
              <td className="num">{clockOf(said[95])}</td>
              <td className="num">{readyMs === null ? 'not yet' : clockOf(readyMs)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** Off by less than this nobody minds. */
const MINDED = 0.1;

function offWords(planned: number, real: number): string {
  const off = planned === 0 ? 0 : real / planned - 1;
  if (Math.abs(off) < MINDED) return 'as planned';
  return `${Math.round(Math.abs(off) * 100)} % ${off > 0 ? 'longer' : 'shorter'}; the next plans reckon with it`;
}
