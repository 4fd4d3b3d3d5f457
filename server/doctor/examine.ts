import { X509Certificate } from 'node:crypto';
import { existsSync, statSync } from 'node:fs';
import { statfs } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { StatusFinding } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import type { Config } from '../config.js';
import { readTls } from '../tls.js';
import { makeDataSource } from '../store/data-source.js';
import { APPEND_ONLY } from '../store/migrate.js';

export type Finding = StatusFinding;

/** How a process is set up beside its configuration. */
export interface Settings {
  readonly config: Config;
  /** By name, as they were given; a secret that was left out is made anew at each start. */
  readonly given: ReadonlySet<string>;
  readonly nodeVersion: string;
  readonly nowMs: number;
}

const LEAST_NODE = [20, 19] as const;
const LEAST_DATABASE = [10, 11] as const;
const LEAST_SECRET = 32;
const MOST_OFF_S = 2;
const LEAST_FREE_GB = 2;

/** Looks at everything a house leans on, changes nothing, and says of each what is amiss and what to do. */
export async function examine(settings: Settings): Promise<readonly Finding[]> {
  return [
    nodeOf(settings),
    ...secretsOf(settings),
    ...addressOf(settings),
    keyOf(settings),
    ...certificateOf(settings),
    await roomOf(settings),
    ...(await databaseOf(settings)),
  ];
}

const good = (of: string, says: string): Finding => ({ of, grade: 'good', says });
const look = (of: string, says: string): Finding => ({ of, grade: 'look', says });
const amiss = (of: string, says: string): Finding => ({ of, grade: 'amiss', says });

/** Whether a version is at least this one; text behind its figures says nothing. */
function isAtLeast(version: string, [major, minor]: readonly [number, number]): boolean {
  const [, ofMajor, ofMinor] = /(\d+)\.(\d+)/.exec(version) ?? [];
  return Number(ofMajor) > major || (Number(ofMajor) === major && Number(ofMinor) >= minor);
}

const nodeOf = ({ nodeVersion }: Settings): Finding =>
  isAtLeast(nodeVersion, LEAST_NODE)
    ? good('Node', nodeVersion)
    : amiss('Node', `${nodeVersion} is too old: ${LEAST_NODE.join('.')} or newer is needed.`);

function secretsOf({ config, given }: Settings): readonly Finding[] {
  const secret = (name: string, value: string, lost: string): Finding => {
    if (!given.has(name)) return amiss(name, `Not set: it is made anew at each start, and ${lost}.`);
    if (value.length < LEAST_SECRET) return look(name, `${value.length} characters: give it ${LEAST_SECRET} or more.`);
    return good(name, 'set');
  };
  const pin = given.has('PIN_SECRET')
    ? secret('PIN_SECRET', config.pinSecret, '')
    : given.has('COOKIE_SECRET')
      ? look(
          'PIN_SECRET',
          'Not set: PINs are sealed by COOKIE_SECRET. Give them a secret of their own, with COOKIE_SECRET as PIN_SECRET_BEFORE, and run `npm run rotate -- pins`.',
        )
      : secret('PIN_SECRET', '', 'PINs cannot be read any more');
  const before = look(
    'PIN_SECRET_BEFORE',
    'Still set: run `npm run rotate -- pins`, then take it out and start the servers anew.',
  );
  return [
    secret('COOKIE_SECRET', config.cookieSecret, 'everybody is signed out'),
    pin,
    ...(config.pinSecretBefore === null ? [] : [before]),
  ];
}

function addressOf({ config }: Settings): readonly Finding[] {
  const { publicOrigin, secureCookie } = config;
  const isTls = publicOrigin?.startsWith('https:') ?? false;
  const origin =
    publicOrigin === null
      ? look('PUBLIC_ORIGIN', 'Not set: the address that a request names is believed.')
      : isTls
        ? good('PUBLIC_ORIGIN', publicOrigin)
        : look('PUBLIC_ORIGIN', `${publicOrigin} is not encrypted: passwords can be read on the way.`);
  if (isTls && !secureCookie)
    return [origin, amiss('SECURE_COOKIE', 'Set it to true: sessions would be sent without encryption too.')];
  if (!isTls && secureCookie)
    return [origin, amiss('SECURE_COOKIE', 'It is true, but the address is not https: nobody could stay signed in.')];
  return [origin, good('SECURE_COOKIE', String(secureCookie))];
}

function keyOf({ config: { checkpointKeyFile: file } }: Settings): Finding {
  if (file === null) return look('CHECKPOINT_KEY_FILE', 'Not set: no checkpoints are signed.');
  if (!existsSync(file)) return look('CHECKPOINT_KEY_FILE', `${file} is not there: it is made at the first start.`);
  const { mode } = statSync(file);
  return (mode & 0o077) === 0
    ? good('CHECKPOINT_KEY_FILE', file)
    : amiss('CHECKPOINT_KEY_FILE', `Others can read ${file}: give it mode 0600, and make a new key if anybody did.`);
}

/** Days before its end that a certificate is to be renewed. */
const RENEW_DAYS = 14;

