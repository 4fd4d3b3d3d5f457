import { planApi } from '../state/plan-api.js';
import { isPast, whenSoon } from './when.js';
import classes from './ready-by.module.css';

/** With less than this of 100 an order will rather be late than not. */
const RATHER_LATE = 50;
const AT_RISK = 80;

/** When an order will be ready by the plan, and in words whether that is in time; nothing where no plan says it. */
export function ReadyBy({ orderId, calendar = false }: { readonly orderId: string; readonly calendar?: boolean }) {
  const told = planApi.useOutlookQuery(null).data?.orders.find((order) => order.orderId === orderId);
  if (!told?.readyBy) return null;
  const { readyBy, inTime, dueMs } = told;
  const isOpen = inTime !== null && dueMs !== null && !isPast(dueMs);
  const isRather = isOpen && inTime < RATHER_LATE;
  const isRisk = isOpen && inTime < AT_RISK;
  return (
    <span className={classes['ready']}>
      ready {whenSoon(readyBy[50])} as likely as not, by {whenSoon(readyBy[95])} with 95 of 100
      {isRather ? (
        <strong>will rather be late: {Math.round(inTime ?? 0)} of 100 in time</strong>
      ) : (
        isRisk && <strong>at risk: {Math.round(inTime ?? 0)} of 100 in time</strong>
      )}
      {calendar && (
        <a href={`/api/plan/orders/${orderId}/ready.ics`} download>
          Into a calendar
        </a>
      )}
    </span>
  );
}
