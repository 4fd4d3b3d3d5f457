import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { signIn } from './api-client.mjs';
import { demoText } from './demo-files.mjs';
import { decide, takeOrder } from './load-demo.mjs';

/**
 * A day to plan, beside the orders of the demo: who is there, what there is to work at, and two orders that are due
 * on the day after the one that is planned.
 * @param {string} address
 */
export async function loadDay(address) {
  const owner = await signIn(address, 'asta', DEMO_PASSWORD, 'office');
  for (const kind of ['crew', 'shop'])
    await owner.post('/api/library', { kind, document: JSON.parse(demoText(`day/${kind}.json`)) });
  const now = nextShift();
  for (const file of ['day/causeway-2631.csv', 'day/gull-2634.csv']) await takeOrder(owner, file, now);
  await decide(address, {
    by: 'ines',
    orders: ['2631'],
    finding: 'settingsInReach:unit',
    words: 'Letter HO-112: allowed with a menu PIN of its own on each unit, which no rider is told.',
  });
}

/** At this hour the crew of the demo is at home. */
const HOME_FROM = 17;

/** The day that is planned: today, or tomorrow once everybody is at home. What is due then is at risk whenever it is loaded. */
function nextShift(now = new Date()) {
  const shift = new Date(now);
  if (now.getHours() >= HOME_FROM) shift.setDate(shift.getDate() + 1);
  return shift;
}
