import { STATE_KINDS } from '@decurio/core';
import type { NamedState, UnitLife } from '@decurio/contract';
import { whenFull } from '../../ui/when.js';

/** A state as one chooses it. */
export interface ChosenState {
  /** `visitId.key`, as an address names it. */
  readonly id: string;
  readonly title: string;
}

const titleOf = ({ kind, at }: NamedState): string => `${STATE_KINDS[kind]}, ${whenFull(at)}`;

/** Every state of a unit over all its visits, oldest first. */
export const statesOf = ({ serial, visits }: UnitLife, isOther = false): readonly ChosenState[] =>
  [...visits].reverse().flatMap(({ visitId, states }) =>
    states.map((state) => ({
      id: `${visitId}.${state.key}`,
      title: isOther ? `${serial} ${titleOf(state)}` : titleOf(state),
    })),
  );
