import { spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, openSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { fullMap, type DisplayMap } from '@decurio/core';
import type { ChangeSeen } from '@decurio/contract';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { openBrowser, type Browser } from '../scripts/lib/browser.mjs';
import { startCluster, type Cluster, type Node } from '../scripts/lib/cluster.mjs';
import { demoText } from '../scripts/lib/demo-files.mjs';
import { startFront, type Front } from '../scripts/lib/front.mjs';
import { startServer, type Server } from '../scripts/lib/server.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { verifyLedger } from '../server/ledger/verify-ledger.js';
import { makeDataSource } from '../server/store/data-source.js';
import { BenchPage, HandlebarDisplay } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { viewOf, writeFrom } from './support/other-stand.js';

const PORTS_FROM = 19_400;

const home = mkdtempSync(join(tmpdir(), 'decurio-cluster-'));
let cluster: Cluster;
const servers: Server[] = [];
const fronts: Front[] = [];
const browsers: Browser[] = [];
beforeAll(async () => {
  // Where the user that a daemon of root runs as may enter, wherever the checkout lies.
  chmodSync(home, 0o755);
  cluster = await startCluster(join(home, 'cluster'));
  const [first] = cluster.nodes;
  if (!first) throw new Error('no node');
  loadDump(first);
  for (const [i, { databaseUrl, ownerUrl }] of cluster.nodes.slice(0, 2).entries())
    servers.push(
      await startServer({
        databaseUrl,
        ownerUrl: i === 0 ? ownerUrl : null,
        cookieSecret: 'for tests only',
        port: PORTS_FROM + i,
        logLevel: 'silent',
      }),
    );
  const addresses = servers.map(({ address }) => address);
  fronts.push(await startFront(addresses, PORTS_FROM + 10), await startFront(addresses.toReversed(), PORTS_FROM + 20));
  browsers.push(await openBrowser({ motion: 'reduced' }), await openBrowser({ motion: 'reduced' }));
});
afterAll(async () => {
  for (const browser of browsers) await browser.close();
  for (const each of [...fronts, ...servers, cluster]) await each.stop();
  rmSync(home, { recursive: true, force: true });
});

function loadDump({ ownerUrl }: Node): void {
  const { hostname, port, username, password, pathname } = new URL(ownerUrl);
  const done = spawnSync(
    'mariadb',
    ['--no-defaults', `--host=${hostname}`, `--port=${port}`, `--user=${username}`, pathname.slice(1)],
    { stdio: [openSync(inject('demoDump'), 'r'), 'ignore', 'pipe'], env: { ...process.env, MYSQL_PWD: password } },
  );
  if (done.status !== 0) throw new Error(`the demo was not loaded: ${done.stderr.toString()}`);
}

type At = 'keyIn' | 'keyed' | 'read';

/** A whole visit by keys, from the scan to the seal; `at` is called on the way. */
async function visit(n: number, name: string, serial: string, at: (step: At) => Promise<void>): Promise<void> {
  const [browser, front] = [browsers[n], fronts[n]];
  if (!browser || !front) throw new Error(`no stand ${n}`);
  const display = new HandlebarDisplay(fullMap(JSON.parse(demoText('maps/tallow-four-key.json'))) as DisplayMap);
  const bench = new BenchPage(browser.driver);
  await (await new SignInPage(browser.driver).open(front.address)).signIn(name, DEMO_PASSWORD, `bay ${n + 1}`);
  await bench.says('NEXT FOR YOU');
  await bench.scan(serial);
  await bench.begin();
  await bench.toKeyIn(display);
  await bench.says('Press 1 of');
  await at('keyIn');
  await bench.keyIn(display);
  await at('keyed');
  await bench.restart(display);
  await bench.readBack(display);
  await bench.says('Every code shows what it must');
  await at('read');
  await bench.nothingWaits();
  await bench.press(' ');
  await bench.leaveOut();
  await bench.signOff();
}

const SERIALS = ['S26-0420', 'S26-0421'] as const;

describe('two stands on a cluster of three', () => {
  it('work through to the seal while a node is killed and comes back, and another is cut off from the rest', async () => {
    const [one, two] = cluster.nodes;
    if (!one || !two) throw new Error('no nodes');
    const atTwo = await signIn(servers[1]?.address ?? '', 'ines', DEMO_PASSWORD, 'office');
    let isBack: () => void = () => undefined;
    const oneIsBack = new Promise<void>((resolve) => (isBack = resolve));
    const stands = await Promise.allSettled([
      visit(0, 'teo', SERIALS[0], async (step) => {
        if (step === 'keyIn') await one.kill();
        if (step === 'read') {
          await one.comeBack();
          isBack();
        }
        // Where this stand fails the other need not wait for it.
      }).finally(isBack),
      visit(1, 'ines', SERIALS[1], async (step) => {
        if (step === 'keyed') await oneIsBack;
        if (step === 'keyed') await two.cutOff(true);
        if (step === 'keyed') await refuses(atTwo);
        if (step === 'read') await two.cutOff(false);
      }),
    ]);
    expect(stands.map((stand) => (stand.status === 'rejected' ? String(stand.reason) : 'sealed'))).toEqual([
      'sealed',
      'sealed',
    ]);
  });

  it('lost nothing and doubled nothing, and every node says the same', async () => {
    const counts: number[] = [];
    for (const node of cluster.nodes) {
      await node.synced();
      const source = await makeDataSource(node.databaseUrl, 3).initialize();
      try {
        const found: string[] = [];
        const { entries } = await verifyLedger(source, ({ of, says }) => found.push(`${of}: ${says}`));
        expect(found).toEqual([]);
        counts.push(entries);
      } finally {
        await source.destroy();
      }
    }
    expect(new Set(counts).size).toBe(1);
    const teo = await signIn(servers[0]?.address ?? '', 'teo', DEMO_PASSWORD, 'office');
    for (const serial of SERIALS) {
      const kinds = (await viewOf(teo, serial)).evidence.map(({ kind }) => kind);
      for (const once of [
        'checkedIn',
        'asFoundClosed',
        'keyInClosed',
        'restarted',
        'readBackClosed',
        'signedOff',
      ] as const)
        expect(kinds.filter((kind) => kind === once)).toHaveLength(1);
    }
  });

  it('hear of an entry whichever node took it', async () => {
    const [here, there] = [servers[0]?.address ?? '', servers[1]?.address ?? ''];
    const listener = await signIn(here, 'teo', DEMO_PASSWORD, 'office');
    const writer = await signIn(there, 'ines', DEMO_PASSWORD, 'office');
    const { unit } = await viewOf(writer, 'S26-0413');
    const stop = new AbortController();
    const stream = await fetch(`${here}/api/changes`, { headers: { cookie: listener.cookie }, signal: stop.signal });
    const heard = heardOf(stream, unit.id);
    await writeFrom(writer, 'S26-0413', 'held', { reason: 'other', words: 'seen from the other node' });
    expect(await heard).toMatchObject({ unitId: unit.id });
    stop.abort();
  });
});

/** A node that is alone takes nothing: what it took would be another truth than that of the others. */
async function refuses(client: Client): Promise<void> {
  await expect.poll(() => client.get('/api/orders').then(() => 'answers', String)).toContain('databaseAway');
}

/** The first change of a unit that a stream tells. */
async function heardOf(stream: Response, unitId: string): Promise<ChangeSeen> {
  let text = '';
  const decoder = new TextDecoder();
  for await (const chunk of stream.body ?? []) {
    text += decoder.decode(chunk as Uint8Array, { stream: true });
    for (const [, data = ''] of text.matchAll(/^data: (.+)$/gm)) {
      const change = JSON.parse(data) as ChangeSeen;
      if (change.unitId === unitId) return change;
    }
  }
  throw new Error('the stream ended');
}