function certificateOf({ config: { tls }, nowMs }: Settings): readonly Finding[] {
  if (tls === null) return [];
  try {
    const { validTo, subject } = new X509Certificate(readTls(tls).cert);
    const days = Math.floor((Date.parse(validTo) - nowMs) / 86_400_000);
    const whose = subject.replace(/\n/g, ', ');
    if (days < 0) return [amiss('TLS_CERT_FILE', `It ended ${-days} days ago: browsers refuse it.`)];
    return [
      days < RENEW_DAYS
        ? look('TLS_CERT_FILE', `It ends in ${days} days: renew it, then send the server SIGHUP.`)
        : good('TLS_CERT_FILE', `${whose}, ${days} days left`),
    ];
  } catch (error) {
    return [amiss('TLS_CERT_FILE', (error as Error).message)];
  }
}

async function roomOf({ config }: Settings): Promise<Finding> {
  const at = config.checkpointKeyFile === null ? '.' : dirname(config.checkpointKeyFile);
  const { bavail, bsize } = await statfs(existsSync(at) ? at : '.');
  const free = (bavail * bsize) / 1e9;
  return free >= LEAST_FREE_GB
    ? good('Room here', `${free.toFixed(0)} GB free`)
    : look('Room here', `${free.toFixed(1)} GB free: a full disk stops every entry.`);
}

async function databaseOf({ config, nowMs }: Settings): Promise<readonly Finding[]> {
  const source = makeDataSource(config.databaseUrl, 1);
  try {
    await source.initialize();
  } catch (error) {
    return [amiss('DATABASE_URL', `The database does not answer: ${(error as Error).message}`)];
  }
  try {
    return await askedOf(source, nowMs);
  } finally {
    await source.destroy();
  }
}

async function askedOf(source: DataSource, nowMs: number): Promise<readonly Finding[]> {
  const [asked] = await source.query<
    { version: string; nowMs: string; flush: number; mode: string; charset: string; tables: string }[]
  >(
    `SELECT VERSION() AS version, ROUND(UNIX_TIMESTAMP(NOW(3)) * 1000) AS nowMs, @@innodb_flush_log_at_trx_commit AS flush,
      @@sql_mode AS mode, @@character_set_database AS charset,
      (SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'migration') AS tables`,
  );
  if (!asked) return [amiss('Database', 'It answers nothing.')];
  const version = isAtLeast(asked.version, LEAST_DATABASE)
    ? good('Database', asked.version)
    : amiss('Database', `${asked.version} is too old: MariaDB ${LEAST_DATABASE.join('.')} or newer is needed.`);
  const offS = (Number(asked.nowMs) - nowMs) / 1000;
  const findings = [
    version,
    Math.abs(offS) <= MOST_OFF_S
      ? good('Clocks', 'of this machine and the database agree')
      : amiss(
          'Clocks',
          `The database is ${Math.round(Math.abs(offS))} s ${offS > 0 ? 'ahead' : 'behind'}: let both follow a time server.`,
        ),
    Number(asked.flush) === 1
      ? good('Commits', 'are on the disk before they are acknowledged')
      : amiss('Commits', 'innodb_flush_log_at_trx_commit is not 1: what was acknowledged may be lost with the power.'),
    asked.charset === 'utf8mb4'
      ? good('Letters', 'utf8mb4')
      : look('Letters', `The database is ${asked.charset}: make it utf8mb4, so that every name can be kept.`),
  ];
  if (Number(asked.tables) === 0)
    return [
      ...findings,
      look('Tables', 'There are none: they are made at the first start with DATABASE_OWNER_URL set.'),
    ];
  return [...findings, await schemaOf(source), await rightsOf(source), ...(await peopleOf(source))];
}

async function schemaOf(source: DataSource): Promise<Finding> {
  const [{ n = '0' } = {}] = await source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM migration');
  const left = source.migrations.length - Number(n);
  if (left === 0) return good('Tables', 'are up to date');
  return left > 0
    ? look(
        'Tables',
        `${left} ${left === 1 ? 'change is' : 'changes are'} still to come: start once with DATABASE_OWNER_URL set.`,
      )
    : amiss('Tables', 'They are of a newer release than this one: update the program.');
}

/** Tables that this account could change though nothing in them may ever be changed. */
async function rightsOf(source: DataSource): Promise<Finding> {
  const open: string[] = [];
  for (const table of APPEND_ONLY)
    await source.query(`DELETE FROM ${table} WHERE 1 = 0`).then(
      () => open.push(table),
      () => undefined,
    );
  return open.length === 0
    ? good('Rights', 'What is recorded cannot be changed by this account.')
    : amiss(
        'Rights',
        `The account of DATABASE_URL may change ${open.slice(0, 3).join(', ')}: give it no rights of its own; starting with DATABASE_OWNER_URL grants what it needs.`,
      );
}

async function peopleOf(source: DataSource): Promise<readonly Finding[]> {
  const [count] = await source.query<{ owners: string | null; demo: string | null }[]>(
    "SELECT SUM(role = 'owner' AND lockedAt IS NULL) AS owners, SUM(isDemo) AS demo FROM account",
  );
  return [
    Number(count?.owners ?? 0) > 0
      ? good('Owners', `${Number(count?.owners)}`)
      : look('Owners', 'Nobody: the server prints a code as it starts, by which the first is made.'),
    ...(Number(count?.demo ?? 0) > 0
      ? [amiss('Demo accounts', 'Their passwords stand on the sign-in page: lock them, or give them others.')]
      : []),
  ];
}
