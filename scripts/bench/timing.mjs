import { Agent, request } from 'node:http';

/** @typedef {{ p50: number, p95: number }} Spread milliseconds */

/**
 * Times several calls in turn, round after round, so that whatever else the machine does falls on all of them alike;
 * after a warm-up of half as many rounds.
 * @template {string} Name
 * @param {Record<Name, () => Promise<unknown>>} calls
 * @param {number} [rounds]
 * @returns {Promise<Record<Name, Spread>>}
 */
export async function spreadsOf(calls, rounds = 400) {
  const names = /** @type {Name[]} */ (Object.keys(calls));
  const times = new Map(names.map((name) => [name, /** @type {number[]} */ ([])]));
  for (let round = -rounds / 2; round < rounds; round++) {
    for (const name of names) {
      const ms = await msOf(calls[name]);
      if (round >= 0) times.get(name)?.push(ms);
    }
  }
  return /** @type {Record<Name, Spread>} */ (
    Object.fromEntries(names.map((name) => [name, quantiles(times.get(name) ?? [])]))
  );
}

/** @param {number[]} times @returns {Spread} */
export function quantiles(times) {
  const sorted = times.toSorted((a, b) => a - b);
  return { p50: sorted[Math.floor(sorted.length * 0.5)] ?? 0, p95: sorted[Math.floor(sorted.length * 0.95)] ?? 0 };
}

/** Milliseconds that one call takes.
 * @param {() => Promise<unknown>} call */
export async function msOf(call) {
  const start = performance.now();
  await call();
  return performance.now() - start;
}

const agent = new Agent({ keepAlive: true, maxSockets: 1 });

/** One GET over a kept-alive connection; resolves with the body. Throws on any answer but 200.
 * @param {string} url @param {Record<string, string>} [headers]
 * @returns {Promise<string>} */
export const get = (url, headers = {}) =>
  new Promise((resolve, reject) => {
    request(url, { agent, headers }, (answer) => {
      let body = '';
      answer.setEncoding('utf8');
      answer.on('data', (chunk) => (body += chunk));
      answer.on('end', () =>
        answer.statusCode === 200 ? resolve(body) : reject(new Error(`${answer.statusCode} ${url}`)),
      );
    })
      .on('error', reject)
      .end();
  });
