import { describe, expect, it } from 'vitest';
import { checksFor, type CheckList } from '../setup/inputs/check-list.js';
import { goodCheck } from '../testing/good-check.js';
import { stepThrough } from '../testing/samples.js';
import { benchOpening, checkedIn, INES, refusalOf, stateAfter, type Act } from '../testing/visit-script.js';
import { checksLeft, pressureRead } from './acts/checks.js';
import type { EvidenceData } from './evidence.js';
import { visitRemarks } from './visit-remarks.js';

const list: CheckList = {
  format: 'decurio-check-list/1',
  id: 'bike',
  name: 'Bike',
  kind: 'bike',
  checks: [
    { id: 'brakes', title: 'Brake feel', how: 'Squeeze.', step: 'checkIn', of: 'every', asks: { kind: 'look' } },
    {
      id: 'stem',
      title: 'Stem',
      how: 'Turn.',
      step: 'checkIn',
      of: 'sample',
      asks: { kind: 'torque', fromNm: 5, toNm: 6 },
    },
    { id: 'tyres', title: 'Tyres', how: 'Cold.', step: 'checkIn', of: 'every', asks: { kind: 'pressure' } },
    { id: 'bedding', title: 'Bedding', how: 'Stop.', step: 'prove', of: 'every', asks: { kind: 'stops', least: 20 } },
  ],
};
const type = { ...stepThrough, numbers: ['pack' as const], tyre: { ...stepThrough.tyre, barFrom: 2.5, barTo: 4 } };
const checks = checksFor(list, type, true);
const opening: EvidenceData['opened'] = { ...benchOpening, bench: { ...benchOpening.bench!, checks } };
const begun: Act = ['opened', opening];
const made = (id: string, over: Partial<EvidenceData['checkMade']> = {}): Act => {
  const check = checks.find((each) => each.id === id);
  if (!check) throw new Error(id);
  return ['checkMade', { ...goodCheck(check, 'S1'), ...over }];
};
const all: readonly Act[] = [made('number-pack'), made('brakes'), made('stem'), made('tyres')];

describe('the checks of a unit', () => {
  it('are the numbers of its type and its list; what is sampled only where it is read in full', () => {
    expect(checks.map(({ id }) => id)).toEqual(['number-pack', 'brakes', 'stem', 'tyres', 'bedding']);
    expect(checksFor(list, type, false).map(({ id }) => id)).toEqual(['number-pack', 'brakes', 'tyres', 'bedding']);
    expect(checksFor(null, stepThrough, true)).toEqual([]);
  });

  it("hold the tyre's pressure against the range of the type", () => {
    expect(checks.find(({ id }) => id === 'tyres')?.asks).toMatchObject({ unit: 'bar', from: 2.5, to: 4 });
  });
});

