import { expect, it } from 'vitest';
import { allKeyed, allRead, checkedIn, cleanVisit, opened, stateAfter, upToReadBack } from '../testing/visit-script.js';
import { projectVisit, untouchedLadder } from './project-visit.js';
import { STEPS, STEPS_OFFERED } from './steps.js';

it('shows ten marks, one a step, for what is done, now, to do and not part of the visit', () => {
  expect(STEPS).toHaveLength(10);
  expect(untouchedLadder(STEPS_OFFERED)).toBe('tttttttttx');
  expect(projectVisit(stateAfter([opened])).ladder).toBe('nxxtttxxtx');
  expect(projectVisit(stateAfter([opened, checkedIn, ...allKeyed])).ladder).toBe('dxxdntxxtx');
  expect(projectVisit(stateAfter(cleanVisit))).toMatchObject({ ladder: 'dxxdddxxdx', status: 'sealed', step: null });
});

it('marks a step that was left out otherwise than one that was done', () => {
  const byHand = (done: boolean) =>
    projectVisit(
      stateAfter([
        ...upToReadBack,
        ...allRead,
        ['readBackClosed', {}],
        ['stepByHand', { step: 'calibrate', done, words: done ? 'against a marked yard' : '' }],
      ]),
    ).ladder;
  expect([byHand(true).charAt(6), byHand(false).charAt(6)]).toEqual(['d', 'l']);
});

it('shows where and why a unit is held, and who was last at it', () => {
  expect(projectVisit(stateAfter([opened, ['held', { reason: 'damage', words: 'bent fork' }]]))).toEqual({
    status: 'held',
    step: 'checkIn',
    ladder: 'hxxtttxxtx',
    heldReason: 'Damage',
    heldWords: 'bent fork',
    worker: 'Teo R.',
    station: 'bay 1',
    odd: null,
    waits: null,
    waitsUntil: null,
  });
});

it('keeps a long reason within what lists hold', () => {
  expect(
    projectVisit(stateAfter([opened, ['held', { reason: 'other', words: 'x'.repeat(4000) }]])).heldWords,
  ).toHaveLength(1000);
});
