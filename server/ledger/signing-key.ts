import {
  createHash,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  randomUUID,
  sign,
  verify,
  type KeyObject,
} from 'node:crypto';
import { link, mkdir, readFile, stat, unlink, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';

/** The key of a house, kept outside its database, by which its checkpoints are signed. */
export interface SigningKey {
  readonly name: string;
  readonly publicKey: KeyObject;
  /** Four bytes of the key's own hash and the signature of a text, in base64. */
  readonly sign: (text: string) => string;
}

/** What an Ed25519 key is told apart by in a signed note: the name, its kind, the key. */
function keyHash(name: string, publicKey: KeyObject): Buffer {
  const raw = publicKey.export({ format: 'der', type: 'spki' }).subarray(-32);
  return createHash('sha256')
    .update(Buffer.concat([Buffer.from(`${name}\n`), Buffer.of(1), raw]))
    .digest()
    .subarray(0, 4);
}

/**
 * Reads the key from its file, or makes one that nobody else can read where there is none yet.
 * @throws Error where others can read the file, or it holds no such key
 */
export async function signingKey(file: string): Promise<SigningKey> {
  const pem = await readFile(file, 'utf8').catch(() => null);
  if (pem !== null && ((await stat(file)).mode & 0o077) !== 0)
    throw new Error(`Others can read ${file}: give it mode 0600, and make a new key if anybody did.`);
  const privateKey = createPrivateKey(pem ?? (await newKey(file)));
  if (privateKey.asymmetricKeyType !== 'ed25519') throw new Error(`${file} holds no Ed25519 key.`);
  const publicKey = createPublicKey(privateKey);
  const name = houseName(publicKey);
  const hash = keyHash(name, publicKey);
  return {
    name,
    publicKey,
    sign: (text) => Buffer.concat([hash, sign(null, Buffer.from(text), privateKey)]).toString('base64'),
  };
}

/** A house is named after its key: no two are the same. */
const houseName = (publicKey: KeyObject): string =>
  `decurio-${createHash('sha256')
    .update(publicKey.export({ format: 'der', type: 'spki' }))
    .digest('hex')
    .slice(0, 12)}`;

/** Written beside and linked there: of those who start at the same time one makes the key, and all read it whole. */
async function newKey(file: string): Promise<string> {
  const pem = generateKeyPairSync('ed25519').privateKey.export({ format: 'pem', type: 'pkcs8' }).toString();
  await mkdir(dirname(file), { recursive: true });
  const fresh = `${file}.${randomUUID()}`;
  await writeFile(fresh, pem, { mode: 0o600, flag: 'wx' });
  await link(fresh, file).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'EEXIST') throw error;
  });
  await unlink(fresh);
  return readFile(file, 'utf8');
}

/** Whether a signature of a note was made by this key over this text. */
export function isSignedBy(
  { name, publicKey }: Pick<SigningKey, 'name' | 'publicKey'>,
  text: string,
  given: string,
): boolean {
  const bytes = Buffer.from(given, 'base64');
  return (
    bytes.length === 68 &&
    bytes.subarray(0, 4).equals(keyHash(name, publicKey)) &&
    verify(null, Buffer.from(text), publicKey, bytes.subarray(4))
  );
}

/** The key by which anybody can check a signature, as one line: name, hash and key, in the open form of signed notes. */
export function verifierKey({ name, publicKey }: Pick<SigningKey, 'name' | 'publicKey'>): string {
  const raw = publicKey.export({ format: 'der', type: 'spki' }).subarray(-32);
  return `${name}+${keyHash(name, publicKey).toString('hex')}+${Buffer.concat([Buffer.of(1), raw]).toString('base64')}`;
}

/** What stands before the 32 bytes of an Ed25519 key in its DER form: RFC 8410. */
const SPKI_HEAD = Buffer.from('302a300506032b6570032100', 'hex');

/** Reads such a line; null for anything that is none, or whose hash is not that of its key. */
export function readVerifierKey(line: string): Pick<SigningKey, 'name' | 'publicKey'> | null {
  const [, name, hash, body] = /^(\S{1,120}?)\+([0-9a-f]{8})\+([A-Za-z0-9+/]{44})$/.exec(line.trim()) ?? [];
  const bytes = Buffer.from(body ?? '', 'base64');
  if (name === undefined || bytes.length !== 33 || bytes[0] !== 1) return null;
  const der = Buffer.concat([SPKI_HEAD, bytes.subarray(1)]);
  const publicKey = createPublicKey({ key: der, format: 'der', type: 'spki' });
  return keyHash(name, publicKey).toString('hex') === hash ? { name, publicKey } : null;
}
