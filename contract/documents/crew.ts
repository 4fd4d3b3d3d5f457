import { SKILLS, type Crew, type Once, type Shop, type Skill, type WeekHours } from '@decurio/core';
import { array, type Schema } from 'yup';
import { amount, id, oneOf, orNull, positive, strictly, text, whole, words } from './shapes.js';

const clock = () => text(5).matches(/^([01]\d|2[0-3]):[0-5]\d$|^24:00$/, 'A time of day such as 08:00 or 16:30.');
const moment = () =>
  text(16).matches(/^\d{4}-\d\d-\d\dT([01]\d|2[0-3]):[0-5]\d$/, 'A day and time such as 2026-12-03T12:30.');

const weekHours = strictly({
  day: whole(7),
  from: clock(),
  to: clock(),
}).test(
  'order',
  'Ends before it begins: a night is two lines, to 24:00 and from 00:00.',
  (hours: object | null) => ((hours ?? {}) as WeekHours).from < ((hours ?? {}) as WeekHours).to,
);
const week = () => array(weekHours).max(60, 'At most sixty stretches in a week.').required();

const away = strictly({ from: moment(), to: moment(), why: words(100) }).test(
  'order',
  'Ends before it begins.',
  (each: object | null) => ((each ?? {}) as Once).from < ((each ?? {}) as Once).to,
);
const aways = () => array(away).max(200, 'At most two hundred: take out what is past.').required();

const unlike = (what: string) => ({
  name: 'unlike',
  message: `Two have the same ${what}.`,
  test: (all: unknown) => {
    const ids = ((all ?? []) as readonly { readonly id?: string }[]).map((each) => each?.id);
    return new Set(ids).size === ids.length;
  },
});

/** `decurio-crew/1`: who works here, when, and what each may do. */
export const crewSchema = strictly({
  format: oneOf('decurio-crew/1'),
  id: oneOf('house'),
  name: text(60),
  people: array(
    strictly({
      id: id(),
      name: text(80),
      signInName: orNull(text(60)),
      skills: array(oneOf(...(Object.keys(SKILLS) as Skill[])))
        .max(3)
        .required(),
      hours: week(),
      also: aways(),
      away: aways(),
    }),
  )
    .max(60, 'At most sixty people.')
    .required()
    .test(unlike('id')),
}) as unknown as Schema<Crew>;

/** `decurio-shop/1`: stands, yard, roller and charging posts, with their hours. */
export const shopSchema = strictly({
  format: oneOf('decurio-shop/1'),
  id: oneOf('house'),
  name: text(60),
  stands: whole(200),
  weave: whole(6),
  otherKindS: amount().integer('A whole number.').min(0, 'Not below 0.').max(3600, 'At most an hour.'),
  otherPlaceS: amount().integer('A whole number.').min(0, 'Not below 0.').max(3600, 'At most an hour.'),
  proveAt: strictly({ bike: oneOf('yard', 'roller'), scooter: oneOf('yard', 'roller') }),
  places: array(
    strictly({
      id: id(),
      name: text(60),
      kind: oneOf('yard', 'roller', 'post'),
      hours: week(),
      also: aways(),
      shut: aways(),
      packsV: orNull(array(positive(120)).max(20).required() as unknown as Schema),
      chargeA: orNull(positive(100)),
    }),
  )
    .max(100, 'At most a hundred places.')
    .required()
    .test(unlike('id')),
}) as unknown as Schema<Shop>;
