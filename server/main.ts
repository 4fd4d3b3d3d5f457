import { buildApp } from './app.js';
import { readConfig } from './config.js';
import { keepHouse } from './live/housekeeping.js';
import { migrate } from './store/migrate.js';

const config = readConfig(process.env);
if (config.ownerUrl !== null) await migrate(config.ownerUrl, config.databaseUrl);
const app = await buildApp(config);
await app.listen({ host: config.host, port: config.port });
const stopKeeping = keepHouse(app.source, app.log);

const stop = () => {
  stopKeeping();
  void app.close().finally(() => process.exit(0));
};
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
// A start command that dies without a word closes this pipe; its server does not outlive it.
if (process.env['STOP_WITH_PARENT'] === 'true') process.stdin.resume().once('end', stop).once('close', stop);
