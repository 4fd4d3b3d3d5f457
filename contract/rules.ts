import { number, object, type Schema } from 'yup';
import { day, text } from './documents/shapes.js';

/** A lead's confirmation of one class: own authority, own source, until when it holds. */
export const confirmClassRequest = object({
  version: number().strict().integer().min(1).required(),
  authority: text(120).min(3, 'Name the authority that was asked.'),
  source: text(400).min(3, 'Name the paper, letter or page that says so.'),
  expiresOn: day(),
}).noUnknown() as unknown as Schema<ConfirmClassRequest>;

export interface ConfirmClassRequest {
  /** The version of the rule pack that was looked at. */
  readonly version: number;
  readonly authority: string;
  readonly source: string;
  readonly expiresOn: string;
}

/** Rule packs that ship with the product and are not in the library yet. */
export interface StarterView {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly classes: number;
}
