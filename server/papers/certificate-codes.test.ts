import { describe, expect, it } from 'vitest';
import type { DisplayMap } from '@decurio/core';
import { fourKey } from '../../core/testing/samples.js';
import {
  allRead,
  benchOpened,
  INES,
  read,
  stateAfter,
  upToReadBack,
  type Act,
} from '../../core/testing/visit-script.js';
import { codeCells, codesCaption } from './certificate-codes.js';

const map: DisplayMap = fourKey;
const cells = (state: ReturnType<typeof stateAfter>, label: string) =>
  codeCells(
    state.verdicts.find((each) => each.label === label)!,
    state,
    map,
  );

/** L2 was read twice at 24 where 25 is due and does not move; a lead lets it stand. */
const letStand: readonly Act[] = [
  ...upToReadBack.filter(([kind, data]) => !(kind === 'codeKeyed' && data.label === 'L2') && kind !== 'keyInClosed'),
];
const accepted = stateAfter([
  ...letStand.slice(0, -1),
  ['codeStuck', { label: 'L2', raw: 24 }],
  ['keyInClosed', {}],
  ['restarted', { acts: ['Off and on.'] }],
  ...allRead.filter((act) => !(act[0] === 'codeRead' && act[1].label === 'L2')),
  read('L2', 24),
  read('L2', 24),
  ['readBackClosed', {}],
  [
    'released',
    { words: 'Slower than ordered; the customer agrees.', decision: { way: 'accept', labels: ['L2'] } },
    INES,
  ],
]);

describe('the codes of a certificate', () => {
  it('say what a lead let stand, by whom and why, and do not count it as agreeing', () => {
    expect(accepted.verdicts.find(({ label }) => label === 'L2')?.verdict).toBe('accepted');
    expect(cells(accepted, 'L2').slice(2)).toEqual([
      '25',
      '24',
      expect.any(String),
      expect.stringMatching(/^Accepted as it shows by Ines M\. on 2026-11-24: Slower than ordered/),
    ]);
    expect(codesCaption(accepted)).toBe('Codes read back after restart: 4 agree, 1 accepted as shown');
  });

  it('show what was read last, whatever was read before it', () => {
    const twice = stateAfter([...upToReadBack, read('L1', 12), read('L1', 11)]);
    expect(cells(twice, 'L1').slice(2, 4)).toEqual(['11', '11']);
    expect(codesCaption(stateAfter([benchOpened]))).toBe('Codes read back after restart: 0 agree');
  });

  it('stand even for a code that the map does not name any more', () => {
    const none = { ...map, codes: [] };
    expect(codeCells(accepted.verdicts[0]!, accepted, none)[3]).toBe('11');
  });
});
