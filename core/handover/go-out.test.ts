import { describe, expect, it } from 'vitest';
import { goOut, keptIn } from './go-out.js';

const fresh = { back: null, storage: null, out: null };
const back = (mayGoOut: boolean) => ({
  ...fresh,
  back: { values: {}, asksPin: null, errors: [], mayGoOut, says: 'L4.1 reads 28 for 25.', at: '', by: '', from: '' },
});
const stored = { ...fresh, storage: { since: '', readings: [], measureAt: '' } };

describe('whether a unit may go out', () => {
  it('is no before its seal, whatever came before', () => {
    for (const status of ['waiting', 'open', 'held', 'withdrawn'] as const)
      expect(goOut(status, fresh)).toMatchObject({ may: false });
    expect(goOut('held', null).reason).toBe('held');
    expect(goOut('sealed', null)).toMatchObject({ may: false, reason: 'notSealed' });
  });

  it('is yes once sealed, in the house or out of it', () => {
    expect(goOut('sealed', fresh)).toEqual({ may: true, reason: null, says: 'It is sealed and in the house.' });
    expect(goOut('sealed', { ...fresh, out: { to: 'Gull Point' } as never })).toMatchObject({ may: true });
    expect(goOut('sealed', back(true))).toMatchObject({ may: true });
  });

  it('is no while it came back otherwise than it left, or stands in storage', () => {
    expect(goOut('sealed', back(false))).toEqual({
      may: false,
      reason: 'cameBackWrong',
      says: 'It came back and may not go out as it is. L4.1 reads 28 for 25. Set it right first.',
    });
    expect(goOut('sealed', stored)).toMatchObject({ may: false, reason: 'inStorage' });
    expect(keptIn({ ...stored, back: back(false).back })?.reason).toBe('cameBackWrong');
  });
});
