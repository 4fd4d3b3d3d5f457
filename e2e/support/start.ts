import { inject } from 'vitest';
import { freshDatabase } from '../../server/testing/test-server.js';
import { openBrowser, type Browser } from '../../scripts/lib/browser.mjs';
import { startServer, type Server } from '../../scripts/lib/server.mjs';

/** The built app with the demo scenario on a database of its own, and a browser looking at it. */
export interface Stage {
  /** The one that runs now. */
  server: Server;
  readonly browser: Browser;
  readonly address: string;
  readonly databaseUrl: string;
  /** Starts a server again at the same address, on the same database. */
  readonly restartServer: () => Promise<void>;
  readonly close: () => Promise<void>;
}

export interface StageOptions {
  readonly demo: boolean;
  readonly downloads?: string;
  /** Where the built app stands; the one of the checkout where left out. */
  readonly webRoot?: string;
}

export async function startStage(options: StageOptions): Promise<Stage> {
  const { applicationUrl: databaseUrl } = await freshDatabase(options.demo ? inject('demoDump') : undefined);
  const web = options.webRoot === undefined ? {} : { webRoot: options.webRoot };
  const start = (port: number) =>
    startServer({ databaseUrl, ownerUrl: null, cookieSecret: 'for tests only', port, ...web });
  const server = await start(18_080 + 40 * Number(process.env['VITEST_POOL_ID'] ?? 0));
  const browser = await openBrowser({
    motion: 'reduced',
    ...(options.downloads === undefined ? {} : { downloads: options.downloads }),
  });
  const stage: Stage = {
    server,
    browser,
    databaseUrl,
    address: server.address,
    restartServer: async () => {
      stage.server = await start(Number(new URL(server.address).port));
    },
    close: async () => {
      await browser.close();
      await stage.server.stop();
    },
  };
  return stage;
}
