import { fullMap } from '@decurio/core';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { DisplayMap } from '@decurio/core';
import { demoText } from '../scripts/lib/demo-files.mjs';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage, HandlebarDisplay } from './pages/bench-page.js';
import { OrdersPage } from './pages/orders-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { writeFrom } from './support/other-stand.js';
import { missedByHand } from './support/measures.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let bench: BenchPage;
let ines: Client;
const display = new HandlebarDisplay(fullMap(JSON.parse(demoText('maps/tallow-four-key.json'))) as DisplayMap);
beforeAll(async () => {
  stage = await startStage({ demo: true });
  bench = new BenchPage(stage.browser.driver);
  // As on a device that installs nothing: there every place comes from the network.
  await stage.browser.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: 'delete Navigator.prototype.serviceWorker',
  });
  ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'bay 2');
});
afterAll(() => stage.close());

/** Cuts or restores the network of the page, the server staying up. */
const network = async (up: boolean) => {
  await stage.browser.driver.sendDevToolsCommand('Network.enable', {});
  await stage.browser.driver.sendDevToolsCommand('Network.emulateNetworkConditions', {
    offline: !up,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
};

const unitOf = (serial: string): Promise<{ id: string }> =>
  ines.get(`/api/units?serial=${serial}`) as Promise<{ id: string }>;

describe('signing in', () => {
  it('with a wrong password says so and keeps the name', async () => {
    const page = await new SignInPage(stage.browser.driver).open(stage.address);
    await page.signIn('teo', 'sand');
    await page.says('Name and password do not belong together');
    expect(await (await page.field('Name')).getAttribute('value')).toBe('teo');
    await page.signIn('teo');
    await page.says('NEXT FOR YOU');
  });
});

describe('an order file that is not right', () => {
  it('shows line, column and what to do for each bad row, and takes the good ones with one click', async () => {
    const orders = await new OrdersPage(stage.browser.driver).open(stage.address);
    const good = demoText('orders/causeway-2614.csv').split('\n').slice(0, 4);
    await orders.dropNew(
      'mixed.csv',
      [...good, good[1]!, good[2]!.replace('Samphire 26', 'Burdock 29').replace('0502', '0599')].join('\r\n'),
    );
    expect(await orders.problems()).toEqual([
      '5\t10 serial\tS26-0501 stands in line 2 already.',
      expect.stringContaining('6\t6 type\tThe library has no type "Burdock 29"'),
    ]);
    await orders.click('Take the 3 good rows');
    await orders.says('3 units taken into order 2614');
  });

  it.each([
    ['a spreadsheet named as CSV', 'order.csv', Buffer.from('PK\u0003\u0004xxxx'), 'This is a spreadsheet'],
    ['a picture named as CSV', 'order.csv', Buffer.from([0x89, 0x50, 0x4e, 0x47]), 'This is a picture (PNG)'],
    ['a file of 20 MB', 'order.csv', Buffer.alloc(20 * 1024 * 1024, 'a'), 'an order file has at most 10 MB'],
    ['an empty file', 'order.csv', Buffer.from(' '), 'The file is empty'],
  ])('%s is refused in words', async (_what, name, bytes, words) => {
    const orders = await new OrdersPage(stage.browser.driver).open(stage.address);
    await orders.dropNew(name, bytes);
    await orders.says(words);
  });
});

describe('at the bench', () => {
  it('a serial nobody knows is said at the scan box, and kept there', async () => {
    await bench.driver.get(`${stage.address}/bench`);
    await bench.says('Scan a unit');
    await bench.press('S26-7777', '\uE007');
    await bench.says('No unit S26-7777 is in an order');
    // The key that leads to the box is no part of a serial.
    await bench.press('/');
    const box = await bench.driver.switchTo().activeElement();
    expect(await box.getAttribute('value')).toBe('S26-7777');
  });

  it('a form with something missing says what, and keeps the rest', async () => {
    await bench.scan('S26-0420');
    await bench.begin();
    await bench.type('Pack by meter', '39.8');
    await bench.press('\uE007');
    await bench.says('Confirm the display revision first');
    await bench.says('Look at the pack: is it sound');
    expect(await (await bench.field('Pack by meter')).getAttribute('value')).toContain('39.8');
    const first = await bench.driver.switchTo().activeElement();
    expect(await first.getAttribute('data-error')).toBe('true');
    expect(await first.getAttribute('type')).toBe('checkbox');
  });

  it('volts that no such pack has are said while they are typed', async () => {
    await bench.type('Pack by meter', '46.9');
    await bench.says('46.9 V would fit 12, 13, 14 or 15 cells');
    await bench.type('Pack by meter', '39.8');
    await bench.says('Fits: 10 cells');
  });

  it('a pack that is swollen stops the unit in plain words, and no key takes that back', async () => {
    await bench.tick('swollen, wet');
    await bench.says('do not power or charge it');
    await bench.says('Stop it here');
    await bench.press('l');
    const chosen = (): Promise<string> =>
      bench.driver.executeScript("return document.querySelector('input[type=radio]:checked')?.value");
    await expect(bench.driver.wait(async () => (await chosen()) !== 'unsafe', 400)).rejects.toThrow('in vain');
  });

  it('a scan into a field of digits leaves the digits as they were', async () => {
    await bench.type('Odometer', '12');
    await bench.press(Key.END);
    await bench.scan('S26-0421');
    await bench.says('has not been begun');
    await bench.scan('S26-0420');
    await bench.says('Pack by meter');
    expect(await (await bench.field('Odometer')).getAttribute('value')).toBe('12');
  });

  it('a scan into a date leaves the day as it was', async () => {
    await bench.driver.get(`${stage.address}/orders/new`);
    const due = () => bench.field('Ready by');
    const before = await (await due()).getAttribute('value');
    expect(before).toMatch(/^\d{4}-/);
    await (await due()).click();
    await bench.scanned('X99-0403');
    await bench.says('No unit X99-0403 is in an order');
    expect(await (await due()).getAttribute('value')).toBe(before);
    await bench.driver.get(`${stage.address}/bench`);
    await bench.says('Scan a unit');
    await bench.scan('S26-0420');
  });

  it('a session that ended asks to sign in over the page, and the form is still filled', async () => {
    await bench.says('Pack by meter');
    await bench.tick('The display is a');
    await bench.type('Pack by meter', '39.7');
    await bench.tick('No cable pinched');
    await bench.tick('Display clamp');
    await bench.tick('dry, cool');
    await bench.type('Came with', 'one key');
    await bench.driver.manage().deleteAllCookies();
    await bench.press('\uE007');
    await bench.says('You were signed out');
    await new SignInPage(stage.browser.driver).signIn('teo');
    await bench.saysNot('You were signed out');
    await bench.makeSafe();
    await bench.says('AS FOUND');
    // One is typed amiss, and looked at again before the rest counts.
    await bench.readBack(display, { 'L4.1': '98' });
    await bench.says('L4.1 shows 98');
    expect(await missedByHand(bench.driver)).toEqual([]);
    await bench.press('e');
    await bench.readBack(display);
    await bench.saysNot('codes read');
    await bench.says('Hold set and + for 2 s');
    const { id } = await unitOf('S26-0420');
    const view = (await ines.get(`/api/units/${id}/bench`)) as {
      evidence: { kind: string; data: { accessories: string } }[];
    };
    expect(view.evidence.filter((entry) => entry.kind === 'checkedIn').map((entry) => entry.data.accessories)).toEqual([
      'one key',
    ]);
  });

  it('a dead network keeps entries here, says so, and sends each once when it is back', async () => {
    await network(false);
    await bench.press(...' '.repeat(10));
    await bench.says(/\d entr(y waits|ies wait) here/);
    // The page is gone and comes back: what waited is on the device.
    await bench.driver
      .navigate()
      .refresh()
      .catch(() => undefined);
    await network(true);
    await bench.driver.get(`${stage.address}/bench`);
    await bench.says('Scan a unit');
    await bench.scan('S26-0420');
    await bench.says('Shows something else');
    await bench.nothingWaits();
    const { id } = await unitOf('S26-0420');
    await bench.driver.wait(
      async () => {
        const view = (await ines.get(`/api/units/${id}/bench`)) as {
          evidence: { kind: string; data: { label?: string } }[];
        };
        const keyed = view.evidence.filter((entry) => entry.kind === 'codeKeyed').map((entry) => entry.data.label);
        return keyed.length >= 2 && new Set(keyed).size === keyed.length;
      },
      15_000,
      'the entries never reached the server once each',
    );
  });

  it('a hold from another stand shows at once, while one stands there', async () => {
    await writeFrom(ines, 'S26-0420', 'held', { reason: 'damage', words: 'fork bent, seen by Ines' });
    await bench.says('fork bent, seen by Ines');
  });

  it('a held unit waits for a lead, who releases it in writing', async () => {
    await bench.says('Call a lead');
    await bench.driver.manage().deleteAllCookies();
    const page = await new SignInPage(stage.browser.driver).open(stage.address);
    await page.signIn('ines');
    await page.says('HELD');
    await bench.scan('S26-0420');
    await bench.type('Why', 'fork changed, seen by me');
    await bench.click('Release');
    await bench.makeSafe();
    await bench.says('Shows something else');
  });

  it('something else on the glass is planned from there, and may be taken back', async () => {
    await bench.press('d');
    await bench.says('What does the glass show?');
    await bench.type('Value, as shown', '99');
    await bench.says('outside this map');
    await bench.press('\uE007');
    await bench.saysNot('What does the glass show?');
    await bench.press('u');
    await bench.says('Nothing is erased');
    await bench.says('99');
    await bench.click('Take it back');
    await bench.saysNot('Nothing is erased');
  });
});

describe('a place whose part of the app cannot be fetched', () => {
  it('says so instead of an empty page, leaves the others open, and comes by itself', async () => {
    await bench.driver.get(`${stage.address}/line`);
    await bench.says('NEXT FOR YOU');
    await network(false);
    await bench.click('Practice');
    await bench.says('This place could not be loaded');
    await bench.says('As soon as the server answers');
    await bench.click('Line');
    await bench.says('NEXT FOR YOU');
    await bench.click('Practice');
    await bench.says('This place could not be loaded');
    await network(true);
    await bench.says('Set five codes');
  });
});
