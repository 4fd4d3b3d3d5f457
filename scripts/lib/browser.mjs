import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { Builder, Condition, error, WebElementCondition } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';

/** Between two looks at a page; and more and more where much is to come, so that looking does not keep it from coming. */
const ASK_MS = 25;
const SELDOM_MS = 150;
const SELDOMER = 1.25;

/**
 * @typedef {object} Browser
 * @property {import('selenium-webdriver/chrome.js').Driver} driver
 * @property {(width: number, height: number) => Promise<void>} setViewport the page's own size, without browser furniture
 * @property {(features: Record<string, string>) => Promise<void>} setMedia how whoever reads wants it, such as `forced-colors: active`; nothing for as usual
 * @property {(path: string) => Promise<void>} screenshot
 * @property {() => Promise<void>} close
 */

/**
 * Opens headless Chromium with a fresh profile.
 * @param {{ width?: number, height?: number, downloads?: string, motion?: 'full' | 'reduced' }} [options]
 * @returns {Promise<Browser>}
 */
export async function openBrowser({ width = 1280, height = 800, downloads, motion = 'full' } = {}) {
  const profile = mkdtempSync(join(tmpdir(), 'decurio-browser-'));
  const options = new Options();
  options.setBinaryPath('/usr/bin/chromium');
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-dev-shm-usage',
    '--lang=en-GB',
    `--user-data-dir=${profile}`,
    ...(motion === 'reduced' ? ['--force-prefers-reduced-motion'] : []),
  );
  if (downloads)
    options.setUserPreferences({ 'download.default_directory': downloads, 'plugins.always_open_pdf_externally': true });
  const driver = /** @type {import('selenium-webdriver/chrome.js').Driver} */ (
    await new Builder()
      .forBrowser('chrome')
      .setChromeOptions(options)
      .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
      .build()
  );
  countPauses(driver);
  /** @param {number} w @param {number} h */
  const setViewport = async (w, h) => {
    await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
      width: w,
      height: h,
      deviceScaleFactor: 1,
      mobile: false,
    });
  };
  await setViewport(width, height);
  /** @param {Record<string, string>} features */
  const setMedia = async (features) => {
    await driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
      features: Object.entries(features).map(([name, value]) => ({ name, value })),
    });
  };
  return {
    driver,
    setViewport,
    setMedia,
    screenshot: async (path) => writeFileSync(path, Buffer.from(await driver.takeScreenshot(), 'base64')),
    close: async () => {
      await driver.quit();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/**
 * Waits are counted in pauses between looks, not by the clock: what a page does next is mostly there within a frame or
 * two, so it is looked at often at first; and where the machine gives browser, server and this process less time, each
 * look takes longer, and the page is waited for as much longer.
 * @param {import('selenium-webdriver').WebDriver} driver
 */
function countPauses(driver) {
  const { wait } = driver;
  driver.wait = /** @type {typeof wait} */ (
    (/** @type {any} */ condition, /** @type {number | undefined} */ ms, /** @type {string | undefined} */ message) => {
      const isCondition = condition instanceof Condition;
      const look = isCondition ? /** @type {any} */ (condition).fn : condition;
      let [left, pause] = [ms ?? Infinity, ASK_MS];
      const counted = async (/** @type {any} */ of) => {
        if (left <= 0) throw new error.TimeoutError(message ?? (isCondition ? condition.description() : 'in vain'));
        if (pause > ASK_MS) await after(pause - ASK_MS);
        left -= pause;
        pause = Math.min(SELDOM_MS, pause * SELDOMER);
        return look(of);
      };
      const until = condition instanceof WebElementCondition ? new WebElementCondition('', counted) : counted;
      return wait.call(driver, /** @type {any} */ (until), 0, undefined, ASK_MS);
    }
  );
}
