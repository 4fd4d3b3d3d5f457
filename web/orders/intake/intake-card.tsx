import { useLayoutEffect, useRef } from 'react';
import type { IntakeReport } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { OfferCard } from './offer-card.js';
import { whenDay } from '../../ui/when.js';
import classes from './intake-card.module.css';

export interface IntakeCardProps {
  readonly report: IntakeReport;
  readonly busy: boolean;
  readonly onTake: () => void;
  readonly onLeave: () => void;
}

/** What a checked file holds: the promise, the good rows to take with one click, and every problem with its place. */
export function IntakeCard({ report, busy, onTake, onLeave }: IntakeCardProps) {
  const card = useRef<HTMLElement>(null);
  // Whoever dropped the file goes on here: by Tab it would be a long way.
  useLayoutEffect(() => card.current?.querySelector<HTMLElement>('h2')?.focus(), []);
  const { order, rowsGood, rowsBad, rowsAlreadyTaken } = report;
  return (
    <section ref={card} className={classes['card']} aria-label={`Checked file ${report.fileName}`}>
      <p className="cap">{report.fileName} · nothing is taken yet</p>
      {order ? (
        <>
          <h2 tabIndex={-1}>
            {order.isNew ? 'Order' : 'More for order'} {order.number} for {order.customer}
          </h2>
          <p>
            Out on {whenDay(order.dueAt)}. {order.place}: {order.className}, legal values {order.classChecked}.
          </p>
        </>
      ) : (
        <h2 tabIndex={-1}>This file cannot be taken as it is</h2>
      )}
      {order && (
        <ul className={classes['counts']}>
          <li data-kind="good">
            <b>{rowsGood}</b> {rowsGood === 1 ? 'unit' : 'units'} ready to take
            {report.types.length > 0 && `: ${report.types.map((t) => `${t.count} ${t.name}`).join(', ')}`}
          </li>
          {rowsAlreadyTaken > 0 && (
            <li>
              <b>{rowsAlreadyTaken}</b> stand in this order already and are left alone
            </li>
          )}
          {rowsBad > 0 && (
            <li data-kind="bad">
              <b>{rowsBad}</b> {rowsBad === 1 ? 'row needs' : 'rows need'} another look
            </li>
          )}
        </ul>
      )}
      {report.doubts.map((doubt) => (
        <Notice key={doubt} kind="care" says={doubt} />
      ))}
      {report.problemsInAll > 0 && (
        <div className={classes['scroll']} tabIndex={0} role="region" aria-label="Problems in the file">
          <table>
            <thead>
              <tr className="cap">
                <th scope="col">Line</th>
                <th scope="col">Column</th>
                <th scope="col">What is wrong and what to do</th>
              </tr>
            </thead>
            <tbody>
              {report.problems.map((problem, i) => (
                <tr key={i}>
                  <td className="num">{problem.line === 0 ? 'file' : problem.line}</td>
                  <td>
                    {problem.column === 0 ? '' : <span className="num">{problem.column} </span>}
                    {problem.columnName}
                  </td>
                  <td>{problem.message}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {report.problemsInAll > report.problems.length && (
            <p className="soft">
              and {report.problemsInAll - report.problems.length} more. Mend these and drop the file again.
            </p>
          )}
        </div>
      )}
      {order && rowsGood === 0 && (
        <Notice
          kind="note"
          says={
            rowsAlreadyTaken > 0 && rowsBad === 0
              ? 'All of these units are in the order already. There is nothing left to take.'
              : 'No row can be taken. Mend the file and drop it again.'
          }
        />
      )}
      {order && rowsGood > 0 && <OfferCard units={report.types} wanted={order.dueAt} isAsked />}
      <div className={classes['acts']}>
        {rowsGood > 0 && (
          <ActButton look="main" busy={busy} onAct={onTake}>
            {rowsBad > 0 ? `Take the ${rowsGood} good rows` : `Take ${rowsGood} ${rowsGood === 1 ? 'unit' : 'units'}`}
          </ActButton>
        )}
        <ActButton onAct={onLeave}>Leave it</ActButton>
      </div>
    </section>
  );
}
