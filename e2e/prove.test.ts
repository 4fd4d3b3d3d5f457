import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dueTests, isSettled, proofsOf, shownInOrder } from '@decurio/core';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { playVisit } from '../scripts/lib/load-demo.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { answer, benchNow, chargedPack, prove, testDue, typeSpeed } from './pages/proving.js';
import { SignInPage } from './pages/sign-in-page.js';
import { viewOf } from './support/other-stand.js';
import { photographFile } from './support/photograph.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: BenchPage;
let ines: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'bay 3');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

async function atProve(serial: string): Promise<void> {
  const teo = await signIn(stage.address, 'teo', DEMO_PASSWORD, 'bay 3');
  await playVisit(
    teo,
    serial,
    { serials: [], by: 'teo', station: 'bay 3', until: 'prove' },
    { at: Date.now() - 3_600_000 },
  );
  await open(serial);
  await page.says(/checks before delivery|of \d+ · wheel up/i);
  await page.makeChecks();
  await page.says(/of \d+ · wheel up/i);
}

async function open(serial: string): Promise<void> {
  const { unit } = await viewOf(ines, serial);
  await page.driver.get(`${stage.address}/bench/${unit.id}`);
}

/** The test on the screen, answered as a vehicle in order shows it, or otherwise. */
async function answerDue(outcome?: string): Promise<string> {
  const due = (await testDue(page)) ?? '';
  const { opened } = await benchNow(page);
  const test = dueTests({ opened }).find(({ id }) => id === due);
  if (!test) throw new Error(`no such test: ${due}`);
  await answer(page, test, outcome === undefined ? shownInOrder(test, opened.pack) : { kind: 'outcome', outcome });
  return due;
}

const settled = async (): Promise<readonly string[]> =>
  proofsOf(await benchNow(page))
    .filter(isSettled)
    .map(({ test }) => test.id);

describe('a bike whose brake switch sticks', () => {
  it('is caught: the lever is named, with what mends it, and the right answer is marked nowhere', async () => {
    await atProve('S26-0418');
    await prove(page, (test) => test === 'brake:front');
    const offered = await page.texts('[aria-label="What happened"] button');
    expect(offered).toHaveLength(4);
    expect(offered.join(' ')).not.toMatch(/pass|correct|right/i);
    await answerDue('dead');
    await page.says('It does not: It never pulls, lever drawn or not.');
    await page.says('A switch that sticks keeps the motor dead');
  });

  it('once it was put right only what leans on the brakes is tried again', async () => {
    const before = await settled();
    await page.press('switch set straight', Key.ENTER);
    await page.says('Drive ends at once');
    await expect.poll(async () => (await benchNow(page)).proving.mended).toEqual({ brakes: 1 });
    expect(await settled()).toEqual(before);
    expect(before).toContain('rest');
  });

  it('goes on without the network, and nothing is lost', async () => {
    const network = (offline: boolean) =>
      stage.browser.driver.sendDevToolsCommand('Network.emulateNetworkConditions', {
        offline,
        latency: 0,
        downloadThroughput: -1,
        uploadThroughput: -1,
      });
    await stage.browser.driver.sendDevToolsCommand('Network.enable', {});
    await network(true);
    await page.press('2');
    await page.says(/1 entry waits here/);
    await page.says("The rear brake's lever");
    await network(false);
    await page.saysNot('waits here');
    await expect.poll(settled, { timeout: 10_000 }).toContain('brake:front');
  });

  it('is led to the yard on a full pack alone, and asked whether miles were meant', async () => {
    await prove(page, (test) => test === 'full');
    await page.says('Is the pack full?');
    await page.press('39', Key.ENTER);
    await page.says('By that meter the pack is not full');
    await page.press('41.6', Key.ENTER);
    await page.says('it was not charged to the end since it last ran');
    await chargedPack(page, '41.6');
    await page.says('Where drive ends');
    await typeSpeed(page, '15.1');
    await page.says('Were these miles an hour?');
    await page.click('They were mph: 24.3 km/h');
    await page.says('Not settled');
    await typeSpeed(page, '60');
    await page.says('is more than this vehicle can reach');
    await page.click('Understood');
    await typeSpeed(page, '23.8');
    await page.says('Shows it');
    await expect.poll(settled).toContain('end:assist');
  });

  it('is signed off by what it showed', async () => {
    await prove(page);
    await page.says('Measured on this unit: where drive ends');
    await page.click('Sign off and seal');
    await page.says('S26-0418: its papers, as they will print');
  });
});

