import dayjs from 'dayjs';
import { ORDER_COLUMNS, type OrderColumn } from '@decurio/contract';

const SERIALS = ['S26-0501', 'S26-0502', 'S26-0503'];

/** An order file to start from: three units, ready by eight in the morning a week from now. */
export function exampleOrder(now = dayjs()): string {
  const row: Partial<Record<OrderColumn, string>> = {
    order: '2614',
    customer: 'Causeway Holiday Park',
    due: now.add(7, 'day').format('YYYY-MM-DD [08:00]'),
    place: 'Port Isel',
    class: 'pedelec-25',
    type: 'Samphire 26',
    display: 'tallow-four-key',
    'house rules': 'hire-default',
  };
  const names = ORDER_COLUMNS.map(({ name }) => name).filter((name) => name === 'serial' || row[name] !== undefined);
  const rows = SERIALS.map((serial) => names.map((name) => (name === 'serial' ? serial : row[name])).join(','));
  return `${[names.join(','), ...rows].join('\n')}\n`;
}
