import { freshDatabase } from '../../server/testing/test-server.js';
import { openBrowser, type Browser } from '../../scripts/lib/browser.mjs';
import { loadDemo } from '../../scripts/lib/load-demo.mjs';
import { startServer, type Server } from '../../scripts/lib/server.mjs';

/** The built app with the demo scenario on a database of its own, and a browser looking at it. */
export interface Stage {
  readonly server: Server;
  readonly browser: Browser;
  readonly address: string;
  readonly databaseUrl: string;
  readonly close: () => Promise<void>;
}

export async function startStage(options: { readonly demo: boolean; readonly downloads?: string }): Promise<Stage> {
  const { applicationUrl: databaseUrl } = await freshDatabase();
  const server = await startServer({ databaseUrl, ownerUrl: null, cookieSecret: 'for tests only', port: 18_080 + 40 * Number(process.env['VITEST_POOL_ID'] ?? 0) });
  if (options.demo) await loadDemo(server.address, databaseUrl);
  const browser = await openBrowser(options.downloads === undefined ? {} : { downloads: options.downloads });
  return {
    server,
    browser,
    databaseUrl,
    address: server.address,
    close: async () => {
      await browser.close();
      await server.stop();
    },
  };
}
