import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { signIn as api } from '../scripts/lib/api-client.mjs';
import { playVisit } from '../scripts/lib/load-demo.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { startStage, type Stage } from './support/start.js';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

let stage: Stage;
let page: BenchPage;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  await playVisit(
    await api(stage.address, 'teo', DEMO_PASSWORD, 'bay 1'),
    'S26-0422',
    { serials: [], by: 'teo', station: 'bay 1', until: 'calibrate' },
    { at: Date.now() - 3_600_000 },
  );
  const signIn = await new SignInPage(stage.browser.driver).open(stage.address);
  expect(await violations()).toEqual([]);
  await signIn.signIn('teo', undefined, 'bay 1');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

/** Rules of WCAG 2.2 AA that the page as it stands breaks, with the first place of each. */
async function violations(): Promise<string[]> {
  await stage.browser.driver.executeScript(axe);
  return stage.browser.driver.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice'] })
      .then((r) => done(r.violations.map((v) => v.id + ': ' + v.nodes[0].html.slice(0, 160) + ' ' + (v.nodes[0].any[0]?.message ?? ''))));
  `);
}

/** How many pixels the page is wider and higher than the window. */
const overflow = (): Promise<[number, number]> =>
  stage.browser.driver.executeScript(
    'const e = document.documentElement; return [e.scrollWidth - e.clientWidth, e.scrollHeight - e.clientHeight]',
  );

const PLACES: readonly (readonly [path: string, words: string])[] = [
  ['/line', 'NEXT FOR YOU'],
  ['/bench', 'Scan a unit'],
  ['/orders', 'What was promised'],
  ['/orders/new', 'Take in an order by hand'],
  ['/orders/add/S26-0999', 'S26-0999 is in no order'],
  ['/library', 'Tallow four-key, revision C'],
  ['/library/displayMap/sorrel-two-list', 'Other list'],
  ['/library/displayMap/dunlin-a/compare', 'codes differ'],
  ['/library/displayMap/burdock-digit/try', 'press the display'],
  ['/library/displayMap/tallow-four-key/disputes', 'A display does otherwise?'],
  ['/practice', 'then leave the menu'],
  ['/practice/limpet-modes', 'then leave the menu'],
  ['/library/rulePack/port-isel', 'Legal values checked by Ines M.'],
  ['/library/rulePack/new', 'Start from what ships'],
  ['/library/rulePack/port-isel/edit', 'Edit this class'],
  ['/library/houseRules/hire-default', 'All answers are the defaults'],
  ['/library/houseRules/hire-default/edit', 'Throttle from standstill'],
  ['/library/vehicleType/petrel-10/edit', 'What follows'],
  ['/library/vehicleType/new', 'New type'],
  ['/library/learnt', '7 of 8 runs'],
  ['/library/workbench', 'Speed at the cap'],
  ['/library/vehicleType/samphire-26', 'Samphire 26 step-through'],
  ['/ledger', 'S26-0401'],
  ['/nowhere', 'Nothing is here'],
];

/** A unit of the demo at each step that is offered, and one that is held. */
const STEPS: readonly (readonly [serial: string, words: string])[] = [
  ['S26-0415', 'has not been begun'],
  ['S26-0414', 'Before hands go on'],
  ['S26-0416', 'FOUND SO FAR'],
  ['S26-0413', 'Shows something else'],
  ['S26-0412', 'READ SO FAR'],
  ['S26-0422', 'Begin at about'],
  ['S26-0410', 'Call a lead'],
  ['S26-0411', 'Call a lead'],
  ['S26-0417', 'Sign off and seal'],
];

describe.each(PLACES)('%s', (path, words) => {
  it('breaks no rule of accessibility, and fits a phone without sideways scrolling', async () => {
    await stage.browser.driver.get(stage.address + path);
    await page.says(words);
    expect(await violations()).toEqual([]);
    await stage.browser.setViewport(390, 844);
    expect((await overflow())[0]).toBe(0);
    await stage.browser.setViewport(1280, 800);
  });
});

describe('the page of an order', () => {
  it('breaks no rule of accessibility with a trail open, and fits a phone', async () => {
    await stage.browser.driver.get(`${stage.address}/orders`);
    await page.says('What was promised');
    await page.click('2620');
    await page.says('14 of 14 codes get a target');
    await (await page.find('button[aria-label^="L4.1:"]')).click();
    await page.says('decided');
    expect(await violations()).toEqual([]);
    await stage.browser.setViewport(390, 844);
    expect((await overflow())[0]).toBe(0);
    await stage.browser.setViewport(1280, 800);
  });
});

const SIZES: readonly (readonly [width: number, height: number])[] = [
  [1280, 800],
  [1024, 768],
  [390, 844],
];

describe.each(STEPS)('the bench with %s', (serial, words) => {
  it('breaks no rule, and fits every size', async () => {
    await stage.browser.driver.get(`${stage.address}/bench`);
    await page.says('Scan a unit');
    await page.scan(serial);
    await page.says(words);
    expect(await violations()).toEqual([]);
    for (const [width, height] of SIZES) {
      await stage.browser.setViewport(width, height);
      const [sideways, down] = await overflow();
      expect([width, sideways]).toEqual([width, 0]);
      if (width === 1280) expect(down).toBe(0);
    }
    await stage.browser.setViewport(1280, 800);
  });
});

it('the check-in form breaks no rule and fits', async () => {
  await page.scan('S26-0415');
  await page.begin();
  expect(await violations()).toEqual([]);
  expect(await overflow()).toEqual([0, 0]);
});

it('the stand-in unit in its drawer breaks no rule', async () => {
  await page.scan('S26-0416');
  await page.click('Stand-in');
  await page.says('What nobody at the stand knows');
  expect(await violations()).toEqual([]);
  await (await page.find('[aria-label="Put the stand-in unit away"]')).click();
});

it('a sealed record breaks no rule', async () => {
  await page.scan('S26-0409');
  await page.says('HOW IT LEFT');
  expect(await violations()).toEqual([]);
});

it('every offered step and all ten rungs stand in the ladder', async () => {
  await page.scan('S26-0413');
  const rungs = await page.texts('[aria-label="Steps of this visit"] li');
  expect(rungs).toHaveLength(10);
  expect(rungs.filter((rung) => rung.includes('not offered yet')).map((rung) => rung.split('\n')[1])).toEqual([
    'Hand over',
  ]);
});
