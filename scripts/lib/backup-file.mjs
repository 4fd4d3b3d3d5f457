import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createReadStream, createWriteStream, existsSync, renameSync, rmSync } from 'node:fs';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { StartProblem } from './say.mjs';

/** What the first line of a backup says, and what the last line of a whole one is. */
const HEAD = '-- decurio-backup/1 ';
const END = /^-- Dump completed/;

/** @param {string} url */
function connectionOf(url) {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    words: [
      `--host=${hostname}`,
      `--port=${port || '3306'}`,
      `--user=${decodeURIComponent(username)}`,
      '--protocol=tcp',
      '--default-character-set=utf8mb4',
    ],
    database: decodeURIComponent(pathname.slice(1)),
    // Not among the words: those can be read by everybody on the machine.
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
  };
}

/**
 * Writes the whole database into one file, as it stood at one moment, while others go on working.
 * @param {string} databaseUrl with rights to read
 * @param {string} file must not be there yet
 * @throws {StartProblem} with the cause; no half file is left
 */
export async function backUp(databaseUrl, file) {
  if (existsSync(file)) throw new StartProblem(`${file} is there already: name another file.`);
  const { words, database, env } = connectionOf(databaseUrl);
  const part = `${file}.part`;
  const dump = spawn(
    'mariadb-dump',
    [...words, '--single-transaction', '--quick', '--hex-blob', '--skip-lock-tables', '--no-tablespaces', database],
    { env, stdio: ['ignore', 'pipe', 'pipe'] },
  );
  const ended = endOf(dump);
  const head = `${HEAD}${JSON.stringify({ madeAt: new Date().toISOString() })}\n`;
  try {
    const written = createWriteStream(part, { flags: 'wx', mode: 0o600 });
    await Promise.all([pipeline(dump.stdout, withHead(head), createGzip(), written), ended]);
    renameSync(part, file);
  } catch (error) {
    rmSync(part, { force: true });
    throw error;
  }
}

/** @param {string} head */
function withHead(head) {
  let isFirst = true;
  return new Transform({
    transform(chunk, _encoding, done) {
      if (isFirst) this.push(head);
      isFirst = false;
      done(null, chunk);
    },
  });
}

/**
 * Settles when a program ended well. What it says of an error is what whoever called it hears.
 * @param {import('node:child_process').ChildProcess} program
 */
async function endOf(program) {
  let said = '';
  program.stderr?.on('data', (chunk) => (said = `${said}${chunk}`.slice(-2_000)));
  const [code] = await once(program, 'close').catch((error) => {
    throw new StartProblem(`${error.message}: install Debian's mariadb-client.`);
  });
  if (code !== 0) throw new StartProblem(`The database refused: ${said.trim() || `code ${code}`}`);
}

/**
 * Reads a backup from its first line to its last, before anything is done with it.
 * @param {string} file
 * @returns {Promise<{ madeAt: string }>}
 * @throws {StartProblem} where it is none, or was cut short
 */
export async function checkBackup(file) {
  if (!existsSync(file)) throw new StartProblem(`There is no ${file}.`);
  let [first, last] = ['', ''];
  try {
    await new Promise((done, failed) => {
      const reading = createReadStream(file);
      const text = reading.pipe(createGunzip());
      for (const each of [reading, text]) each.once('error', failed);
      let rest = '';
      text.setEncoding('utf8');
      text.on('data', (chunk) => {
        if (first === '') first = chunk.slice(0, 200).split('\n')[0] ?? '';
        rest = `${rest}${chunk}`.slice(-400);
      });
      text.once('end', () => {
        last = rest.trimEnd().split('\n').at(-1) ?? '';
        done(undefined);
      });
    });
  } catch (error) {
    throw new StartProblem(
      `${file} is no whole backup: ${error instanceof Error ? error.message : error}. Take another.`,
    );
  }
  if (!first.startsWith(HEAD)) throw new StartProblem(`${file} is no backup of Decurio.`);
  if (!END.test(last)) throw new StartProblem(`${file} was cut short: its end is missing. Take another.`);
  return JSON.parse(first.slice(HEAD.length));
}

/**
 * Brings a backup into an empty database.
 * @param {string} ownerUrl with the owner's rights
 * @param {string} file one that was checked
 */
export async function bringBack(ownerUrl, file) {
  const { words, database, env } = connectionOf(ownerUrl);
  const client = spawn('mariadb', [...words, database], { env, stdio: ['pipe', 'ignore', 'pipe'] });
  const ended = endOf(client);
  await Promise.all([pipeline(createReadStream(file), createGunzip(), client.stdin), ended]);
}
