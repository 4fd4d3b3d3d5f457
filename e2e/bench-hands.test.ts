import { Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Evidence } from '@decurio/core';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { playVisit } from '../scripts/lib/load-demo.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { viewOf, writeFrom } from './support/other-stand.js';
import { photographFile } from './support/photograph.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: BenchPage;
let teo: Client;
let ines: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  page = new BenchPage(stage.browser.driver);
  teo = await signIn(stage.address, 'teo', DEMO_PASSWORD, 'bay 3');
  ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const view = (serial: string) => viewOf(ines, serial);
const write = (serial: string, kind: string, data: object, person = ines) => writeFrom(person, serial, kind, data);
/** A unit that stands on bay 3, worked as far as `until`. */
const prepared = (serial: string, until: string) =>
  playVisit(teo, serial, { serials: [], by: 'teo', station: 'bay 3', until }, { at: Date.now() - 3_600_000 });
const open = async (serial: string): Promise<void> => {
  await page.driver.get(`${stage.address}/bench`);
  await page.says('Scan a unit');
  await page.scan(serial);
};
const found = (evidence: readonly Evidence[], kind: string) => evidence.filter((entry) => entry.kind === kind);

describe('Line', () => {
  it('changes as another stand works, without being asked', async () => {
    await page.driver.get(`${stage.address}/line`);
    await page.says('0418');
    await playVisit(
      ines,
      'S26-0418',
      { serials: [], by: 'ines', station: 'office', until: 'checkedIn', packV: 46.9 },
      { at: Date.now() - 60_000 },
    );
    await page.says('46.9 V');
  });
});

describe('a unit on another stand', () => {
  it('may be looked at, and is taken over knowingly; its cautions are asked again', async () => {
    await open('S26-0413');
    await page.says('This unit is on bay 1');
    expect(await page.findAll('[aria-label="Next presses"]')).toHaveLength(0);
    await page.press('o');
    await page.makeSafe();
    await page.says('Shows something else');
    await expect
      .poll(async () =>
        found((await view('S26-0413')).evidence, 'takenOver').map(({ station, data }) => [station, data]),
      )
      .toEqual([['bay 3', { from: 'bay 1' }]]);
  });

  it('that was taken away meanwhile refuses what is entered, keeps it, and says whose it is', async () => {
    const elsewhere = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'bay 9');
    await stage.browser.driver.sendDevToolsCommand('Network.enable', {});
    const network = (up: boolean) =>
      stage.browser.driver.sendDevToolsCommand('Network.emulateNetworkConditions', {
        offline: !up,
        latency: 0,
        downloadThroughput: -1,
        uploadThroughput: -1,
      });
    await network(false);
    try {
      await page.press('d');
      await page.says('What does the glass show?');
      await page.type('Value, as shown', '4');
      await page.press(Key.ENTER);
      await page.says('entry waits here');
      await writeFrom(elsewhere, 'S26-0413', 'takenOver', { from: 'bay 3' });
    } finally {
      await network(true);
    }
    await page.says('1 entry was not taken');
    await page.says('seen on the glass');
    await page.says('This unit is on bay 9');
    await page.click('They are not true any more, drop them');
    await page.saysNot('was not taken');
  });
});

describe('several units at once', () => {
  it('one restarts in the background while the next is worked on, and calls back', async () => {
    await prepared('S26-0419', 'restart');
    await prepared('S26-0420', 'foundAll');
    await open('S26-0420');
    await page.says('Shows something else');
    await open('S26-0419');
    await page.says('RESTART');
    await page.press(' ', ' ', ' ');
    await page.says('Waiting');
    await page.press('g');
    await page.says('Shows something else');
    await page.says('S26-0419 is ready');
    await page.click('S26-0419 is ready');
    await page.says('Restarted, to read back');
  });
});

describe('ways to key', () => {
  it('code by code: all presses of a code at once, one key when they are done', async () => {
    await open('S26-0420');
    await page.says('Shows something else');
    await page.press('w');
    await page.says('L1.1, units');
    await page.press(' ');
    await page.says('L1.2, brightness');
    expect(await page.texts('[aria-label="Presses of this code"] li')).toEqual(['Press set once', 'Press + 2 times']);
    await page.press(' ');
    await page.says('7 codes to go');
    await page.says('L2.1, assist start');
  });

  it('paced: presses pass by themselves until stopped', async () => {
    await page.press('w');
    await page.says('Go on');
    await page.press(' ');
    await page.says('6 codes to go');
    await page.press(' ');
    await page.says('Go on');
    await page.press('w');
    await page.says('Done, next press');
  });

  it('the menu closed: what was stored stands, the rest is planned anew', async () => {
    await page.press('t');
    await page.says('Press 1 of');
  });
});