describe('a unit that does not keep to its limit', () => {
  it('goes back to calibrate with what was seen, and a lower cap is worked out', async () => {
    await atProve('S26-0419');
    await prove(page, (test) => test === 'full');
    await page.press('41.6', Key.ENTER);
    await page.says('it was not charged to the end since it last ran');
    await chargedPack(page, '41.6');
    await page.says('Where drive ends');
    const capBefore = (await benchNow(page)).opened.setup.targets.find(({ label }) => label === 'L4.1')?.raw ?? 0;
    await typeSpeed(page, '27.5');
    await page.says('It does not: It ends at 27.5 km/h');
    await page.press(' ');
    await page.driver.wait(
      async () => {
        const { opened } = await benchNow(page);
        return (opened.setup.targets.find(({ label }) => label === 'L4.1')?.raw ?? 0) < capBefore;
      },
      15_000,
      'no lower cap came',
    );
    await page.says(/KEY IN|Press 1 of/i);
  });
});

describe('a scooter with three modes and two motors', () => {
  it('goes the same way, mode by mode', async () => {
    const lead = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'bay 3');
    await playVisit(
      lead,
      'P10-0202',
      { serials: [], by: 'ines', station: 'bay 3', until: 'prove', packV: 62 },
      { at: Date.now() - 3_600_000 },
    );
    await open('P10-0202');
    await page.makeChecks();
    await page.says(/of \d+ · wheel up/i);
    await page.says('Both wheels clear of the ground: both drive.');
    await prove(page);
    await page.says('Sign off and seal');
    const shown = proofsOf(await benchNow(page)).filter(({ test }) => test.id.startsWith('end:'));
    expect(shown.map(({ test }) => test.id)).toEqual(['end:throttle:fast', 'end:throttle:city', 'end:throttle:eco']);
  });
});

describe('handing over', () => {
  const right = 'form[aria-label="What goes along"]';

  it('wants a name and a signature, and the unit is then out', async () => {
    await open('S26-0418');
    await page.says('its papers, as they will print');
    await (await page.find(`${right} input[type=file]`)).sendKeys(await photographFile());
    await page.says('Say above where it sits');
    await page.type('Class label fixed', 'Seat tube');
    await page.saysNot('Say above where it sits');
    await page.click('All 9 shown');
    await page.type('Received by', 'R. Maddock');
    const done = await page.find(`${right} button[type=submit]`);
    expect(await done.isEnabled()).toBe(false);
    const field = await page.find(`${right} canvas`);
    await page.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', field);
    const pen = page.driver.actions({ async: true });
    let drawn = pen.move({ origin: field, x: -100, y: 0 }).press();
    for (let i = 1; i <= 12; i++)
      drawn = drawn.move({ origin: field, x: -100 + 15 * i, y: i % 2 === 0 ? -18 : 18, duration: 40 });
    await drawn.release().perform();
    await page.click('Handed over');
    await page.says('Handed over to R. Maddock');
    const seen = await page.find('img[alt="Photograph: the label where it sits"]');
    await expect
      .poll(() => page.driver.executeScript<number>('return arguments[0].naturalWidth', seen))
      .toBeGreaterThan(100);
    const { unit } = await viewOf(ines, 'S26-0418');
    expect(unit.handedTo).toBe('R. Maddock');
    await page.scan('S26-0418');
    await page.says('Out with R. Maddock');
    await page.click('Verify the seal');
    await page.says('The seal holds');
  });

  it('is done without a signature too, and says why', async () => {
    await open('S26-0403');
    await page.says('its papers, as they will print');
    await page.click('Not signed');
    await page.type('Received by', 'Night porter');
    await page.type('Why it is not signed', 'Gloves on, in the rain.');
    await page.press(Key.ENTER);
    await page.says('Handed over to Night porter');
    await page.says('Gloves on, in the rain.');
  });

  it('says when a label does not fit its size, with the size that would do', async () => {
    await open('S26-0404');
    await page.choose('Class label, true size', '50 by 30 mm');
    await page.says('it does not fit on 50 by 30 mm: choose 66 by 48');
    await page.choose('Class label, true size', '66 by 48 mm');
    await page.click('Deutsch');
    await page.says('Ihr Rad und sein Display');
  });

  it('says when papers cannot be bound into one, and binds them once they can', async () => {
    await open('P10-0301');
    await page.says('its papers, as they will print');
    await page.press('o');
    await page.says('3 of 3 units are signed off');
    await page.driver.executeScript(`
      window.WorkerAsItIs = Worker;
      window.Worker = new Proxy(Worker, {
        construct: (Made, [address, how]) => new Made(String(address).replace('bundle-worker', 'gone'), how),
      });`);
    await page.click('The 3 signed off');
    await page.says('They could not be bound into one. Nothing was printed; try again.');
    await page.driver.executeScript('window.Worker = window.WorkerAsItIs');
    await page.click('The 3 signed off');
    await page.says(/\d+ pages, opened beside/);
    await page.click('Close');
  });

  it('draws the papers of a whole order in one, with progress', async () => {
    await open('P10-0301');
    await page.says('its papers, as they will print');
    await page.press('o');
    await page.says('3 of 3 units are signed off');
    await page.click('The 3 signed off');
    await page.says(/\d+ pages, opened beside/);
    await page.click('The 3 class labels, 15 on a sheet');
    await page.says('1 page, opened beside');
  });
});
