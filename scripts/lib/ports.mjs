import { createServer } from 'node:net';

/** The first port from `from` on that nothing listens on, on loopback.
 * @param {number} from
 * @returns {Promise<number>} */
export async function freePort(from) {
  for (let port = from; port < from + 500; port++) {
    if (await isFree(port)) return port;
  }
  throw new Error(`no free port between ${from} and ${from + 500}`);
}

/** @param {number} port
 * @returns {Promise<boolean>} */
const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });
