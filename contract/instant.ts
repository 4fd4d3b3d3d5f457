import { instantOf } from '@decurio/core';
import { string } from 'yup';

/** The time of an entry, on a day that the calendar has. */
export const instant = () =>
  string()
    .strict()
    .max(40)
    .test(
      'instant',
      'must be a time in UTC, ISO 8601, on a day that the calendar has',
      (text) => text !== undefined && instantOf(text) !== null,
    )
    .required();
