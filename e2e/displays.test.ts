import { fullMap } from '@decurio/core';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { DisplayMap } from '@decurio/core';
import { signIn as signInTo } from '../scripts/lib/api-client.mjs';
import { ROOT } from '../scripts/lib/paths.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage, HandlebarDisplay } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { startStage, type Stage } from './support/start.js';

const mapOf = (id: string) =>
  fullMap(JSON.parse(readFileSync(join(ROOT, `demo/maps/${id}.json`), 'utf8'))) as DisplayMap;
const folder = mkdtempSync(join(tmpdir(), 'decurio-maps-'));
const fileOf = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

let stage: Stage;
let page: BenchPage;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  await signIn('ines');
});
afterAll(() => stage.close());

async function signIn(name: string): Promise<void> {
  await stage.browser.driver.manage().deleteAllCookies();
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn(name);
  await page.says('NEXT FOR YOU');
}
const toTheTop = () => page.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.HOME).keyUp(Key.CONTROL).perform();
const go = (path: string) => page.driver.get(stage.address + path);

describe('a lead who edits a map', () => {
  it('sees every slip as it is typed, with its place, and the display goes on running', async () => {
    await go('/library/displayMap/tallow-four-key/edit');
    await page.says('all of it hangs together');
    await page.tick('As text');
    await (await page.find('.cm-content')).click();
    await toTheTop();
    await page.press(Key.DOWN, Key.DOWN, Key.END, Key.BACK_SPACE);
    await page.says('This is no JSON yet');
    await page.press(',', Key.LEFT, Key.LEFT, '!');
    await page.says('Must be lower-case letters');
    await page.says('still runs the last sound text');
    expect(await page.texts('[aria-label="Problems"] code')).toEqual(['id']);
    await page.click('Start over');
    await page.says('all of it hangs together');
  });

  it('keeps a change as a new version, a draft', async () => {
    await (await page.find('.cm-content')).click();
    await toTheTop();
    await page.press(Key.DOWN, Key.DOWN, Key.DOWN, Key.DOWN, Key.END, Key.LEFT, Key.LEFT, '2');
    await page.says('Tallow four-key, revision C2');
    await page.click('Keep as a new version');
    await page.says('Confirm version 2');
    expect(await page.texts('[aria-label="Versions"] tbody tr')).toEqual([
      expect.stringContaining('draft'),
      expect.stringContaining('by Ines M., Asta V.'),
    ]);
  });

  it('does not confirm what they wrote themselves', async () => {
    await page.type('Unit it was held against', 'S26-0417');
    await page.type('Firmware it shows', 'C 2.5');
    await page.press(Key.ENTER);
    await page.says('Whoever wrote a map does not confirm it');
  });

  it('nothing is released under the draft', async () => {
    await page.driver.get(`${stage.address}/bench`);
    await page.says('Scan a unit');
    await page.scan('S26-0418');
    await page.says('has not been begun');
    await page.press(' ');
    await page.says('is a draft: a second person confirms it');
  });

  it('a second person confirms it against a unit', async () => {
    await signIn('asta');
    await go('/library/displayMap/tallow-four-key/versions');
    await page.type('Unit it was held against', 'S26-0417');
    await page.type('Firmware it shows', 'C 2.5');
    await page.press(Key.ENTER);
    await page.says('Confirmed by Ines M., Asta V.');
    await page.says('DISPLAY MAP · VERSION 3');
    await page.saysNot('Confirm version');
  });
});

describe('two maps side by side', () => {
  it('show what was added, removed and turned round', async () => {
    await go('/library/displayMap/dunlin-b/compare');
    await page.says('Held against');
    await (await page.field('Held against')).click();
    await page.driver.findElement({ xpath: "//*[@role='option'][contains(., 'Dunlin, revision C')]" }).click();
    await page.says('only right');
    const rows = await page.texts('[aria-label="Codes side by side"] tbody tr');
    expect(rows.find((row) => row.startsWith('d5'))).toMatch(/0 off; 1 on[\s\S]*0 on; 1 off/);
    expect(rows.find((row) => row.startsWith('d9'))).toContain('Low-battery limp');
  });
});

