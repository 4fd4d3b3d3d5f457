import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { say } from './lib/say.mjs';

const SHOTS = join(ROOT, 'docs', 'screenshots');
const PATIENCE_MS = 15_000;

commandLine({ name: 'screenshots', does: 'Takes docs/screenshots/ anew, from the demo scenario.' });
ensureNode();
ensurePrograms(['mariadbd', 'chromium', 'chromedriver']);
ensureModules(ROOT);
ensureBuilt();
const { By, Key, until } = await import('selenium-webdriver');
const { openBrowser } = await import('./lib/browser.mjs');
const { writeOrderFiles } = await import('./lib/demo-files.mjs');
const { startEmptyDatabase } = await import('./lib/database.mjs');
const { startServer } = await import('./lib/server.mjs');

const { loadDay } = await import('./lib/demo-day.mjs');
const { loadHistory } = await import('./lib/demo-history.mjs');
const { loadDemo, playVisit } = await import('./lib/load-demo.mjs');
const { signIn: apiSignIn } = await import('./lib/api-client.mjs');
const { DEMO_PASSWORD } = await import('../server/dist/demo-password.js');

const home = join(STATE, 'screenshots');
/** What runs, the newest first. @type {(() => Promise<void>)[]} */
const running = [];
/** @type {import('./lib/server.mjs').Server} */
let server;
let databaseUrl = '';
/** @type {import('./lib/browser.mjs').Browser} */
let browser;
try {
  const database = await startEmptyDatabase(home);
  ({ databaseUrl } = database);
  running.unshift(database.stop);
  server = await startServer({ ...database, cookieSecret: 'for pictures only', port: 19_080 });
  running.unshift(server.stop);
  await loadDemo(server.address, database.databaseUrl);
  browser = await openBrowser();
  running.unshift(browser.close);
  rmSync(SHOTS, { recursive: true, force: true });
  mkdirSync(SHOTS, { recursive: true });
  await takeAll();
} finally {
  for (const stop of running) await stop();
  rmSync(home, { recursive: true, force: true });
}

