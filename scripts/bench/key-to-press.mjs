import { randomUUID } from 'node:crypto';
import { dueTests, foldVisit, shownInOrder } from '@decurio/core';
import { By, until } from 'selenium-webdriver';
import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { signIn } from '../lib/api-client.mjs';
import { openBrowser } from '../lib/browser.mjs';
import { playVisit } from '../lib/load-demo.mjs';
import { takeOrder } from './fill.mjs';

/** Presses a key and resolves with the time until the frame after what follows was painted; the yardstick sets a text and waits for the same frame. */
const PRESS = `
  const [key, done] = arguments;
  const now = () => document.querySelector('section[aria-label=Work]')?.innerText ?? '';
  const before = now();
  const start = performance.now();
  const look = () => (now() === before ? requestAnimationFrame(look) : requestAnimationFrame(() => setTimeout(() => done(performance.now() - start))));
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
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
const PATIENCE_MS = 10_000;

/** @typedef {{ pressMs: number, bareMs: number, count: number }} KeyTimes p95 of each, milliseconds */
/** @typedef {(key: string) => Promise<void>} Press */

/**
 * From a key to the next press on the screen, entries written and sent meanwhile, beside a bare change of the page;
 * p95 over some units' whole key-in.
 * @param {string} address @returns {Promise<KeyTimes>}
 */
export const keyToPress = (address) =>
  timed(address, 'K10', 'foundAll', async (driver, press) => {
    await driver.wait(until.elementLocated(By.css('[aria-label="Next presses"]')), PATIENCE_MS);
    for (let i = 0; i < 25; i++) await press(' ');
  });

/**
 * From saying what the vehicle did to what core makes of it and the next test, the same way; of the tests that are
 * answered by one key.
 * @param {string} address @returns {Promise<KeyTimes>}
 */
export const keyToProof = (address) =>
  timed(address, 'K11', 'atProve', async (driver, press, state, say) => {
    const { pack } = state.opened;
    for (const test of dueTests(state)) {
      if (test.pack === 'full') return;
      await driver.wait(until.elementLocated(By.css(`[data-test="${test.id}"]`)), PATIENCE_MS);
      if (test.watch.kind !== 'outcome') {
        await say('proofSeen', { test: test.id, seen: shownInOrder(test, pack) });
        continue;
      }
      const shows = shownInOrder(test, pack);
      const at = test.watch.outcomes.findIndex(({ id }) => shows.kind === 'outcome' && id === shows.outcome);
      await press(String(at + 1));
    }
  });

/**
 * Times keys on the pages of some units that were worked so far before.
 * @param {string} address @param {string} order @param {string} worked how far each is before
 * @param {(driver: import('selenium-webdriver').WebDriver, press: Press, state: import('@decurio/core').VisitState, say: (kind: string, data: object) => Promise<void>) => Promise<void>} work
 * @returns {Promise<KeyTimes>}
 */
async function timed(address, order, worked, work) {
  const office = await signIn(address, 'ines', DEMO_PASSWORD, 'office');
  await takeOrder(office, order, UNITS);
  const teo = await signIn(address, 'teo', DEMO_PASSWORD, 'bay 9');
  const clock = { at: Date.now() - 3_600_000 };
  const serials = Array.from({ length: UNITS }, (_, i) => `${order}-${String(i + 1).padStart(5, '0')}`);
  for (const serial of serials)
    await playVisit(teo, serial, { serials: [], by: 'teo', station: 'bay 9', until: worked }, clock);
  const browser = await openBrowser();
  const { driver } = browser;
  try {
    await driver.get(address);
    await driver.wait(until.elementLocated(By.css('form')), PATIENCE_MS);
    const [name, ...value] = teo.cookie.split('=');
    await driver.manage().addCookie({ name: name ?? '', value: value.join('=') });
    /** @type {number[]} */
    const presses = [];
    /** @type {number[]} */
    const bares = [];
    for (const serial of serials) {
      const { id } = await teo.get(`/api/units?serial=${serial}`);
      const { evidence } = await teo.get(`/api/units/${id}/bench`);
      const fold = foldVisit(evidence);
      if (!fold.ok) throw new Error(fold.problem.message);
      await driver.get(`${address}/bench/${id}?${randomUUID()}`);
      await work(
        driver,
        async (key) => {
          await rested(driver);
          presses.push(Number(await driver.executeAsyncScript(PRESS, key)));
          bares.push(Number(await driver.executeAsyncScript(BARE)));
        },
        fold.value,
        async (kind, data) => {
          const { visitId } = fold.value;
          const { evidence: so } = await teo.get(`/api/units/${id}/bench`);
          const draft = { id: randomUUID(), seq: so.length + 1, kind, at: new Date().toISOString(), data };
          await teo.post(`/api/units/${id}/visits/${visitId}/evidence`, draft);
        },
      );
    }
    return { pressMs: p95(presses), bareMs: p95(bares), count: presses.length };
  } finally {
    await browser.close();
  }
}

/** Keys rest for a moment where something else is shown. @param {import('selenium-webdriver').WebDriver} driver */
const rested = (driver) =>
  driver.wait(async () => (await driver.findElements(By.css('[data-keys-rest]'))).length === 0, PATIENCE_MS);

/** @param {number[]} values */
const p95 = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length * 0.95)] ?? 0;
