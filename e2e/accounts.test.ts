import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { signIn } from '../scripts/lib/api-client.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { makeDataSource } from '../server/store/data-source.js';
import { offerFirstOwner } from '../server/store/first-owner.js';
import { Page } from './pages/page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { misfitsAtSizes, violationsOn } from './support/measures.js';
import { startStage, type Stage } from './support/start.js';

const OWN = 'three loose spokes';

describe('a house that nobody can sign in to yet', () => {
  let stage: Stage;
  let page: Page;
  let code: string;
  beforeAll(async () => {
    stage = await startStage({ demo: false });
    page = new Page(stage.browser.driver);
    const source = await makeDataSource(stage.databaseUrl, 1).initialize();
    code = (await offerFirstOwner(source)) ?? '';
    await source.destroy();
  });
  afterAll(() => stage.close());

  it('is begun by whoever has the code that its server printed, and by nobody else', async () => {
    await page.driver.get(stage.address);
    await page.says('Whose house is this?');
    expect(await violationsOn(stage.browser.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
    await page.type('The code that the server printed', 'abcd-efgh-jkmn-pqrs');
    await page.type('Your name in records', 'Lowen B.');
    await page.type('You sign in as', 'lowen');
    await page.type('Your password', 'password123');
    await page.press(Key.ENTER);
    await page.says('That is not the code');
    await page.type('The code that the server printed', code);
    await page.press(Key.ENTER);
    await page.says('among the passwords that are tried first');
    await page.type('Your password', OWN);
    await page.press(Key.ENTER);
    await page.says('Sign in to your bay');
    await page.click('Sign in');
    await page.says('Lowen B.');
    await page.driver.get(`${stage.address}/accounts`);
    await page.says('Lowen B. was made as owner.');
  });

  it('then says what comes first, and goes on from what was done', async () => {
    await page.driver.get(`${stage.address}/line`);
    await page.says('Six steps to the first unit');
    expect(await violationsOn(stage.browser.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
    const now = () => page.texts('[aria-label="To begin with"] [aria-current="step"] a');
    await expect.poll(now).toEqual(['Bring in the rules of the places you deliver to']);
    await page.click('Bring in the rules');
    await page.says('checked by nobody');
    await page.click('Bring in ');
    await page.driver.wait(async () => /rulePack\/./.test(await page.path()), 15_000, 'it was not brought in');
    await page.driver.get(`${stage.address}/line`);
    await expect.poll(now).toEqual(['Confirm a class with the authority there']);
  });
});

describe('an owner', () => {
  let stage: Stage;
  let page: SignInPage;
  let password = '';
  beforeAll(async () => {
    stage = await startStage({ demo: true });
    page = new SignInPage(stage.browser.driver);
    await (await page.open(stage.address)).signIn('asta');
    await page.says('NEXT FOR YOU');
  });
  afterAll(() => stage.close());

  const afresh = async () => {
    await page.driver.manage().deleteAllCookies();
    await page.open(stage.address);
  };

  it('lets one more person in, with a password that is shown once', async () => {
    await page.driver.get(`${stage.address}/accounts`);
    await page.says('Who may sign in');
    expect(await violationsOn(stage.browser.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
    await page.type('Name in records', 'Kenver T.');
    await page.type('Signs in as', 'te0');
    await page.press(Key.ENTER);
    await page.says('would be taken for "teo"');
    await page.type('Signs in as', 'kenver');
    await page.press(Key.ENTER);
    await page.says('is shown this once');
    password = await (await page.find('output')).getText();
    expect(password).toMatch(/^\S{4}-\S{4}-\S{4}-\S{4}$/);
    await page.click('It is handed over');
    await page.says('signs in as kenver; has not chosen a password yet');
    expect(await page.text()).not.toContain(password);
  });

  it('who then chooses their own before anything else opens', async () => {
    await afresh();
    await page.signIn('kenver', password);
    await page.says('Choose your own password');
    expect(await violationsOn(stage.browser.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
    await page.driver.get(`${stage.address}/orders`);
    await page.says('Choose your own password');
    await page.type('The password you have now', password);
    await page.type('The new one', 'kenver t.');
    await page.type('The new one', 'password123');
    await page.press(Key.ENTER);
    await page.says('among the passwords that are tried first');
    await page.type('The new one', OWN);
    await page.press(Key.ENTER);
    await page.says('Orders');
    await afresh();
    await page.signIn('kenver', OWN);
    await page.says('NEXT FOR YOU');
  });

  it('lets a program of another house ask whether a unit may go out, and ends that', async () => {
    await afresh();
    await page.signIn('asta');
    await page.says('NEXT FOR YOU');
    await page.driver.get(`${stage.address}/accounts`);
    await page.type('Another program', 'hire desk');
    await page.press(Key.ENTER);
    await page.says('It is shown this once');
    const [authorization = ''] = await page.texts('output');
    const ask = () =>
      fetch(`${stage.address}/api/machine/units/S26-0401/may-go-out`, {
        headers: { authorization: authorization.replace('Authorization: ', '') },
      });
    expect(await (await ask()).json()).toMatchObject({ serial: 'S26-0401', mayGoOut: true });
    await page.click('It is kept');
    await page.saysNot('Bearer');
    await page.driver.navigate().refresh();
    await page.says('last asked');
    await page.click('End hire desk');
    await page.says('ended');
    expect((await ask()).status).toBe(401);
  });

  it('signs somebody out at a place they left', async () => {
    const tablet = await signIn(stage.address, 'teo', DEMO_PASSWORD, 'the lost tablet');
    await page.driver.get(`${stage.address}/accounts`);
    await page.click('Where Teo R. is signed in');
    await page.says('the lost tablet');
    expect(await violationsOn(stage.browser.driver)).toEqual([]);
    await page.click('End it at the lost tablet');
    await page.saysNot('End it at the lost tablet');
    await expect(tablet.get('/api/orders')).rejects.toThrow('401');
    await page.press(Key.ESCAPE);
    await page.says('Teo R. was signed out by an owner, the lost tablet, by Asta V.');
  });

  it('sees how the house runs, and what is amiss', async () => {
    await page.click('Asta V.');
    await page.click('How it runs');
    await page.says('thing is amiss');
    await page.says('Their passwords stand on the sign-in page');
    expect(await violationsOn(stage.browser.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
  });

  it('gives another role, locks, and reads what came of it', async () => {
    await afresh();
    await page.signIn('asta');
    await page.driver.get(`${stage.address}/accounts`);
    await page.says('signs in as kenver; signed in');
    await (await page.find('input[aria-label="Role of Kenver T."]')).click();
    for (const option of await page.driver.findElements(By.xpath('//*[@role="option"][.="lead"]')))
      if (await option.isDisplayed()) await option.click();
    await page.says('Kenver T. got another role: lead, by Asta V.');
    await page.click('Lock Kenver T.');
    await page.says('Kenver T. was locked, by Asta V.');
    await afresh();
    await page.signIn('kenver', OWN);
    await page.says('This account is locked');
  });
});
