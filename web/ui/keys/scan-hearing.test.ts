import { describe, expect, it } from 'vitest';
import { hearKey, isByHand, NOTHING_HEARD, scannedPart, type Heard, type Stroke } from './scan-hearing.js';

const PAGE = { into: 'page', field: null } as const;
const DIGITS = { into: 'digits', field: 'volts' } as const;
const WORDS = { into: 'words', field: 'came with' } as const;
const KEEPS = { into: 'keeps', field: 'number of the pack' } as const;
type Place = Pick<Stroke, 'into' | 'field'>;

/** The keys of a text, Enter last, so many milliseconds apart. */
const keys = (text: string, apartMs: number, place: Place, fromMs = 0): Stroke[] =>
  [...text, 'Enter'].map((key, i) => ({ key, atMs: fromMs + i * apartMs, ...place }));
const heardOf = (strokes: readonly Stroke[]): { heard: Heard; scan: string | null } =>
  strokes.reduce<{ heard: Heard; scan: string | null }>((sofar, stroke) => hearKey(sofar.heard, stroke), {
    heard: NOTHING_HEARD,
    scan: null,
  });
const scanOf = (strokes: readonly Stroke[]): string | null => heardOf(strokes).scan;

describe('a scan', () => {
  it('is heard on the page, among digits and among words, and left to a field that is for it', () => {
    for (const place of [PAGE, DIGITS, WORDS]) expect(scanOf(keys('S26-0414', 8, place))).toBe('S26-0414');
    expect(scanOf(keys('S26-0414', 8, KEEPS))).toBeNull();
  });

  it('of digits alone is known by its speed, also right after a digit typed by hand', () => {
    expect(scanOf(keys('20260414', 8, DIGITS))).toBe('20260414');
    expect(scanOf(keys('20260414', 60, DIGITS))).toBeNull();
    expect(scanOf([{ key: '3', atMs: 0, ...DIGITS }, ...keys('20260414', 8, DIGITS, 700)])).toBe('20260414');
  });

  it('among words is what has a digit and comes fast', () => {
    expect(scanOf(keys('charger', 8, WORDS))).toBeNull();
    expect(scanOf(keys('key-2b', 140, WORDS))).toBeNull();
    expect(scanOf([...keys('two ', 200, WORDS).slice(0, -1), ...keys('S26-0414', 8, WORDS, 900)])).toBe('S26-0414');
  });

  it('is one text though the page moves the focus under it', () => {
    const [first, rest] = [keys('HACY-26', 8, PAGE).slice(0, -1), keys('-0417', 8, DIGITS, 56)];
    expect(scanOf([...first, ...rest])).toBe('HACY-26-0417');
  });

  it('typed by hand on the page is a serial with letters and digits', () => {
    expect(scanOf(keys('S26-0414', 200, PAGE))).toBe('S26-0414');
    expect(scanOf(keys('wvtwvt', 200, PAGE))).toBeNull();
    expect(scanOf(keys('260414', 200, PAGE))).toBeNull();
  });
});

describe('keys of the bench', () => {
  it('with spaces between, and Enter in a field that came up meanwhile, are no scan', () => {
    const acts = keys('o      d', 300, PAGE).slice(0, -1);
    expect(scanOf([...acts, { key: 'Enter', atMs: 2_700, ...PAGE }])).toBeNull();
    expect(scanOf([...acts, { key: 'Enter', atMs: 2_700, ...DIGITS }])).toBeNull();
  });

  it('that make a serial are one once Enter comes, however late, and not by an Enter elsewhere', () => {
    const typed = keys('S26-0414', 200, PAGE).slice(0, -1);
    expect(scanOf([...typed, { key: 'Enter', atMs: 60_000, ...PAGE }])).toBe('S26-0414');
    expect(scanOf([...typed, { key: 'Enter', atMs: 1_600, ...DIGITS }])).toBeNull();
    expect(scanOf([...keys('260414', 8, PAGE).slice(0, -1), { key: 'Enter', atMs: 60_000, ...PAGE }])).toBeNull();
    expect(scanOf([...typed, { key: 'w', atMs: 4_000, ...PAGE }, { key: 'Enter', atMs: 4_200, ...PAGE }])).toBeNull();
  });

  it('leave the slash to itself, however long ago the last one was; within a scan it belongs to it', () => {
    const { heard } = heardOf([{ key: 'w', atMs: 0, ...PAGE }]);
    expect(isByHand(heard, 400)).toBe(true);
    expect(isByHand(heard, 8)).toBe(false);
    expect(isByHand(NOTHING_HEARD, 0)).toBe(true);
  });
});

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
