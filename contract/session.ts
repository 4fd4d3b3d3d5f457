import type { Role } from '@decurio/core';
import { object, string, type InferType } from 'yup';

export const signInRequest = object({
  name: string().strict().trim().min(1, 'Type your sign-in name.').max(60).required('Type your sign-in name.'),
  password: string().strict().min(1, 'Type your password.').max(200).required('Type your password.'),
  station: string().strict().trim().max(40).required('Say at which bay you work.'),
}).noUnknown();
export type SignInRequest = InferType<typeof signInRequest>;

/** Who is signed in, and where they stand. */
export interface SessionView {
  readonly userId: string;
  readonly name: string;
  readonly role: Role;
  readonly station: string;
}

export interface DemoAccount {
  readonly name: string;
  readonly password: string;
  readonly role: Role;
  readonly displayName: string;
}

/** What the sign-in page needs before anyone is signed in. */
export interface WelcomeView {
  /** Accounts of the demo scenario; empty unless it is loaded. */
  readonly demoAccounts: readonly DemoAccount[];
  readonly session: SessionView | null;
}
