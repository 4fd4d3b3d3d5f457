import { array, lazy, mixed, number, object, string, type Schema } from 'yup';
import { FUNCTIONS, type CodeFunction } from './functions.js';

const text = (most: number) => string().strict().max(most).required('must be given');
const words = (most: number) => string().strict().max(most);
const amount = () => number().strict().required();
const ms = (least: number, most = 600_000) => amount().min(least).max(most);
const yesNo = () => mixed<boolean>((v): v is boolean => typeof v === 'boolean').required('must be true or false');
const oneOf = <T extends string>(...values: readonly T[]) => string().strict().oneOf(values).required();
const ID = /^[a-z0-9-]+$/;
const id = () => text(60).matches(ID, 'must be lower-case letters, digits and hyphens');
const key = () => text(20);
const label = () => text(12);

/** The schema that fits the value of `by`, or a refusal that names the ones there are. */
function either(by: string, kinds: Readonly<Record<string, Schema>>) {
  const other = object({ [by]: oneOf(...Object.keys(kinds)) }).required();
  return lazy((value: unknown) => {
    const kind = typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[by] : undefined;
    return (typeof kind === 'string' && Object.hasOwn(kinds, kind) ? kinds[kind] : undefined) ?? other;
  });
}

/** Nothing, or what `schema` says. */
const ifGiven = (schema: { validate: unknown }) =>
  lazy((value: unknown) => (value === undefined ? mixed().optional() : (schema as Schema)));

/** Null, or what `schema` says. */
const orNull = (schema: { validate: unknown }) =>
  lazy((value: unknown) => (value === null ? mixed().nullable() : (schema as Schema)));

const strictly = (fields: Parameters<typeof object>[0]) => object(fields).noUnknown().required();

const gesture = either('kind', {
  tap: strictly({ kind: oneOf('tap'), key: key(), aloneMs: number().strict().min(100).max(2_000) }),
  double: strictly({ kind: oneOf('double'), key: key() }),
  hold: strictly({
    kind: oneOf('hold'),
    keys: array(key()).min(1).max(4).required(),
    ms: ms(200, 20_000),
    underMs: number().strict().min(300).max(30_000),
  }),
});
const gestureOrNull = orNull(gesture as never);

const tableEntry = strictly({ raw: amount(), value: text(40), title: text(80) });
const half = strictly({
  function: oneOf(...(Object.keys(FUNCTIONS) as CodeFunction[])),
  entries: array(strictly({ raw: amount().integer().min(0).max(9), value: text(40), title: text(80) }))
    .min(2)
    .required(),
  up: ifGiven(gesture),
  down: ifGiven(gesture),
  values: string().strict().oneOf(['wrap', 'stop']),
});
const encoding = either('kind', {
  table: strictly({ kind: oneOf('table'), entries: array(tableEntry).min(1).required() }),
  line: strictly({
    kind: oneOf('line'),
    scale: amount().positive(),
    unit: words(12).defined(),
    sentinels: array(strictly({ raw: amount(), means: oneOf('noCap', 'off', 'auto'), title: text(80) })).required(),
    follows: words(12),
    doubtfulFrom: number().strict(),
  }),
  pair: strictly({
    kind: oneOf('pair'),
    first: half,
    second: half,
    turned: mixed<boolean>((v): v is boolean => typeof v === 'boolean'),
  }),
  clock: strictly({ kind: oneOf('clock') }),
  date: strictly({ kind: oneOf('date') }),
});

const condition = object({ code: label(), in: array(amount()).min(1).required() })
  .noUnknown()
  .default(undefined)
  .optional();

const editStyles = {
  live: strictly({ style: oneOf('live'), up: gesture, down: gesture }),
  focus: strictly({ style: oneOf('focus'), select: gesture, up: gesture, down: gesture }),
  enter: strictly({
    style: oneOf('enter'),
    begin: gesture,
    end: gesture,
    abandon: gestureOrNull,
    up: gesture,
    down: gesture,
  }),
  digits: strictly({
    style: oneOf('digits'),
    begin: gesture,
    count: gesture,
    back: ifGiven(gesture),
    walk: gesture,
    end: ifGiven(gesture),
  }),
};
const edit = either('style', editStyles);

