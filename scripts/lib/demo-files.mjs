import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import dayjs from 'dayjs';
import { ROOT } from './paths.mjs';

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const DAY = /\{(day|Mon|Tue|Wed|Thu|Fri|Sat|Sun)([+-]\d+)\}/g;

/**
 * Days of a demo file follow from the day it is read: `{Thu+1}` is the Thursday of next week, `{Mon-2}` the Monday of
 * the week before last, `{day-1}` yesterday. Weeks begin on Monday.
 * @param {string} text @param {Date} now
 */
export function withDays(text, now) {
  const today = dayjs(now).startOf('day');
  const monday = today.subtract((today.day() + 6) % 7, 'day');
  return text.replace(DAY, (_, name, by) => {
    const day =
      name === 'day' ? today.add(Number(by), 'day') : monday.add(WEEKDAYS.indexOf(name) + 7 * Number(by), 'day');
    return day.format('YYYY-MM-DD');
  });
}

/** A file of the demo scenario, its days filled in.
 * @param {string} path below demo/ @param {Date} [now] the day from which they are counted */
export const demoText = (path, now = new Date()) => withDays(readFileSync(join(ROOT, 'demo', path), 'utf8'), now);

/** Writes the demo's order files with their days filled in, for a person to drop on Orders.
 * @param {string} folder @returns {string} the folder */
export function writeOrderFiles(folder) {
  mkdirSync(folder, { recursive: true });
  for (const name of readdirSync(join(ROOT, 'demo', 'orders')))
    writeFileSync(join(folder, name), demoText(join('orders', name)));
  return folder;
}
