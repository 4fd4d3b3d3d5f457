import { isLate, type Due } from '@decurio/core';
import { nowInHouse } from './house-zone.js';
import { lateBy, minutesBetween, whenDay } from './when.js';
import classes from './due-at.module.css';

/** When an order is due, and in words how late it is where it is. */
export function DueAt({ order }: { readonly order: Due }) {
  const now = nowInHouse();
  return (
    <>
      {whenDay(order.dueAt)}{' '}
      {isLate(order, now) && (
        <strong className={classes['late']}>late {lateBy(minutesBetween(order.dueAt, now))}</strong>
      )}
    </>
  );
}
