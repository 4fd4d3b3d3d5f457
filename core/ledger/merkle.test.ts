import fc from 'fast-check';
import { bytesToHex, hexToBytes } from '@noble/hashes/utils.js';
import { describe, expect, it } from 'vitest';
import {
  consistencyProof,
  inclusionProof,
  leafHash,
  merkleRoot,
  merkleTree,
  verifyConsistency,
  verifyInclusion,
  type Hash,
} from './merkle.js';

/** The published example: eight leaves, and the root over the first one, two, three ... of them. */
const LEAVES = ['', '00', '10', '2021', '3031', '40414243', '5051525354555657', '606162636465666768696a6b6c6d6e6f'].map(
  (hex) => leafHash(hexToBytes(hex)),
);
const ROOTS = [
  '6e340b9cffb37a989ca544e6bb780a2c78901d3fb33738768511a30617afa01d',
  'fac54203e7cc696cf0dfcb42c92a1d9dbaf70ad9e621f4bd8d98662f00e3c125',
  'aeb6bcfe274b70a14fb067a5e5578264db0fa9b51af5e0ba159158f329e06e77',
  'd37ee418976dd95753c1c73862b9398fa2a2cf9b4ff0fdfe8b30cd95209614b7',
  '4e3bbb1f7b478dcfe71fb631631519a3bca12c9aefca1612bfce4c13a86264d4',
  '76e67dadbcdf1e10e1b74ddc608abd2f98dfb16fbce75277b5232a127f2087ef',
  'ddb89be403809e325750d3d263cd78929c2942b7942a34b77e122c9594a74c8c',
  '5dc9da79a70659a9ad559cb701ded9a2ab9d823aad2f4960cfe370eff4604328',
];

it('has the published roots', () => {
  expect(ROOTS.map((_, i) => bytesToHex(merkleRoot(LEAVES.slice(0, i + 1))))).toEqual(ROOTS);
  expect(bytesToHex(merkleRoot([]))).toBe('e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855');
});

const leavesOf = (n: number): Hash[] => Array.from({ length: n }, (_, i) => leafHash(Uint8Array.of(i & 255, i >> 8)));
const sizes = fc.integer({ min: 1, max: 70 });

describe('that a leaf stands in a tree', () => {
  it('is shown for every leaf of every tree, and for no other leaf, place, size or root', () => {
    fc.assert(
      fc.property(sizes, fc.nat(), fc.nat(), (size, a, b) => {
        const leaves = leavesOf(size);
        const index = a % size;
        const root = merkleRoot(leaves);
        const proof = inclusionProof(merkleTree(leaves), index);
        const leaf = leaves[index]!;
        expect(verifyInclusion(leaf, index, size, proof, root)).toBe(true);
        expect(verifyInclusion(leafHash(Uint8Array.of(9, 9, 9)), index, size, proof, root)).toBe(false);
        if (size > 1)
          expect(verifyInclusion(leaf, (index + 1 + (b % (size - 1))) % size, size, proof, root)).toBe(false);
        expect(verifyInclusion(leaf, index, size, [...proof, root], root)).toBe(false);
        expect(verifyInclusion(leaf, index, size, proof.slice(1), root)).toBe(size === 1);
        expect(verifyInclusion(leaf, index, size, proof, leaf)).toBe(size === 1);
      }),
    );
  });

  it.each([
    [-1, 4],
    [4, 4],
    [0.5, 4],
    [Number.NaN, 4],
    [0, Infinity],
  ])('is never shown at place %s of %s', (index, size) => {
    expect(verifyInclusion(LEAVES[0]!, index, size, [], LEAVES[0]!)).toBe(false);
  });
});

describe('that a tree begins with an older one', () => {
  it('is shown for every two sizes, and where a leaf was taken out or changed it is not', () => {
    fc.assert(
      fc.property(sizes, fc.nat(), fc.nat(), (size, a, b) => {
        const leaves = leavesOf(size);
        const older = 1 + (a % size);
        const olderRoot = merkleRoot(leaves.slice(0, older));
        const proof = consistencyProof(leaves, older);
        expect(verifyConsistency(older, size, olderRoot, merkleRoot(leaves), proof)).toBe(true);
        const gone = b % older;
        const without = leaves.filter((_, i) => i !== gone);
        const changed = leaves.map((leaf, i) => (i === gone ? leafHash(Uint8Array.of(7, 7, 7)) : leaf));
        for (const other of [without, changed]) {
          if (other.length < older) continue;
          expect(
            verifyConsistency(older, other.length, olderRoot, merkleRoot(other), consistencyProof(other, older)),
          ).toBe(false);
        }
        if (proof.length > 0)
          expect(verifyConsistency(older, size, olderRoot, merkleRoot(leaves), proof.slice(1))).toBe(false);
      }),
    );
  });
});
