import { By, until } from 'selenium-webdriver';
import { openBrowser } from '../lib/browser.mjs';

/** Clicks "Sign in" and resolves, inside the page, with the time at which the frame after the last card is painted. */
const SIGN_IN_AND_WAIT = `
  const [wanted, done] = arguments;
  const start = performance.now();
  const look = () => {
    if (document.querySelectorAll('[data-status]').length < wanted) return requestAnimationFrame(look);
    requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)));
  };
  document.querySelector('form button[type=submit]').click();
  look();
`;

/**
 * From pressing "Sign in" to 300 cards on the screen, and the load of a bare reply in the same browser; medians of five.
 * @param {{ address: string, bareUrl: string, lineOrder: string, password: string }} where
 */
export async function firstPaint({ address, bareUrl, lineOrder, password }) {
  const browser = await openBrowser();
  const { driver } = browser;
  try {
    const lines = [];
    const bares = [];
    for (let i = 0; i < 5; i++) {
      await driver.manage().deleteAllCookies();
      await driver.get(`${address}/line/${lineOrder}`);
      await driver.wait(until.elementLocated(By.css('form')), 10_000);
      for (const [name, value] of [
        ['name', 'teo'],
        ['password', password],
      ])
        await driver.findElement(By.css(`input[name=${name}]`)).sendKeys(value ?? '');
      lines.push(Number(await driver.executeAsyncScript(SIGN_IN_AND_WAIT, 300)));
      await driver.get(bareUrl);
      bares.push(
        Number(
          await driver.executeScript(
            'const [n] = performance.getEntriesByType("navigation"); return n.loadEventEnd - n.startTime',
          ),
        ),
      );
    }
    return { lineMs: median(lines), bareMs: median(bares) };
  } finally {
    await browser.close();
  }
}

/** @param {number[]} values */
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