describe("a map against the maker's table", () => {
  it('tells what the paper says otherwise', async () => {
    await go('/library/displayMap/dunlin-b/compare');
    await page.says("Against the maker's table");
    await (
      await page.find('[aria-label="The maker\'s table"]')
    ).sendKeys(
      fileOf('paper.csv', 'code;function;min;max;factory;access\nd7;Current limit;8;16;14;\nd10;Cruise;0;1;0;\n'),
    );
    await page.says('locked, although the paper says it can be set');
    const rows = await page.texts('[aria-label="Paper against map"] tbody tr');
    expect(rows.find((row) => row.startsWith('d10'))).toContain('only in the paper');
  });
});

describe('a dispute', () => {
  it('is raised by a technician and settled by a lead', async () => {
    await signIn('teo');
    await go('/library/displayMap/fescue-three-key/disputes');
    await page.says('Nobody has met anything');
    await page.saysNot('Settle');
    await page.type('What the display does', 'h8 goes to 30 on this one.');
    await page.click('Dispute it');
    await page.says('Teo R.');
    await signIn('ines');
    await go('/library/displayMap/fescue-three-key/disputes');
    await page.says('1 open');
    await (
      await page.find('[placeholder="How was it settled?"]')
    ).sendKeys('Seen on two; version 2 has it.', Key.ENTER);
    await page.says('Settled by Ines M.');
    await page.saysNot('1 open');
  });
});

describe('a new display', () => {
  it('from a file that is not sound is refused in words, with the path', async () => {
    await go('/library/displayMap/new');
    await page.says('Capture a live unit');
    const map = mapOf('dunlin-a');
    await (await page.find('input[aria-label="Bring in a map"]')).sendKeys(fileOf('broken.json', '{"format": '));
    await page.says('broken.json is not JSON');
    await (
      await page.find('input[aria-label="Bring in a map"]')
    ).sendKeys(fileOf('dangling.json', JSON.stringify({ ...map, keys: [] })));
    await page.says('keys:');
  });

  it('from a flat table begins as a draft around its codes, with the bad rows named', async () => {
    await page.type('Name of the display', 'Curlew five');
    await (
      await page.find('input[aria-label="Table of codes"]')
    ).sendKeys(
      fileOf(
        'codes.csv',
        'Code,Function,Min,Max,Values,Unit\nP1,Speed cap,6,40,,km/h\nP2,Walk assist,0,1,0=off 1=on,\nP3,,5,x,,\n',
      ),
    );
    await page.says('2 codes from the table');
    await page.says('line 4, max');
    await page.says('all of it hangs together');
    await page.click('Keep as a draft');
    await page.says('Confirm version 1');
    await page.says('Curlew five, revision ?');
  });

  it('is captured from a live unit: walked once, timed by the stopwatch', async () => {
    await go('/library/displayMap/new');
    await page.click('Begin a capture');
    await page.type('Name', 'Whimbrel');
    await page.type('Revision', 'K');
    await page.type('Serial of this unit', 'W70-0042');
    await page.click('Make the draft');
    await page.says('Measure with the stopwatch');
    await page.click('Last press: start');
    await page.says(/[1-9]\.\d s/);
    await page.click('It closed: stop');
    for (const [i, values] of [
      ['c1', '3', '1', '5'],
      ['c2', '31,5', '28', '42'],
    ].entries()) {
      for (const [n, column] of ['Name', 'Value', 'Lowest', 'Highest'].entries())
        await (await page.find(`[aria-label="${column} of entry ${i + 1}"]`)).sendKeys(values[n] ?? '');
    }
    await page.click('Make the draft');
    await page.says('Whimbrel, revision K: 2 codes');
    await page.click('Keep as a draft');
    await page.says('Confirm version 1');
  });
});

