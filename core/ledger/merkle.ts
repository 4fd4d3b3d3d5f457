import { sha256 } from '@noble/hashes/sha2.js';

/** A hash of 32 bytes. */
export type Hash = Uint8Array;

/** Leaves and nodes are told apart by their first byte, so that no node can be passed off as a leaf: RFC 6962, section 2.1. */
const LEAF = 0;
const NODE = 1;

const hashed = (prefix: number, ...parts: readonly Uint8Array[]): Hash => {
  const hash = sha256.create().update(Uint8Array.of(prefix));
  for (const part of parts) hash.update(part);
  return hash.digest();
};

export const leafHash = (leaf: Uint8Array): Hash => hashed(LEAF, leaf);
const nodeHash = (left: Hash, right: Hash): Hash => hashed(NODE, left, right);

/** The greatest power of two under `n`, for n of at least 2. */
function split(n: number): number {
  let k = 1;
  while (k * 2 < n) k *= 2;
  return k;
}

/**
 * Every level of a tree, leaves first: pairs are joined, and what is left over at the right goes up as it is. That is the
 * tree of RFC 6962, which splits at the greatest power of two.
 */
export type MerkleTree = readonly (readonly Hash[])[];

export function merkleTree(leaves: readonly Hash[]): MerkleTree {
  const levels: (readonly Hash[])[] = [leaves];
  for (let level = leaves; level.length > 1;) {
    const next: Hash[] = [];
    for (let i = 0; i < level.length; i += 2) {
      const [left, right] = [level[i], level[i + 1]];
      if (left) next.push(right ? nodeHash(left, right) : left);
    }
    level = next;
    levels.push(level);
  }
  return levels;
}

/** The root over leaves given by their hashes, in order; of none at all the hash of nothing. */
export const merkleRoot = (leaves: readonly Hash[]): Hash =>
  merkleTree(leaves).at(-1)?.[0] ?? sha256(new Uint8Array(0));

/** The hashes by which a leaf at `index` leads to the root of a tree, nearest first: RFC 6962, section 2.1.1. */
export function inclusionProof(tree: MerkleTree, index: number): readonly Hash[] {
  const size = tree[0]?.length ?? 0;
  if (index < 0 || index >= size) throw new RangeError(`no leaf ${index} among ${size}`);
  return tree.slice(0, -1).flatMap((level, height) => {
    const other = level[Math.floor(index / 2 ** height) ^ 1];
    return other ? [other] : [];
  });
}

/** Whether a leaf stands at `index` of a tree of `size` leaves with this root. Never throws, whatever it is given. */
export function verifyInclusion(leaf: Hash, index: number, size: number, proof: readonly Hash[], root: Hash): boolean {
  if (!Number.isSafeInteger(index) || !Number.isSafeInteger(size) || index < 0 || index >= size) return false;
  let [at, last] = [index, size - 1];
  let hash = leaf;
  for (const other of proof) {
    if (last === 0) return false;
    if (at % 2 === 1 || at === last) {
      hash = nodeHash(other, hash);
      while (at % 2 === 0 && at !== 0) [at, last] = [Math.floor(at / 2), Math.floor(last / 2)];
    } else hash = nodeHash(hash, other);
    [at, last] = [Math.floor(at / 2), Math.floor(last / 2)];
  }
  return last === 0 && isSame(hash, root);
}

/** The hashes by which a tree of `older` leaves is shown to be the beginning of this one: RFC 6962, section 2.1.2. */
export function consistencyProof(leaves: readonly Hash[], older: number): readonly Hash[] {
  if (older < 1 || older > leaves.length) throw new RangeError(`no tree of ${older} within one of ${leaves.length}`);
  return subProof(leaves, older, true);
}

function subProof(leaves: readonly Hash[], m: number, isWhole: boolean): readonly Hash[] {
  if (m === leaves.length) return isWhole ? [] : [merkleRoot(leaves)];
  const k = split(leaves.length);
  return m <= k
    ? [...subProof(leaves.slice(0, k), m, isWhole), merkleRoot(leaves.slice(k))]
    : [...subProof(leaves.slice(k), m - k, false), merkleRoot(leaves.slice(0, k))];
}

/** Whether a tree of `size` leaves begins with one of `older`: nothing was taken out of it, or changed. Never throws. */
export function verifyConsistency(
  older: number,
  size: number,
  olderRoot: Hash,
  root: Hash,
  proof: readonly Hash[],
): boolean {
  if (!Number.isSafeInteger(older) || !Number.isSafeInteger(size) || older < 1 || older > size) return false;
  if (older === size) return proof.length === 0 && isSame(olderRoot, root);
  const path = isPowerOfTwo(older) ? [olderRoot, ...proof] : [...proof];
  const [first, ...rest] = path;
  if (first === undefined) return false;
  let [at, last] = [older - 1, size - 1];
  while (at % 2 === 1) [at, last] = [Math.floor(at / 2), Math.floor(last / 2)];
  let [was, is] = [first, first];
  for (const other of rest) {
    if (last === 0) return false;
    if (at % 2 === 1 || at === last) {
      was = nodeHash(other, was);
      is = nodeHash(other, is);
      while (at % 2 === 0 && at !== 0) [at, last] = [Math.floor(at / 2), Math.floor(last / 2)];
    } else is = nodeHash(is, other);
    [at, last] = [Math.floor(at / 2), Math.floor(last / 2)];
  }
  return last === 0 && isSame(was, olderRoot) && isSame(is, root);
}

const isPowerOfTwo = (n: number): boolean => Number.isInteger(Math.log2(n));

const isSame = (a: Hash, b: Hash): boolean => a.length === b.length && a.every((byte, i) => byte === b[i]);
