import { useLayoutEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { kmhWords } from '@decurio/core';
import { INTAKE_LIMITS, type IntakeReport, type TakenView } from '@decurio/contract';
import { api, asProblem, type ApiProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { DueAt } from '../ui/due-at.js';
import { Busy, Notice } from '../ui/notice.js';
import { ReadyBy } from '../ui/ready-by.js';
import { EndingAuthorities } from './ending-authorities.js';
import { DropOrder } from './intake/drop-order.js';
import { IntakeCard } from './intake/intake-card.js';
import classes from './orders-page.module.css';

/** Intake of order files, and what was promised to whom. */
export function OrdersPage() {
  const [checkFile, checking] = api.useCheckFileMutation();
  const [takeIntake, taking] = api.useTakeIntakeMutation();
  const [report, setReport] = useState<IntakeReport | null>(null);
  const [taken, setTaken] = useState<TakenView | null>(null);
  const [problem, setProblem] = useState<ApiProblem | null>(null);
  const onwards = useRef<HTMLParagraphElement>(null);
  useLayoutEffect(() => {
    if (taken) onwards.current?.querySelector('a')?.focus();
  }, [taken]);

  const drop = async (file: File) => {
    setReport(null);
    setTaken(null);
    setProblem(null);
    if (file.size > INTAKE_LIMITS.bytes) {
      const megabytes = (bytes: number) => Math.round(bytes / 1024 / 1024);
      return setProblem({
        status: 413,
        code: 'tooLarge',
        message: `${file.name} has ${megabytes(file.size)} MB; an order file has at most ${megabytes(INTAKE_LIMITS.bytes)} MB. Nothing was taken. Split it, or look whether it is the right file.`,
      });
    }
    const answer = await checkFile({ id: crypto.randomUUID(), file });
    if (answer.data) setReport(answer.data);
    else setProblem(asProblem(answer.error));
  };
  const take = async () => {
    if (!report) return;
    setProblem(null);
    const answer = await takeIntake(report.intakeId);
    if (answer.data) {
      setTaken(answer.data);
      setReport(null);
    } else setProblem(asProblem(answer.error));
  };

  return (
    <div className={classes['page']}>
      <div className={classes['intake']}>
        <h1>Take in an order</h1>
        <DropOrder busy={checking.isLoading} onDrop={(file) => void drop(file)} />
        <p>
          No file? <Link to="/orders/new">Take one in by hand</Link>, and scan its units one after another.
        </p>
        {problem && <Notice kind="stop" title="The file was not taken" says={problem.message} />}
        {taken && (
          <Notice
            kind="done"
            title={`${taken.unitsTaken} units taken into order ${taken.number}`}
            says="They stand on Line, each waiting for its check in."
          />
        )}
        {taken && (
          <p ref={onwards}>
            <Link className={classes['toLine']} to={`/orders/${taken.orderId}`}>
              See what its codes will be
            </Link>{' '}
            <Link className={classes['toLine']} to={`/line/${taken.orderId}`}>
              See order {taken.number} on Line
            </Link>
          </p>
        )}
        {report && (
          <IntakeCard
            report={report}
            busy={taking.isLoading}
            onTake={() => void take()}
            onLeave={() => setReport(null)}
          />
        )}
      </div>
      <EndingAuthorities />
      <OrderList />
    </div>
  );
}

function OrderList() {
  const [after, setAfter] = useState<string | undefined>(undefined);
  const { data, error, refetch } = api.useOrdersQuery(after);
  const problem = asProblem(error);
  if (problem && !data)
    return <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />;
  if (!data) return <Busy />;
  if (data.items.length === 0)
    return <p className="soft">No order has been taken in yet. Drop a file above, or start from the example.</p>;
  return (
    <section aria-label="Orders">
      <h2 className={classes['heading']}>What was promised</h2>
      <div className={classes['scroll']} tabIndex={0} role="region" aria-label="Orders, newest first">
        <table className={classes['table']}>
          <thead>
            <tr className="cap">
              <th scope="col">Order</th>
              <th scope="col">Customer</th>
              <th scope="col">Out on</th>
              <th scope="col">Class</th>
              <th scope="col">Units</th>
              <th scope="col">Sealed</th>
              <th scope="col">Held</th>
            </tr>
          </thead>
          <tbody>
            {data.items.map((order) => (
              <tr key={order.id}>
                <th scope="row">
                  <Link to={`/orders/${order.id}`}>{order.number}</Link>
                </th>
                <td>{order.customer}</td>
                <td>
                  <DueAt order={order} />
                  <ReadyBy orderId={order.id} />
                </td>
                <td>
                  {order.className}
                  {order.limitKmh !== null && `, at most ${kmhWords(order.limitKmh)}`}
                  {order.privateLand && (
                    <strong className={classes['land']}>
                      {order.privateLand.label}, until {order.privateLand.endsOn}
                    </strong>
                  )}
                  <small>legal values {order.classChecked}</small>
                </td>
                <td className="num">{order.units}</td>
                <td className="num">{order.sealed}</td>
                <td className="num" data-alarm={order.held > 0}>
                  {order.held}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className={classes['pages']}>
        {after !== undefined && <ActButton onAct={() => setAfter(undefined)}>Newest</ActButton>}
        {data.next !== null && <ActButton onAct={() => setAfter(data.next ?? undefined)}>Older orders</ActButton>}
      </div>
    </section>
  );
}
