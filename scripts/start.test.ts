import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mkdtempSync, rmSync } from 'node:fs';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startDatabase, type Database } from './lib/database.mjs';
import { startServer } from './lib/server.mjs';

let home: string;
let database: Database;
beforeAll(async () => {
  home = mkdtempSync(join(tmpdir(), 'decurio-start-'));
  database = await startDatabase(home);
});
afterAll(async () => {
  await database.stop();
  rmSync(home, { recursive: true, force: true });
});

const start = (port: number) =>
  startServer({ databaseUrl: database.databaseUrl, ownerUrl: database.ownerUrl, cookieSecret: 'test', port });

it('gives each of several starts at one moment a server of its own, though all want one port', async () => {
  // The first alone makes the tables: several at once would wait for one another.
  await (await start(19_400)).stop();
  const servers = await Promise.all(Array.from({ length: 4 }, () => start(19_400)));
  expect(new Set(servers.map(({ address }) => address)).size).toBe(4);
  expect(new Set(servers.map(({ pid }) => pid)).size).toBe(4);
  await Promise.all(servers.map((server) => server.stop()));
});

it('does not take another program that answers on its port for the server', async () => {
  const other = await listenOn(19_450);
  const server = await start(19_450);
  expect(server.address).toBe('http://127.0.0.1:19451');
  await server.stop();
  other.close();
});

const listenOn = (port: number): Promise<Server> =>
  new Promise((resolve) => {
    const server = createServer((socket) => socket.end('HTTP/1.1 200 OK\r\ncontent-length: 0\r\n\r\n'));
    server.listen(port, '127.0.0.1', () => resolve(server));
  });