async function takeAll() {
  const { driver } = browser;
  await driver.get(server.address);
  await says('Sign in to your bay');
  await signInAs('Teo R.');
  await shot('line');

  await driver.get(`${server.address}/orders`);
  await says('What was promised');
  await (
    await driver.findElement(By.css('input[type=file]'))
  ).sendKeys(join(writeOrderFiles(join(home, 'orders')), 'causeway-2614-with-slips.csv'));
  await says('nothing is taken yet'.toUpperCase());
  await shot('orders');

  await driver.get(`${server.address}/library`);
  await says('Tallow four-key');
  await driver.findElement(By.partialLinkText('Tallow four-key, revision C')).click();
  await says('L7.2');
  await shot('library');

  await driver.get(`${server.address}/library/displayMap/quill-two-key/trials`);
  await says('A new trial');
  await driver.findElement(By.xpath("//nav[@aria-label='Trials of this display']//button[contains(., 'b8')]")).click();
  await says('It does something');
  await shot('trials');

  await driver.get(`${server.address}/practice/tallow-four-key`);
  await says('then leave the menu');
  for (const key of ['2', '3']) await driver.actions().keyDown(key).perform();
  await says('SETTINGS');
  for (const key of ['2', '3']) await driver.actions().keyUp(key).perform();
  await press('2', '4');
  await says('3 presses so far');
  await shot('practice');

  await scan('W70-0011', 'has not been begun');
  await press(' ');
  await says('displays look like this');

  await scan('S26-0420', 'has not been begun');
  await press(' ');
  await says('Scan the number of the pack');
  await press('PK-24117', Key.ENTER);
  await says('Each lever bites');
  await press(' ');
  await says('Both wheels are fixed');

  await scan('S26-0413', 'Shows something else');
  await press(' ', ' ');
  for (let i = 2; i < 12; i++) {
    await says(`Press ${i} of`);
    await press(' ');
  }
  await says('Press 12 of');
  await shot('key-in');

  await scan('S26-0416', 'FOUND SO FAR');
  await press('s');
  const key = async (/** @type {string} */ label) =>
    driver.wait(
      until.elementLocated(By.xpath(`//*[@aria-label='Keys of the display']/button[normalize-space(.)='${label}']`)),
      PATIENCE_MS,
    );
  const [set, up] = [await key('set'), await key('+')];
  await driver.actions().keyDown(Key.SHIFT).move({ origin: set }).press().release().keyUp(Key.SHIFT).perform();
  await driver.actions().move({ origin: up }).press().perform();
  await says('THE DISPLAY SHOWS · SETTINGS');
  await driver.actions().release().perform();
  await shot('stand-in');
  await press('s');
  await driver.wait(
    async () => (await driver.findElements(By.css("[aria-label='Keys of the display']"))).length === 0,
    PATIENCE_MS,
    'the stand-in unit is not put away',
  );

  await scan('S26-0412', 'READ SO FAR');
  await (await driver.wait(until.elementLocated(By.css('[data-code] ~ * input')), PATIENCE_MS)).sendKeys('25');
  await says('25 km/h');
  await shot('read-back');

  await playVisit(
    await apiSignIn(server.address, 'teo', DEMO_PASSWORD, 'bay 1'),
    'S26-0422',
    { serials: [], by: 'teo', station: 'bay 1', until: 'calibrate' },
    { at: Date.now() - 1_800_000 },
  );
  await scan('S26-0422', 'Begin at about');
  const sure = await driver.findElement(By.xpath("//label[.='Sure to ± km/h']/following::input[1]"));
  await sure.sendKeys(Key.chord(Key.CONTROL, 'a'), '0.2');
  for (const [trueKmh, shown, where] of [
    ['9.8', '9.4', 'Yard, steady'],
    ['15.6', '15', 'Yard, steady'],
    ['20.3', '19.6', 'Perimeter'],
    ['17.6', '19.8', 'Perimeter'],
    ['24.6', '23.7', 'Perimeter'],
  ]) {
    const field = async (/** @type {string} */ label) =>
      driver.findElement(By.xpath(`//label[.='${label}']/following::input[1]`));
    await (await field('Where, how')).sendKeys(Key.chord(Key.CONTROL, 'a'), where ?? '');
    await (await field('True, km/h')).sendKeys(trueKmh ?? '', Key.ENTER);
    await press(shown ?? '', Key.ENTER);
    await says(`${trueKmh}\t${shown}`);
  }
  await driver.findElement(By.css('[data-doubt="true"] button')).click();
  await driver.wait(until.elementLocated(By.xpath("//button[contains(., 'Leave it out')]")), PATIENCE_MS).click();
  await says('Assist would run to 25.2 km/h');
  await shot('calibrate');

  await playVisit(
    await apiSignIn(server.address, 'teo', DEMO_PASSWORD, 'bay 1'),
    'S26-0424',
    { serials: [], by: 'teo', station: 'bay 1', until: 'proving', proofs: 11 },
    { at: Date.now() - 1_800_000 },
  );
  await scan('S26-0424', 'Is the pack full?');
  await press('c');
  await driver.wait(until.elementLocated(By.css('section[aria-label="Work"] input:checked')), PATIENCE_MS);
  await press('41.6', Key.ENTER);
  await says('Where drive ends');
  for (const kmh of ['24.4', '23.9']) {
    const typed = await driver.findElement(By.xpath("//label[.='True, km/h']/following::input[1]"));
    await typed.sendKeys(kmh, Key.ENTER);
    await says(kmh === '24.4' ? 'Not settled' : 'Shows it');
  }
  await shot('prove');

  await signInAs('Ines M.');
  await scan('S26-0402', 'as they will print');
  await shot('hand-over');
  await driver.get(`${server.address}/orders`);
  await says('What was promised');
  await driver.findElement(By.linkText('2620')).click();
  await says('14 of 14 codes get a target');
  const cap = await driver.findElement(By.css('button[aria-label^="L4.1:"]'));
  await driver.executeScript(
    'arguments[0].scrollIntoView({ block: "center" }); arguments[0].focus({ preventScroll: true })',
    cap,
  );
  await press(Key.ENTER);
  await says('decided');
  await shot('order');

  await driver.get(`${server.address}/library/rulePack/port-isel`);
  await says('checked by Ines M.');
  await shot('rules');
  await driver.get(`${server.address}/library/learnt`);
  await says('7 of 8 runs');
  await driver.wait(until.elementLocated(By.css('figure svg circle, figure svg path')), PATIENCE_MS);
  await shot('learnt');

  await loadHistory(server.address, databaseUrl);
  await loadDay(server.address);
  await driver.get(`${server.address}/ledger?where=out&code=speedCap&is=over&value=20&customer=Gull+Point+Hotel`);
  await says('S26-0370');
  await shot('ledger');
  await scan('S26-0401', 'HOW IT LEFT');
  await says('Out with R. Maddock');
  await driver.findElement(By.xpath("//button[.='Verify the seal']")).click();
  await says('The seal holds');
  await shot('record');
  await driver.get(`${server.address}/ledger/unit/S26-0223`);
  await says('An error stands');
  await shot('life');
  await signInAs('Ines M.');
  await driver.get(`${server.address}/ledger/quality`);
  await says('Codes most often typed wrong');
  await driver.wait(until.elementLocated(By.css('svg.recharts-surface path')), PATIENCE_MS);
  await shot('quality');

  await driver.get(`${server.address}/plan`);
  await says('Teo R.');
  await driver.wait(
    async () => !(await driver.executeScript("return document.body.textContent.includes('Looking for what')")),
    PATIENCE_MS,
  );
  await shot('plan');
}

