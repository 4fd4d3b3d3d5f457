import type { CheckAsks } from '@decurio/core';

export const STEP_TITLES = { checkIn: 'at check in', prove: 'when it is proved' } as const;
export const OF_TITLES = { every: 'every unit', sample: 'units read in full' } as const;
export const ASKS_TITLES: Readonly<Record<CheckAsks['kind'], string>> = {
  look: 'good or not',
  torque: 'a torque, Nm',
  pressure: 'tyre pressure, cold',
  stops: 'so many stops',
};

/** What a check asks for, in a few words. */
export function asksWords(asks: CheckAsks): string {
  switch (asks.kind) {
    case 'look':
      return 'good or not';
    case 'torque':
      return `${asks.fromNm} to ${asks.toNm} Nm, with the number of the wrench`;
    case 'pressure':
      return "bar, cold, against the type's range";
    case 'stops':
      return `at least ${asks.least} stops`;
  }
}

/** What each kind of check starts from. */
export const NEW_ASKS: Readonly<Record<CheckAsks['kind'], CheckAsks>> = {
  look: { kind: 'look' },
  torque: { kind: 'torque', fromNm: 5, toNm: 6 },
  pressure: { kind: 'pressure' },
  stops: { kind: 'stops', least: 20 },
};
