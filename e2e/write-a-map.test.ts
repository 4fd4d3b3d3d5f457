import { Key } from 'selenium-webdriver';
import { beforeAll, afterAll, describe, expect, it } from 'vitest';
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

/** Replaces what stands in the field that has the focus. */
const over = (text: string) =>
  page.driver
    .actions()
    .keyDown(Key.CONTROL)
    .sendKeys('a')
    .keyUp(Key.CONTROL)
    .sendKeys(text === '' ? Key.DELETE : text)
    .perform();
const tab = () => page.driver.actions().sendKeys(Key.TAB).perform();
const focused = (): Promise<string> =>
  page.driver.executeScript('return document.activeElement.getAttribute("aria-label") ?? ""');

/** An entry from the paper, typed from its label to its delivered value. */
async function typeEntry(label: string, sets: string, least: string, most: string, delivered: string): Promise<void> {
  await over(label);
  await tab();
  await over(sets);
  await page.find('[role="option"]');
  await page.driver.actions().sendKeys(Key.ENTER).perform();
  await tab();
  for (const each of [least, most, '', delivered]) {
    if (each !== '') await over(each);
    if (each !== delivered || each === '') await tab();
  }
}

describe('a lead with the paper of a display that nobody has written down', () => {
  it('names it, and types entry after entry without a mouse', async () => {
    await page.driver.get(`${stage.address}/library/displayMap/new`);
    await page.click('Begin in fields');
    await page.says('all of it hangs together');
    await page.type('Name', 'Plover four');
    await page.type('Id in files', 'plover-four');
    await page.type('What one tells it by', 'Four entries, a green frame.');
    await page.says('Plover four, revision A');
    await page.click('Another entry');
    await page.driver.wait(async () => (await focused()) === 'Label of entry 2');
    await typeEntry('2', 'Speed cap', '10', '40', '25');
    await page.driver.actions().sendKeys(Key.ENTER).perform();
    await page.driver.wait(async () => (await focused()) === 'Label of entry 3');
    await typeEntry('3', 'Current limit', '5', '20', '15');
    await page.says('3 codes, and all of it hangs together');
  });

  it('breaks no rule of accessibility, and fits every size', async () => {
    expect(await violationsOn(page.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
  });

  it('is told at its field what is wrong, and the display goes on running', async () => {
    await (await page.find('[aria-label="Delivered value of entry 3"]')).click();
    await over('99');
    await page.says('3 cannot show its factory value 99');
    expect(await page.attribute('[aria-label="Delivered value of entry 3"]', 'aria-invalid')).toBe('true');
    await page.says('still runs the last sound text');
    await over('15');
    await page.says('3 codes, and all of it hangs together');
  });

  it('gives an entry words, of which those that a setup understands are offered', async () => {
    await page.click('Another entry');
    await page.driver.wait(async () => (await focused()) === 'Label of entry 4');
    await over('4');
    await tab();
    await over('Drive mode');
    await page.find('[role="option"]');
    await page.driver.actions().sendKeys(Key.ENTER).perform();
    await (await page.findAll('tbody:last-of-type button')).at(-1)?.click();
    await page.click('Its digits stand for words');
    await page.says('4 codes, and all of it hangs together');
    expect(
      await page.driver.executeScript(
        'return [...document.querySelectorAll("fieldset[aria-label^=Digits] input")].map((e) => e.value)',
      ),
    ).toEqual(['0', 'pedal', '', '1', 'throttle', '']);
  });

  it('finds the same in the text, changes it there, and finds that in the fields', async () => {
    await page.tick('As text');
    await page.says('"plover-four"');
    await page.says('"speedCap"');
    await (await page.find('.cm-content')).click();
    await page.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.HOME).keyUp(Key.CONTROL).perform();
    await page.press(Key.DOWN, Key.DOWN, Key.DOWN, Key.DOWN, Key.END, Key.LEFT, Key.LEFT, '9');
    await page.says('revision A9');
    await page.tick('In fields');
    expect(await (await page.field('Revision')).getAttribute('value')).toBe('A9');
  });

  it('keeps it as a draft, and it is there after a reload', async () => {
    await page.click('Keep as a draft');
    await page.says('Confirm version 1');
    await page.driver.navigate().refresh();
    await page.says('Plover four, revision A9');
  });
});
