import { spawnSync } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import { join } from 'node:path';
import type { HouseView } from '@decurio/contract';
import type { TestProject } from 'vitest/node';
import { startEmptyDatabase, type Database } from '../../scripts/lib/database.mjs';
import { signIn } from '../../scripts/lib/api-client.mjs';
import { loadDemo } from '../../scripts/lib/load-demo.mjs';
import { STATE } from '../../scripts/lib/paths.mjs';
import { startServer } from '../../scripts/lib/server.mjs';
import { DEMO_PASSWORD } from '../../server/demo-password.js';

declare module 'vitest' {
  export interface ProvidedContext {
    /** The demo scenario as SQL, loaded once through the API and copied for each file of tests. */
    demoDump: string;
  }
}

let database: Database | null = null;

/** Starts a private MariaDB for the browser tests, with the demo scenario ready to be copied. */
export async function setup(project: TestProject): Promise<void> {
  const home = join(STATE, `test-${project.name}`);
  // What an earlier run loaded may be another scenario.
  database = await startEmptyDatabase(home);
  const demoDump = join(home, 'demo.sql');
  const server = await startServer({
    databaseUrl: database.databaseUrl,
    ownerUrl: database.ownerUrl,
    cookieSecret: 'for tests only',
    port: 18_070,
  });
  await loadDemo(server.address, database.databaseUrl);
  await keysRestBriefly(server.address);
  await server.stop();
  dump(database.ownerUrl, demoDump);
  project.provide('ownerUrl', database.ownerUrl);
  project.provide('applicationUrl', database.databaseUrl);
  project.provide('demoDump', demoDump);
}

export async function teardown(): Promise<void> {
  await database?.stop();
}

/** Keys that rest as long as a person's make hours of some thousand presses; how they rest is tested by itself. */
async function keysRestBriefly(address: string): Promise<void> {
  const owner = await signIn(address, 'asta', DEMO_PASSWORD, 'office');
  const house = (await owner.get('/api/house')) as HouseView;
  await owner.put('/api/house', { ...house, bounceMs: 30 });
}

function dump(ownerUrl: string, file: string): void {
  const { hostname, port, username, password, pathname } = new URL(ownerUrl);
  const out = openSync(file, 'w');
  const done = spawnSync(
    'mariadb-dump',
    [
      '--no-defaults',
      `--host=${hostname}`,
      `--port=${port}`,
      `--user=${username}`,
      '--single-transaction',
      '--hex-blob',
      pathname.slice(1),
    ],
    { env: { ...process.env, MYSQL_PWD: password }, stdio: ['ignore', out, 'pipe'], encoding: 'utf8' },
  );
  closeSync(out);
  if (done.status !== 0) throw new Error(`the demo could not be copied: ${done.stderr}`);
}
