import dayjs from 'dayjs';
import { expect, it } from 'vitest';
import { exampleOrder } from './example-order.js';

it('is an order that is due a week from now, over the end of a year too', () => {
  expect(exampleOrder(dayjs('2026-12-31T23:58')).split('\n').slice(0, 2)).toEqual([
    'order,customer,due,place,class,type,display,house rules,serial',
    '2614,Causeway Holiday Park,2027-01-07 08:00,Port Isel,pedelec-25,Samphire 26,tallow-four-key,hire-default,S26-0501',
  ]);
});
