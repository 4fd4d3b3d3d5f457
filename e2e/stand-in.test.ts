import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Evidence } from '@decurio/core';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import type { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { StandInBench } from './pages/stand-in-bench.js';
import { viewOf, writeFrom } from './support/other-stand.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let bench: BenchPage;
let work: StandInBench;
let ines: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  work = new StandInBench(stage.browser.driver, stage.address);
  bench = work.bench;
  ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo');
  await bench.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const kinds = (evidence: readonly Evidence[], kind: string) => evidence.filter((entry) => entry.kind === kind);

async function signOff(): Promise<void> {
  await bench.says('Every code shows what it must');
  await bench.press(' ');
  await bench.leaveOut();
  await bench.signOff();
}

/** A clean one stands in `order-to-seal`. */
describe('a whole visit on the stand-in unit, by its own keys', () => {
  it('is planned anew when the menu closes by itself, and a misread value is looked at twice', async () => {
    await work.toKeyIn('S26-0421');
    await work.keyIn((pressed) => pressed === 9);
    await work.unit.waitUntilClosed();
    await bench.press('t');
    await bench.says('Press 1 of');
    await work.keyIn();
    await work.restart();
    await work.read('READ BACK', { 'L1.2': '4' });
    await bench.says('Every code shows what it must');
    expect(
      (await bench.texts('[aria-label="Verdict per code"] tbody tr')).find((row) => row.startsWith('L1.2')),
    ).toContain('4, 5');
    await signOff();
  });

  it('with a locked code is held; a lead accepts it in writing, and it goes on', async () => {
    await work.toKeyIn('S26-0423', () => work.unit.give('A code that does not move', 'L5.2'));
    expect(await work.keyIn()).toBe('52');
    await bench.press('d');
    await bench.says('What does the glass show?');
    await bench.type('Value, as shown', '52');
    await bench.click('It will not change');
    await bench.saysNot('Go on from here');
    await work.keyIn();
    await bench.says('L5.2, walk assist, would not change');
    await work.restart();
    await work.read('READ BACK');
    await bench.says('Hold it for a lead');
    await bench.press(' ');
    await bench.says('Call a lead');

    await bench.driver.wait(
      async () => (await viewOf(ines, 'S26-0423')).unit.status === 'held',
      15_000,
      'the hold never reached the server',
    );
    await writeFrom(ines, 'S26-0423', 'released', {
      words: 'They push it up the slip: walk assist may stay.',
      decision: { way: 'accept', labels: ['L5.2'] },
    });
    await bench.makeSafe();
    await bench.says('accepted by a lead');
    await signOff();
  });

  it('loses nothing and doubles nothing with the network cut half-way, and the server killed and started again', async () => {
    await work.toKeyIn('S26-0424');
    await work.keyIn((pressed) => pressed === 6);
    await stage.browser.driver.sendDevToolsCommand('Network.enable', {});
    await network(false);
    await work.keyIn();
    await bench.says(/\d+ entr(y waits|ies wait) here/);
    expect(kinds((await viewOf(ines, 'S26-0424')).evidence, 'keyInClosed')).toHaveLength(0);
    await work.restart();
    await network(true);
    await bench.driver.wait(
      async () => kinds((await viewOf(ines, 'S26-0424')).evidence, 'restarted').length === 1,
      20_000,
      'what waited was never sent',
    );

    process.kill(stage.server.pid, 'SIGKILL');
    await stage.server.ended;
    await work.read('READ BACK');
    await bench.says(/\d+ entries wait here/);
    await stage.restartServer();
    await signOff();
    await once('S26-0424');
  });
});

const network = (up: boolean) =>
  stage.browser.driver.sendDevToolsCommand('Network.emulateNetworkConditions', {
    offline: !up,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });

/** Every code was keyed and read once, and the log has no gap. */
async function once(serial: string): Promise<void> {
  const { evidence } = await viewOf(ines, serial);
  const labels = (kind: string) => kinds(evidence, kind).map(({ data }) => (data as { label: string }).label);
  expect(labels('codeKeyed')).toHaveLength(8);
  expect(new Set(labels('codeKeyed')).size).toBe(8);
  expect(new Set(labels('codeRead')).size).toBe(labels('codeRead').length);
  expect(evidence.map(({ seq }) => seq)).toEqual(evidence.map((_, i) => i + 1));
}
