import { request as httpRequest } from 'node:http';
import type { WayFault } from './schedule.js';

/** What came of a request; null where no answer came. */
export type Answer = { readonly status: number; readonly body: unknown; readonly serverMs: number } | null;

export interface Sent {
  readonly address: string;
  readonly method: 'GET' | 'POST';
  readonly path: string;
  readonly cookie: string;
  readonly body?: object;
}

const PATIENCE_MS = 15_000;

/**
 * One request over a connection of its own, on which this goes wrong. A late one arrives a second time by itself, when
 * others have gone since; nobody hears its second answer.
 */
export async function sendWith(
  fault: WayFault,
  sent: Sent,
  later: (again: () => Promise<Answer>) => void,
): Promise<Answer> {
  switch (fault) {
    case 'none':
      return once(sent);
    case 'cutBefore':
      return once(sent, 'before');
    case 'cutAfter':
      return once(sent, 'after');
    case 'doubled': {
      const [first, second] = await Promise.all([once(sent), once(sent)]);
      return first ?? second;
    }
    case 'late':
      later(() => once(sent));
      return once(sent);
  }
}

function once({ address, method, path, cookie, body }: Sent, cut?: 'before' | 'after'): Promise<Answer> {
  return new Promise((resolve) => {
    const bytes = body === undefined ? null : Buffer.from(JSON.stringify(body));
    const out = httpRequest(
      `${address}${path}`,
      {
        method,
        agent: false,
        timeout: PATIENCE_MS,
        headers: {
          cookie,
          ...(bytes === null ? {} : { 'content-type': 'application/json', 'content-length': bytes.length }),
        },
      },
      (answer) => {
        if (cut === 'after') return void out.destroy();
        let text = '';
        answer.setEncoding('utf8');
        answer.on('data', (part: string) => (text += part));
        answer.on('end', () =>
          resolve({
            status: answer.statusCode ?? 0,
            body: parsed(text),
            serverMs: Number(answer.headers['x-server-clock'] ?? Number.NaN),
          }),
        );
        answer.on('error', () => resolve(null));
      },
    );
    out.on('timeout', () => out.destroy());
    out.on('error', () => resolve(null));
    out.on('close', () => resolve(null));
    if (cut === 'before' && bytes !== null) {
      out.write(bytes.subarray(0, bytes.length >> 1), () => out.destroy());
    } else if (bytes === null) out.end();
    else out.end(bytes);
  });
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
