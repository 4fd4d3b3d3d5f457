import { createServer } from 'node:net';
import { StartProblem } from './say.mjs';

const PORTS = 500;

/** The first port from `from` on that nothing listens on, on loopback.
 * @param {number} from @param {number} [most] how many are tried
 * @returns {Promise<number>} */
export async function freePort(from, most = PORTS) {
  for (let port = from; port < from + most; port++) {
    if (await isFree(port)) return port;
  }
  throw new StartProblem(
    `Every port from ${from} to ${from + most - 1} on this machine is taken. Stop what listens there, then start again.`,
  );
}

/** @param {number} port
 * @returns {Promise<boolean>} */
const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
