import { describe, expect, it } from 'vitest';
import { stepLengths, type Crew, type Shop, type VehicleType, type VisitState } from '@decurio/core';
import { hire, inputs as setupInputs, pedelec, stepThrough } from '../../core/testing/samples.js';
import {
  allRead,
  benchOpening,
  calibrateLeftOut,
  INES,
  stateAfter,
  TEO,
  upToReadBack,
  type Act,
} from '../../core/testing/visit-script.js';
import { compileSetup } from '../../core/setup/compile/compile-setup.js';
import { demoFile } from '../testing/test-server.js';
import type { PlanInputs, UnitInput } from './inputs.js';
import { prepare } from './prepare.js';

const NOW = Date.UTC(2026, 10, 30, 10);
const crew = JSON.parse(demoFile('day/crew.json')) as Crew;
const shop = JSON.parse(demoFile('day/shop.json')) as Shop;
const unit = (over: Partial<UnitInput> = {}): UnitInput => ({
  id: 'u1',
  serial: 'S26-0001',
  orderId: 'o1',
  typeName: 'Samphire 26',
  type: stepThrough as VehicleType,
  kind: 'Samphire 26|tallow',
  status: 'waiting',
  rules: hire,
  needsFull: false,
  state: null,
  waitsUntilMs: null,
  heldSinceMs: null,
  givenTo: null,
  givenAtMs: 0,
  ...over,
});
const house = (units: readonly UnitInput[], over: Partial<PlanInputs> = {}): PlanInputs => ({
  basis: '',
  zone: 'UTC',
  crew,
  shop,
  crewVersion: 1,
  shopVersion: 1,
  orders: [{ id: 'o1', number: '2611', customer: 'Causeway', dueAt: '2026-11-30T16:00', units: 1, sealed: 0 }],
  units,
  isCut: false,
  signInNames: new Map([
    [TEO.userId, 'teo'],
    [INES.userId, 'ines'],
  ]),
  stepsSeen: 9,
  lengths: stepLengths([]),
  surprises: { chance: 0, mean: 0, sd: 0 },
  usualHoldHours: 2,
  ...over,
});
const first = (over: Partial<UnitInput>, more: Partial<PlanInputs> = {}) =>
  prepare(house([unit(over)], more), NOW).problem.units[0]!;
const chargeS = (over: Partial<UnitInput>): number | null =>
  first(over).tasks.find(({ kind }) => kind === 'charge')?.lengthS ?? null;

/** A bike at Prove whose top speed is to be seen on a full pack. */
const upToProve: readonly Act[] = [
  [
    'opened',
    {
      ...benchOpening,
      setup: compileSetup(setupInputs({ type: stepThrough, vehicleClass: { ...pedelec, endSpeedMeasured: true } })),
    },
  ],
  ...upToReadBack.slice(1),
  ...allRead,
  ['readBackClosed', {}],
  calibrateLeftOut,
];
const atProve: VisitState = stateAfter(upToProve);

describe('whose a unit is', () => {
  const taken = stateAfter([['opened', benchOpening]]);
  const lastAt = Date.parse(taken.lastAt);

  it('is whoever took it, whatever a lead had in mind before', () => {
    expect(first({ status: 'open', state: taken }).owner).toBe('teo');
    expect(first({ status: 'open', state: taken, givenTo: 'asta', givenAtMs: lastAt - 60_000 }).owner).toBe('teo');
  });

  it('is somebody else once a lead gave it away since, and the plan’s to say where nobody has it', () => {
    expect(first({ status: 'open', state: taken, givenTo: 'asta', givenAtMs: lastAt + 60_000 }).owner).toBe('asta');
    expect(first({ givenTo: 'asta', givenAtMs: 1 }).owner).toBe('asta');
    expect(first({}).owner).toBeNull();
  });

  it('stands in hand only where somebody of the crew has it', () => {
    expect(first({ status: 'open', state: taken }).inHand).toBe(true);
    expect(first({ status: 'open', state: taken }, { signInNames: new Map() }).inHand).toBe(false);
  });
});

describe('what is charged', () => {
  it('is a pack that its proofs ask to be full, and no other', () => {
    expect(chargeS({ needsFull: false })).toBeNull();
    expect(chargeS({ needsFull: true })).toBeGreaterThan(3_600);
    expect(chargeS({ status: 'open', state: atProve })).toBeGreaterThan(1_800);
  });

  it('that hangs at a charger already is not charged anew: what went in meanwhile counts', () => {
    const whole = chargeS({ status: 'open', state: atProve })!;
    const hanging = (minutes: number): VisitState => ({
      ...atProve,
      proving: {
        ...atProve.proving,
        wait: {
          test: null,
          words: 'Charging to full',
          dueAt: null,
          since: new Date(NOW - minutes * 60_000).toISOString(),
          by: 'Teo R.',
        },
      },
    });
    expect(chargeS({ status: 'open', state: hanging(20) })).toBe(whole - 1_200);
    expect(chargeS({ status: 'open', state: hanging(6_000) })).toBe(60);
  });

  it('elsewhere than at posts is not planned', () => {
    const none = { ...shop, places: shop.places.filter(({ kind }) => kind !== 'post') };
    expect(first({ needsFull: true }, { shop: none }).tasks.some(({ kind }) => kind === 'charge')).toBe(false);
  });
});

describe('a unit that stands aside', () => {
  it('comes back when held units usually do, or when what it waits for is over', () => {
    expect(first({ status: 'held', state: atProve, heldSinceMs: NOW }).arrivesS).toBe(7_200);
    expect(first({ status: 'open', state: atProve, waitsUntilMs: NOW + 600_000 })).toMatchObject({
      arrivesS: 600,
      inHand: false,
    });
  });
});

describe('what should be known', () => {
  const codes = (over: Partial<PlanInputs>): readonly string[] =>
    prepare(house([unit()], over), NOW).notes.map(({ code }) => code);

  it('is nothing where all is there', () => expect(codes({})).toEqual([]));

  it.each([
    ['noCrew', { crew: null }],
    ['nobodyThere', { crew: { ...crew, people: crew.people.map((person) => ({ ...person, hours: [] })) } }],
    [
      'nobodySigns',
      { crew: { ...crew, people: crew.people.map((person) => ({ ...person, skills: ['bench' as const] })) } },
    ],
    ['noShop', { shop: null }],
    ['noYard', { shop: { ...shop, places: [] } }],
    ['duePast', { orders: [{ ...house([]).orders[0]!, dueAt: '2026-11-29T16:00' }] }],
    ['dueUnread', { orders: [{ ...house([]).orders[0]!, dueAt: 'soon' }] }],
    ['tooMany', { isCut: true }],
    ['nothingSeen', { stepsSeen: 0 }],
  ])('%s', (code, over) => expect(codes(over)).toContain(code));

  it('that clocks move within the week', () => {
    const spring = Date.UTC(2026, 2, 27, 10);
    expect(prepare(house([unit()], { zone: 'Europe/Berlin' }), spring).notes.map(({ code }) => code)).toContain(
      'clocksMove',
    );
  });
});
