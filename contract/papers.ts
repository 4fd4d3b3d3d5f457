import {
  LABEL_SIZES,
  LANGUAGE_CODES,
  type ClassLabel,
  type LabelSize,
  type Language,
  type RiderCard,
} from '@decurio/core';
import { object, string } from 'yup';

/** The papers of one unit before they are drawn, and what is to be said of it when it is handed over. */
export interface PapersView {
  /** Else every paper says across the page that it is a draft. */
  readonly isSealed: boolean;
  /** Its display was changed: a letter tells its kilometres. */
  readonly hasOdometerLetter: boolean;
  readonly label: ClassLabel;
  /** One in each language. */
  readonly cards: readonly RiderCard[];
  /** What whoever collects it is shown. */
  readonly toShow: readonly string[];
  /** What it came with. */
  readonly cameWith: readonly string[];
  /** Which PINs are told, by policy. */
  readonly pins: readonly ('menu' | 'start')[];
  readonly order: { readonly id: string; readonly number: string; readonly units: number; readonly sealed: number };
}

/** In which language and at which label size papers are drawn; English and the usual size where left out. */
export const papersQuery = object({
  language: string().oneOf(LANGUAGE_CODES as Language[]),
  size: string().oneOf(Object.keys(LABEL_SIZES) as LabelSize[]),
}).noUnknown();
export interface PapersQuery {
  readonly language?: Language;
  readonly size?: LabelSize;
}

/** Which sheet of an order's labels, 1 for the first. */
export const labelSheetQuery = object({
  size: string().oneOf(Object.keys(LABEL_SIZES) as LabelSize[]),
  sheet: string()
    .matches(/^[1-9]\d{0,3}$/, 'Sheets are numbered from 1.')
    .required(),
}).noUnknown();
export interface LabelSheetQuery {
  readonly size?: LabelSize;
  readonly sheet: string;
}
