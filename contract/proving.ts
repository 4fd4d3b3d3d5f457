import { PARTS, type Part } from '@decurio/core';
import { array, boolean, lazy, number, object, string } from 'yup';
import { orNull } from './documents/shapes.js';
import { instant } from './instant.js';

const test = () => string().strict().min(1).max(80).required();
const words = (most: number) => string().strict().max(most).defined();
const figure = (most: number, says: string) =>
  number().strict().min(0, 'Not below zero.').max(most, says).required('Type what was read.');

const outcome = object({
  kind: string()
    .oneOf(['outcome'] as const)
    .required(),
  outcome: string().strict().min(1).max(40).required('Say what happened.'),
}).noUnknown();
const speed = object({
  kind: string()
    .oneOf(['speed'] as const)
    .required(),
  trueKmh: number()
    .strict()
    .moreThan(0, 'True speed is above zero.')
    .max(150, 'Above 150 no such vehicle goes.')
    .required('Type the true speed.'),
  uKmh: number().strict().min(0).max(20).required(),
  uCommon: number().strict().min(0).max(0.5).required(),
  reference: string().strict().min(1).max(60).required(),
  isSure: boolean().strict().oneOf([true]).optional(),
}).noUnknown();
const counted = object({
  kind: string()
    .oneOf(['seconds', 'turns'] as const)
    .required(),
  figure: figure(120, 'Nobody waits that long: look at the figure again.'),
}).noUnknown();
const metres = object({
  kind: string()
    .oneOf(['metres'] as const)
    .required(),
  metres: figure(100, 'Over 100 m is no stop.'),
  besideMetres: figure(100, 'Over 100 m is no stop.'),
}).noUnknown();
const gauge = object({
  kind: string()
    .oneOf(['gauge'] as const)
    .required(),
  meterV: figure(120, 'Above 120 V no pack of this trade reads.'),
  shown: figure(999, 'No gauge shows that.'),
}).noUnknown();
const errors = object({
  kind: string()
    .oneOf(['errors'] as const)
    .required(),
  shown: array(string().strict().trim().min(1).max(24).required()).max(20, 'Twenty are enough to hold it.').defined(),
}).noUnknown();

const OBSERVED = { outcome, speed, seconds: counted, turns: counted, metres, gauge, errors } as const;

/** One observation, by its own kind. */
const observation = lazy((value: unknown) => {
  const kind = (value as { readonly kind?: unknown } | null)?.kind;
  return typeof kind === 'string' && Object.hasOwn(OBSERVED, kind)
    ? OBSERVED[kind as keyof typeof OBSERVED]
    : object({ kind: string().oneOf(Object.keys(OBSERVED), 'Say what was watched.').required() });
});

/** Data of the entries that are written while a unit is proved. */
export const provingSchemas = {
  proofSeen: object({ test: test(), seen: observation }).noUnknown(),
  proofAgain: object({
    test: test(),
    mended: string()
      .oneOf(Object.keys(PARTS) as Part[])
      .nullable()
      .defined(),
    words: words(300),
  }).noUnknown(),
  proofLeft: object({ test: test(), words: words(300) }).noUnknown(),
  fullRead: object({
    packV: figure(120, 'Above 120 V no pack of this trade reads.'),
    isCharged: boolean().strict().required(),
  }).noUnknown(),
  waitBegun: object({
    test: string().strict().max(80).nullable().defined(),
    words: words(200),
    dueAt: orNull(instant()),
  }).noUnknown(),
  waitEnded: object({}).noUnknown(),
  proved: object({}).noUnknown(),
  wentBack: object({
    test: test(),
    to: string()
      .oneOf(['calibrate', 'restart', 'prove'] as const)
      .required(),
    words: words(300),
  }).noUnknown(),
};
