import { createServer, connect } from 'node:net';
import { setTimeout as after } from 'node:timers/promises';
import { freePort } from './ports.mjs';

const LOOK_MS = 400;
const PATIENCE_MS = 2_000;

/**
 * @typedef {object} Front
 * @property {string} address
 * @property {() => Promise<void>} stop
 */

/**
 * One address before several servers, as a balancer is: each connection goes to the first of them whose database answers,
 * and those to one that no longer does are cut, so that browsers connect anew. For trying a cluster on one machine.
 * @param {readonly string[]} servers their addresses, in the order they are preferred
 * @param {number} from the first port that is tried
 * @returns {Promise<Front>}
 */
export async function startFront(servers, from) {
  let best = servers[0] ?? '';
  let isStopped = false;
  /** @type {Map<import('node:net').Socket, string>} */
  const open = new Map();
  const look = async () => {
    while (!isStopped) {
      const well = await Promise.all(servers.map(isWell));
      best = servers.find((_, i) => well[i]) ?? best;
      for (const [socket, server] of open) if (!well[servers.indexOf(server)]) socket.destroy();
      await after(LOOK_MS);
    }
  };
  const front = createServer((socket) => {
    const server = best;
    const { hostname, port } = new URL(server);
    const behind = connect(Number(port), hostname);
    open.set(socket, server);
    socket.on('close', () => {
      open.delete(socket);
      behind.destroy();
    });
    behind.on('close', () => socket.destroy());
    for (const each of [socket, behind]) each.on('error', () => each.destroy());
    socket.pipe(behind).pipe(socket);
  });
  const port = await freePort(from);
  await new Promise((resolve, reject) => {
    front.once('error', reject);
    front.listen(port, '127.0.0.1', () => resolve(undefined));
  });
  const looking = look();
  return {
    address: `http://127.0.0.1:${port}`,
    stop: async () => {
      isStopped = true;
      front.close();
      for (const socket of open.keys()) socket.destroy();
      await looking;
    },
  };
}

/** @param {string} server */
const isWell = async (server) => {
  const answer = await fetch(`${server}/api/health`, { signal: AbortSignal.timeout(PATIENCE_MS) }).catch(() => null);
  return answer?.ok ?? false;
};
