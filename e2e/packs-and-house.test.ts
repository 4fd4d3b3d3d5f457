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
