import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { trialOrder } from '@decurio/core';
import type { TrialView } from '@decurio/contract';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { rideSteadily, standStill } from './support/receiver.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: BenchPage;
let ines: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('ines', DEMO_PASSWORD, 'bay 1');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const MAP = 'quill-two-key';
const trials = async () => (await ines.get(`/api/trials?mapId=${MAP}`)) as TrialView[];

describe('trials of a display', () => {
  it('say of a code that it acts, by how much and how sure, and of another that it does nothing', async () => {
    await page.driver.get(`${stage.address}/library/displayMap/${MAP}/trials`);
    await page.click('b9');
    await page.says('No difference of more than 0.30 s seen in 6 runs of each');
    await page.click('b8');
    await page.says(/5 is 1\.\d\d s slower than 1 \(95 %: .*\), in 5 runs of each\./);
  });

  it('are set up, led through run by run with a watch or typed, and nothing typed is lost', async () => {
    await page.click('A new trial');
    await page.choose('Code', 'b5');
    await page.type('On which unit', 'P10-0302');
    await page.choose('What is measured', 'Metres to a stop');
    await page.type('Runs of each value', '4');
    await page.click('Draw the order');
    await page.says('Run 1 of 8');
    await page.type('Measured', '900');
    await page.says('More than 200 m cannot be meant');
    await page.type('Measured', '7.5');
    await page.driver.navigate().refresh();
    await page.says('Run 1 of 8');
    expect(await (await page.field('Measured')).getAttribute('value')).toBe('7.5');
    await page.click('Write it down');
    await page.says('Run 2 of 8');
    await page.click('Take run 1 back');
    await page.says('Run 1 of 8');
  });

  it('tell what was shown once all runs are made, and become a draft of the map', async () => {
    const trial = (await trials()).find(({ plan }) => plan.label === 'b5');
    if (!trial) throw new Error('no trial');
    for (const [i, raw] of trialOrder(trial.plan).entries()) {
      await page.says(`Run ${i + 1} of 8`);
      await page.type('Measured', String(raw === trial.plan.values[0] ? 9 + i / 10 : 5 + i / 10));
      await page.click('Write it down');
    }
    await page.says('It does something');
    await page.click('Write it into the map, as a draft');
    await page.says('Written as version 2, a draft');
    const ended = (await trials()).find(({ id }) => id === trial.id);
    expect(ended?.ended).toMatchObject({ by: 'Ines M.', version: 2 });
    await page.driver.get(`${stage.address}/library/displayMap/${MAP}/versions`);
    await page.says('Draft');
  });

  it('take a true speed from the receiver of this device, from a roller, or as it was read off', async () => {
    await page.driver.get(`${stage.address}/library/displayMap/${MAP}/trials`);
    await page.click('A new trial');
    await page.choose('Code', 'b7');
    await page.type('On which unit', 'P10-0303');
    await page.choose('What is measured', 'True end speed');
    await page.type('Runs of each value', '4');
    await page.click('Draw the order');
    await page.says('Run 1 of 8');
    await page.click('Receiver');
    await rideSteadily(page, 5.6);
    await page.press('f');
    await page.says('frozen');
    await page.press(Key.ENTER);
    await page.says('Run 2 of 8');
    await standStill(page);
    await page.press('t');
    await page.type('Roller, mm across', '105');
    await page.type('Turns a minute', '1000');
    await page.says('for slip among it');
    await page.press(Key.ENTER);
    await page.says('Run 3 of 8');
    await page.click('By hand');
    await page.type('True', '130');
    await page.press(Key.ENTER);
    await page.says('More than 120 km/h cannot be meant');
    await page.type('True', '19.5');
    await page.press(Key.ENTER);
    await page.says('Run 4 of 8');
    const measured = (await trials()).find(({ plan }) => plan.quantity === 'endSpeed')?.runs.map((run) => run.measured);
    // 1000 turns of 105 mm, and one in a hundred for slip.
    expect(measured).toEqual([20.16, 19.99, 19.5]);
    await page.click('Take run 3 back');
    await page.says('Run 3 of 8');
    await page.click('Stopwatch');
    await page.type('Marks apart', '1');
    await page.press(Key.ENTER, ' ');
    await page.says('running');
    await page.press(' ');
    await page.says(/\d km\/h true/);
    await page.press(Key.ENTER);
    await page.says('Run 4 of 8');
  });
});
