import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { OrderView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { DueAt } from '../ui/due-at.js';
import { Busy, Notice } from '../ui/notice.js';
import { ReadyBy } from '../ui/ready-by.js';
import { PrivateLandStrip } from '../ui/private-land.js';
import { FirstSteps } from './first-steps.js';
import { Ranks } from './ranks.js';
import { WhichBar } from './which-bar.js';
import { ranksOf, whichIn } from './which-units.js';
import { SideCards } from './side-cards.js';
import classes from './line-page.module.css';

const REFRESH_MS = 5_000;
/** Where this device was told how close ranks stand; until then large deliveries stand close. */
const CLOSE = 'decurio.closeRanks';
const MANY = 100;

/** The delivery in ranks of ten: one order, every unit with its ladder. */
export function LinePage() {
  const { orderId } = useParams();
  const navigate = useNavigate();
  const orders = api.useOrdersQuery(undefined, { pollingInterval: REFRESH_MS * 4 });
  const shown = orderId ?? firstToDo(orders.data?.items)?.id;
  const line = api.useLineQuery(shown ?? '', {
    skip: shown === undefined,
    pollingInterval: REFRESH_MS,
    skipPollingIfUnfocused: true,
  });
  const { who } = useSession();
  const problem = asProblem(orders.error) ?? asProblem(line.error);
  const units = useMemo(() => line.currentData?.units ?? [], [line.currentData]);
  const me = who?.name ?? '';
  const [params] = useSearchParams();
  const which = whichIn(params.get('show'));
  const ranks = useMemo(() => ranksOf(units, which, me), [units, which, me]);
  const [chosen, setChosen] = useState(() => localStorage.getItem(CLOSE));
  const isClose = chosen === null ? units.length > MANY : chosen === 'yes';
  const toggleClose = () => {
    const next = isClose ? 'no' : 'yes';
    localStorage.setItem(CLOSE, next);
    setChosen(next);
  };

  if (problem && !line.currentData)
    return (
      <Notice
        kind="stop"
        title="Line cannot be shown"
        says={problem.message}
        act={{ label: 'Try again', onAct: () => void (line.isUninitialized ? orders : line).refetch() }}
        page
      />
    );
  if (!orders.data) return <Busy />;
  if (orders.data.items.length === 0) {
    if (who && who.role !== 'technician') return <FirstSteps role={who.role} />;
    return (
      <Notice
        kind="note"
        title="No order yet"
        says="Drop an order file on Orders. Its units then stand here in ranks of ten."
        act={{ label: 'Go to Orders', onAct: () => void navigate('/orders') }}
        page
      />
    );
  }
  if (!line.currentData) return <Busy />;
  const { order } = line.currentData;
  return (
    <>
      <header className={classes['head']}>
        <div className={classes['title']}>
          <p className="cap">
            Order <Link to={`/orders/${order.id}`}>{order.number}</Link> · {order.customer}
          </p>
          <h1>
            {order.units} units, out on <DueAt order={order} />
          </h1>
          <ReadyBy orderId={order.id} />
        </div>
        {orders.data.items.length > 1 && (
          <label className={classes['pick']}>
            <span className="cap">Delivery</span>
            <select value={order.id} onChange={(event) => void navigate(`/line/${event.target.value}`)}>
              {orders.data.items.map((o) => (
                <option key={o.id} value={o.id}>
                  {o.number}, {o.customer}
                </option>
              ))}
            </select>
          </label>
        )}
        <dl className={classes['figures']}>
          <div>
            <dt className="cap">Sealed</dt>
            <dd className="num">
              {order.sealed} / {order.units}
            </dd>
          </div>
          <div data-alarm={order.held > 0}>
            <dt className="cap">Held</dt>
            <dd className="num">{order.held}</dd>
          </div>
        </dl>
      </header>
      {order.privateLand && <PrivateLandStrip label={order.privateLand.label} endsOn={order.privateLand.endsOn} />}
      {problem && <Notice kind="care" says={`${problem.message} What you see may be old.`} />}
      <div className={classes['columns']}>
        <div>
          <WhichBar units={units} me={me} isClose={isClose} onClose={toggleClose} />
          {ranks.length === 0 && <p className={classes['legal']}>No unit of this delivery is that.</p>}
          <Ranks ranks={ranks} units={units} me={me} isClose={isClose} />
          {units.length < order.units && (
            <p className={classes['legal']}>
              The first {units.length} of {order.units} stand here. Scan a serial to work on any of them.
            </p>
          )}
          <p className={classes['legal']}>
            Class: {order.className}. Legal values {order.classChecked}. <Link to="/library">See the rules</Link>
          </p>
        </div>
        <SideCards units={units} me={me} />
      </div>
    </>
  );
}

/** The order that is due first among those with work left, else the newest. */
const firstToDo = (orders: readonly OrderView[] | undefined): OrderView | undefined =>
  orders
    ?.filter((order) => order.sealed < order.units)
    .reduce<OrderView | undefined>(
      (first, order) => (first === undefined || order.dueAt < first.dueAt ? order : first),
      undefined,
    ) ?? orders?.[0];
