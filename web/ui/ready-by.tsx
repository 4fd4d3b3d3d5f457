import { riskOf } from '@decurio/core';
import { planApi } from '../state/plan-api.js';
import { of100 } from './of-100.js';
import { isPast, whenSoon } from './when.js';
import classes from './ready-by.module.css';

/** When an order will be ready by the plan, and in words whether that is in time; nothing where no plan says it. */
export function ReadyBy({ orderId, calendar = false }: { readonly orderId: string; readonly calendar?: boolean }) {
  const told = planApi.useOutlookQuery(null).data?.orders.find((order) => order.orderId === orderId);
  if (!told?.readyBy) return null;
  const { readyBy, inTime, dueMs } = told;
  // One that is past is late, and says so where its due time stands.
  const risk = dueMs !== null && !isPast(dueMs) ? riskOf(inTime) : null;
  return (
    <span className={classes['ready']}>
      ready {whenSoon(readyBy[50])} as likely as not, by {whenSoon(readyBy[95])} with 95 of 100
      {risk !== null && (
        <strong>
          {risk === 'ratherLate' ? 'will rather be late' : 'at risk'}: {of100(inTime ?? 0)} in time
        </strong>
      )}
      {calendar && (
        <a href={`/api/plan/orders/${orderId}/ready.ics`} download>
          Into a calendar
        </a>
      )}
    </span>
  );
}
