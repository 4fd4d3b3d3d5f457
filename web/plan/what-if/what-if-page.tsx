import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { AskedChange, PlanView, Scenario } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { planApi } from '../../state/plan-api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { Busy, Notice } from '../../ui/notice.js';
import { of100 } from '../../ui/of-100.js';
import { changeWords, clockOf, isKeepable, keptElsewhere } from '../plan-words.js';
import { NewChange } from './new-change.js';
import classes from './what-if-page.module.css';

const NAMES = ['A', 'B', 'C'] as const;

/** Up to three ways the day could go, side by side with how it stands: people, hours, posts, due times. */
export function WhatIfPage() {
  const { data, error, refetch } = planApi.usePlanQuery(null);
  const problem = asProblem(error);
  if (!data)
    return problem ? (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} page />
    ) : (
      <Busy />
    );
  return <WhatIf plan={data} />;
}

function WhatIf({ plan }: { readonly plan: PlanView }) {
  const navigate = useNavigate();
  const { who } = useSession();
  const [ways, setWays] = useState<readonly (readonly AskedChange[])[]>([[], [], []]);
  const [told, setTold] = useState<readonly (Scenario | null)[]>([null, null, null]);
  const [ask, asking] = planApi.useWhatIfMutation();
  const [keep, keeping] = planApi.useKeepChangesMutation();
  const problem = asProblem(keeping.error) ?? asProblem(asking.error);
  useHotkeys({ P: () => void navigate('/plan') });
  const change = async (w: number, changes: readonly AskedChange[]) => {
    const next = ways.map((each, i) => (i === w ? changes : each));
    setWays(next);
    const filled = next.flatMap((each, i) => (each.length > 0 ? [i] : []));
    if (filled.length === 0) return setTold([null, null, null]);
    const answer = await ask({ revision: plan.revision, scenarios: filled.map((i) => next[i] ?? []), look: 'careful' });
    if (answer.data) setTold(NAMES.map((_, i) => answer.data?.[filled.indexOf(i)] ?? null));
  };
  const keepWay = (changes: readonly AskedChange[]) =>
    void keep({ revision: plan.revision, changes }).then((answer) => {
      if (answer.data) void navigate('/plan');
    });
  return (
    <div className={classes['page']}>
      <header className={classes['head']}>
        <div>
          <p className="cap">Plan</p>
          <h1>What if</h1>
        </div>
        <ActButton hotkey="P" onAct={() => void navigate('/plan')}>
          To the plan
        </ActButton>
      </header>
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['ways']}>
        {ways.map((changes, w) => (
          <section key={NAMES[w]} className={classes['way']} aria-label={`Way ${NAMES[w]}`}>
            <h2 className="cap">Way {NAMES[w]}</h2>
            <ul>
              {changes.map((each, i) => (
                <li key={JSON.stringify(each)}>
                  {changeWords(each, plan)}
                  <button
                    type="button"
                    aria-label={`Take out: ${changeWords(each, plan)}`}
                    onClick={() =>
                      void change(
                        w,
                        changes.filter((_, at) => at !== i),
                      )
                    }
                  >
                    Take out
                  </button>
                </li>
              ))}
            </ul>
            {changes.length < 8 && <NewChange plan={plan} onAdd={(each) => void change(w, [...changes, each])} />}
            {who?.role !== 'technician' && changes.length > 0 && (
              <ActButton
                disabled={!changes.every(isKeepable) || asking.isLoading}
                busy={keeping.isLoading}
                onAct={() => keepWay(changes)}
              >
                Keep way {NAMES[w]}
              </ActButton>
            )}
            {!changes.every(isKeepable) && (
              <p className="soft">{[...new Set(changes.flatMap((each) => keptElsewhere(each) ?? []))].join(' ')}</p>
            )}
          </section>
        ))}
      </div>
      <table className={classes['table']}>
        <caption className="cap">
          Ready with 80 of 100, and chance to be in time{asking.isLoading ? ': working it out …' : ''}
        </caption>
        <thead>
          <tr>
            <th scope="col">Order</th>
            <th scope="col">Due</th>
            <th scope="col">As it stands</th>
            {NAMES.map((name) => (
              <th key={name} scope="col">
                Way {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {plan.orders.map((order) => (
            <tr key={order.id}>
              <th scope="row">
                {order.number} <span className="soft">{order.customer}</span>
              </th>
              <td className="num">{order.dueMs === null ? '' : clockOf(order.dueMs)}</td>
              <Cell order={order} was={null} />
              {told.map((scenario, w) => (
                <Cell
                  key={NAMES[w]}
                  order={scenario?.orders.find(({ orderId }) => orderId === order.id) ?? null}
                  was={order.inTime}
                />
              ))}
            </tr>
          ))}
          {Array.from({ length: Math.max(0, ...told.map((scenario) => scenario?.tried.length ?? 0)) }, (_, n) => (
            <tr key={n}>
              <th scope="row">{n === 0 ? 'The one that comes in' : 'One more that comes in'}</th>
              <td />
              <td />
              {told.map((scenario, w) => (
                <Cell key={NAMES[w]} order={scenario?.tried[n] ?? null} was={null} />
              ))}
            </tr>
          ))}
          <tr>
            <th scope="row">Units that move</th>
            <td />
            <td />
            {told.map((scenario, w) => (
              <td key={NAMES[w]} className="num">
                {scenario ? scenario.moved.length : ''}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}

interface CellProps {
  readonly order: Pick<PlanView['orders'][number], 'readyBy' | 'inTime'> | null;
  readonly was: number | null;
}

function Cell({ order, was }: CellProps) {
  if (!order) return <td />;
  const { readyBy, inTime } = order;
  const turn = was === null || inTime === null ? 0 : inTime - was;
  return (
    <td data-turn={turn > 2 ? 'better' : turn < -2 ? 'worse' : undefined}>
      <span className="num">{readyBy ? clockOf(readyBy[80]) : 'not laid out'}</span>
      {inTime !== null && <b>{of100(inTime)}</b>}
      {turn > 2 && <span className="soft">better</span>}
      {turn < -2 && <span className="soft">worse</span>}
    </td>
  );
}
