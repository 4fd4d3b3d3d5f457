import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startDatabase, type Database } from '../../scripts/lib/database.mjs';
import { ROOT, STATE } from '../../scripts/lib/paths.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    ownerUrl: string;
    applicationUrl: string;
  }
}

let database: Database | null = null;

/** Starts a private MariaDB for the tests of one project. */
export async function setup(project: TestProject): Promise<void> {
  // Threads that read what comes from outside run what was built.
  const built = spawnSync('npx', ['--no-install', 'tsc', '-b', 'server'], { cwd: ROOT, encoding: 'utf8' });
  if (built.status !== 0) throw new Error(`the server does not build:\n${built.stdout}`);
  database = await startDatabase(join(STATE, `test-${project.name}`));
  project.provide('ownerUrl', database.ownerUrl);
  project.provide('applicationUrl', database.databaseUrl);
}

export async function teardown(): Promise<void> {
  await database?.stop();
}
