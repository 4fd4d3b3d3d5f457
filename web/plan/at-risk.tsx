import { useState } from 'react';
import type { AskedChange, PlanOrderView, PlanView } from '@decurio/contract';
import { planApi } from '../state/plan-api.js';
import { of100 } from '../ui/of-100.js';
import { changeWords, clockOf, isPast, tightWords } from './plan-words.js';
import classes from './plan-cards.module.css';

interface AtRiskProps {
  readonly plan: PlanView;
  readonly order: PlanOrderView;
  /** What would help is looked for at once; for others when somebody asks. */
  readonly isFirst: boolean;
  readonly onTry: (change: AskedChange) => void;
}

/** An order that may not be in time: by how much, why, and what one change each would do for it. */
export function AtRisk({ plan, order, isFirst, onTry }: AtRiskProps) {
  const isLate = isPast(order, plan);
  const [isAsked, setIsAsked] = useState(false);
  const mayHelp = !isLate && order.inTime !== null;
  const isLooked = mayHelp && (isFirst || isAsked);
  const remedies = planApi.useRemediesQuery({ orderId: order.id, revision: plan.revision }, { skip: !isLooked });
  return (
    <section className={classes['card']} data-alarm aria-label={`At risk: ${order.number}`}>
      <h2 className="cap">{isLate ? 'Late' : 'At risk'}</h2>
      <h3>
        {order.number}, {order.customer}
      </h3>
      <p>
        {order.readyBy
          ? `Ready at ${clockOf(order.readyBy[50])} as likely as not, by ${clockOf(order.readyBy[95])} with 95 of 100. `
          : 'It cannot be laid out whole: what is in the way stands below. '}
        {order.dueMs !== null &&
          (isLate ? `It was due ${clockOf(order.dueMs)}.` : `Promised for ${clockOf(order.dueMs)}: `)}
        {!isLate && order.inTime !== null && (
          <>
            <b>{of100(order.inTime)}</b>.
          </>
        )}
      </p>
      {order.tightest && <p className="soft">{tightWords(order.tightest)}</p>}
      {mayHelp && !isLooked && (
        <p className={classes['files']}>
          <button type="button" onClick={() => setIsAsked(true)}>
            What would help
          </button>
        </p>
      )}
      {isLooked && (
        <>
          {remedies.isFetching && <p className="soft">Looking for what would help …</p>}
          {!remedies.isFetching && remedies.data?.length === 0 && (
            <p className="soft">No one change would help it by itself: try several under What if.</p>
          )}
          <ul className={classes['remedies']}>
            {(remedies.isFetching ? [] : (remedies.data ?? [])).slice(0, 4).map(({ change, inTime }) => (
              <li key={JSON.stringify(change)}>
                <button type="button" onClick={() => onTry(change)}>
                  <span>{changeWords(change, plan)}</span>
                  <b className="num" aria-label={`${of100(inTime)} then`}>
                    {Math.round(inTime)}
                  </b>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
