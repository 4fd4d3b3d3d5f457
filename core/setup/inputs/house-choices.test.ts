import { describe, expect, it } from 'vitest';
import { checkedLine, checkStanding } from './vehicle-class.js';
import { answerWords, HOUSE_CHOICES, STANDARD_CHOICES } from './house-choices.js';

describe('the questions on which practitioners disagree', () => {
  it('are asked once each, with a default that is one of the answers, and a reason', () => {
    expect(new Set(HOUSE_CHOICES.map(({ choice }) => choice)).size).toBe(HOUSE_CHOICES.length);
    for (const { answers, standard, because, number } of HOUSE_CHOICES) {
      expect(because).toMatch(/\.$/);
      if (answers) expect(answers.map(({ value }) => value)).toContain(standard);
      else
        expect(standard).toSatisfy(
          (value: number) => number !== undefined && value >= number.min && value <= number.max,
        );
    }
  });

  it('have the defaults that spare riders, packs and licences', () => {
    expect(STANDARD_CHOICES).toMatchObject({
      standstillStart: 'rolling',
      cruise: 'off',
      shownSpeed: 'neverUnder',
      uncapped: 'never',
      odometer: 'never',
      packUse: 'fourFifths',
      assistLevels: 5,
      zeroLevel: 'offered',
      readAsFound: 'sample',
    });
  });

  it('read as a person says them', () => {
    expect(answerWords('standstillStart', 'pedalFirst')).toBe('only once pedalling');
    expect(answerWords('autoOffMin', 0)).toBe('never');
    expect(answerWords('autoOffMin', 10)).toBe('10 min');
    expect(answerWords('cutoffMarginVPerCell', 0)).toBe("at the cell's floor");
  });
});

describe('the check of a class', () => {
  const check = {
    by: 'Ines M.',
    authority: 'harbour office',
    source: 'letter',
    on: '2026-10-01',
    expiresOn: '2026-11-25',
  };

  it('holds on its last day, and not after it', () => {
    expect([
      checkStanding(null, '2026-11-25'),
      checkStanding(check, '2026-11-25'),
      checkStanding(check, '2026-11-26'),
    ]).toEqual(['notChecked', 'checked', 'expired']);
    expect(checkedLine(check, '2026-11-25')).toBe('checked by Ines M. on 2026-10-01');
    expect(checkedLine(check, '2026-11-26')).toBe('checked by Ines M. on 2026-10-01, ran out on 2026-11-25');
    expect(checkedLine(null)).toBe('not checked');
  });
});