const code = strictly({
  label: label(),
  shownAs: words(12),
  function: oneOf(...(Object.keys(FUNCTIONS) as CodeFunction[])),
  range: strictly({ min: amount(), max: amount(), step: amount().positive() }),
  decimals: amount().integer().min(0).max(2),
  otherRanges: array(
    strictly({
      when: strictly({ code: label(), in: array(amount()).min(1).required() }),
      range: strictly({ min: amount(), max: amount(), step: amount().positive() }),
      decimals: number().strict().integer().min(0).max(2),
      factory: number().strict(),
    }),
  ).max(4),
  skips: array(amount()),
  factory: amount(),
  encoding,
  access: oneOf('open', 'locked', 'pin', 'tool', 'never', 'absent'),
  effect: oneOf('acts', 'displayOnly', 'unverified'),
  actsAfter: oneOf('once', 'restart'),
  keptIn: string().strict().oneOf(['controller', 'display', 'displayWhileAttached', 'untilPackOut', 'profile']),
  more: string().strict().oneOf(['quicker', 'slower', 'stronger', 'weaker']),
  values: string().strict().oneOf(['wrap', 'stop']),
  holdErases: object({ gesture, says: text(160) })
    .noUnknown()
    .default(undefined)
    .optional(),
  action: string().strict().oneOf(['restoreDefaults', 'resetTrip']),
  shownIf: condition,
  deadIf: condition,
  edit: ifGiven(edit),
  shows: array(strictly({ raw: amount(), text: text(12) })),
  doubts: array(strictly({ raws: array(amount()).min(1), says: text(200) })),
  influences: array(
    either('kind', {
      limits: strictly({ kind: oneOf('limits'), code: label(), as: oneOf('most', 'least') }),
      resets: strictly({ kind: oneOf('resets'), code: label() }),
      converts: strictly({
        kind: oneOf('converts'),
        code: label(),
        rounding: string().strict().oneOf(['nearest', 'down']),
      }),
    }) as never,
  ),
  wheelTable: array(strictly({ raw: amount(), mm: amount().min(300).max(3000) })),
  motor: string().strict().oneOf(['front', 'rear']),
  source: oneOf('measured', 'makersPaper', 'hearsay'),
  note: words(400),
});

const item = lazy((value: unknown) => {
  const has = (name: string) => typeof value === 'object' && value !== null && name in value;
  if (has('page')) return strictly({ page: text(60), title: text(30), shownIf: condition });
  if (has('back')) return strictly({ back: id(), title: text(30) });
  if (has('exit')) return strictly({ exit: mixed((v): v is true => v === true).required(), title: text(30) });
  return strictly({ code: label() });
});

const pinKeys = {
  factory: text(8).matches(/^\d{2,8}$/, 'must be two to eight digits'),
  up: gesture,
  down: gestureOrNull,
  back: ifGiven(gesture),
  walk: gesture,
  enter: gestureOrNull,
  lock: object({ after: amount().integer().min(1).max(20), ms: ms(1_000, 7_200_000), shows: text(16) })
    .noUnknown()
    .default(undefined)
    .optional(),
};

const afterLast = ['wrap', 'leave', 'stop'] as const;
const menu = strictly({
  opens: array(strictly({ gesture, from: oneOf('riding', 'off'), page: text(60) }))
    .min(1)
    .required(),
  pin: orNull(
    strictly({
      ...pinKeys,
      asks: string().strict().oneOf(['opening', 'entry']),
      wrong: oneOf('again', 'leave', 'limited', 'back'),
    }),
  ),
  close: gestureOrNull,
  pages: array(
    strictly({
      id: id(),
      title: text(40),
      items: array(item as never)
        .min(1)
        .max(200)
        .required(),
      afterLast: string().strict().oneOf(afterLast),
      mode: words(60),
      asksPin: mixed<true>((v): v is true => v === true),
      neverEnter: words(200),
    }),
  )
    .min(1)
    .max(20)
    .required(),
  turns: array(strictly({ gesture, from: id(), to: id() })).required(),
  next: gesture,
  previous: gestureOrNull,
  afterLast: oneOf(...afterLast),
  pick: gestureOrNull,
  edit,
  values: oneOf('wrap', 'stop'),
  repeat: orNull(strictly({ delayMs: ms(100, 5_000), everyMs: ms(20, 2_000) })),
  store: strictly({
    on: oneOf('change', 'move', 'endOfEdit', 'gesture', 'leave'),
    by: ifGiven(gesture),
    pause: object({ ms: ms(500, 120_000), does: oneOf('store', 'drop') })
      .noUnknown()
      .default(undefined)
      .optional(),
    message: object({ text: text(16), ms: ms(100, 30_000) })
      .noUnknown()
      .default(undefined)
      .optional(),
  }),
  idle: strictly({
    browseMs: ms(1_000),
    editMs: ms(1_000),
    pinMs: ms(1_000),
    unstored: oneOf('keep', 'drop'),
    reopensAt: oneOf('first', 'same'),
  }),
});

