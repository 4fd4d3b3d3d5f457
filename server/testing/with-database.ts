import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startDatabase, type Database } from '../../scripts/lib/database.mjs';
import { STATE } from '../../scripts/lib/paths.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    ownerUrl: string;
    applicationUrl: string;
  }
}

let database: Database | null = null;

/** Starts a private MariaDB for the tests of one project. */
export async function setup(project: TestProject): Promise<void> {
  database = await startDatabase(join(STATE, `test-${project.name}`));
  project.provide('ownerUrl', database.ownerUrl);
  project.provide('applicationUrl', database.databaseUrl);
}

export async function teardown(): Promise<void> {
  await database?.stop();
}
