import { isTimeZone } from '@decurio/core';
import { number, object, string, type InferType } from 'yup';

/** How make safe is asked: each caution on every unit, or one by one only on the first of a type in a shift. */
export const CAUTIONS_ASKED = ['always', 'firstOfType'] as const;

const months = () => number().strict().integer().min(0).max(1200).required();

/** What is true of the house as a whole. */
export const houseRequest = object({
  /** In which "today", due times and papers are read, such as Europe/Berlin. */
  zone: string()
    .strict()
    .max(60)
    .required()
    .test('zone', 'There is no time zone of that name. Write one such as Europe/Berlin.', (zone) => isTimeZone(zone)),
  /** What to call where a pack burns; empty where nobody said. */
  fireService: string().strict().trim().max(60).defined(),
  /** ms that a key rests after it acted, and after what it acts upon changed: what a worn switch sends twice acts once. */
  bounceMs: number().strict().integer().min(0).max(1000).required(),
  cautions: string().strict().oneOf(CAUTIONS_ASKED).required(),
  /** Months after which what is kept of persons is erased; 0 where it is kept until somebody erases it. */
  keepWorkerMonths: months(),
  keepReceiverMonths: months(),
  keepSignatureMonths: months(),
}).noUnknown();
export type HouseView = InferType<typeof houseRequest>;

/** A house of which nobody said anything. */
export const HOUSE_UNSAID: HouseView = {
  zone: 'UTC',
  fireService: '',
  bounceMs: 250,
  cautions: 'firstOfType',
  keepWorkerMonths: 0,
  keepReceiverMonths: 0,
  keepSignatureMonths: 0,
};
