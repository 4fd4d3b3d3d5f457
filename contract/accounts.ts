import type { Role } from '@decurio/core';
import { object, string, type InferType } from 'yup';
import { PASSWORD_LENGTH } from './limits.js';

export const ROLES = ['technician', 'lead', 'owner'] as const satisfies readonly Role[];

const role = () => string().oneOf(ROLES, 'Choose technician, lead or owner.').required('Choose a role.');

/** Somebody who may sign in, or may no more. */
export interface AccountView {
  readonly id: string;
  readonly signInName: string;
  readonly displayName: string;
  readonly role: Role;
  readonly lockedAt: string | null;
  /** The password was given by an owner: it opens nothing but the page where it is replaced. */
  readonly isPasswordForOnce: boolean;
  /** When it last signed in; null where it never did. */
  readonly lastInAt: string | null;
  /** So many times it is signed in now. */
  readonly sessions: number;
}

/** What came of an account. Sign-ins, refusals and changes are written down where nobody edits them. */
export const ACCOUNT_EVENTS = {
  made: 'was made',
  signedIn: 'signed in',
  refused: 'was refused',
  role: 'got another role',
  passwordReset: 'got a password for once',
  passwordChanged: 'chose a password',
  locked: 'was locked',
  unlocked: 'was unlocked',
  signedOut: 'was signed out by an owner',
  closed: 'was closed, and the name erased',
} as const;
export type AccountEventKind = keyof typeof ACCOUNT_EVENTS;

export interface AccountEvent {
  readonly n: number;
  readonly at: string;
  readonly kind: AccountEventKind;
  /** Whose account. */
  readonly name: string;
  /** Who did it, where it was somebody else. */
  readonly by: string | null;
  readonly says: string;
}

export interface AccountsView {
  readonly accounts: readonly AccountView[];
  /** The newest first. */
  readonly events: readonly AccountEvent[];
}

const named = {
  signInName: string().strict().trim().min(1, 'Give a sign-in name.').max(60).required('Give a sign-in name.'),
  displayName: string()
    .strict()
    .trim()
    .min(1, 'Say how records are to name this person.')
    .max(80, 'At most 80 letters.')
    .required('Say how records are to name this person.'),
};

export const newAccountRequest = object({ ...named, role: role() }).noUnknown();
export type NewAccountRequest = InferType<typeof newAccountRequest>;

export const roleRequest = object({ role: role() }).noUnknown();
export type RoleRequest = InferType<typeof roleRequest>;

/** A password that an owner hands over: shown once, and replaced at the first sign-in. */
export interface PasswordForOnce {
  readonly accountId: string;
  readonly password: string;
}

const newPassword = () =>
  string()
    .strict()
    .min(PASSWORD_LENGTH.least, `At least ${PASSWORD_LENGTH.least} characters; a few words do well.`)
    .max(PASSWORD_LENGTH.most, `At most ${PASSWORD_LENGTH.most} characters.`)
    .required('Type the new password.');

export const ownPasswordRequest = object({
  current: string().strict().min(1, 'Type the password that you have now.').max(200).required(),
  next: newPassword(),
}).noUnknown();
export type OwnPasswordRequest = InferType<typeof ownPasswordRequest>;

/** Whoever sets a house up: the code is the one that its server printed as it started. */
export const firstOwnerRequest = object({
  ...named,
  code: string().strict().trim().max(40).required('Type the code that the server printed.'),
  password: newPassword(),
}).noUnknown();
export type FirstOwnerRequest = InferType<typeof firstOwnerRequest>;
