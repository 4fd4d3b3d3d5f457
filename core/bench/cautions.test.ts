import { describe, expect, it } from 'vitest';
import { fourKey, stepThrough } from '../testing/samples.js';
import { cautionsFor } from './cautions.js';

const plain = { ...stepThrough, throttleFitted: false, cautions: [] };
const rear = stepThrough.brakes.filter(({ wheel }) => wheel === 'rear');
const quiet = { ...fourKey, dangers: [] };

describe('cautions on a stand', () => {
  it('are the wheel, the brakes and how to cut power for every vehicle', () => {
    expect(cautionsFor(plain, quiet)).toEqual([
      'Driven wheel is clear of the ground; hands, hair and sleeves are clear of spokes and tyre.',
      'Both brakes work; each lever cuts the motor.',
      `I know how to cut power: ${stepThrough.cutPower}`,
    ]);
  });

  it('say where no lever, or one alone, cuts the motor', () => {
    expect(
      cautionsFor({ ...plain, brakes: rear.map((brake) => ({ ...brake, cutsMotor: false })) }, quiet)[1],
    ).toContain('only cutting power stops it');
    expect(cautionsFor({ ...plain, brakes: rear }, quiet)[1]).toContain('only the rear lever');
  });

  it('speak of both wheels where two are driven, and of a throttle where one is fitted', () => {
    const motor = { place: 'front', drive: 'directHub', freewheels: false } as const;
    expect(cautionsFor({ ...plain, motors: [motor, { ...motor, place: 'rear' }] }, quiet)[0]).toMatch(
      /^Driven wheels are/,
    );
    expect(cautionsFor({ ...plain, throttleFitted: true }, quiet)).toContainEqual(expect.stringContaining('throttle'));
  });

  it("add what starts this display's motor and what the type warns of, each once", () => {
    const danger = {
      gesture: { kind: 'hold', keys: ['down'], ms: 1500 },
      caution: 'Long − starts the motor.',
    } as const;
    const all = cautionsFor(
      { ...plain, cautions: ['Heavy: two people lift it.', danger.caution] },
      { ...quiet, dangers: [danger] },
    );
    expect(all.slice(3)).toEqual([danger.caution, 'Heavy: two people lift it.']);
  });
});
