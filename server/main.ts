import type { Server as SecureServer } from 'node:https';
import { buildApp } from './app.js';
import { readConfig } from './config.js';
import { keepHouse } from './live/housekeeping.js';
import { insteadOfStarting } from './settings-help.js';
import { offerFirstOwner } from './store/first-owner.js';
import { migrate } from './store/migrate.js';
import { readTls } from './tls.js';

/** What this process ends with where its port was taken: whoever started it may choose another. */
const PORT_TAKEN = 98;

/** A start command hears how far it is; nobody else does. */
const say = (word: 'migrated' | 'built' | 'listening'): void => void process.send?.(word);

const instead = insteadOfStarting(process.argv.slice(2));
if (instead) {
  process.stdout.write(`${instead.says}\n`);
  process.exit(instead.code);
}
const config = readConfig(process.env);
if (config.ownerUrl !== null) await migrate(config.ownerUrl, config.databaseUrl);
say('migrated');
const app = await buildApp(config);
say('built');
await app.listen({ host: config.host, port: config.port }).catch((error: NodeJS.ErrnoException) => {
  app.log.error(error);
  process.exit(error.code === 'EADDRINUSE' ? PORT_TAKEN : 1);
});
say('listening');
// A start command makes its own accounts; whoever starts a server by hand is told the way in.
const code = process.send ? null : await offerFirstOwner(app.source);
if (code !== null)
  process.stdout.write(
    `Nobody can sign in yet. Open this server's address and make the first owner with the code ${code}\n`,
  );
const stopKeeping = keepHouse(app.source, app.log, app.signingKey);

const { tls } = config;
// Whoever renews a certificate says so by this; one that cannot be read leaves the one before.
if (process.env['STOP_WITH_PARENT'] !== 'true')
  process.on('SIGHUP', () => {
    if (tls === null) return app.log.info('there is no certificate of its own to be read anew');
    try {
      (app.server as unknown as SecureServer).setSecureContext(readTls(tls));
      app.log.info('the certificate was read anew');
    } catch (error) {
      app.log.error({ err: error }, 'the certificate stays as it was');
    }
  });

const stop = () => {
  stopKeeping();
  void app.close().finally(() => process.exit(0));
};
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
// A start command that dies without a word closes this pipe; its server does not outlive it.
if (process.env['STOP_WITH_PARENT'] === 'true') process.stdin.resume().once('end', stop).once('close', stop);
