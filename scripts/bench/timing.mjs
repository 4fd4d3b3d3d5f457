import { Agent, request } from 'node:http';

/** @typedef {{ p50: number, p95: number }} Spread milliseconds */

/**
 * Times calls one after another, after a warm-up of half as many.
 * @param {() => Promise<unknown>} call
 * @param {number} [count]
 * @returns {Promise<Spread>}
 */
export async function spreadOf(call, count = 400) {
  for (let i = 0; i < count / 2; i++) await call();
  const times = [];
  for (let i = 0; i < count; i++) times.push(await msOf(call));
  times.sort((a, b) => a - b);
  return { p50: times[Math.floor(count * 0.5)] ?? 0, p95: times[Math.floor(count * 0.95)] ?? 0 };
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
      answer.on('end', () => (answer.statusCode === 200 ? resolve(body) : reject(new Error(`${answer.statusCode} ${url}`))));
    })
      .on('error', reject)
      .end();
  });
