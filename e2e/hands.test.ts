import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { HouseView } from '@decurio/contract';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { playVisit } from '../scripts/lib/load-demo.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: BenchPage;
let teo: Client;
let asta: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  teo = await signIn(stage.address, 'teo', DEMO_PASSWORD, 'bay 3');
  asta = await signIn(stage.address, 'asta', DEMO_PASSWORD, 'office');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const prepared = (serial: string, until: string) =>
  playVisit(teo, serial, { serials: [], by: 'teo', station: 'bay 3', until }, { at: Date.now() - 3_600_000 });
const open = async (serial: string): Promise<void> => {
  await page.driver.get(`${stage.address}/bench`);
  await page.says('Scan a unit');
  await page.scan(serial);
};
const rest = async (bounceMs: number): Promise<void> => {
  const house = (await asta.get('/api/house')) as HouseView;
  await asta.put('/api/house', { ...house, bounceMs });
};
/** Two presses as one of a worn switch: within one act of the driver, without a moment between. */
const twice = (key: string) => page.driver.actions().sendKeys(key, key).perform();
const focused = (): Promise<string> =>
  page.driver.executeScript(
    "const e = document.activeElement; return e === document.body ? 'BODY' : e.tagName + ' ' + (e.innerText || e.getAttribute('aria-label') || '').trim()",
  );

describe('on Line', () => {
  it('arrows go from unit to unit as they stand, and G to what is next', async () => {
    await page.driver.executeScript('document.querySelector(\'[aria-label="Rank 1"] + ol a\').focus()');
    const first = await focused();
    await page.press(Key.ARROW_RIGHT, Key.ARROW_DOWN, Key.ARROW_LEFT);
    const below = await focused();
    await page.press(Key.ARROW_UP);
    expect(await focused()).toBe(first);
    expect(below).not.toBe(first);
    await page.driver.executeScript('document.activeElement.blur()');
    await page.find('[aria-label="Next for you"] li a');
    const [next] = await page.texts('[aria-label="Next for you"] li:first-child a');
    await page.press('g');
    await page.driver.wait(async () => (await page.path()).startsWith('/bench/'), 15_000, 'G leads nowhere');
    await page.says(next?.split(' ')[0] ?? 'a serial');
  });
});

describe('a switch that sends one press twice', () => {
  beforeAll(async () => {
    await rest(1000);
    await prepared('S26-0419', 'foundAll');
  });
  afterAll(() => rest(30));

  it('passes one press of the plan', async () => {
    await open('S26-0419');
    await page.says('Press 1 of');
    await page.keysRested();
    await twice(' ');
    await page.says('Keep holding');
    // The hold passes by itself.
    await page.says('Press 2 of');
    await page.keysRested();
    await twice(' ');
    await page.says('Press 3 of');
    await page.keysRested();
    await page.says('Press 3 of');
  });

  it('ticks one caution', async () => {
    await prepared('S26-0418', 'checkedIn');
    await open('S26-0418');
    await page.says('Before hands go on');
    const before = (await page.texts('[aria-label="Cautions"] li')).length;
    await page.keysRested();
    await twice(Key.PAGE_DOWN);
    await page.keysRested();
    await page.says(`${before - 1} to go`);
  });

  it('does not press what stands there after the change', async () => {
    await page.click(`Done or understood`);
    await page.keysRested();
    const left = Number(/(\d+) to go/.exec(await page.text())?.[1] ?? '0');
    for (let i = 0; i < left; i++) await page.press(' ');
    await page.says('All acknowledged');
    await page.keysRested();
    await twice(' ');
    await page.says('AS FOUND');
    expect(await page.text()).not.toContain('Type the digits that');
    expect(await page.text()).toMatch(/AS FOUND · 1 OF/);
  });
});

