import { expect, it } from 'vitest';
import { scannedPart } from './use-scanner.js';

const fast = (n: number, from: number) => Array.from({ length: n }, (_, i) => from + i * 8);

it('leaves out a key of the bench that was pressed right before the scan', () => {
  expect(scannedPart('wS26-0414', [0, ...fast(8, 400)])).toBe('S26-0414');
  expect(scannedPart('w tS26-0414', [0, 200, 420, ...fast(8, 700)])).toBe('S26-0414');
});

it('takes a serial typed by hand as it was typed', () => {
  expect(scannedPart('S26-0414', [0, 120, 260, 300, 340, 480, 600, 700])).toBe('S26-0414');
  expect(scannedPart('S26-0414', fast(8, 0))).toBe('S26-0414');
});

it('keeps a first letter that came a little late', () => {
  expect(scannedPart('P10-0201', [0, ...fast(7, 90)])).toBe('P10-0201');
});
