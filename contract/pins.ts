import { object, string, type InferType } from 'yup';

export const pinLookRequest = object({
  unitId: string().strict().uuid().nullable().defined(),
  why: string()
    .strict()
    .trim()
    .min(3, 'Say in a few words what it is needed for.')
    .max(300)
    .required('Say in a few words what it is needed for.'),
}).noUnknown();
export type PinLookRequest = InferType<typeof pinLookRequest>;

/** The PIN as a lead is shown it, and everybody who looked before. */
export interface PinView {
  readonly digits: string;
  readonly madeAt: string;
  readonly looks: readonly { readonly by: string; readonly at: string; readonly why: string }[];
}