describe('after a click the keys are those of the page', () => {
  it('Space means "this code is done" after a click on a way of keying, on Spoken and on the stand-in', async () => {
    await prepared('S26-0420', 'foundAll');
    await open('S26-0420');
    await page.says('Shows something else');
    await page.click('Code by code');
    await page.says('L1.1, units');
    await page.press(' ');
    await page.says('L1.2, brightness');
    await page.click('Spoken');
    await page.press(Key.PAGE_DOWN);
    await page.says('L2.1, assist start');
    await page.click('Stand-in');
    await page.says('What nobody at the stand knows');
    await (await page.find('[aria-label="Put the stand-in unit away"]')).click();
    await page.press(Key.ENTER);
    await page.says('L2.4, standstill throttle');
  });

  it('a control that Tab led to keeps its own keys', async () => {
    const way = await page.button('Paced');
    await page.driver.executeScript('arguments[0].previousElementSibling.focus()', way);
    await page.press(Key.TAB);
    expect(await focused()).toContain('Paced');
    await page.press(' ');
    await page.says('Go on');
    await page.click('Press by press');
    await page.says('Done, next press');
  });

  it('how to cut power is shown from within words, by a function key', async () => {
    await prepared('S26-0421', 'signOff');
    await open('S26-0421');
    await page.says('Sign off and seal');
    await (await page.field(RECORD_WORDS)).click();
    await page.press('p');
    expect(await page.text()).not.toContain('Hands off the throttle');
    await page.press(Key.F9);
    await page.says('Hands off the throttle');
    await page.press(Key.ESCAPE);
    await page.saysNot('Hands off the throttle');
    expect(await (await page.field(RECORD_WORDS)).getAttribute('value')).toBe('p');
  });

  it('a letter among words is a letter; Escape leaves them as they are, and then it is a key', async () => {
    await page.find('textarea:focus');
    await page.press(...'hub');
    expect(await page.attribute(':root', 'data-typing')).not.toBeNull();
    await page.press(Key.ESCAPE);
    expect(await page.attribute(':root', 'data-typing')).toBeNull();
    await page.press('h');
    await page.says('Leave it as it is');
    await page.press(Key.ESCAPE);
    await page.saysNot('Leave it as it is');
    expect(await (await page.field('Words for the record')).getAttribute('value')).toBe('phub');
  });
});

const RECORD_WORDS = 'Words for the record, if there is anything to say';

describe('what was typed', () => {
  it.each([
    ['a hold', 'h', 'In a few words', 'lever bent'],
    ['a part that was replaced', 'r', 'What was changed, and why', 'new tyre, the old one was cut'],
  ])('into the dialog of %s is there again after Escape', async (_, key, label, words) => {
    await open('S26-0420');
    await page.says('Done, next press');
    await page.press(key);
    await page.type(label, words);
    await page.press(Key.ESCAPE);
    await page.says('Done, next press');
    await page.press(key);
    await page.says('You had begun this');
    expect(await (await page.field(label)).getAttribute('value')).toBe(words);
    await page.click('Start afresh');
    expect(await (await page.field(label)).getAttribute('value')).toBe('');
    await page.press(Key.ESCAPE);
  });

  it('at sign off is there again after a reload', async () => {
    await open('S26-0421');
    await page.says('You had begun this');
    await page.type(RECORD_WORDS, 'Both levers cut.');
    await page.driver.navigate().refresh();
    await page.says('You had begun this');
    expect(await (await page.field(RECORD_WORDS)).getAttribute('value')).toBe('Both levers cut.');
  });

  it('as an order by hand is there again on coming back, serials among it, and for nobody else', async () => {
    await page.driver.get(`${stage.address}/orders/new`);
    await page.type('Order number', '2777');
    await page.type('Customer', 'Gull Point Hotel');
    await page.click('Library');
    await page.says('Tallow four-key, revision C');
    await page.driver.get(`${stage.address}/orders/new`);
    await page.says('You had begun this');
    expect(await (await page.field('Order number')).getAttribute('value')).toBe('2777');
    expect(await (await page.field('Customer')).getAttribute('value')).toBe('Gull Point Hotel');
  });

  it('as a speed is there again after another way to measure was looked at', async () => {
    await prepared('S26-0422', 'calibrate');
    await open('S26-0422');
    await page.says('Begin at about');
    await page.type('True, km/h', '18.4');
    await page.click('Timed');
    await page.says('Start at the first mark');
    await page.click('Spot');
    expect(await (await page.field('True, km/h')).getAttribute('value')).toBe('18.4');
  });

  it('that is no figure stays as it is, is told, and is not sent', async () => {
    await open('S26-0415');
    await page.begin();
    await page.type('Odometer', '12-3');
    await page.says('A figure alone');
    expect(await (await page.field('Odometer')).getAttribute('value')).toBe('12-3');
    await page.type('Pack by meter', '39.8');
    // It was read among the checks.
    await page.saysNot('Tyre pressure');
    await page.driver.navigate().refresh();
    await page.says('You had begun this');
    expect(await (await page.field('Pack by meter')).getAttribute('value')).toBe('39.8');
  });
});

describe('the focus', () => {
  it('goes on to the next heading where what had it is drawn away, and a dialog gives it back', async () => {
    await open('S26-0420');
    await page.says('Done, next press');
    await page.click('Shows something else');
    await page.says('What does the glass show?');
    await page.press(Key.ESCAPE);
    await expect.poll(focused).toContain('Shows something else');
    await open('S26-0418');
    await page.says('AS FOUND');
    await open('S26-0414');
    await page.says(/on bay 1|Before hands go on/);
    await page.click('Take it over');
    await page.says(/Before hands go on|Once more|All of this holds here too/);
    await expect.poll(focused).toMatch(/^H\d /);
  });
});

