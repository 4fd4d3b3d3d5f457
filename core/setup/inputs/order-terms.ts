import type { Speed } from '../../speed/speed.js';
import type { Choices } from './house-rules.js';

/** What makes riding off public roads an order of its own kind: who allowed it, until when, and what the customer wrote. */
export interface PrivateLand {
  /** The lead who gave the authority in writing. */
  readonly authorityBy: string;
  /** Where the customer's written acknowledgement is kept, such as the number of a letter. */
  readonly acknowledgement: string;
  /** Last day on which it holds, as 2026-12-31. */
  readonly endsOn: string;
  /** What the label on the vehicle says. */
  readonly label: string;
  readonly isUncapped: boolean;
}

/** A lead's written choice on a finding that asked for one. */
export interface Decision {
  /** `Finding.id`. */
  readonly finding: string;
  /** The type it was made for, or null for the whole order. */
  readonly typeId: string | null;
  readonly words: string;
  readonly by: string;
  readonly on: string;
}

/** What an order promises beyond class and house rules. */
export interface OrderTerms {
  readonly siteLimit: Speed | null;
  readonly orderLimit: Speed | null;
  /** `asClass`: a throttle works where class and type have one. `none`: the customer wants none. */
  readonly throttle: 'asClass' | 'none';
  readonly privateLand: PrivateLand | null;
  readonly decisions: readonly Decision[];
}

export const PLAIN_TERMS: OrderTerms = {
  siteLimit: null,
  orderLimit: null,
  throttle: 'asClass',
  privateLand: null,
  decisions: [],
};

/** What one unit is to have otherwise than its order, and why: one rider wants it gentler. Never beyond the class. */
export interface UnitOverride {
  readonly choices: Partial<Choices>;
  readonly limit: Speed | null;
  readonly why: string;
  readonly by: string;
}
