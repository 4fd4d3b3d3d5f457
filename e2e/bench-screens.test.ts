import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { signIn as api } from '../scripts/lib/api-client.mjs';
import { playVisit } from '../scripts/lib/load-demo.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { misfitsAtSizes, missedByHand, violationsOn } from './support/measures.js';
import { startStage, type Stage } from './support/start.js';

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
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo', undefined, 'bay 1');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const violations = (): Promise<string[]> => violationsOn(stage.browser.driver);
const misfits = (least?: number): Promise<string[]> => misfitsAtSizes(stage.browser, least);

/** How many pixels the page is wider and higher than the window. */
const overflow = (): Promise<[number, number]> =>
  stage.browser.driver.executeScript(
    'const e = document.documentElement; return [e.scrollWidth - e.clientWidth, e.scrollHeight - e.clientHeight]',
  );

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
  ['W70-0017', 'Cannot be tried now'],
  ['W70-0016', 'Hands on it again'],
  ['S26-0417', 'Sign off and seal'],
  ['S26-0402', 'as they will print'],
  ['P10-0301', 'as they will print'],
];

describe.each(STEPS)('the bench with %s', (serial, words) => {
  it('breaks no rule, and fits every size', async () => {
    await stage.browser.driver.get(`${stage.address}/bench`);
    await page.says('Scan a unit');
    await page.scan(serial);
    await page.says(words);
    expect(await violations()).toEqual([]);
    expect((await overflow())[1]).toBe(0);
    expect(await missedByHand(stage.browser.driver)).toEqual([]);
    await stage.browser.setViewport(1024, 768);
    expect((await overflow())[1]).toBe(0);
    expect(await missedByHand(stage.browser.driver)).toEqual([]);
    expect(await misfits()).toEqual([]);
    await stage.browser.setViewport(1280, 800);
  });
});

it('the check-in form breaks no rule and fits', async () => {
  await page.scan('S26-0415');
  await page.begin();
  expect(await violations()).toEqual([]);
  expect(await overflow()).toEqual([0, 0]);
  expect(await misfits()).toEqual([]);
});

it('the stand-in unit in its drawer breaks no rule', async () => {
  await page.scan('S26-0416');
  await page.says('AS FOUND · 6 OF 14');
  await page.click('Stand-in');
  await page.says('What nobody at the stand knows');
  expect(await violations()).toEqual([]);
  // Its drawer lies over what stands beside the work, and is meant to.
  expect((await misfits(390)).filter((each) => !each.includes('lain over'))).toEqual([]);
  await (await page.find('[aria-label="Put the stand-in unit away"]')).click();
});

it('every offered step and all ten rungs stand in the ladder', async () => {
  await page.scan('S26-0413');
  const rungs = await page.texts('[aria-label="Steps of this visit"] li');
  expect(rungs).toHaveLength(10);
  expect(rungs.filter((rung) => rung.includes('not offered yet'))).toEqual([]);
});

describe('in colours that the reader chose', () => {
  beforeAll(() => stage.browser.setMedia({ 'forced-colors': 'active' }));
  afterAll(() => stage.browser.setMedia({}));

  it('no segment that is dark lies over one that is lit, and what can be pressed has an edge', async () => {
    await stage.browser.driver.get(`${stage.address}/bench`);
    await page.says('Scan a unit');
    await page.scan('S26-0413');
    await page.says('Shows something else');
    const seen: { ghosts: string[]; edges: string[] } = await stage.browser.driver.executeScript(`
      const all = (css) => [...document.querySelectorAll(css)];
      return {
        ghosts: all('[aria-label="Display should show"] [aria-hidden] > :first-child').map((e) => getComputedStyle(e).visibility),
        edges: all('main button').map((e) => getComputedStyle(e).borderTopStyle),
      };
    `);
    expect(new Set(seen.ghosts)).toEqual(new Set(['hidden']));
    expect(new Set(seen.edges)).toEqual(new Set(['solid']));
    expect(await violationsOn(stage.browser.driver, { colours: 'theirs' })).toEqual([]);
  });
});

it('where motion is unwelcome the fuse burns all the same, in steps', async () => {
  await page.scan('S26-0413');
  await page.says('Shows something else');
  await page.press(' ');
  await page.says('Keep holding');
  await page.press(' ');
  const fuse = await page.find('[data-clock]');
  expect(Number.parseFloat(await fuse.getCssValue('animation-duration'))).toBeGreaterThanOrEqual(5);
  expect(await fuse.getCssValue('animation-timing-function')).toMatch(/^steps\(/);
});

describe('a dialog', () => {
  it.each([
    ['u', 'Take back the last entry'],
    ['r', 'A part was replaced'],
    ['h', 'only a lead releases it'],
    ['m', 'How far does the wheel roll'],
    ['d', 'What does the glass show?'],
    ['p', 'Hands off the throttle'],
  ])('opened by %s breaks no rule, and keys typed behind it do nothing there', async (key, words) => {
    await page.scan('S26-0413');
    await page.says('Shows something else');
    const count = /Press (\d+ of \d+)/.exec(await page.text())?.[1];
    await page.press(key);
    await page.says(words);
    expect(await violations()).toEqual([]);
    await stage.browser.driver.executeScript('document.activeElement.blur()');
    await page.press(' ', 'h', 't', 'w');
    expect(await page.findAll('[role="dialog"]')).toHaveLength(1);
    await (await page.find('[role="dialog"] [aria-label^="Close"]')).click();
    await page.saysNot(words);
    expect(/Press (\d+ of \d+)/.exec(await page.text())?.[1]).toBe(count);
  });
});

it('the order to press stands in one live region, so that it is said once', async () => {
  await page.scan('S26-0413');
  await page.says('Shows something else');
  const [order] = await page.texts('main h2');
  const regions: string[] = await stage.browser.driver.executeScript(
    "return [...document.querySelectorAll('main [aria-live=polite], main [role=status]')].map((e) => e.textContent)",
  );
  expect(regions.filter((text) => text.includes(order ?? 'no order'))).toHaveLength(1);
});
