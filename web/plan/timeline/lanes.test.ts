import { describe, expect, it } from 'vitest';
import type { PlanBar, PlanView } from '@decurio/contract';
import { daysOf, gaps, lanesOf, opensAtMs, partsOf } from './lanes.js';

const HOUR = 3_600_000;
const MONDAY = Date.UTC(2026, 10, 30, 8);
const at = (hours: number): number => MONDAY + hours * HOUR;
const bar = (unitId: string, from: number, to: number, over: Partial<PlanBar> = {}): PlanBar => ({
  unitId,
  orderId: 'o',
  step: 'keyIn',
  tone: 'stand',
  fromMs: at(from),
  toMs: at(to),
  personId: 'ines',
  placeId: null,
  ...over,
});
const plan = (bars: readonly PlanBar[]): PlanView =>
  ({
    bars,
    people: [
      {
        id: 'ines',
        name: 'Ines M.',
        isYou: true,
        skills: ['bench'],
        hours: [
          { fromMs: at(0), toMs: at(4) },
          { fromMs: at(4.5), toMs: at(9) },
        ],
      },
    ],
    places: [
      { id: 'yard', name: 'Yard', kind: 'yard', hours: [{ fromMs: at(0), toMs: at(8) }] },
      { id: 'p1', name: 'Post 1', kind: 'post', hours: [{ fromMs: at(0), toMs: at(9) }] },
    ],
  }) as unknown as PlanView;
const day = { fromMs: at(0), toMs: at(9) };

describe('rows of the timeline', () => {
  it('have units that are in hand at once in lines of their own, and as few lines as hold them', () => {
    const woven = [
      bar('a', 0, 1),
      bar('a', 1, 1.2, { tone: 'wait', personId: null }),
      bar('b', 1, 2),
      bar('a', 2, 3),
      bar('c', 3, 4),
    ];
    const [ines] = lanesOf(plan(woven), day);
    expect(ines!.lines.map((line) => line.map(({ unitId }) => unitId))).toEqual([['a', 'a', 'a', 'c'], ['b']]);
  });

  it('show a ride in the row of whoever rides and of the yard, a charge at its post', () => {
    const lanes = lanesOf(
      plan([
        bar('a', 1, 2, { tone: 'ride', placeId: 'yard' }),
        bar('a', 3, 4, { tone: 'charge', personId: null, placeId: 'p1' }),
      ]),
      day,
    );
    expect(lanes.map(({ id, lines }) => [id, lines.flat().length])).toEqual([
      ['ines', 1],
      ['yard', 1],
      ['posts', 1],
    ]);
  });

  it('are shut where nobody is there', () => {
    expect(
      gaps(
        [
          { fromMs: at(1), toMs: at(4) },
          { fromMs: at(5), toMs: at(12) },
        ],
        day,
      ),
    ).toEqual([
      { fromMs: at(0), toMs: at(1) },
      { fromMs: at(4), toMs: at(5) },
    ]);
    expect(gaps([], day)).toEqual([day]);
  });
});

describe('days of the plan', () => {
  const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

  it('are those with work, from the first hour anybody is there to the last', () => {
    const days = daysOf(plan([bar('a', 1, 2), bar('b', 25, 26)]), dayOf);
    expect(days.map((each) => each.day)).toEqual(['2026-11-30', '2026-12-01']);
    expect(days[0]).toMatchObject({ fromMs: at(0), toMs: at(9) });
  });

  it('are looked at more closely in parts, those left out in which nothing is', () => {
    expect(
      partsOf({ bars: [bar('a', 0, 1), bar('b', 7, 8)] }, day).map(({ fromMs }) => (fromMs - MONDAY) / HOUR),
    ).toEqual([0, 6]);
  });
});

describe('the plan opens', () => {
  const later = (hours: number, bars: readonly PlanBar[]): number => opensAtMs({ bars, madeAtMs: at(hours) });

  it('now where somebody works, else at what is worked at next, over a night with a charge alone', () => {
    expect(later(1, [bar('a', 0, 2)])).toBe(at(1));
    const night = [
      bar('a', 0, 9),
      bar('a', 9, 12, { tone: 'charge', personId: null, placeId: 'p1' }),
      bar('b', 24, 25),
    ];
    expect(later(10, night)).toBe(at(24));
    expect(later(26, night)).toBe(at(26));
  });
});
