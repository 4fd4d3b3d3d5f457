import { describe, expect, it } from 'vitest';
import type { CodeTarget, Setup } from '../setup/setup.js';
import { isAgainst, judgeReadback } from './judge-readback.js';

const target = (label: string, raw: number | null, over: Partial<CodeTarget> = {}): CodeTarget => ({
  label,
  function: 'unknown',
  raw,
  locked: false,
  because: '',
  ...over,
});
const setup = {
  targets: [target('Gm', 0), target('G1', 31, { shownIf: { code: 'Gm', in: [2] } })],
} as unknown as Setup;
const verdicts = (readings: Record<string, (number | null)[]>): readonly string[] =>
  judgeReadback(setup, readings).map(({ label, verdict }) => `${label} ${verdict}`);

describe('a code that is listed only with another', () => {
  it('is not missed where the other says it is not there', () => {
    expect(verdicts({ Gm: [0], G1: [null] })).toEqual(['Gm agrees', 'G1 asFound']);
    expect(judgeReadback(setup, { Gm: [0], G1: [null] }).some(isAgainst)).toBe(false);
  });

  it('is missed where it should be there, by what the other was read to show, not by what it should', () => {
    expect(verdicts({ Gm: [2, 2], G1: [null, null] })).toEqual(['Gm differs', 'G1 notShown']);
  });

  it('is judged like any other where it was seen', () => {
    expect(verdicts({ Gm: [0], G1: [31] })).toEqual(['Gm agrees', 'G1 agrees']);
  });
});
