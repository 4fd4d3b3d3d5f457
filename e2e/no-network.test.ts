import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fullMap, type DisplayMap, type EvidenceKind, type VisitState } from '@decurio/core';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { demoText } from '../scripts/lib/demo-files.mjs';
import { ROOT } from '../scripts/lib/paths.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage, HandlebarDisplay } from './pages/bench-page.js';
import { benchNow, prove } from './pages/proving.js';
import { SignInPage } from './pages/sign-in-page.js';
import { misfitsAtSizes, violationsOn } from './support/measures.js';
import { viewOf } from './support/other-stand.js';
import { startStage, type Stage } from './support/start.js';

const SERIAL = 'S26-0420';
const OTHER = 'S26-0421';
const display = new HandlebarDisplay(fullMap(JSON.parse(demoText('maps/tallow-four-key.json'))) as DisplayMap);

/** The built app in a folder of its own, so that a test may put another release there. */
const webRoot = mkdtempSync(join(tmpdir(), 'decurio-web-'));
cpSync(join(ROOT, 'web', 'dist', 'app'), webRoot, { recursive: true });

let stage: Stage;
let bench: BenchPage;
/** The unit as it stood when the server was last heard. */
let known: VisitState;
beforeAll(async () => {
  stage = await startStage({ demo: true, webRoot });
  bench = new BenchPage(stage.browser.driver);
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo');
  await bench.says('NEXT FOR YOU');
});
afterAll(async () => {
  await stage.close();
  rmSync(webRoot, { recursive: true, force: true });
});

/** Until every file of the app is on the device. */
const installed = () =>
  stage.browser.driver.executeAsyncScript(
    'const [done] = arguments; void navigator.serviceWorker.ready.then(() => done());',
  );
const reload = () => stage.browser.driver.navigate().refresh();
const asTeo = (): Promise<Client> => signIn(stage.address, 'teo', DEMO_PASSWORD, 'office');
const kindsOf = async (person: Client): Promise<readonly EvidenceKind[]> =>
  (await viewOf(person, SERIAL)).evidence.map(({ kind }) => kind);

async function spots(...readings: readonly (readonly [trueKmh: string, shown: string])[]): Promise<void> {
  await bench.type('Sure to ± km/h', '0.2');
  await (await bench.field('True, km/h')).click();
  for (const [trueKmh, shown] of readings) await bench.spot(trueKmh, shown);
}

describe('a stand whose server is gone', () => {
  it('opens again at the press that was due, with the entry that never left', async () => {
    await bench.scan(SERIAL);
    await bench.begin();
    await bench.toKeyIn(display);
    await bench.says('Press 1 of');
    await bench.nothingWaits();
    known = await benchNow(bench);
    await installed();
    await stage.server.stop();
    await bench.keyIn(display, (_order, pressed) => pressed === 12);
    await reload();
    await bench.says('No server since');
    await bench.says(/What you see is as of \d\d:\d\d/);
    await bench.says(/\d+ entr(y waits|ies wait) here/);
    await bench.find('[aria-label="Next presses"] [aria-current="step"]');
    expect((await bench.due())?.count).toMatch(/^13 of/);
  });

  it('keys in, restarts and reads back without it', async () => {
    await bench.keyIn(display);
    await bench.restart(display);
    await bench.readBack(display);
    await bench.says('Every code shows what it must');
    await bench.press(' ');
  });

  it('finds a unit that was open here by a scan, and says what only the server can do', async () => {
    await bench.driver.get(`${stage.address}/bench`);
    await bench.says('Scan a unit');
    await bench.says('No server since');
    expect(await violationsOn(stage.browser.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
    await bench.scanned(OTHER);
    await bench.says('The server does not answer');
    await bench.says('THESE GO ON WITHOUT THE SERVER');
    expect(await bench.texts('[aria-label="Kept on this device"] a')).toEqual([SERIAL]);
    await bench.scan(SERIAL);
    await bench.says(/Calibrate/i);
  });

  it('calibrates without it: the wheel that was fitted decides the cap, which is keyed and read again', async () => {
    await bench.find('[aria-label="Reference"]');
    await spots(['9.8', '9.4'], ['15.6', '15'], ['20.3', '19.6'], ['24.6', '23.7']);
    await bench.says('L3.2 wheel 28 · L4.1 cap 25');
    await (await bench.field('True, km/h')).click();
    await bench.press(' ');
    await bench.says('2 codes to go');
    await bench.says('Fitted to 4 readings, and chosen by Teo R.: 28.');
    await bench.says('Worked out on this stand');
    await reload();
    await bench.says('2 codes to go');
    await bench.keyIn(display);
    await bench.restart(display);
    await bench.readBack(display);
    await bench.press(' ');
    await bench.says('0 of 2 readings with the codes chosen');
    await spots(['12', '12.5'], ['23.2', '24.1']);
    await bench.says('As predicted');
    await bench.press(' ');
    await bench.says('No server since');
  });

  it('proves without it, and waits with the seal', async () => {
    await bench.says(/checks before delivery|of \d+ · wheel up/i);
    await bench.makeChecks();
    await prove(bench, () => false, known);
    await bench.says('Sign off and seal');
  });

  it('sends every entry once as soon as the server answers, and seals', async () => {
    await stage.restartServer();
    await bench.saysNot('No server since');
    await bench.nothingWaits();
    await bench.saysNot('Worked out on this stand');
    const teo = await asTeo();
    const kinds = await kindsOf(teo);
    for (const once of ['wheelFitted', 'calibrated', 'proved'] as const)
      expect(kinds.filter((kind) => kind === once)).toHaveLength(1);
    expect(kinds[kinds.indexOf('wheelFitted') + 1]).toBe('setupRevised');
    await bench.signOff();
    expect((await kindsOf(teo)).at(-1)).toBe('signedOff');
  });
});

describe('a device that keeps nothing', () => {
  it('says so at once, and still sends what is entered', async () => {
    const { driver } = stage.browser;
    const { identifier } = (await driver.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source: `IDBFactory.prototype.open = () => { throw new DOMException('The user denied permission.', 'SecurityError'); };`,
    })) as unknown as { identifier: string };
    await driver.get(`${stage.address}/bench`);
    await bench.says('This device keeps nothing');
    await bench.says('Entries go straight to the server');
    await bench.scan(OTHER);
    await bench.begin();
    await bench.checkIn();
    const teo = await asTeo();
    await expect.poll(async () => (await viewOf(teo, OTHER)).evidence.map(({ kind }) => kind)).toContain('checkedIn');
    await stage.server.stop();
    await bench.makeSafe();
    await bench.says('One entry is in this page alone, and the server does not answer');
    await stage.restartServer();
    await bench.says('Entries go straight to the server');
    await expect.poll(async () => (await viewOf(teo, OTHER)).evidence.map(({ kind }) => kind)).toContain('madeSafe');
    await driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', { identifier });
  });
});

