import type { PersonalKind, Role } from '@decurio/core';
import { object, string, type InferType } from 'yup';

const why = () => string().strict().trim().min(3, 'Say in a few words why.').max(200).required('Say why.');

/** Erase what is kept of somebody; the reason stays. */
export const eraseRequest = object({ why: why() }).noUnknown();
export type EraseRequest = InferType<typeof eraseRequest>;

/** Erase what is kept of whoever received a unit: the signature alone, or the name too. */
export const eraseHandoverRequest = object({
  what: string()
    .strict()
    .oneOf(['signature', 'all'] as const)
    .required(),
  why: why(),
}).noUnknown();
export type EraseHandoverRequest = InferType<typeof eraseHandoverRequest>;

/** What the house keeps of persons apart from its records. */
export interface PersonalView {
  readonly kinds: readonly {
    readonly kind: PersonalKind;
    readonly kept: number;
    readonly erased: number;
    /** ISO 8601; null where nothing of it is kept. */
    readonly oldest: string | null;
  }[];
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly signInName: string;
    readonly role: Role;
    /** When they last signed in, or the name was given. */
    readonly hereAt: string;
  }[];
}
