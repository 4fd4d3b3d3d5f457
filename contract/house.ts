import { isTimeZone } from '@decurio/core';
import { object, string, type InferType } from 'yup';

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
}).noUnknown();
export type HouseView = InferType<typeof houseRequest>;