describe('what was found', () => {
  it('can be restored as a plan, and key-in begins anew', async () => {
    await page.press('b');
    await page.says('back to what was found');
    expect((await page.texts('[aria-label="Presses back"] li')).at(-1)).toContain('hold set for 1.5 s');
    await page.click('All of it is back, record it');
    await page.saysNot('back to what was found');
    await page.says('7 codes to go');
  });
});

describe('an open dialog', () => {
  const dialogs = () => page.findAll('[role="dialog"]');

  it('keeps every key from the step beneath, wherever the focus lies', async () => {
    await page.nothingWaits();
    const before = (await view('S26-0420')).evidence.length;
    await page.press('h');
    await page.find('[role="dialog"]');
    await page.driver.executeScript('document.activeElement.blur()');
    await page.press('u', 'r', ' ', 'p');
    expect(await dialogs()).toHaveLength(1);
    await page.press(Key.ESCAPE);
    await page.driver.wait(async () => (await dialogs()).length === 0, 10_000, 'the dialog does not close');
    expect((await view('S26-0420')).evidence).toHaveLength(before);
  });

  it('that says how to cut power is one key away from within a field too', async () => {
    await page.press('/');
    await page.press(Key.F9);
    await page.says('Hands off the throttle');
    await page.press(Key.ESCAPE);
    await page.saysNot('Hands off the throttle');
    await page.driver.executeScript('document.activeElement.blur()');
  });
});

describe('a part replaced', () => {
  it('says what it voids, carries the kilometres, and sends the unit back', async () => {
    await page.press('r');
    await page.says('A part was replaced');
    await page.choose('Part', 'Display');
    await page.says('Kilometres are carried forward');
    await page.type('Old odometer', '412');
    await page.type('What was changed, and why', 'cracked glass');
    await page.click('Record it');
    await page.says('CHECK IN');
    await expect.poll(async () => found((await view('S26-0420')).evidence, 'partReplaced')).toHaveLength(1);
  });
});

describe('a code that disagrees', () => {
  it('is asked twice without its target, then sends the unit back to key in with it alone', async () => {
    await prepared('S26-0422', 'readBack');
    await open('S26-0422');
    await page.find('[data-code]');
    for (let asked = await page.asked(); asked !== null; asked = await page.asked()) {
      const [, label = ''] = /^(.*) (\d+)$/.exec(asked) ?? [];
      const { evidence } = await view('S26-0422');
      const opened = evidence[0]?.kind === 'opened' ? evidence[0].data : null;
      const target = opened?.setup.targets.find((t) => t.label === label)?.raw ?? opened?.factory[label];
      await page.press(label === 'L4.3' ? '33' : String(target), Key.ENTER);
      const was = asked;
      await page.driver.wait(async () => (await page.asked()) !== was, 10_000, `${was} was not taken`);
    }
    await page.says('1 code disagrees');
    await page.says('L4.3 shows 33');
    await page.press(' ');
    await page.says('1 code to go');
  });
});

describe('a photograph', () => {
  it('is made small and loses the place it was taken at, and its hash stands in the evidence', async () => {
    await open('S26-0420');
    await page.says('Pack by meter');
    await (await page.find('input[aria-label="Photograph: Damage"]')).sendKeys(await photographFile());
    await page.find('img[alt="Photograph: Damage"]');
    await expect.poll(async () => found((await view('S26-0420')).evidence, 'photographed')).toHaveLength(1);
    const [entry] = found((await view('S26-0420')).evidence, 'photographed');
    const { photoId } = entry?.data as { photoId: string };
    const answer = await fetch(`${stage.address}/api/photos/${photoId}`, { headers: { cookie: ines.cookie } });
    const stored = await sharp(Buffer.from(await answer.arrayBuffer())).metadata();
    expect([stored.width, stored.exif]).toEqual([1600, undefined]);
  });
});

describe('holding', () => {
  it('a read-back can wait for another pair of eyes, and how to cut power is one key away while digits are typed', async () => {
    await open('S26-0412');
    await page.says('This unit is on bay 1');
    await page.press('o');
    await page.makeSafe();
    await page.find('[data-code]');
    await page.press('p');
    await page.says('Pack key to OFF, or pull the pack.');
    await page.press(Key.ESCAPE);
    await write('S26-0412', 'held', { reason: 'other', words: 'Wait for the second reader.' });
    await page.says('Wait for the second reader.');
  });
});
