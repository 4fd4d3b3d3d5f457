import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Evidence } from '@decurio/core';
import type { BenchView, UnitFound } from '@decurio/contract';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { StandIn } from './pages/stand-in.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let bench: BenchPage;
let unit: StandIn;
let ines: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  bench = new BenchPage(stage.browser.driver);
  unit = new StandIn(stage.browser.driver);
  ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo');
  await bench.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const viewOf = async (serial: string): Promise<BenchView> => {
  const { id } = (await ines.get(`/api/units?serial=${serial}`)) as UnitFound;
  return (await ines.get(`/api/units/${id}/bench`)) as BenchView;
};
const kinds = (evidence: readonly Evidence[], kind: string) => evidence.filter((entry) => entry.kind === kind);

/** Puts a unit on the bench with a stand-in for it, and works it up to its first press. */
async function toKeyIn(serial: string, before?: () => Promise<void>): Promise<void> {
  await bench.driver.get(`${stage.address}/bench`);
  await bench.says('Scan a unit');
  await bench.scan(serial);
  await bench.begin();
  await bench.checkIn('41.2');
  await bench.makeSafe();
  await unit.take();
  await before?.();
  await read('AS FOUND');
  await bench.says('codes read');
  await bench.press(' ');
  await bench.says('Shows something else');
  await unit.closeMenu();
}

/** Reads code after code from the glass and types what it shows; `misread` is typed instead, once. */
async function read(where: string, misread: Readonly<Record<string, string>> = {}): Promise<void> {
  await bench.says(where);
  await bench.find('[data-code]');
  for (let asked = await bench.asked(); asked !== null; asked = await bench.asked()) {
    const [, label = '', reading] = /^(.*) (\d+)$/.exec(asked) ?? [];
    await unit.goTo(label);
    await (await bench.field('What does the glass show?')).sendKeys((reading === '1' ? misread[label] : undefined) ?? (await unit.value()), Key.ENTER);
    const was = asked;
    await bench.driver.wait(async () => (await bench.asked()) !== was, 10_000, `${was} was not taken`);
  }
}

/** What the screen says that the glass should show. */
const expected = async (): Promise<string> => (await bench.texts('[aria-label="Display should show"] .hidden-words')).join(' ').trim();

/**
 * Presses on the stand-in what the screen orders, until the menu is left, `stop` says so, or the glass shows a value
 * other than the screen expects; gives that value.
 */
async function keyIn(stop: (pressed: number) => boolean = () => false): Promise<string | null> {
  await bench.find('[aria-label="Next presses"]');
  for (let pressed = 0; ; pressed++) {
    const due = await bench.due();
    if (due === null || stop(pressed)) return null;
    await unit.obey(due.order);
    await bench.press(' ', ...((await bench.text()).includes('Holding now, count') ? [' '] : []));
    await bench.driver.wait(async () => (await bench.due())?.count !== due.count, 10_000, `press ${due.count} did not pass`);
    const [should, shows] = [await expected(), await unit.glass()];
    if (should.startsWith('L') && shows.startsWith('L') && should !== shows) return unit.value();
  }
}

async function restart(): Promise<void> {
  await bench.press(' ');
  await bench.says('RESTART');
  await unit.restart();
  await bench.press(' ', ' ', ' ');
  await bench.says('Waiting');
  await bench.says('Done, next');
  await bench.press(' ');
  await bench.says('Restarted, to read back');
  await bench.press(' ');
}

async function signOff(): Promise<void> {
  await bench.says('Every code shows what it must');
  await bench.press(' ');
  await bench.leaveOut();
  await bench.signOff();
}

describe('a whole visit on the stand-in unit, by its own keys', () => {
  it('goes clean from check in to the seal', async () => {
    await toKeyIn('S26-0421');
    await keyIn();
    await restart();
    await read('READ BACK');
    await signOff();
    const { evidence } = await viewOf('S26-0421');
    expect(kinds(evidence, 'codeKeyed').length).toBe(8);
    expect(evidence.at(-1)?.kind).toBe('signedOff');
  }, 120_000);

  it('is planned anew when the menu closes by itself, and finds a misread value on the second look', async () => {
    await toKeyIn('S26-0422');
    await keyIn((pressed) => pressed === 9);
    await unit.waitUntilClosed();
    await bench.press('t');
    await bench.says('Hold set and + for 2 s');
    await keyIn();
    await restart();
    await read('READ BACK', { 'L4.1': '26' });
    await bench.says('26, 24');
    await signOff();
  }, 120_000);

  it('with a locked code is held; a lead accepts it in writing, and it goes on', async () => {
    await toKeyIn('S26-0423', () => unit.give('A code that does not move', 'L5.2'));
    expect(await keyIn()).toBe('52');
    await bench.press('d');
    await bench.says('What does the glass show?');
    await bench.type('Value, as shown', '52');
    await bench.click('It will not change');
    await bench.saysNot('Go on from here');
    await unit.closeMenu();
    await bench.press('t');
    await keyIn();
    await bench.says('L5.2, walk assist, would not change');
    await restart();
    await read('READ BACK');
    await bench.says('Hold it for a lead');
    await bench.press(' ');
    await bench.says('Call a lead');

    const { unit: held, evidence } = await viewOf('S26-0423');
    const decision = { id: crypto.randomUUID(), seq: evidence.length + 1, kind: 'released', at: new Date().toISOString(), data: { words: 'They push it up the slip: walk assist may stay.', decision: { way: 'accept', labels: ['L5.2'] } } };
    await ines.post(`/api/units/${held.id}/visits/${evidence[0]?.visitId}/evidence`, decision);
    await bench.makeSafe();
    await bench.says('accepted by a lead');
    await signOff();
  }, 120_000);

  it('loses nothing and doubles nothing with the network cut half-way', async () => {
    await toKeyIn('S26-0424');
    await keyIn((pressed) => pressed === 6);
    await stage.browser.driver.sendDevToolsCommand('Network.enable', {});
    await network(false);
    await keyIn();
    await restart();
    await read('READ BACK');
    await bench.says(/\d+ entries wait here/);
    expect(kinds((await viewOf('S26-0424')).evidence, 'codeRead')).toHaveLength(0);
    await network(true);
    await signOff();
    await once('S26-0424');
  }, 120_000);

  it('loses nothing and doubles nothing with the server killed and started again', async () => {
    await toKeyIn('S26-0420');
    await keyIn((pressed) => pressed === 6);
    process.kill(stage.server.pid, 'SIGKILL');
    await stage.server.ended;
    await keyIn((pressed) => pressed === 12);
    await bench.says(/\d+ entr(y waits|ies wait) here/);
    await stage.restartServer();
    await keyIn();
    await restart();
    await read('READ BACK');
    await signOff();
    await once('S26-0420');
  }, 120_000);
});

const network = (up: boolean) => stage.browser.driver.sendDevToolsCommand('Network.emulateNetworkConditions', { offline: !up, latency: 0, downloadThroughput: -1, uploadThroughput: -1 });

/** Every code was keyed and read once, and the log has no gap. */
async function once(serial: string): Promise<void> {
  const { evidence } = await viewOf(serial);
  const labels = (kind: string) => kinds(evidence, kind).map(({ data }) => (data as { label: string }).label);
  expect(labels('codeKeyed')).toHaveLength(8);
  expect(new Set(labels('codeKeyed')).size).toBe(8);
  expect(new Set(labels('codeRead')).size).toBe(labels('codeRead').length);
  expect(evidence.map(({ seq }) => seq)).toEqual(evidence.map((_, i) => i + 1));
}
