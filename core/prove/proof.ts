import { kmhWords } from '../speed/speed.js';

/** Something to be tried on the vehicle because no code can answer for it, with what it is held against. */
export type Proof =
  /** No throttle may drive: standing still, with the wheel turning, at every level. */
  | {
      readonly kind: 'throttleDead';
      /** `unplug`: no code of this display switches it off, so its plug is drawn first. */
      readonly first: 'unplug' | null;
    }
  /** Each of these brake levers ends drive. */
  | { readonly kind: 'brakeCuts'; readonly levers: readonly ('front' | 'rear')[] }
  /** Drive ends when the pedals stop, within so many seconds where the rule names them. */
  | { readonly kind: 'pedalStop'; readonly withinS: number | null }
  /** Walk assist pushes no faster than this, km/h true, in the words of the rule. */
  | { readonly kind: 'walkSpeed'; readonly limitKmh: number; readonly words: string }
  /** Motor braking was made weaker than delivered: it still stops as a vehicle of its kind must. */
  | { readonly kind: 'stopsAsWell' }
  /** Where drive ends against the ground, on a full pack, in every mode that a rider can reach. */
  | {
      readonly kind: 'endSpeed';
      readonly limitKmh: number;
      /** Stated by the rule itself, relative; it loosens only the worst case. */
      readonly tolerance: number;
    }
  /** A module on the vehicle keeps it slow at a place: no code says so. */
  | { readonly kind: 'placeKept'; readonly where: string; readonly limit: string };

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
    case 'brakeCuts':
      return {
        first: null,
        tries: `Driven wheel off the ground and turning under drive: pull the ${proof.levers.join(' lever, then the ')} lever. Each ends drive at once.`,
      };
    case 'pedalStop':
      return {
        first: null,
        tries: `Wheel off the ground: turn the pedals until it drives, then stop them. Drive ends${proof.withinS === null ? '' : ` within ${proof.withinS} s`}.`,
      };
    case 'walkSpeed':
      return { first: null, tries: `Walk assist on the level, beside it: no faster than ${proof.words}.` };
    case 'stopsAsWell':
      return {
        first: null,
        tries:
          'Helmet on, dry level yard, full pack, then one that was ridden: from 20 km/h, how many metres to a standstill, beside a unit as delivered. No longer.',
      };
    case 'endSpeed':
      return {
        first: null,
        tries: `Full pack, every mode a rider can reach: the true speed at which drive ends, at most ${kmhWords(proof.limitKmh)}.`,
      };
    case 'placeKept':
      return {
        first: null,
        tries: `${proof.where}: the module keeps it to ${proof.limit}. Read the display after the module's last word.`,
      };
  }
}

/**
 * Proofs that no unit leaves without. A throttle that must be dead, and brakes and pedals that must end drive, take a
 * minute on the stand: nobody leaves them out. The others want a yard or a full pack: a lead may leave them out, in writing.
 */
const NEVER_LEFT_OUT: ReadonlySet<ProofKind> = new Set(['throttleDead', 'brakeCuts', 'pedalStop']);

export const isNeverLeftOut = ({ kind }: Proof): boolean => NEVER_LEFT_OUT.has(kind);