describe('a unit set through a service connection', () => {
  it('is keyed in by a list of instructions, in every pack profile, and read back', async () => {
    const asta = await signInTo(stage.address, 'asta', DEMO_PASSWORD, 'office');
    const type = JSON.parse(readFileSync(join(ROOT, 'demo/types/withy-700.json'), 'utf8')) as { pack: object };
    await asta.post('/api/library', {
      kind: 'vehicleType',
      document: {
        ...type,
        id: 'withy-link',
        name: 'Withy link',
        maps: ['teasel-link'],
        pack: { ...type.pack, cellsInSeries: 13, labelV: 48 },
      },
    });
    const intake = crypto.randomUUID();
    await asta.postText(
      `/api/intakes?id=${intake}&fileName=link.csv`,
      'order,customer,due,place,class,type,serial\n2701,Lantern Street Couriers,2026-12-05 12:00,Port Isel,pedelec-25,Withy link,WL-00001',
      'text/csv',
    );
    await asta.post(`/api/intakes/${intake}/take`, {});
    await go('/bench');
    await page.says('Scan a unit');
    await page.scan('WL-00001');
    await page.begin();
    const link = new HandlebarDisplay(mapOf('teasel-link'));
    await page.toKeyIn(link, '50.1');
    await page.says('Choose, write, reconnect, read again');
    const lines = await page.texts('[aria-label="Instructions"] li');
    expect(lines.filter((line) => line.startsWith('Switch to pack profile'))).toEqual([
      'Switch to pack profile A.',
      'Switch to pack profile B.',
    ]);
    expect(lines.filter((line) => line === 'Choose speed limit, speed cap: 24 km/h.')).toHaveLength(2);
    expect(
      await page.driver.executeScript(
        'return document.documentElement.scrollHeight - document.documentElement.clientHeight',
      ),
    ).toBe(0);
    await page.press(' ');
    link.state = new HandlebarDisplay(mapOf('teasel-link'), { 'speed limit': 24, current: 13, 'low cut': 40.3 }).state;
    await page.restart(link);
    await page.says('through the service plug');
    await page.readBack(link);
    await page.says('Every code shows what it must');
  });
});

describe('displays that look alike, on the bench', () => {
  const display = new HandlebarDisplay(mapOf('dunlin-c'));

  it('are told apart by one question, and the setup is the right one', async () => {
    await go('/bench');
    await page.says('Scan a unit');
    await page.scan('W70-0012');
    await page.begin();
    await page.says('One question tells');
    await page.type('Pack by meter', '39.8');
    await page.click('9');
    await page.says('It is a Dunlin, revision C');
    await page.click('Yes, go on with it');
    await page.says('The display is a Dunlin, revision C');
    expect(await (await page.field('Pack by meter')).getAttribute('value')).toBe('39.8');
    await page.type('Odometer', '3');
    await page.tick('No cable pinched');
    await page.tick('Display clamp');
    await page.tick('dry, cool');
    await page.press(Key.ENTER);
    await page.makeSafe();
    await page.asFound(display);
    await page.says('Hold + and − for 2.5 s');
  });

  it('are keyed by a plan for that revision, and read back', async () => {
    await page.keyIn(display);
    expect(display.state.stored).toMatchObject({ d1: 28, d5: 1, d6: 15 });
    await page.press(' ');
    await page.restart(display);
    await page.readBack(display);
    await page.says('Every code shows what it must');
  });

  it('are remembered for the next of the batch', async () => {
    await go('/bench');
    await page.says('Scan a unit');
    await page.scan('W70-0013');
    await page.begin();
    await page.says('W70-0012 of this batch carries a Dunlin, revision C');
    await page.click('The same');
    await page.says('The display is a Dunlin, revision C');
  });

  it('and unlike all of them, are captured', async () => {
    await go('/bench');
    await page.says('Scan a unit');
    await page.scan('W70-0014');
    await page.begin();
    await page.click('Not sure: ask me');
    await page.click('Something else');
    await page.says('No display of the library is like this');
    await page.click('Capture it');
    await page.says('Begin a capture');
  });
});
