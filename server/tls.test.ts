import { readFileSync } from 'node:fs';
import { request } from 'node:https';
import type { IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildApp } from './app.js';
import { readConfig } from './config.js';
import { readTls } from './tls.js';
import { freshDatabase, PASSWORD, testConfig } from './testing/test-server.js';
import { addAccount } from './store/accounts.js';

const file = (name: string): string => fileURLToPath(new URL(`./testing/tls/${name}`, import.meta.url));
const TLS = { certFile: file('cert.pem'), keyFile: file('key.pem') };

describe('a server with a certificate of its own', () => {
  let app: Awaited<ReturnType<typeof buildApp>>;
  let port: number;
  beforeAll(async () => {
    const { applicationUrl } = await freshDatabase();
    app = await buildApp(testConfig(applicationUrl, { tls: TLS, secureCookie: true }));
    await addAccount(app.source, {
      signInName: 'owner',
      displayName: 'The owner',
      role: 'owner',
      password: PASSWORD,
      isDemo: false,
    });
    await app.listen({ host: '127.0.0.1', port: 0 });
    ({ port } = app.server.address() as AddressInfo);
  });
  afterAll(() => app.close());

  const ask = (method: string, path: string, body?: object): Promise<IncomingMessage> =>
    new Promise((resolve, reject) =>
      request(
        {
          host: 'localhost',
          port,
          path,
          method,
          ca: readFileSync(TLS.certFile),
          headers: { 'content-type': 'application/json' },
        },
        (answer) => resolve(answer.resume()),
      )
        .once('error', reject)
        .end(body === undefined ? undefined : JSON.stringify(body)),
    );

  it('speaks TLS, and tells browsers to come by nothing else', async () => {
    const { statusCode, headers } = await ask('GET', '/api/health');
    expect(statusCode).toBe(200);
    expect(headers['strict-transport-security']).toBe('max-age=31536000');
  });

  it('lends its session to TLS alone', async () => {
    const { headers } = await ask('POST', '/api/session', { name: 'owner', password: PASSWORD, station: 'office' });
    expect(headers['set-cookie']?.[0]).toMatch(/; Secure/);
  });

  it('answers nothing to who speaks without it', async () => {
    await expect(fetch(`http://127.0.0.1:${port}/api/health`)).rejects.toThrow();
  });
});

describe('a certificate', () => {
  it('that cannot be read, or is not the key’s, is said with its file', () => {
    expect(() => readTls({ ...TLS, certFile: '/nowhere.pem' })).toThrow('TLS_CERT_FILE: /nowhere.pem cannot be read');
    expect(() => readTls({ ...TLS, keyFile: file('other-key.pem') })).toThrow('are no certificate and its key');
    expect(() => readTls({ ...TLS, keyFile: file('README.md') })).toThrow('are no certificate and its key');
  });

  it('is set with its key, makes cookies secure, and a short token of a monitor is refused', () => {
    const env = { DATABASE_URL: 'mysql://a:b@localhost/c' };
    expect(() => readConfig({ ...env, TLS_CERT_FILE: 'a' })).toThrow('set together');
    expect(readConfig({ ...env, TLS_CERT_FILE: 'a', TLS_KEY_FILE: 'b' })).toMatchObject({
      secureCookie: true,
      tls: { certFile: 'a', keyFile: 'b' },
    });
    expect(() => readConfig({ ...env, METRICS_TOKEN: 'short' })).toThrow('METRICS_TOKEN is too short');
    expect(readConfig(env)).toMatchObject({ tls: null, metricsToken: null, pinSecretBefore: null });
  });
});
