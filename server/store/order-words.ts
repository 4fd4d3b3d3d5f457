import { speedWords, type OrderTerms, type Speed } from '@decurio/core';
import type { OrderRow } from './entities.js';
import { termsOf } from './setups.js';

const limitWords = (speed: Speed | null): string => (speed === null ? 'none' : speedWords(speed));
const throttleWords = (terms: OrderTerms): string =>
  terms.throttle === 'none' ? 'none wanted' : 'as class and type allow';
const landWords = ({ privateLand }: OrderTerms): string =>
  privateLand ? `until ${privateLand.endsOn}${privateLand.isUncapped ? ', uncapped' : ''}` : 'no';

/** What an amendment moves, in sentences; empty where it moves nothing. */
export function amendmentWords(before: OrderRow, after: OrderRow): readonly string[] {
  const [was, is] = [termsOf(before), termsOf(after)];
  const rows: readonly (readonly [string, string, string])[] = [
    ['Customer', before.customer, after.customer],
    ['Place', before.place, after.place],
    ['Class', before.className, after.className],
    ['House rules', before.houseRulesId, after.houseRulesId],
    ['Due', before.dueAt, after.dueAt],
    ['Notes', before.notes || 'none', after.notes || 'none'],
    ['Site limit', limitWords(was.siteLimit), limitWords(is.siteLimit)],
    ['Order limit', limitWords(was.orderLimit), limitWords(is.orderLimit)],
    ['Throttle', throttleWords(was), throttleWords(is)],
    ['Private land', landWords(was), landWords(is)],
  ];
  return rows.filter(([, a, b]) => a !== b).map(([name, a, b]) => `${name}: was ${a}, is ${b}.`);
}

export function decisionWords(finding: string, typeName: string): string {
  const [topic = '', label = ''] = finding.split(':');
  return `${typeName}${label === 'unit' || label === '' ? '' : `, code ${label}`}: choice made (${topic.replace(/([A-Z])/g, ' $1').toLowerCase()}).`;
}
