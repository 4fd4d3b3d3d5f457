import { kmhWords } from '../speed/speed.js';

/** Something to be tried on the vehicle because no code can answer for it, with what it is held against. */
export type Proof =
  /** No throttle may drive: standing still, with the wheel turning, at every level. */
  | {
      readonly kind: 'throttleDead';
      /** `unplug`: no code of this display switches it off, so its plug is drawn first. */
      readonly first: 'unplug' | null;
    }
  /** Where drive ends against the ground, on a full pack, in every mode that a rider can reach. */
  | {
      readonly kind: 'endSpeed';
      readonly limitKmh: number;
      /** Stated by the rule itself, relative; it loosens only the worst case. */
      readonly tolerance: number;
    };

export type ProofKind = Proof['kind'];

/** A proof as a person reads it: what is done by hand first, where anything is, and what is tried. */
export interface ProofWords {
  readonly first: string | null;
  readonly tries: string;
}

export function proofWords(proof: Proof): ProofWords {
  switch (proof.kind) {
    case 'throttleDead':
      return {
        first:
          proof.first === 'unplug'
            ? 'Unplug the throttle at its connector and close the connector against water.'
            : null,
        tries:
          'Driven wheel off the ground: open the throttle standing still, then with the wheel turning, at every level. Nothing may drive.',
      };
    case 'endSpeed':
      return {
        first: null,
        tries: `Full pack, every mode a rider can reach: the true speed at which drive ends, at most ${kmhWords(proof.limitKmh)}.`,
      };
  }
}
