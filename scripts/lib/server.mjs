import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ROOT, STATE } from './paths.mjs';
import { freePort } from './ports.mjs';
import { StartProblem } from './say.mjs';

/** So long without a word from the server that is starting is too long. */
const SILENT_MS = 60_000;
const MOST_PORTS = 20;
const WEB_ROOT = join(ROOT, 'web', 'dist', 'app');
/** What `server/main` ends with where its port was taken. */
const PORT_TAKEN = 98;

/**
 * @typedef {object} Server
 * @property {string} address such as http://127.0.0.1:8080
 * @property {() => Promise<void>} stop
 * @property {Promise<number | null>} ended settles with the exit code
 * @property {number} pid
 */

/**
 * Starts the built server and waits until it listens and its database answers. That the server which answers is this one
 * it says itself, by a way that no other process has: a port may be taken between probing and listening.
 * @param {{ databaseUrl: string, ownerUrl: string | null, cookieSecret: string, port?: number, logLevel?: string, webRoot?: string, preload?: string }} options `preload`: a module that is loaded before it
 * @returns {Promise<Server>}
 */
export async function startServer({ port = 8080, ...options }) {
  for (let from = port, tries = 0; tries < MOST_PORTS; tries++) {
    const free = await freePort(from);
    const server = await startOn(free, options);
    if (server !== 'portTaken') return server;
    from = free + 1;
  }
  throw new StartProblem(`Other programs take every port from ${port} on before the server gets one.`);
}

/**
 * @param {number} port
 * @param {{ databaseUrl: string, ownerUrl: string | null, cookieSecret: string, logLevel?: string, webRoot?: string, preload?: string }} options
 * @returns {Promise<Server | 'portTaken'>}
 */
async function startOn(port, { databaseUrl, ownerUrl, cookieSecret, logLevel = 'warn', webRoot = WEB_ROOT, preload }) {
  const child = spawn(
    process.execPath,
    [...(preload ? ['--import', preload] : []), join(ROOT, 'server', 'dist', 'main.js')],
    {
      detached: true,
      stdio: ['pipe', 'inherit', 'inherit', 'ipc'],
      env: {
        ...process.env,
        DATABASE_URL: databaseUrl,
        ...(ownerUrl === null ? {} : { DATABASE_OWNER_URL: ownerUrl }),
        COOKIE_SECRET: cookieSecret,
        PORT: String(port),
        HOST: '127.0.0.1',
        LOG_LEVEL: logLevel,
        CHECKPOINT_KEY_FILE: process.env['CHECKPOINT_KEY_FILE'] ?? join(STATE, 'checkpoint.key'),
        WEB_ROOT: webRoot,
        STOP_WITH_PARENT: 'true',
      },
    },
  );
  /** @type {Promise<number | null>} */
  const ended = new Promise((resolve) => child.once('exit', (code) => resolve(code)));
  const address = `http://127.0.0.1:${port}`;
  const stop = async () => {
    child.kill('SIGTERM');
    await ended;
  };
  try {
    if ((await listening(child, ended)) === 'portTaken') return 'portTaken';
    await healthy(address, ended);
  } catch (error) {
    await stop();
    throw error;
  }
  // Heard; the pipe that says so would keep whoever started it from ending.
  child.disconnect();
  return { address, pid: child.pid ?? 0, ended, stop };
}

/**
 * Hears from the server how far it is, until it listens.
 * @param {import('node:child_process').ChildProcess} child @param {Promise<number | null>} ended
 * @returns {Promise<'listens' | 'portTaken'>}
 */
async function listening(child, ended) {
  /** @type {NodeJS.Timeout | undefined} */
  let timer;
  try {
    return await new Promise((resolve, reject) => {
      const wait = () => {
        clearTimeout(timer);
        timer = setTimeout(
          () =>
            reject(new StartProblem(`The server said nothing for ${SILENT_MS / 1000} s; what it logged stands above.`)),
          SILENT_MS,
        );
      };
      wait();
      child.on('message', (said) => {
        if (said === 'listening') resolve('listens');
        wait();
      });
      void ended.then((code) => {
        if (code === PORT_TAKEN) resolve('portTaken');
        else reject(new StartProblem('The server ended while starting; why stands above.'));
      });
    });
  } finally {
    clearTimeout(timer);
    child.removeAllListeners('message');
  }
}

/** @param {string} address @param {Promise<number | null>} ended */
async function healthy(address, ended) {
  let gone = false;
  void ended.then(() => (gone = true));
  for (const until = Date.now() + SILENT_MS; Date.now() < until;) {
    if (gone) throw new StartProblem('The server ended while starting; why stands above.');
    const answer = await fetch(`${address}/api/health`).catch(() => null);
    if (answer?.ok) return;
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  throw new StartProblem(
    `The server listens and its database did not answer within ${SILENT_MS / 1000} s; what it logged stands above.`,
  );
}
