import type { GoOutReason } from '@decurio/core';
import { object, string, type InferType } from 'yup';

/** What a token for a machine opens: each purpose reads one thing, and nothing else. */
export const MACHINE_PURPOSES = {
  mayGoOut: 'asks whether a unit may go out',
} as const;
export type MachinePurpose = keyof typeof MACHINE_PURPOSES;

/** A program of another house that may ask something of this one. */
export interface MachineView {
  readonly id: string;
  readonly name: string;
  readonly purpose: MachinePurpose;
  readonly madeAt: string;
  readonly madeBy: string;
  /** To within some minutes; null where it never asked. */
  readonly askedAt: string | null;
  readonly endedAt: string | null;
}

export const newMachineRequest = object({
  name: string()
    .strict()
    .trim()
    .min(2, 'Say whose program it is.')
    .max(60, 'At most 60 letters.')
    .required('Say whose program it is.'),
  purpose: string()
    .oneOf(Object.keys(MACHINE_PURPOSES) as MachinePurpose[], 'Choose what it may ask.')
    .required('Choose what it may ask.'),
}).noUnknown();
export type NewMachineRequest = InferType<typeof newMachineRequest>;

export interface MachineMade {
  readonly id: string;
  /** Shown this once: the house keeps its hash alone. */
  readonly token: string;
}

/** What a hire system is told of a unit. */
export interface MayGoOutView {
  readonly serial: string;
  readonly mayGoOut: boolean;
  readonly reason: GoOutReason | null;
  readonly says: string;
  /** Of the seal it goes out under; null where there is none. */
  readonly sealedAt: string | null;
  readonly seal: string | null;
}
