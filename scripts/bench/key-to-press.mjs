import { randomUUID } from 'node:crypto';
import { By, until } from 'selenium-webdriver';
import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { signIn } from '../lib/api-client.mjs';
import { openBrowser } from '../lib/browser.mjs';
import { playVisit } from '../lib/load-demo.mjs';
import { takeOrder } from './fill.mjs';

/** Presses Space and resolves with the time until the frame after the next press was painted; the yardstick sets a text and waits for the same frame. */
const PRESS = `
  const done = arguments[arguments.length - 1];
  const now = () => document.querySelector('section[aria-label=Work]')?.innerText ?? '';
  const before = now();
  const start = performance.now();
  const look = () => (now() === before ? requestAnimationFrame(look) : requestAnimationFrame(() => setTimeout(() => done(performance.now() - start))));
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true, cancelable: true }));
  look();
`;
const BARE = `
  const done = arguments[arguments.length - 1];
  const start = performance.now();
  const mark = document.body.appendChild(document.createElement('i'));
  mark.textContent = 'x';
  requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => { mark.remove(); done(performance.now() - start); })));
`;
const UNITS = 8;

/**
 * From a key to the next press on the screen, entries written and sent meanwhile, beside a bare change of the page;
 * p95 over some units' whole key-in.
 * @param {string} address
 */
export async function keyToPress(address) {
  const office = await signIn(address, 'ines', DEMO_PASSWORD, 'office');
  await takeOrder(office, 'K10', UNITS);
  const teo = await signIn(address, 'teo', DEMO_PASSWORD, 'bay 9');
  const clock = { at: Date.now() - 3_600_000 };
  const serials = Array.from({ length: UNITS }, (_, i) => `K10-${String(i + 1).padStart(5, '0')}`);
  for (const serial of serials)
    await playVisit(teo, serial, { serials: [], by: 'teo', station: 'bay 9', until: 'foundAll' }, clock);
  const browser = await openBrowser();
  const { driver } = browser;
  try {
    await driver.get(address);
    await driver.wait(until.elementLocated(By.css('form')), 10_000);
    for (const [name, value] of [
      ['name', 'teo'],
      ['password', DEMO_PASSWORD],
      ['station', 'bay 9'],
    ]) {
      const field = await driver.findElement(By.css(`input[name=${name}]`));
      await field.clear();
      await field.sendKeys(value ?? '');
    }
    await driver.findElement(By.css('form button[type=submit]')).click();
    await driver.wait(until.elementLocated(By.css('nav[aria-label=Places]')), 10_000);
    const presses = [];
    const bares = [];
    for (const serial of serials) {
      const { id } = await teo.get(`/api/units?serial=${serial}`);
      await driver.get(`${address}/bench/${id}?${randomUUID()}`);
      await driver.wait(until.elementLocated(By.css('[aria-label="Next presses"]')), 10_000);
      for (let i = 0; i < 25; i++) {
        presses.push(Number(await driver.executeAsyncScript(PRESS)));
        bares.push(Number(await driver.executeAsyncScript(BARE)));
      }
    }
    return { pressMs: p95(presses), bareMs: p95(bares), count: presses.length };
  } finally {
    await browser.close();
  }
}

/** @param {number[]} values */
const p95 = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length * 0.95)] ?? 0;
