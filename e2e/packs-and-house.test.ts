import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BenchView, HouseView, UnitFound } from '@decurio/contract';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: BenchPage;
let asta: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  asta = await signIn(stage.address, 'asta', DEMO_PASSWORD, 'office');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('ines', DEMO_PASSWORD, 'bay 1');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

describe('a pack that was drawn out too far', () => {
  const serial = 'S26-0421';

  it('stops its unit at check in, and says where the pack stands until somebody knows', async () => {
    await page.scan(serial);
    await page.begin();
    await page.type('Pack by meter', '18');
    await page.says('Never charge or power it again');
    await page.checkIn('18');
    await page.says('Held: pack');
    await page.says('Until somebody knows, the pack stands apart');
  });

  it('is not released by any word of a lead', async () => {
    await page.type('Why', 'it will be all right');
    await page.click('Release');
    await page.says('Whoever signs, that pack is not powered');
  });

  it('is measured again, and let on then', async () => {
    await page.click('Measure the pack again');
    await page.type('By meter now, at rest', '38.4');
    await page.says('Fits: 10 cells');
    await page.tick('dry, cool');
    await page.click('Write the new reading');
    await page.says('You decide');
    await page.type('Why', 'the meter was on the wrong plug; measured again');
    await page.click('Release');
    await page.saysNot('Held: pack');
    const { id } = (await asta.get(`/api/units?serial=${serial}`)) as UnitFound;
    const { evidence } = (await asta.get(`/api/units/${id}/bench`)) as BenchView;
    expect(evidence.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['checkedIn', 'packMeasured', 'released']));
  });
});

describe('the house', () => {
  it('is looked at by everybody, and changed by its owner alone', async () => {
    await page.driver.get(`${stage.address}/house`);
    await page.says('An owner changes it');
    await page.driver.manage().deleteAllCookies();
    await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('asta', DEMO_PASSWORD, 'office');
    await page.says('NEXT FOR YOU');
    await page.driver.get(`${stage.address}/house`);
    await page.type('Time zone', 'Nowhere/Town');
    await page.click('Keep');
    await page.says('There is no time zone of that name');
    await page.type('Time zone', 'Pacific/Kiritimati');
    await page.type('Fire service', '0118 999');
    await page.click('Keep');
    await page.says('Every screen goes by it within seconds');
    expect((await asta.get('/api/house')) as HouseView).toMatchObject({
      zone: 'Pacific/Kiritimati',
      fireService: '0118 999',
    });
  });
});

describe('a unit that stands for weeks', () => {
  it('is put away with its pack measured, comes due on Line, and is taken out before it leaves', async () => {
    await page.scan('S26-0403');
    await page.says('its papers, as they will print');
    await page.press('a');
    await page.type('By meter, at rest', '41.2');
    await page.says('Use it down to there first');
    await page.click('Put away so');
    await page.saysNot('By meter, at rest');
    await page.press('l');
    await page.says('IN STORAGE');
    await page.says('S26-0403 41.2 V, measure it on');
    await page.scan('S26-0403');
    await page.says('In storage');
    await page.type('Received by', 'R. Maddock');
    await page.click('Not signed');
    await page.type('Why it is not signed', 'collected in the dark');
    await page.click('Handed over');
    await page.says('take it out first');
    await page.press('a');
    await page.says('Due again on');
    await page.type('By meter, at rest', '40.9');
    await page.click('Take it out, measured');
    await page.click('Handed over');
    await page.says('Handed over to R. Maddock');
  });
});

describe('what is kept of persons', () => {
  it('is erased by an owner: of whoever received a unit on its page, and the seal holds', async () => {
    const { visitId } = (await asta.get('/api/units?serial=S26-0401')) as UnitFound;
    await page.driver.get(`${stage.address}/ledger/${visitId ?? ''}`);
    await page.says('Out with R. Maddock');
    await page.click('Erase name and signature');
    await page.type('Why', 'no');
    await page.click('Erase it');
    await page.says('Say in a few words why');
    await page.type('Why', 'asked for by letter');
    await page.click('Erase it');
    await page.says('Out with Name erased');
    await page.says('The signature was erased');
    await page.click('Verify the seal');
    await page.says('all that is shown of them follows from them');
  });

  it('is erased of somebody who left, once they are at no unit', async () => {
    await page.driver.get(`${stage.address}/house`);
    await page.says(/kept of persons/i);
    await page.click('Erase the name of Teo R.');
    await page.type('Why', 'left the house in spring');
    await page.click('Erase it');
    await page.says('Teo R. is at S26-');
  });
});

describe('a spare display', () => {
  it('is scanned into an order, and asks for nothing that only a vehicle has', async () => {
    const { orderId } = (await asta.get('/api/units?serial=S26-0412')) as UnitFound;
    await page.driver.get(`${stage.address}/orders/${orderId}`);
    await page.click('Scan arrivals');
    await page.tick('A spare display');
    await page.type('Serial', 'SP-01');
    await page.click('Take it in');
    await page.says('1 taken in');
    await page.scan('SP-01');
    await page.says('on no vehicle');
  });
});