const ride = object({
  levels: orNull(
    strictly({
      up: gesture,
      down: gesture,
      most: amount().integer().min(1).max(20),
      mostBy: words(12),
      wakesAt: lazy((value: unknown) =>
        typeof value === 'string'
          ? oneOf('asLeft')
          : typeof value === 'object'
            ? strictly({ code: label() })
            : amount().integer().min(0).max(20),
      ),
    }),
  ),
  modes: orNull(
    strictly({
      gesture,
      list: array(strictly({ id: id(), title: text(30) }))
        .min(2)
        .max(8)
        .required(),
      wakesIn: id(),
    }),
  ),
  acts: array(
    strictly({
      title: text(30),
      gesture,
      does: oneOf('resetsCounter', 'turbo', 'motors', 'lights'),
      needs: words(120),
      onlyIf: condition,
      icon: words(12),
      speed: oneOf('unchanged', 'liftsCaps', 'lowers'),
    }),
  ).max(8),
})
  .noUnknown()
  .default(undefined)
  .optional();

const steps = () => array(text(200)).max(20).required();
const instructions = object({
  via: text(120),
  connect: steps(),
  choose: text(200),
  write: steps(),
  reconnect: steps(),
  profiles: array(text(40)).max(8).required(),
  firmware: words(40),
  lasts: string().strict().oneOf(['forGood', 'whileAttached']),
  readOut: array(text(200)).max(20),
})
  .noUnknown()
  .default(undefined)
  .optional();

/** What a display map holds, field by field; `parseDisplayMap` checks what fields say of each other. */
export const mapShape = strictly({
  format: oneOf('decurio-display-map/2'),
  id: id(),
  name: text(60),
  revision: text(20),
  family: words(60).matches(ID, 'must be lower-case letters, digits and hyphens'),
  tellBy: text(300),
  tells: array(strictly({ fact: text(80), shows: text(40) })),
  keys: array(strictly({ id: key(), label: text(12) }))
    .max(12)
    .required(),
  power: strictly({
    first: text(120),
    on: gestureOrNull,
    off: gestureOrNull,
    offInMenu: yesNo(),
    shows: words(16),
    pin: object({ ...pinKeys, asksIf: condition })
      .noUnknown()
      .default(undefined)
      .optional(),
  }),
  ride,
  icons: array(
    strictly({
      title: text(30),
      proves: text(160),
      litIf: strictly({ code: label(), in: array(amount()).min(1).required() }),
    }),
  ),
  speed: object({
    rounding: oneOf('nearest', 'truncated', 'unknown'),
    decimals: amount().integer().min(0).max(2),
    overshootKmh: amount().min(0).nullable().defined(),
  })
    .noUnknown()
    .default(undefined)
    .optional(),
  gauge: object({ barGoesOutAt: oneOf('edge', 'centre') })
    .noUnknown()
    .default(undefined)
    .optional(),
  menu: orNull(menu),
  instructions,
  restart: array(
    strictly({ act: text(160), waitMs: ms(0), does: oneOf('leavesMenu', 'unplugsDisplay').optional() }),
  ).required(),
  dangers: array(strictly({ gesture, caution: text(160) })).required(),
  codes: array(code).min(1).max(200).required(),
  notes: words(2000),
  confirmed: orNull(strictly({ by: text(80), on: text(10), unit: text(40), firmware: text(40) })),
});
