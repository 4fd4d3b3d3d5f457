import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { signIn } from './api-client.mjs';
import { demoText } from './demo-files.mjs';
import { decide, takeOrder } from './load-demo.mjs';

/**
 * A day to plan, beside the orders of the demo: who is there, what there is to work at, and two orders that are due
 * tomorrow.
 * @param {string} address
 */
export async function loadDay(address) {
  const owner = await signIn(address, 'asta', DEMO_PASSWORD, 'office');
  for (const kind of ['crew', 'shop'])
    await owner.post('/api/library', { kind, document: JSON.parse(demoText(`day/${kind}.json`)) });
  for (const file of ['day/causeway-2631.csv', 'day/gull-2634.csv']) await takeOrder(owner, file);
  await decide(address, {
    by: 'ines',
    orders: ['2631'],
    finding: 'settingsInReach:unit',
    words: 'Letter HO-112: allowed with a menu PIN of its own on each unit, which no rider is told.',
  });
}
