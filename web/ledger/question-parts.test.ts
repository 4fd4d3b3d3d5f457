import { describe, expect, it } from 'vitest';
import { isWhole, partsLeft, partsOf, questionIn, withoutPart } from './question-parts.js';

describe('a question in its address', () => {
  const address = 'where=out&code=speedCap&is=over&value=20&customer=Gull+Point&from=2026-03-01&strange=1';

  it('reads as a sentence, each part a choice', () => {
    const question = questionIn(new URLSearchParams(address));
    expect(
      partsOf(question, undefined)
        .map(({ before, says }) => `${before} ${says}`)
        .join(', '),
    ).toBe('Units that are out, with speed cap over 20 km/h, sealed since 2026-03-01, for Gull Point');
    expect(new URLSearchParams({ ...question }).get('strange')).toBeNull();
  });

  it('offers what is not said yet, and leaves out what is taken back', () => {
    const question = questionIn(new URLSearchParams(address));
    expect(partsLeft(question)).not.toContain('code');
    expect(partsLeft(withoutPart(question, 'code'))).toContain('code');
    expect(withoutPart(question, 'code')).toEqual({ where: 'out', customer: 'Gull Point', from: '2026-03-01' });
  });

  it('makes nothing of a function that is none', () => {
    expect(questionIn(new URLSearchParams('code=constructor&is=over&value=1'))).toEqual({});
    expect(isWhole({ code: 'speedCap' })).toBe(false);
    expect(isWhole({})).toBe(true);
  });
});