describe('another release of the house, while a unit is on the stand', () => {
  it('is told', async () => {
    const { driver } = stage.browser;
    await driver.get(`${stage.address}/bench`);
    await bench.says('Scan a unit');
    await bench.scan(OTHER);
    putNextRelease();
    await stage.server.stop();
    await bench.says('No server since');
    await stage.restartServer();
    await bench.says('New release: load it');
  });

  it('waits for what is not sent yet, and loses nothing that is being typed', async () => {
    const { driver } = stage.browser;
    await bench.find('[data-code]');
    const first = /^\S+/.exec((await bench.asked()) ?? '')?.[0] ?? '';
    const shows = display.shows(first);
    expect(shows).toMatch(/^\d+$/);
    await bench.press(...shows);
    await stage.server.stop();
    await bench.says('No server since');
    // Answers nothing to entries, and is there for all else.
    await driver.sendDevToolsCommand('Fetch.enable', { patterns: [{ urlPattern: '*/evidence' }] });
    await stage.restartServer();
    await bench.saysNot('No server since');
    expect(await (await bench.field('What does the glass show?')).getAttribute('value')).toBe(shows);
    await bench.press(Key.ENTER);
    await bench.says('New release: once all is sent');
    await driver.sendDevToolsCommand('Fetch.disable', {});
    await bench.nothingWaits();
    const read = (await viewOf(await asTeo(), OTHER)).evidence.at(-1);
    expect(read).toMatchObject({ kind: 'asFoundRead', data: { label: first } });
  });

  it('is loaded whole: from then on it opens without the server too', async () => {
    const { driver } = stage.browser;
    await bench.says('New release: load it');
    await driver.executeScript('window.isOldPage = true');
    await bench.click('New release: load it');
    await driver.wait(
      async () => (await driver.executeScript('return window.isOldPage ?? false')) === false,
      15_000,
      'the old page is still there',
    );
    await bench.says(OTHER);
    await bench.saysNot('New release');
    await stage.server.stop();
    await reload();
    await bench.says('No server since');
    expect(await driver.executeScript('return document.querySelector("script[src]").getAttribute("src")')).toContain(
      '-next.js',
    );
    await stage.restartServer();
    await bench.saysNot('No server since');
  });
});

/** The same app under another main script, as a release that changed it has. */
function putNextRelease(): void {
  const main = /assets\/(index-[^"]+)\.js"/.exec(readFileSync(join(webRoot, 'index.html'), 'utf8'))?.[1] ?? '';
  writeFileSync(join(webRoot, 'assets', `${main}-next.js`), `import './${main}.js';`);
  change('index.html', (html) => html.replace(`${main}.js`, `${main}-next.js`));
  // Another page and one more file, and the list of files says so.
  const page = /\{url:"index\.html",revision:"[0-9a-f]+"\}/;
  const next = `{url:"index.html",revision:"next"},{url:"assets/${main}-next.js",revision:null}`;
  change('sw.js', (list) => list.replace(page, next));
}

function change(name: string, how: (text: string) => string): void {
  const path = join(webRoot, name);
  const before = readFileSync(path, 'utf8');
  const after = how(before);
  if (after === before) throw new Error(`${name} is not as this test takes it to be`);
  writeFileSync(path, after);
  for (const packed of [`${path}.br`, `${path}.gz`]) rmSync(packed);
}
