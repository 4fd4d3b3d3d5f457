import { object, string, type InferType } from 'yup';

/** What a PIN opens: the menu, or the vehicle for a ride. */
export const PIN_OPENS = ['menu', 'start'] as const;

export const pinLookRequest = object({
  opens: string().strict().oneOf(PIN_OPENS).required(),
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
