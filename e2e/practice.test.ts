import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fullMap, planKeys, pressCount, type DisplayMap } from '@decurio/core';
import { ROOT } from '../scripts/lib/paths.mjs';
import { PracticePage } from './pages/practice-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { startStage, type Stage } from './support/start.js';

const burdock = fullMap(JSON.parse(readFileSync(join(ROOT, 'demo/maps/burdock-digit.json'), 'utf8'))) as DisplayMap;
const tallow = fullMap(JSON.parse(readFileSync(join(ROOT, 'demo/maps/tallow-four-key.json'), 'utf8'))) as DisplayMap;
/** Keys held longer than a step of the glass repeat: a person who follows a plan press by press taps. */
const tapped: DisplayMap = { ...tallow, menu: tallow.menu && { ...tallow.menu, repeat: null } };

let stage: Stage;
let page: PracticePage;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new PracticePage(stage.browser.driver);
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo', undefined, 'bay 1');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

describe('practice', () => {
  it('shows the display with its keys, and how it is handled', async () => {
    await page.open(stage.address, 'tallow-four-key');
    await page.says('hold set and + for 2 s');
    await page.says('Your pace is not known yet');
    expect(await page.texts('[aria-label="Keys of the display"] b')).toEqual(['on/off', 'set', '+', '−']);
  });

  it('opens by the chord, held as long as on the handlebar, and closes by itself', async () => {
    await page.press('2');
    expect(await page.glass()).toContain('0');
    await page.holdUntilItChanges(tallow, ['set', 'up']);
    await page.glassShows('L1.1 12');
    await page.press('4');
    await page.glassShows('L1.1 11');
    await page.says('speed: the menu is closed');
    expect(await page.texts('[data-done="true"]')).toEqual([]);
  });

  it('scores an exercise against the best plan, and learns a pace', async () => {
    await page.click('Another one');
    const targets = await page.targets(tallow);
    expect(Object.keys(targets)).toHaveLength(5);
    const plan = planKeys(tapped, targets, { values: {}, at: null });
    await page.follow(tallow, plan);
    await page.says('Presses');
    const [row] = (await page.texts('[aria-label="Score"] tbody tr')).map((text) => text.split(/\s+/));
    expect(Number(row?.[1])).toBe(pressCount(plan));
    expect(Number(row?.[2])).toBeLessThanOrEqual(Number(row?.[1]));
    await page.says(/Your pace: \d\.\d\d s a tap/);
  });

  it('a pace learnt here is the one that plans are made with', async () => {
    await page.driver.get(`${stage.address}/bench`);
    await page.says('Scan a unit');
    await page.press('S26-0413', '\uE007');
    await page.says('s left at your pace');
  });

  it('a press that starts the motor is told as that', async () => {
    await page.open(stage.address, 'tallow-four-key');
    await page.driver.actions().keyDown('4').perform();
    await page.says('That press started the motor');
    await page.driver.actions().keyUp('4').perform();
  });

  it('a read-out is checked code by code', async () => {
    await page.open(stage.address, 'burdock-digit');
    await page.driver.findElement({ xpath: "//label[.='Read out']" }).click();
    await page.says('Read every code');
    expect((await page.findAll('form[aria-label="Task"] input')).length).toBe(13);
    await page.holdUntilItChanges(burdock, ['left', 'ok']);
    await page.says('PIN');
    await page.type('01', '9999');
    await page.press('\uE007');
    await page.says('Read otherwise than shown');
  });

  it('is pressed with a mouse too: Shift and click keeps a key down for a chord', async () => {
    await page.open(stage.address, 'tallow-four-key');
    const [, set, plus, minus] = await page.findAll('[aria-label="Keys of the display"] button');
    const { driver } = page;
    await driver.actions().keyDown(Key.SHIFT).move({ origin: set! }).press().release().keyUp(Key.SHIFT).perform();
    expect(await page.texts('[data-down="true"] b')).toEqual(['set']);
    await driver.actions().move({ origin: plus! }).press().perform();
    await page.glassShows('L1.1 12');
    await driver.actions().release().perform();
    expect(await page.texts('[data-down="true"]')).toEqual([]);
    await driver.actions().move({ origin: minus! }).press().release().perform();
    await page.glassShows('L1.1 11');
  });

  it('free play tells what was changed', async () => {
    await page.open(stage.address, 'tallow-four-key');
    await page.driver.findElement({ xpath: "//label[.='Free play']" }).click();
    await page.says('Everything is as delivered');
    await page.holdUntilItChanges(tallow, ['set', 'up']);
    await page.press('4', '2');
    await page.says('Changed so far');
    await page.says('11, km/h');
  });
});
