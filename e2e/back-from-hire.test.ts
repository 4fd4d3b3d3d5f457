import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { misfitsAtSizes, violationsOn } from './support/measures.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: BenchPage;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  await (await new SignInPage(page.driver).open(stage.address)).signIn('ines');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const type = (text: string) => page.driver.actions().sendKeys(text).perform();

describe('the ledger, asked a question', () => {
  it('is a sentence, each word of it a choice, and the same as a link', async () => {
    await page.driver.get(`${stage.address}/ledger`);
    await page.says('Units wherever they are');
    await page.says('S26-0409');
    await page.click('and …');
    await page.click('what a code was left at');
    await page.pick('What it controls', 'speedCap');
    await page.type('the number, in km/h', '24');
    await page.press(Key.ENTER);
    await page.says('with speed cap over 24 km/h');
    await page.driver.wait(async () => (await page.driver.getCurrentUrl()).includes('code=speedCap'));
    await page.saysNot('S26-0409');
    await page.says('S26-0407');
    await page.driver.navigate().refresh();
    await page.says('with speed cap over 24 km/h');
    await page.says('S26-0407');
  });

  it('is kept under a name, and asked again by it', async () => {
    await page.click('Keep this question');
    await page.type('Under which name', 'Full speed');
    await page.press(Key.ENTER);
    await page.says('Keep "Full speed" no longer');
    await page.driver.get(`${stage.address}/ledger`);
    await page.says('S26-0409');
    await page.click('Kept questions');
    await page.click('Full speed');
    await page.says('with speed cap over 24 km/h');
  });
});

describe('a unit back from hire', () => {
  it('is scanned, read by keys, and may not go out where its cap was raised', async () => {
    await page.driver.get(`${stage.address}/ledger?where=out`);
    await page.says('S26-0401');
    await page.scan('S26-0401');
    await page.click('It is back: read it');
    await page.says('Read what the glass shows');
    await page.find('ol input');
    expect(await violationsOn(page.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
    await page.find('ol input');
    const left: Readonly<Record<string, string>> = await page.driver.executeAsyncScript(`
      const done = arguments[arguments.length - 1];
      fetch('/api/visits/' + location.pathname.split('/')[2]).then((answer) => answer.json()).then(({ evidence }) =>
        done(Object.fromEntries(evidence.filter((e) => e.kind === 'codeRead').map((e) => [e.data.label, String(e.data.raw)]))));
    `);
    await (await page.find('ol input')).click();
    const labels = (await page.texts('ol label')).map((label) => label.split(' ·')[0] ?? '');
    expect(labels).toContain('L4.1');
    for (const label of labels) {
      await type(label === 'L4.1' ? '32' : (left[label] ?? ''));
      await type(Key.ENTER);
    }
    await page.tick('it does not');
    await page.click('May it go out again?');
    await page.says('Do not send it out: speed cap moved, PIN gone.');
    expect(await page.texts('[aria-label="What moved"] tbody tr')).toEqual([
      expect.stringContaining('out of class'),
      expect.stringContaining('Anybody can change its settings again'),
    ]);
  });

  it('is set right on the bench, where it says why it came back', async () => {
    await page.type('Set it right', 'Cap raised while it was out');
    await page.press(Key.ENTER);
    await page.says('It was done and came back');
    await page.says('Cap raised while it was out');
  });
});
