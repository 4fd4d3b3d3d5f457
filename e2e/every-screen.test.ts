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
  const signIn = await new SignInPage(stage.browser.driver).open(stage.address);
  expect(await violations()).toEqual([]);
  await signIn.signIn('teo', undefined, 'bay 1');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const violations = (): Promise<string[]> => violationsOn(stage.browser.driver);
const misfits = (least?: number): Promise<string[]> => misfitsAtSizes(stage.browser, least);

const PLACES: readonly (readonly [path: string, words: string])[] = [
  ['/line', 'NEXT FOR YOU'],
  ['/bench', 'Scan a unit'],
  ['/orders', 'What was promised'],
  ['/orders/new', 'Take in an order by hand'],
  ['/orders/add/S26-0999', 'S26-0999 is in no order'],
  ['/library', 'Tallow four-key, revision C'],
  ['/library/displayMap/sorrel-two-list', 'Other list'],
  ['/library/displayMap/dunlin-a/compare', 'codes differ'],
  ['/library/displayMap/quill-two-key/trials', 'A new trial'],
  ['/library/displayMap/burdock-digit/try', 'press the display'],
  ['/library/displayMap/tallow-four-key/disputes', 'A display does otherwise?'],
  ['/house', 'Time zone'],
  ['/signed-in', 'Where you are signed in'],
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
  ['/ledger?where=every&code=speedCap&is=over&value=20', 'with speed cap over 20 km/h'],
  ['/ledger/checkpoints', 'Checkpoints'],
  ['/ledger/unit/S26-0401', 'codes show the same'],
  ['/plan', 'Who is here?'],
  ['/plan/people', 'Nobody yet'],
  ['/plan/what-if', 'Way A'],
  ['/plan/afterwards', 'Your role does not include this'],
  ['/ledger/quality', 'Leads look at this'],
  ['/ledger/moved', 'Nothing moved'],
  ['/ledger/elsewhere', 'Nothing from elsewhere'],
  ['/nowhere', 'Nothing is here'],
];

const titles = new Map<string, string>();

describe.each(PLACES)('%s', (path, words) => {
  it('breaks no rule of accessibility, fits every size, and has a name of its own', async () => {
    await stage.browser.driver.get(stage.address + path);
    await page.says(words);
    expect(await violations()).toEqual([]);
    expect(await misfits()).toEqual([]);
    const title = await stage.browser.driver.getTitle();
    expect(title).toMatch(/.+ · Decurio$/);
    expect(titles.get(title)).toBeUndefined();
    titles.set(title, path);
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
    expect(await misfits()).toEqual([]);
  });
});

it('a sealed record breaks no rule', async () => {
  await page.scan('S26-0401');
  await page.says('HOW IT LEFT');
  await page.says('Out with R. Maddock');
  expect(await violations()).toEqual([]);
});

it('a larger type of the reader makes the words larger', async () => {
  const { driver } = stage.browser;
  const size = (): Promise<number> =>
    driver.executeScript("return parseFloat(getComputedStyle(document.querySelector('main h1')).fontSize)");
  await driver.get(`${stage.address}/orders`);
  await page.says('What was promised');
  const usual = await size();
  await driver.executeScript("document.documentElement.style.fontSize = '20px'");
  await expect.poll(async () => (await size()) / usual).toBeCloseTo(20 / 16, 2);
});
