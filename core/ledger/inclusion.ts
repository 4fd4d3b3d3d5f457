import { base64 } from '@scure/base';
import { checkpointLeaf, parseCheckpoint, type CheckpointLeaf } from './checkpoint.js';
import { inclusionProof, verifyInclusion, type MerkleTree } from './merkle.js';

/** Shows that a seal stands in the tree under a checkpoint: what is kept of it elsewhere shows a record that has since gone. */
export interface Inclusion {
  /** The signed checkpoint, as a text. */
  readonly checkpoint: string;
  /** Its place among the leaves, from 0. */
  readonly index: number;
  /** Hashes that lead from its leaf to the root, nearest first, in base64. */
  readonly proof: readonly string[];
}

/** @param checkpoint the signed note over exactly this tree */
export const includeLeaf = (tree: MerkleTree, index: number, checkpoint: string): Inclusion => ({
  checkpoint,
  index,
  proof: inclusionProof(tree, index).map((hash) => base64.encode(hash)),
});

const MOST_HASHES = 64;

/**
 * Whether a leaf stands where an inclusion says, under the root of the checkpoint it brings. Whether that checkpoint was
 * signed by the house is for whoever has its key to say.
 * @returns in words why it does not; null where it does
 */
export function inclusionFault(leaf: CheckpointLeaf, data: unknown): string | null {
  if (!looksLikeInclusion(data)) return 'What is said of its checkpoint cannot be read.';
  const checkpoint = parseCheckpoint(data.checkpoint);
  if (!checkpoint) return 'Its checkpoint cannot be read.';
  const [root, ...proof] = [checkpoint.root, ...data.proof].map(bytesOf);
  if (!root || proof.some((hash) => hash === null)) return 'A hash of its checkpoint cannot be read.';
  const hashes = proof.filter((hash) => hash !== null);
  return verifyInclusion(checkpointLeaf(leaf), data.index, checkpoint.size, hashes, root)
    ? null
    : 'Its checkpoint does not hold this seal at that place.';
}

function bytesOf(text: string): Uint8Array | null {
  try {
    return base64.decode(text);
  } catch {
    return null;
  }
}

function looksLikeInclusion(data: unknown): data is Inclusion {
  if (typeof data !== 'object' || data === null) return false;
  const { checkpoint, index, proof } = data as Record<string, unknown>;
  return (
    Object.keys(data).length === 3 &&
    typeof checkpoint === 'string' &&
    Number.isSafeInteger(index) &&
    Array.isArray(proof) &&
    proof.length <= MOST_HASHES &&
    proof.every((hash) => typeof hash === 'string')
  );
}
