import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Page } from './pages/page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new Page(stage.browser.driver);
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('ines', undefined, 'office');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

/** Opens a form and types into one of its fields. */
interface Form {
  readonly what: string;
  readonly path: string;
  /** What is pressed before its fields are there. */
  readonly opens?: string;
  readonly field: string;
}

const FORMS: readonly Form[] = [
  { what: 'an order by hand', path: '/orders/new', field: 'Order number' },
  { what: 'a new type', path: '/library/vehicleType/new', field: 'Name' },
  { what: 'a type', path: '/library/vehicleType/petrel-10/edit', field: 'Name' },
  { what: 'a rule pack', path: '/library/rulePack/port-isel/edit', field: 'Name' },
  { what: 'house rules', path: '/library/houseRules/hire-default/edit', field: 'Name' },
  { what: 'a new notice', path: '/library/notice/new', field: 'Who says so, and where' },
  { what: 'a new list of checks', path: '/library/checkList/new', field: 'Name' },
  { what: 'a dispute', path: '/library/displayMap/tallow-four-key/disputes', field: 'What the display does' },
  { what: 'a capture', path: '/library/displayMap/new', opens: 'Begin a capture', field: 'Serial of this unit' },
];

describe('a form that was half filled', () => {
  it.each(FORMS)('$what: is so again after going away and back, and after a reload', async ({ path, opens, field }) => {
    const value = async () => (await page.field(field)).getAttribute('value');
    const open = async () => {
      await page.driver.get(stage.address + path);
      if (opens !== undefined) await page.click(opens);
      await page.field(field);
    };
    await open();
    const before = (await value()) ?? '';
    await page.type(field, 'half a name');
    await expect.poll(value).toBe('half a name');
    await page.click('Ledger');
    await page.says('S26-0401');
    await open();
    await page.says('You had begun this');
    expect(await value()).toBe('half a name');
    await page.click('Start afresh');
    await expect.poll(value).toBe(before);
    await page.saysNot('You had begun this');
  });

  it('an order being amended: is so again after going away and back', async () => {
    const open = async () => {
      await page.driver.get(`${stage.address}/orders`);
      await page.says('What was promised');
      await page.click('2620');
      await page.says('14 of 14 codes get a target');
      await page.click('Amend');
    };
    await open();
    await page.type('Why it is amended', 'the customer called');
    await page.click('Line');
    await page.says('NEXT FOR YOU');
    await open();
    await page.says('You had begun this');
    expect(await (await page.field('Why it is amended')).getAttribute('value')).toBe('the customer called');
  });
});
