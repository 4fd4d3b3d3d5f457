import dayjs from 'dayjs';
import { isLate, type Due } from '@decurio/core';
import { lateBy, whenDay } from './when.js';
import classes from './due-at.module.css';

/** When an order is due, and in words how late it is where it is. */
export function DueAt({ order }: { readonly order: Due }) {
  const now = dayjs();
  return (
    <>
      {whenDay(order.dueAt)}{' '}
      {isLate(order, now.format('YYYY-MM-DDTHH:mm')) && (
        <strong className={classes['late']}>late {lateBy(now.diff(dayjs(order.dueAt), 'minute'))}</strong>
      )}
    </>
  );
}
