import { randomUUID } from 'node:crypto';
import { setTimeout as after } from 'node:timers/promises';

const ROUNDS = 3;
const ASK_EVERY_MS = 5;
const HEADER = 'order,customer,due,place,class,type,serial\n';

/** Files of 10 MB and less that are made to take long. @type {Record<string, () => string>} */
const WORST = {
  'blank lines': () => HEADER + '\n'.repeat(100_000),
  'many blank lines': () => '\n'.repeat(2_000_000),
  'one row of commas': () => `${','.repeat(9_000_000)}a`,
  'pairs of quotes': () => HEADER + '"",'.repeat(3_000_000),
  'wide rows': () => HEADER + `${'x,'.repeat(31_000)}\n`.repeat(150),
  'rows that are all wrong': () =>
    HEADER + Array.from({ length: 50_000 }, (_, i) => `${i},c${i},x,y,z,q,S 1`).join('\n'),
};

/**
 * How long health takes to answer while the worst files are read, and while nothing is.
 * @param {string} address @param {string} cookie
 * @returns {Promise<{ busyMs: number, idleMs: number, asked: number }>} the 99th of a hundred each
 */
export async function healthUnderFiles(address, cookie) {
  const ask = async () => {
    const began = performance.now();
    await (await fetch(`${address}/api/health`)).arrayBuffer();
    return performance.now() - began;
  };
  const idle = [];
  for (let i = 0; i < 200; i++) idle.push(await ask());
  /** @type {number[]} */
  const busy = [];
  let isOver = false;
  const asking = (async () => {
    while (!isOver) {
      busy.push(await ask());
      await after(ASK_EVERY_MS);
    }
  })();
  for (let round = 0; round < ROUNDS; round++) {
    await Promise.all(
      Object.entries(WORST).map(async ([name, make]) => {
        const url = `${address}/api/intakes?id=${randomUUID()}&fileName=${encodeURIComponent(name)}`;
        await (
          await fetch(url, { method: 'POST', headers: { cookie, 'content-type': 'text/csv' }, body: make() })
        ).arrayBuffer();
      }),
    );
  }
  isOver = true;
  await asking;
  return { busyMs: p99(busy), idleMs: p99(idle), asked: busy.length };
}

/** @param {number[]} ms */
const p99 = (ms) => ms.toSorted((a, b) => a - b)[Math.floor(ms.length * 0.99)] ?? 0;
