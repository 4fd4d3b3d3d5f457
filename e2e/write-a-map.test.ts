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
    await page.says(/1 problem/i);
    await page.type('Name', 'Plover four');
    expect(await (await page.field('Id in files')).getAttribute('value')).toBe('plover-four');
    await page.type('What one tells it by', 'Four entries, a green frame.');
    await page.says('Plover four, revision A: 1 code, and all of it hangs together');
    await page.click('Another entry');
    await page.driver.wait(async () => (await focused()) === 'Label of entry 2');
    await typeEntry('2', 'Speed cap', '10', '40', '25');
    await page.driver.actions().sendKeys(Key.ENTER).perform();
    await page.driver.wait(async () => (await focused()) === 'Label of entry 3');
    await typeEntry('3', 'Current limit', '5', '20', '15');
    await page.says('3 codes, and all of it hangs together');
  });

  it('calls the keys as they are printed, and every gesture means them still', async () => {
    for (const [key, printed] of [
      ['Key 1', 'M'],
      ['Key 2', 'UP'],
      ['Key 3', 'DOWN'],
    ]) {
      await (await page.find(`[aria-label="${key}"]`)).click();
      await over(printed ?? '');
    }
    await page.says('3 codes, and all of it hangs together');
    const meant = await page.driver.executeScript(
      `return ['Opens: key', 'Opens: with key 2', 'Next entry: key'].map(
        (name) => document.querySelector('[aria-label="' + name + '"]').selectedOptions[0].text)`,
    );
    expect(meant).toEqual(['UP', 'and DOWN', 'M']);
  });

  it('finds what an entry sets by the words of the paper, and takes its decimals as typed', async () => {
    await (await page.find('[aria-label="Delivered value of entry 3"]')).click();
    await page.driver.actions().sendKeys(Key.ENTER).perform();
    await page.driver.wait(async () => (await focused()) === 'Label of entry 4');
    await typeEntry('4', 'low voltage', '30', '42', '');
    await (await page.find('[aria-label="Step of entry 4"]')).click();
    await page.driver.actions().sendKeys('0.5', Key.TAB, '31.5').perform();
    await page.says('4 codes, and all of it hangs together');
    expect(
      await page.driver.executeScript(
        'return [...document.querySelectorAll("tbody:last-of-type input:not([type=hidden])")].map((e) => e.value)',
      ),
    ).toEqual(['4', 'Cut-off voltage', '30', '42', '0.5', '31.5']);
    await page.driver.actions().sendKeys(Key.ENTER).perform();
    await page.driver.wait(async () => (await focused()) === 'Label of entry 5');
    // A switch is off or on everywhere: nothing is to be typed of it but what it is delivered with.
    await over('5');
    await tab();
    await over('push assist');
    await page.find('[role="option"]');
    await page.driver.actions().sendKeys(Key.ENTER).perform();
    await page.says('0 off, 1 on');
    await page.says('5 codes, and all of it hangs together');
  });

  it('says what starts the motor', async () => {
    await page.click('A gesture starts the motor');
    await page.says(/1 problem/i);
    await page.type('What to beware of', 'Long DOWN starts the motor.');
    await page.says('5 codes, and all of it hangs together');
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
    await page.says('5 codes, and all of it hangs together');
  });

  it('gives an entry words, of which those that a setup understands are offered', async () => {
    await page.click('Another entry');
    await page.driver.wait(async () => (await focused()) === 'Label of entry 6');
    await over('6');
    await tab();
    await over('Drive mode');
    await page.find('[role="option"]');
    await page.driver.actions().sendKeys(Key.ENTER).perform();
    await (await page.findAll('tbody:last-of-type button')).at(-1)?.click();
    await page.click('Its digits stand for words');
    await page.says('6 codes, and all of it hangs together');
    const words = () =>
      page.driver.executeScript(
        'return [...document.querySelectorAll("fieldset[aria-label^=Digits] input")].map((e) => e.value)',
      );
    expect(await words()).toEqual(['0', '', 'pedal', '', '1', '', 'throttle', '']);
    await page.type('On the glass', 'PED');
    await page.says('6 codes, and all of it hangs together');
    expect(await words()).toEqual(['0', 'PED', 'pedal', '', '1', '', 'throttle', '']);
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
