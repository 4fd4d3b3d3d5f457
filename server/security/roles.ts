import type { Role } from '@decurio/core';
import type { SessionView } from '@decurio/contract';
import { HttpProblem } from '../problems.js';

/** What each act needs at least. One place, so that a reader can see the whole of it. */
const NEEDS = {
  look: 'technician',
  takeOrders: 'technician',
  work: 'technician',
  /** See where one is signed in, and end it there. */
  ownSessions: 'technician',
  ownPassword: 'technician',
  dispute: 'technician',
  release: 'lead',
  editLibrary: 'lead',
  /** Confirm a class, choose where a setup asks, give an order other terms. */
  decide: 'lead',
  seePins: 'lead',
  /** Bring in a map that another house confirmed. */
  trustMaps: 'owner',
  /** Say in which time zone the house is, and whom to call where something burns. */
  keepHouse: 'owner',
  /** Say who may sign in, and as what. */
  keepAccounts: 'owner',
} as const satisfies Record<string, Role>;

export type Act = keyof typeof NEEDS;

export const ACTS = Object.keys(NEEDS) as readonly Act[];

/** The least role that may do this. */
export const needs = (act: Act): Role => NEEDS[act];

const RANK: Readonly<Record<Role, number>> = { technician: 0, lead: 1, owner: 2 };

export const may = (role: Role, act: Act): boolean => RANK[role] >= RANK[NEEDS[act]];

/** Throws `signedOut` or `notAllowed` unless the session may do this. */
export function permit(session: SessionView | null, act: Act): SessionView {
  if (!session) throw new HttpProblem('signedOut');
  if (!may(session.role, act)) throw new HttpProblem('notAllowed');
  return session;
}
