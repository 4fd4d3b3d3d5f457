import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { OrderView, Page as PageOf, UnitFound } from '@decurio/contract';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { asDatabaseOwner } from '../server/testing/test-server.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { viewOf } from './support/other-stand.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: BenchPage;
let ines: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo', DEMO_PASSWORD, 'bay 1');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const asOwner = (sql: string, values: unknown[]) => {
  const ownerUrl = new URL(inject('ownerUrl'));
  ownerUrl.pathname = new URL(stage.databaseUrl).pathname;
  return asDatabaseOwner({ ownerUrl: ownerUrl.href }, sql, values);
};

describe('an order that is late', () => {
  it('says so in words wherever its time stands', async () => {
    const { items } = (await ines.get('/api/orders')) as PageOf<OrderView>;
    const late = items.find(({ number }) => number === '2611');
    for (const path of ['/line', '/orders', `/orders/${late?.id}`]) {
      await page.driver.get(stage.address + path);
      await page.says(/late by \d+ (min|h|days)/);
    }
    await page.driver.get(`${stage.address}/orders`);
    await page.says('What was promised');
    const rows = await page.texts('[aria-label="Orders, newest first"] tbody tr');
    expect(rows.filter((row) => row.includes('late')).map((row) => row.slice(0, 4))).toEqual(['2611']);
  });
});

describe('where one is signed in', () => {
  it('is listed, and ended there from here', async () => {
    const tablet = await signIn(stage.address, 'teo', DEMO_PASSWORD, 'the lost tablet');
    await page.click('Teo R.');
    await page.click('Where you are signed in');
    await page.says('the lost tablet');
    await page.says('this one');
    await page.click('End it at the lost tablet');
    await page.saysNot('End it at the lost tablet');
    await page.says('this one');
    await expect(tablet.get('/api/orders')).rejects.toThrow('401');
  });
});

describe('a device whose clock is off', () => {
  it('is told, works on, and its entries carry the time of the house with a note', async () => {
    await stage.browser.driver.sendDevToolsCommand('Page.enable', {});
    const added = (await stage.browser.driver.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source: '{ const now = Date.now.bind(Date); Date.now = () => now() + 420_000; }',
    })) as unknown as { identifier: string };
    await page.driver.get(`${stage.address}/bench`);
    await page.says("This device's clock is 7 min ahead");
    await page.scan('S26-0414');
    await page.makeSafe();
    await expect.poll(async () => (await viewOf(ines, 'S26-0414')).evidence.at(-1)?.kind).toBe('madeSafe');
    const entry = (await viewOf(ines, 'S26-0414')).evidence.at(-1);
    expect(Math.round((entry?.clockOffS ?? 0) / 10)).toBe(42);
    expect(Math.abs(Date.parse(entry?.at ?? '') - Date.parse(entry?.receivedAt ?? ''))).toBeLessThan(60_000);
    await stage.browser.driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', {
      identifier: added.identifier,
    });
    await page.driver.get(`${stage.address}/line`);
    await page.says('NEXT FOR YOU');
    await page.saysNot("This device's clock");
  });
});

describe('a record that somebody altered', () => {
  it('says everything that is not as it was sealed', async () => {
    const { visitId } = (await ines.get('/api/units?serial=S26-0402')) as UnitFound;
    await asOwner("UPDATE visit SET customer = 'Somebody Else', sealedBy = 'Nobody' WHERE id = ?", [visitId]);
    await page.driver.get(`${stage.address}/ledger/${visitId}`);
    await page.click('Verify the seal');
    await page.says('The seal does not hold');
    await page.says('Customer: the ledger shows Somebody Else, the entries say Causeway Holiday Park.');
    expect(await page.texts('[aria-label="What else is not as it was sealed"] li')).toEqual([
      'Who sealed it: the ledger shows Nobody, the entries say Teo R.',
    ]);
  });

  it('and whose entries are not whole says that, and what is amiss', async () => {
    const { visitId } = (await ines.get('/api/units?serial=S26-0403')) as UnitFound;
    await asOwner("UPDATE evidence SET body = 'null' WHERE visitId = ? AND seq = 1", [visitId]);
    await page.driver.get(`${stage.address}/ledger/${visitId}`);
    await page.says('This record is damaged');
    await page.press(Key.TAB);
    await page.click('Verify the seal');
    await page.says('Entry 1 cannot be read any more.');
  });
});