describe('checking before delivery', () => {
  it('comes before check in is closed, and each check has its step', () => {
    expect(refusalOf([begun, checkedIn])).toBe('checksLeft');
    expect(refusalOf([begun, ...all.slice(1), checkedIn])).toBe('checksLeft');
    expect(refusalOf([begun, ...all, checkedIn])).toBeNull();
    expect(refusalOf([begun, made('bedding')])).toBe('wrongStep');
    expect(refusalOf([begun, ['checkMade', { ...goodCheck(checks[0]!, ''), check: 'other' }]])).toBe('noSuchCheck');
    expect(checksLeft(stateAfter([begun, ...all]), 'checkIn')).toEqual([]);
  });

  it('tells the pressure that was read last, so that nobody is asked for it twice', () => {
    expect(pressureRead(stateAfter([begun]))).toBeNull();
    expect(pressureRead(stateAfter([begun, made('tyres', { outcome: 'notFitted', figure: null })]))).toBeNull();
    expect(pressureRead(stateAfter([begun, made('tyres', { figure: 3.2 })]))).toBe(3.2);
  });

  it('does not keep a pack that is not safe from being stopped', () => {
    const swollen: Act = ['checkedIn', { ...(checkedIn[1] as EvidenceData['checkedIn']), packCondition: 'unsafe' }];
    expect(stateAfter([begun, swollen]).held).toMatchObject({ reason: 'pack' });
  });

  it.each([
    ['sayWhatIsWrong', 'brakes', { outcome: 'notGood' }],
    ['numberMissing', 'number-pack', { text: ' ' }],
    ['figureMissing', 'stem', { figure: null }],
    ['absurdFigure', 'stem', { figure: 400 }],
    ['absurdFigure', 'stem', { figure: -1 }],
    ['toolMissing', 'stem', { tool: '' }],
  ] as const)('is refused: %s', (code, id, over) => {
    expect(refusalOf([begun, made(id, over)])).toBe(code);
  });

  it('takes a unit that has none of it, and a figure that is a little off for what it is', () => {
    expect(refusalOf([begun, made('stem', { outcome: 'notFitted', figure: null, tool: '' })])).toBeNull();
    expect(stateAfter([begun, made('stem', { figure: 6 })]).held).toBeNull();
  });

  it.each([
    ['brakes', { outcome: 'notGood', words: 'front lever to the bar' }, 'front lever to the bar'],
    ['stem', { figure: 7.5 }, '7.5 Nm, and 5 to 6 Nm is asked'],
    ['tyres', { figure: 1.9 }, '1.9 bar, and 2.5 to 4 bar is asked'],
  ] as const)('that is not good holds it (%s), and is made again once a lead has decided', (id, over, words) => {
    const bad = [begun, made('number-pack'), made(id, over)];
    expect(stateAfter(bad).held).toMatchObject({ reason: 'damage', words: expect.stringContaining(words) });
    const decided: Act = ['released', { words: 'mended', decision: { way: 'goOn' } }, INES];
    const left = checksLeft(stateAfter([...bad, decided]), 'checkIn').map((check) => check.id);
    expect(left).toContain(id);
    expect(left).not.toContain('number-pack');
  });

  it('keeps a unit with a number that stands elsewhere too, and has it scanned again', () => {
    const clash: Act = ['numberClash', { of: 'pack', number: 'pack-S1', serial: 'S26-0009' }];
    const state = stateAfter([begun, made('number-pack'), clash]);
    expect(state.held).toMatchObject({ reason: 'parts', words: expect.stringContaining('S26-0009') });
    expect(checksLeft(state, 'checkIn').map(({ id }) => id)).toContain('number-pack');
  });

  it('asks for the number of a part that was replaced, before anything is signed', () => {
    const pack: Act = [
      'partReplaced',
      { part: 'pack', words: 'new one', oldOdometerKm: null, newOdometerKm: null, packV: 39, packCondition: 'sound' },
    ];
    const state = stateAfter([begun, ...all, checkedIn, pack]);
    expect(checksLeft(state, 'prove').map(({ id }) => id)).toEqual(['number-pack', 'bedding']);
  });

  it('stands on the papers with figures, tools and numbers', () => {
    const says = visitRemarks(stateAfter([begun, ...all, checkedIn])).join(' ');
    expect(says).toContain('Pack number (pack-S1); Brake feel; Stem (5 Nm, tool wrench 3); Tyres (2.5 bar)');
  });
});

describe('the firmware that a display shows', () => {
  const asked = checksFor(null, { ...type, numbers: ['firmware'] }, true, '2.3');
  const opened: Act = ['opened', { ...benchOpening, bench: { ...benchOpening.bench!, checks: asked } }];
  const noted = (text: string): Act => ['checkMade', { ...goodCheck(asked[0]!, 'S1'), text }];

  it('is noted at check in, and goes on where the map was held against it', () => {
    expect(asked[0]?.asks).toEqual({ kind: 'number', of: 'firmware', known: ['2.3'] });
    expect(stateAfter([opened, noted(' 2.3 ')]).held).toBeNull();
  });

  it('holds the unit where nobody here has seen it, and stands once a lead has let it pass', () => {
    const held = stateAfter([opened, noted('2.9')]);
    expect(held.held?.words).toContain('2.9: the map of this display was held against 2.3');
    const released = stateAfter([
      opened,
      noted('2.9'),
      ['released', { words: 'map held against this unit', decision: { way: 'goOn' } }, INES],
    ]);
    expect(released.held).toBeNull();
    expect(checksLeft(released, 'checkIn')).toEqual([]);
  });

  it('may be any where the map was held against none that has a number', () => {
    const [check] = checksFor(null, { ...type, numbers: ['firmware'] }, true, 'not shown');
    expect(check?.asks).toEqual({ kind: 'number', of: 'firmware' });
  });
});