describe('a unit that is open in two pages of a device', () => {
  it('is worked on in one of them; the other says so, and may take it', async () => {
    const { driver } = page;
    await open('S26-0420');
    await page.says('Done, next press');
    const first = await driver.getWindowHandle();
    const address = await driver.getCurrentUrl();
    await driver.switchTo().newWindow('tab');
    await driver.get(address);
    await page.says('is open in another page of this device');
    expect(await page.findAll('[aria-label="Next presses"]')).toHaveLength(0);
    await page.press('o');
    await page.says('Done, next press');
    await page.press(' ');
    const now = /Press (\d+ of \d+)/.exec(await page.text())?.[1] ?? '';
    await driver.switchTo().window(first);
    await page.says('is open in another page of this device');
    await page.press('o');
    await page.says(`Press ${now}`);
    await driver.switchTo().window((await driver.getAllWindowHandles()).find((each) => each !== first) ?? first);
    await driver.close();
    await driver.switchTo().window(first);
  });
});

describe('what of a delivery is shown', () => {
  it('is not changed by a scan, whose letters and digits are no commands', async () => {
    await page.driver.get(`${stage.address}/line`);
    await page.says('NEXT FOR YOU');
    // As fast as any scanner, whatever the machine is busy with.
    await page.driver.executeScript(`
      for (const key of [...'HACY-26-0417', 'Enter'])
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    `);
    await page.says('No unit HACY-26-0417 is in an order');
    expect(await page.driver.getCurrentUrl()).not.toContain('show=');
    expect(await page.texts('ol ol a')).toHaveLength(24);
  });

  it('is left for a unit by a scan that comes while the page is still coming up under it', async () => {
    await page.driver.get(`${stage.address}/line`);
    await page.says('NEXT FOR YOU');
    await page.driver.executeScript(`
      const heading = document.querySelector('main h1, main h2, h1');
      const type = (keys, at) => {
        for (const key of keys) at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      };
      type([...'HACY-26'], document.body);
      heading.tabIndex = -1;
      heading.focus();
      type([...'-0417', 'Enter'], heading);
    `);
    await page.says('No unit HACY-26-0417 is in an order');
  });

  it('is chosen by key, stands in the address, and can stand close together', async () => {
    await page.driver.get(`${stage.address}/line`);
    await page.says('NEXT FOR YOU');
    await page.press('h');
    await expect.poll(() => page.texts('ol ol a')).toHaveLength(2);
    expect(await page.driver.getCurrentUrl()).toContain('show=held');
    await page.press('a');
    await expect.poll(() => page.texts('ol ol a')).toHaveLength(24);
    await page.press('c');
    await expect.poll(async () => (await page.texts('ol ol a'))[0]).toMatch(/^0401/);
    await page.press('c');
  });
});

describe('the press that is due', () => {
  it('stands as it was drawn while the server goes away and comes back', async () => {
    await open('S26-0420');
    await page.says('Done, next press');
    const presses = await page.find('[aria-label="Next presses"]');
    await stage.server.stop();
    await page.says('No server since');
    await page.driver.executeScript('performance.clearResourceTimings()');
    await stage.restartServer();
    // The unit is asked for anew, and answered.
    const isAnswered = () =>
      page.driver.executeScript<boolean>(
        "return performance.getEntriesByType('resource').some((e) => e.name.endsWith('/bench') && e.responseStatus === 200)",
      );
    await page.driver.wait(isAnswered, 15_000, 'the unit was not asked for again');
    await page.saysNot('No server since');
    expect(await presses.isDisplayed()).toBe(true);
  });
});

describe('another release of the house', () => {
  it('is told, and taken on the way to the next place', async () => {
    const { driver } = stage.browser;
    const { identifier } = (await driver.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source: `
        const own = window.fetch;
        window.fetch = (...asked) => String(asked[0]).startsWith('/index.html')
          ? Promise.resolve(new Response('<script type="module" src="/assets/index-next.js"></script>'))
          : own(...asked);
      `,
    })) as unknown as { identifier: string };
    await driver.get(`${stage.address}/line`);
    await page.says('New release: load it');
    await driver.executeScript('window.isOldPage = true');
    await driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', { identifier });
    await page.click('Orders');
    await page.says('What was promised');
    await driver.wait(
      async () => (await driver.executeScript('return window.isOldPage ?? false')) === false,
      15_000,
      'the old page is still there',
    );
    await page.says('What was promised');
    await page.saysNot('New release');
  });

  it('comes in files whose name tells what is in them: they are asked for once', async () => {
    const html = await (await fetch(`${stage.address}/line`)).text();
    const [script = ''] = /\/assets\/index-[^"]+\.js/.exec(html) ?? [];
    const answer = await fetch(stage.address + script);
    expect([answer.status, answer.headers.get('cache-control')]).toEqual([200, 'public, max-age=31536000, immutable']);
    expect((await fetch(`${stage.address}/line`)).headers.get('cache-control')).toBe('no-cache');
  });
});