/** @param {string} name */
async function signInAs(name) {
  const { driver } = browser;
  await driver.manage().deleteAllCookies();
  await driver.get(server.address);
  await says('Sign in to your bay');
  await driver.findElement(By.xpath(`//button[.//strong[text()='${name}']]`)).click();
  await driver.findElement(By.xpath("//button[.='Sign in']")).click();
  await says('NEXT FOR YOU');
}

/** @param {string} words */
async function says(words) {
  await browser.driver.wait(
    async () => String(await browser.driver.executeScript('return document.body.innerText')).includes(words),
    PATIENCE_MS,
    `the page never said "${words}"`,
  );
}

/** @param {...string} keys */
async function press(...keys) {
  for (const key of keys) {
    // A key rests for a moment after it acted.
    await browser.driver.wait(
      async () => (await browser.driver.findElements(By.css('[data-keys-rest]'))).length === 0,
      PATIENCE_MS,
      'the keys never rested',
    );
    await browser.driver.actions().sendKeys(key).perform();
  }
}

/** @param {string} serial @param {string} words */
async function scan(serial, words) {
  await browser.driver.get(`${server.address}/bench`);
  await says('Scan a unit');
  await press(serial, Key.ENTER);
  await browser.driver.wait(until.urlMatches(/(bench|ledger)\/./), PATIENCE_MS);
  await says(words);
}

/** @param {string} name */
async function shot(name) {
  await browser.driver.executeScript('return document.fonts.ready');
  // Parts of a page come by themselves: nothing is pictured while one is on its way.
  await browser.driver.wait(
    async () => !(await browser.driver.executeScript("return document.body.textContent.includes('One moment')")),
    PATIENCE_MS,
    `${name} never came to rest`,
  );
  await browser.screenshot(join(SHOTS, `${name}.png`));
  say(`docs/screenshots/${name}.png`);
}
