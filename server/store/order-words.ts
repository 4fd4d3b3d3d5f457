import { promiseDifferences, type OrderPromise } from '@decurio/core';
import type { OrderRow } from './entities.js';
import { termsOf } from './setups.js';

/** What an order promises, from its row. */
export const promiseOf = (order: OrderRow): OrderPromise => ({ ...order, terms: termsOf(order) });

/** What an amendment moves, in sentences; empty where it moves nothing. */
export const amendmentWords = (before: OrderRow, after: OrderRow): readonly string[] =>
  promiseDifferences(promiseOf(before), promiseOf(after)).map(
    ({ what, was, is }) => `${what.charAt(0).toUpperCase()}${what.slice(1)}: was ${was}, is ${is}.`,
  );

export function decisionWords(finding: string, typeName: string): string {
  const [topic = '', label = ''] = finding.split(':');
  return `${typeName}${label === 'unit' || label === '' ? '' : `, code ${label}`}: choice made (${topic.replace(/([A-Z])/g, ' $1').toLowerCase()}).`;
}
