import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';
import { freePort } from './ports.mjs';
import { StartProblem } from './say.mjs';

const START_MS = 30_000;

/**
 * @typedef {object} Server
 * @property {string} address such as http://127.0.0.1:8080
 * @property {() => Promise<void>} stop
 * @property {Promise<number | null>} ended settles with the exit code
 * @property {number} pid
 */

/**
 * Starts the built server and waits until it and its database answer.
 * @param {{ databaseUrl: string, ownerUrl: string | null, cookieSecret: string, port?: number, logLevel?: string }} options
 * @returns {Promise<Server>}
 */
export async function startServer({ databaseUrl, ownerUrl, cookieSecret, port = 8080, logLevel = 'warn' }) {
  const free = await freePort(port);
  const child = spawn(process.execPath, [join(ROOT, 'server', 'dist', 'main.js')], {
    detached: true,
    stdio: ['pipe', 'inherit', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      ...(ownerUrl === null ? {} : { DATABASE_OWNER_URL: ownerUrl }),
      COOKIE_SECRET: cookieSecret,
      PORT: String(free),
      HOST: '127.0.0.1',
      LOG_LEVEL: logLevel,
      WEB_ROOT: join(ROOT, 'web', 'dist', 'app'),
      STOP_WITH_PARENT: 'true',
    },
  });
  /** @type {Promise<number | null>} */
  const ended = new Promise((resolve) => child.once('exit', (code) => resolve(code)));
  const address = `http://127.0.0.1:${free}`;
  await healthy(address, ended).catch(async (error) => {
    child.kill('SIGTERM');
    await ended;
    throw error;
  });
  return {
    address,
    pid: child.pid ?? 0,
    ended,
    stop: async () => {
      child.kill('SIGTERM');
      await ended;
    },
  };
}

/** @param {string} address @param {Promise<number | null>} ended */
async function healthy(address, ended) {
  let gone = false;
  void ended.then(() => (gone = true));
  for (const until = Date.now() + START_MS; Date.now() < until;) {
    if (gone) throw new StartProblem('The server ended while starting; why stands above.');
    const answer = await fetch(`${address}/api/health`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  throw new StartProblem(`The server did not answer within ${START_MS / 1000} s; what it logged stands above.`);
}
