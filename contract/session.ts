import type { HouseView } from './house.js';
import type { Role } from '@decurio/core';
import { object, string, type InferType } from 'yup';

export const signInRequest = object({
  name: string().strict().trim().min(1, 'Type your sign-in name.').max(60).required('Type your sign-in name.'),
  password: string().strict().min(1, 'Type your password.').max(200).required('Type your password.'),
  station: string().strict().trim().max(40).required('Say at which bay you work.'),
}).noUnknown();
export type SignInRequest = InferType<typeof signInRequest>;

const PLAIN_NAME = /^[a-z0-9][a-z0-9._-]{0,39}$/;

/**
 * A sign-in name in its one form: NFKC, lower case, Latin letters without marks, digits, point, hyphen and underscore.
 * @returns null where it is no name that anybody can have
 */
export function plainName(typed: string): string | null {
  const plain = typed.trim().normalize('NFKC').toLowerCase();
  return PLAIN_NAME.test(plain) ? plain : null;
}

/** What a name looks like at a glance: two accounts whose names share this are taken for one another. */
export const lookOf = (name: string): string =>
  name.replace(/[._-]/g, '').replace(/rn/g, 'm').replace(/vv/g, 'w').replace(/0/g, 'o').replace(/[1il]/g, 'l');

/** Who is signed in, and where they stand. */
export interface SessionView {
  readonly id: string;
  readonly userId: string;
  readonly name: string;
  /** By which records cover that name. */
  readonly nameSha256: string;
  readonly role: Role;
  readonly station: string;
  /** The password was given by an owner: it is replaced before anything else is done. */
  readonly isPasswordForOnce: boolean;
  /** When it ends by itself, ISO 8601. */
  readonly endsAt: string;
}

/** A place where someone is signed in. */
export interface OpenSession {
  readonly id: string;
  readonly station: string;
  readonly openedAt: string;
  /** Last heard from, to within some minutes. */
  readonly seenAt: string;
  /** The one that asks. */
  readonly isThis: boolean;
}

export interface DemoAccount {
  readonly name: string;
  readonly password: string;
  readonly role: Role;
  readonly displayName: string;
}

/** What the sign-in page needs before anyone is signed in. */
export interface WelcomeView {
  /** Nobody can sign in yet: the first owner is made by the code that the server printed. */
  readonly needsOwner: boolean;
  /** Accounts of the demo scenario; empty unless it is loaded. */
  readonly demoAccounts: readonly DemoAccount[];
  readonly session: SessionView | null;
  readonly house: HouseView;
}
