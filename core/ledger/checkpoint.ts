import { utf8ToBytes } from '@noble/hashes/utils.js';
import { leafHash, type Hash } from './merkle.js';

/** How far a visit had come: a leaf of the tree that checkpoints are made over. */
export interface CheckpointLeaf {
  readonly visitId: string;
  readonly seq: number;
  readonly hash: string;
}

export const checkpointLeaf = ({ visitId, seq, hash }: CheckpointLeaf): Hash =>
  leafHash(utf8ToBytes(`${visitId} ${seq} ${hash}`));

/** What a checkpoint says: whose ledger, how many leaves it had, and the root over them. */
export interface Checkpoint {
  readonly origin: string;
  readonly size: number;
  /** In base64. */
  readonly root: string;
}

/** A checkpoint with the signatures under it, in the open form of a signed note. */
export interface SignedCheckpoint extends Checkpoint {
  /** The text that is signed: its three lines. */
  readonly text: string;
  readonly signatures: readonly { readonly name: string; readonly keyAndSignature: string }[];
}

/** The lines that are signed: origin, size, root. */
export const checkpointText = ({ origin, size, root }: Checkpoint): string => `${origin}\n${size}\n${root}\n`;

/** The signed note: the text, an empty line, and a line a signature. */
export const signedNote = (text: string, name: string, keyAndSignature: string): string =>
  `${text}\n— ${name} ${keyAndSignature}\n`;

const MOST_CHARACTERS = 4_000;
const BASE64 = /^[A-Za-z0-9+/]{1,120}={0,2}$/;

/** Reads a signed note; null for anything that is none. Whether a signature holds is for who has the key to say. */
export function parseCheckpoint(note: string): SignedCheckpoint | null {
  if (note.length > MOST_CHARACTERS) return null;
  const end = note.indexOf('\n\n');
  if (end === -1) return null;
  const text = note.slice(0, end + 1);
  const [origin = '', sizeWords = '', root = '', ...more] = text.slice(0, -1).split('\n');
  const size = Number(sizeWords);
  const isSound =
    origin !== '' &&
    more.length === 0 &&
    /^\d{1,15}$/.test(sizeWords) &&
    Number.isSafeInteger(size) &&
    BASE64.test(root);
  const lines = note
    .slice(end + 2)
    .split('\n')
    .filter((line) => line !== '');
  const signatures = lines.flatMap((line) => {
    const [, name, keyAndSignature] = /^— (\S{1,120}) ([A-Za-z0-9+/]+={0,2})$/.exec(line) ?? [];
    return name === undefined || keyAndSignature === undefined ? [] : [{ name, keyAndSignature }];
  });
  return isSound && signatures.length > 0 && signatures.length === lines.length
    ? { origin, size, root, text, signatures }
    : null;
}
