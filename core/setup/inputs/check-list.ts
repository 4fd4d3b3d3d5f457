import { NUMBERS, type NumberOf, type VehicleType } from './vehicle-type.js';

/**
 * What a check asks for. `look`: good or not. `torque`: turned to so many newton metres, by a wrench that has a number.
 * `pressure`: tyres, cold, against the range of the type. `stops`: at least so many, as brakes are bedded in.
 */
export type CheckAsks =
  | { readonly kind: 'look' }
  | { readonly kind: 'torque'; readonly fromNm: number; readonly toNm: number }
  | { readonly kind: 'pressure' }
  | { readonly kind: 'stops'; readonly least: number };

/** One thing looked at before a vehicle leaves. */
export interface Check {
  readonly id: string;
  readonly title: string;
  /** What is done, in a sentence. */
  readonly how: string;
  readonly step: 'checkIn' | 'prove';
  /** `sample`: on the units of a batch that are read in full. */
  readonly of: 'every' | 'sample';
  readonly asks: CheckAsks;
}

/** A shop's own checks before delivery, in the order they are made. */
export interface CheckList {
  readonly format: 'decurio-check-list/1';
  readonly id: string;
  readonly name: string;
  readonly kind: 'bike' | 'scooter' | 'any';
  readonly checks: readonly Check[];
}

/** What a check asks for on one unit, with the figures of its type. */
export type VisitAsks =
  | { readonly kind: 'look' }
  | {
      readonly kind: 'figure';
      readonly unit: 'Nm' | 'bar' | 'stops';
      /** Null where nobody has said. */
      readonly from: number | null;
      readonly to: number | null;
      /** By a tool whose number is noted. */
      readonly withTool: boolean;
    }
  | {
      readonly kind: 'number';
      readonly of: NumberOf;
      /** Another one holds the unit: nobody here has seen it. Left out where any will do. */
      readonly known?: readonly string[];
    };

export interface VisitCheck extends Pick<Check, 'id' | 'title' | 'how' | 'step'> {
  readonly asks: VisitAsks;
}

/**
 * The checks of one unit, in order: the numbers that its type has scanned, then its list.
 * @param isFull whether this unit of its batch is read in full: it is then checked in full too
 * @param firmware that the display's map was held against; null where nobody noted one
 */
export function checksFor(
  list: CheckList | null,
  type: VehicleType,
  isFull: boolean,
  firmware: string | null = null,
): readonly VisitCheck[] {
  return [
    ...type.numbers.map((of) => numberCheck(of, firmware)),
    ...(list?.checks ?? [])
      .filter((check) => isFull || check.of === 'every')
      .map(({ id, title, how, step, asks }) => ({ id, title, how, step, asks: asksOf(asks, type) })),
  ];
}

function numberCheck(of: NumberOf, firmware: string | null): VisitCheck {
  const asked = { id: `number-${of}`, step: 'checkIn' } as const;
  if (of === 'firmware')
    return {
      ...asked,
      title: NUMBERS.firmware,
      how: 'Type the firmware as the display shows it, mostly for a moment at power-up.',
      asks: { kind: 'number', of, ...(firmware !== null && /\d/.test(firmware) ? { known: [firmware] } : {}) },
    };
  return {
    ...asked,
    title: `${NUMBERS[of]} number`,
    how: `Scan the number of the ${NUMBERS[of].toLowerCase()}, or type it as it stands there.`,
    asks: { kind: 'number', of },
  };
}

function asksOf(asks: CheckAsks, { tyre }: VehicleType): VisitAsks {
  switch (asks.kind) {
    case 'look':
      return asks;
    case 'torque':
      return { kind: 'figure', unit: 'Nm', from: asks.fromNm, to: asks.toNm, withTool: true };
    case 'pressure':
      return { kind: 'figure', unit: 'bar', from: tyre.barFrom, to: tyre.barTo, withTool: false };
    case 'stops':
      return { kind: 'figure', unit: 'stops', from: asks.least, to: null, withTool: false };
  }
}
