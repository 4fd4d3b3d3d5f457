import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import dayjs from 'dayjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkRecord } from '@decurio/core';
import { demoText } from '../scripts/lib/demo-files.mjs';
import { decide } from '../scripts/lib/load-demo.mjs';
import type { BenchPage } from './pages/bench-page.js';
import { OrdersPage } from './pages/orders-page.js';
import { StandInBench } from './pages/stand-in-bench.js';
import { SignInPage } from './pages/sign-in-page.js';
import { startStage, type Stage } from './support/start.js';

/** Read once: its days follow from the day, and a test may run over midnight. */
const orderFile = demoText('orders/causeway-2614.csv');
const downloads = mkdtempSync(join(tmpdir(), 'decurio-downloads-'));

let stage: Stage;
let bench: BenchPage;
let work: StandInBench;
beforeAll(async () => {
  stage = await startStage({ demo: true, downloads });
  work = new StandInBench(stage.browser.driver, stage.address);
  bench = work.bench;
});
afterAll(() => stage.close());

const downloaded = async (name: string): Promise<Buffer> => {
  const path = join(downloads, name);
  await stage.browser.driver.wait(() => existsSync(path), 15_000, `${name} was not downloaded`);
  return readFileSync(path);
};

describe('a technician with a new order', () => {
  it('signs in', async () => {
    const page = await new SignInPage(stage.browser.driver).open(stage.address);
    await page.signIn('teo');
    await page.says('Causeway Holiday Park'.toUpperCase());
    await page.says('Teo R. · bay 3');
  });

  it('drops the order file, sees what it holds, and takes it', async () => {
    const orders = await new OrdersPage(stage.browser.driver).open(stage.address);
    await orders.dropNew('causeway-2614.csv', orderFile);
    await orders.says('Order 2614 for Causeway Holiday Park');
    await orders.says('24 units ready to take: 24 Samphire 26');
    await orders.says('legal values checked by Ines M.');
    await orders.click('Take 24 units');
    await orders.says('24 units taken into order 2614');
    await decide(stage.address, {
      by: 'ines',
      orders: ['2614'],
      finding: 'settingsInReach:unit',
      words: 'Letter HO-112: a menu PIN on each unit.',
    });
    await orders.click('See order 2614 on Line');
  });

  it('sees 24 units in ranks of ten', async () => {
    await bench.says(
      `24 units, out on ${dayjs(/\d{4}-\d\d-\d\d \d\d:\d\d/.exec(orderFile)?.[0]).format('ddd D MMM HH:mm')}`,
    );
    const ranks = await bench.findAll('ol > li > ol');
    expect(await Promise.all(ranks.map(async (rank) => (await rank.findElements({ css: 'a' })).length))).toEqual([
      10, 10, 4,
    ]);
  });

  it('scans a serial, begins, and checks the unit in', async () => {
    await bench.scan('S26-0501');
    await bench.begin();
    await bench.checkIn('41.2');
    await bench.says('Before hands go on');
    expect(await bench.texts('[aria-label="Steps of this visit"] li')).toHaveLength(10);
  });

  it('makes it safe, caution by caution, and reads every code as found', async () => {
    await bench.makeSafe();
    await bench.says('the first 3 are read in full');
    await work.unit.take();
    await work.asFound();
    await bench.says('Hold set and + for 2 s');
  });

  it('keys in what the screen orders, and restarts the vehicle act by act', async () => {
    await work.keyIn();
    await work.restart();
  });

  it('reads back blind: no target is on the page before all is read', async () => {
    await bench.says('READ SO FAR');
    expect(await bench.text()).not.toMatch(/TARGET|25 km\/h: the class/);
    await work.read('READ BACK');
    await bench.says('Every code shows what it must');
    const rows = await bench.texts('[aria-label="Verdict per code"] tbody tr');
    expect(rows).toHaveLength(14);
    expect(rows.filter((row) => row.includes('agrees'))).toHaveLength(14);
    await bench.press(' ');
    await bench.leaveOut();
  });

  it('signs off, told what is not proved', async () => {
    await bench.says('Measured on this unit: where drive ends');
    await bench.says('How true the display counts below that was not measured');
    await bench.says('Left out: calibrate');
    await bench.signOff();
    await bench.says(/HAND OVER · SEALED [0-9A-F ]{19}/i);
  });

  it('finds the unit in the ledger with every reading, and its seal holds', async () => {
    await bench.click('Its record');
    await bench.says('HOW IT LEFT');
    const entries = await bench.texts('[aria-label="Entries"] tbody tr');
    expect(entries.filter((row) => row.includes('Read back') && row.includes('L4.1'))).toHaveLength(1);
    expect(entries.every((row) => row.includes('Teo R.'))).toBe(true);
    await bench.click('Verify the seal');
    await bench.says('The seal holds');
  });

  it('prints the certificate and exports the record, which proves itself', async () => {
    await bench.click('Certificate (PDF)');
    const certificate = (await downloaded('S26-0501-certificate.pdf')).toString('latin1');
    expect(certificate.slice(0, 5)).toBe('%PDF-');
    expect(certificate.match(/\/Type \/Page\b/g)).toHaveLength(2);
    await bench.click('Record (JSON)');
    const record = JSON.parse((await downloaded('S26-0501-record.json')).toString()) as unknown;
    expect(checkRecord(record)).toMatchObject({ ok: true });
  });

  it('finds it again by its serial, and may bring the record file back', async () => {
    await bench.driver.get(`${stage.address}/ledger`);
    await bench.says('Sealed'.toUpperCase());
    await (await bench.find('[aria-label="Find by serial, order or customer"]')).sendKeys('S26-0501');
    await bench.driver.wait(
      async () => (await bench.texts('[aria-label="Sealed visits"] tbody tr')).length === 1,
      10_000,
    );
    await (await bench.find('input[type=file]')).sendKeys(join(downloads, 'S26-0501-record.json'));
    await bench.says('The seal holds');
    await bench.press('\uE00C');
    await bench.saysNot('The seal holds');
    // The dialog gives the focus back to the search, where a scan is a search.
    await bench.driver.get(`${stage.address}/line`);
    await bench.says('NEXT FOR YOU');
    await bench.scan('S26-0501');
    // Sealed and still in the house: it is handed over next.
    expect(await bench.path()).toMatch(/^\/bench\//);
    await bench.says('its papers, as they will print');
  });
});
