import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { signIn } from '../scripts/lib/api-client.mjs';
import { loadHistory } from '../scripts/lib/demo-history.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { Page } from './pages/page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { misfitsAtSizes, violationsOn } from './support/measures.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: Page;
const folder = mkdtempSync(join(tmpdir(), 'decurio-years-'));
beforeAll(async () => {
  stage = await startStage({ demo: true });
  await loadHistory(stage.address, stage.databaseUrl, 12);
  page = new Page(stage.browser.driver);
  await (await new SignInPage(page.driver).open(stage.address)).signIn('ines');
  await page.says('NEXT FOR YOU');
});
afterAll(async () => {
  await stage.close();
  rmSync(folder, { recursive: true, force: true });
});

const open = (path: string) => page.driver.get(stage.address + path);
const isSound = async () => {
  expect(await violationsOn(page.driver)).toEqual([]);
  expect(await misfitsAtSizes(stage.browser)).toEqual([]);
};

describe('a unit that came back otherwise', () => {
  it('is asked for, and its whole life shows what the difference does on the road', async () => {
    await open('/ledger?where=moved');
    await page.says('Units that came back unlike how they left');
    await page.says('S26-0112');
    await page.click('S26-0112');
    await page.click('Its whole life');
    await page.says('Came back: Do not send it out: speed cap moved');
    await page.says('No cap: it runs as fast as it can');
    await isSound();
  });

  it('is held beside any other state, of this unit or another', async () => {
    await page.pick('This', await stateOf('As found'));
    await page.says('instead of');
    await page.type('or a state of another unit', 'S26-0111');
    await page.press(Key.ENTER);
    await page.says('S26-0111 as it left');
    await page.pick('beside this', await stateOf('S26-0111 as it left'));
    await page.driver.wait(async () => (await page.driver.getCurrentUrl()).includes('with=S26-0111'));
    await page.driver.navigate().refresh();
    await page.says('S26-0111 as it left');
    await page.says('instead of');
  });
});

/** The value of the state that is offered under these words. */
const stateOf = (words: string): Promise<string> =>
  page.driver.executeScript(
    'return [...document.querySelectorAll("option")].find((each) => each.textContent.startsWith(arguments[0])).value',
    words,
  );

describe('rules that moved', () => {
  it('are held against all that are out, by customer with the reason', async () => {
    await open('/ledger/moved');
    await page.says('Salt Marsh byelaws');
    await page.click('Hold them against it');
    await page.says('12 units do not comply');
    await page.says('20 km/h is allowed');
    await page.says('10 are called back, by Ines M.');
    await page.says('2 stay');
    await isSound();
  });

  it('end in a recall order that its units are prepared in', async () => {
    await open('/orders');
    await page.click('R-salt-marsh');
    await page.says('Recall of 10 units');
  });
});

describe('how the work goes', () => {
  it('is a picture with its figures behind it', async () => {
    await open('/ledger/quality');
    await page.says('Right at first, by step');
    await page.says('Codes most often typed wrong');
    expect(await page.texts('details summary')).not.toHaveLength(0);
    await (await page.find('details summary')).click();
    await page.says(/\d+ % \(\d+ of \d+\)/);
    await isSound();
  });

  it('is counted for a person who says so', async () => {
    await open('/signed-in');
    await page.tick('Leads may see how my own visits went');
    await page.driver.wait(async () => (await page.attribute('input[type=checkbox]', 'disabled')) === null);
    await open('/ledger/quality');
    await page.says('By person');
    await page.driver.wait(async () => (await page.texts('[aria-label="By person"] tbody th')).includes('Ines M.'));
  });
});

describe('an archive', () => {
  it('is checked whole: what holds is known for what it is, and what was altered is named', async () => {
    const { cookie, get } = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office');
    const { items } = (await get('/api/orders')) as { items: { id: string; number: string }[] };
    const order = items.find(({ number }) => number === '2603')!;
    const answer = await fetch(`${stage.address}/api/orders/${order.id}/archive.zip`, { headers: { cookie } });
    expect(answer.status).toBe(200);
    const whole = join(folder, 'whole.zip');
    writeFileSync(whole, Buffer.from(await answer.arrayBuffer()));
    await open('/ledger/elsewhere');
    await page.says('Check an archive');
    await (await page.driver.findElement({ css: 'input[aria-label="Archive file"]' })).sendKeys(whole);
    await page.says('All of it holds');
    await page.says('12 of this house itself');
    const spoilt = join(folder, 'spoilt.zip');
    const bytes = readFileSync(whole);
    bytes[Math.floor(bytes.length / 2)]! ^= 0xff;
    writeFileSync(spoilt, bytes);
    await (await page.driver.findElement({ css: 'input[aria-label="Archive file"]' })).sendKeys(spoilt);
    await page.says(/It does not hold|Not taken in/);
    await isSound();
  });
});
