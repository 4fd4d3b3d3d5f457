import { describe, expect, it } from 'vitest';
import { STEPS_OFFERED } from '../bench/steps.js';
import { meanSeconds, stepLengths } from './step-lengths.js';
import { workOf, type UnitWork } from './unit-work.js';

const lengths = stepLengths([]);
const unit = (over: Partial<UnitWork> = {}): UnitWork => ({
  id: 'u',
  kind: 'k',
  step: null,
  steps: STEPS_OFFERED,
  proveAt: 'yard',
  rideAt: 'yard',
  charge: null,
  apart: { reader: false, prover: false, signers: false },
  keyedBy: [],
  personId: null,
  ...over,
});
const tasksOf = (over: Partial<UnitWork> = {}) => workOf(unit(over), lengths).tasks;

describe('the work that is left at a unit', () => {
  it('is all of it where nobody has begun, its restart a wait, its rides in the yard, its signature aside', () => {
    expect(tasksOf().map((task) => [task.step, task.kind, task.kind === 'hands' ? task.at : ''])).toEqual([
      ['checkIn', 'hands', 'stand'],
      ['restart', 'wait', ''],
      ['readBack', 'hands', 'stand'],
      ['calibrate', 'hands', 'yard'],
      ['prove', 'hands', 'yard'],
      ['signOff', 'hands', 'aside'],
    ]);
  });

  it('begins at the step it stands at, and is nothing of what is done', () => {
    expect(tasksOf({ step: 'keyIn' })[0]).toMatchObject({ id: 'u keyIn', step: 'keyIn' });
    expect(tasksOf({ step: 'calibrate' }).map(({ step }) => step)).toEqual(['calibrate', 'prove', 'signOff']);
    expect(tasksOf({ step: 'handOver' })).toEqual([]);
  });

  it('charges before it is proved, and not once it was', () => {
    const charge = { seconds: 5_400, pack: '36' };
    const kinds = tasksOf({ charge }).map(({ kind, step }) => `${kind} ${step}`);
    expect(kinds.indexOf('charge prove')).toBe(kinds.indexOf('hands prove') - 1);
    expect(tasksOf({ charge, step: 'signOff' }).some(({ kind }) => kind === 'charge')).toBe(false);
  });

  it('asks somebody else to read, to prove and to sign beside, and knows who keyed', () => {
    const all = tasksOf({ apart: { reader: true, prover: true, signers: true } });
    const apart = all.flatMap((task) =>
      task.kind === 'hands' && task.apartFrom !== null ? [[task.id, task.apartFrom]] : [],
    );
    expect(apart).toEqual([
      ['u readBack', 'u checkIn'],
      ['u prove', 'u checkIn'],
      ['u countersign', 'u signOff'],
    ]);
    expect(
      tasksOf({ step: 'readBack', keyedBy: ['teo'], apart: { reader: true, prover: false, signers: false } })[0],
    ).toMatchObject({
      notBy: ['teo'],
      apartFrom: null,
    });
  });

  it('of a spare goes through its own steps alone', () => {
    expect(
      tasksOf({ steps: ['makeSafe', 'asFound', 'keyIn', 'restart', 'readBack', 'signOff'] }).map(({ step }) => step),
    ).toEqual(['makeSafe', 'restart', 'readBack', 'signOff']);
  });

  it('takes as long as its steps together, each told apart', () => {
    const { tasks, parts, lengths: known } = workOf(unit(), lengths);
    const [first] = tasks;
    const sum = parts[first!.id]!.reduce((total, { seconds }) => total + seconds, 0);
    const each = (['checkIn', 'makeSafe', 'asFound', 'keyIn'] as const).map((step) =>
      meanSeconds(lengths.of(step, 'k')),
    );
    expect(sum).toBeCloseTo(
      each.reduce((a, b) => a + b, 0),
      6,
    );
    expect(Math.abs(first!.lengthS / sum - 1)).toBeLessThan(0.03);
    expect(known[first!.id]!.sd).toBeLessThan(lengths.of('keyIn', 'k').sd);
  });
});
