import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { ValidationError } from 'yup';
import { spoilt } from '../../core/testing/spoilt.js';
import { documentSchemas } from '../library.js';

const read = (path: string): object =>
  JSON.parse(readFileSync(new URL(`../../${path}`, import.meta.url), 'utf8')) as object;
const all = (folder: string): readonly (readonly [string, object])[] =>
  readdirSync(new URL(`../../${folder}/`, import.meta.url))
    .filter((name) => name.endsWith('.json'))
    .map((name) => [`${folder}/${name}`, read(`${folder}/${name}`)] as const);

const KINDS = {
  'decurio-vehicle-type/3': ['vehicleType', 'vehicle-type'],
  'decurio-rule-pack/3': ['rulePack', 'rule-pack'],
  'decurio-house-rules/4': ['houseRules', 'house-rules'],
  'decurio-check-list/1': ['checkList', 'check-list'],
  'decurio-notice/1': ['notice', 'notice'],
  'decurio-crew/1': ['crew', 'crew'],
  'decurio-shop/1': ['shop', 'shop'],
} as const;
const documents = [
  ['docs/formats/notice.json', read('docs/formats/notice.json')] as const,
  ...all('demo/types'),
  ...all('demo/rules'),
  ...all('demo/checks'),
  ...all('demo/day'),
  ...all('starters'),
];
const kindOf = (document: object) => KINDS[(document as { format: keyof typeof KINDS }).format];
const ajv = new Ajv2020({ strict: false, allErrors: true });
const schemas = Object.fromEntries(
  Object.values(KINDS).map(([kind, file]) => [kind, ajv.compile(read(`docs/formats/${file}.schema.json`))]),
);

function problems(document: object): readonly string[] {
  try {
    documentSchemas[kindOf(document)[0]].validateSync(document, { strict: true, abortEarly: false });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return error.inner.map(({ path, message }) => `${path}: ${message}`);
  }
}

describe('a document that ships', () => {
  it.each(documents)('%s holds what it must', (_path, document) => {
    expect(problems(document)).toEqual([]);
    const fits = schemas[kindOf(document)[0]]!;
    expect(fits(document) ? [] : fits.errors).toEqual([]);
  });

  it('among the starters is checked by nobody', () => {
    expect(all('starters').length).toBeGreaterThanOrEqual(18);
    for (const [, pack] of all('starters'))
      expect((pack as { classes: { checked: unknown }[] }).classes.every(({ checked }) => checked === null)).toBe(true);
  });
});

describe('the published schema', () => {
  const tried = [
    'demo/types/petrel-10.json',
    'demo/types/samphire-26.json',
    'demo/rules/port-isel.json',
    'starters/california.json',
    'demo/rules/hire-default.json',
    'demo/checks/bike-before-delivery.json',
    'docs/formats/notice.json',
    'demo/day/crew.json',
    'demo/day/shop.json',
  ];

  it.each(tried)('agrees with the reader on every slip of one field in %s', (path) => {
    const document = read(path);
    const [kind] = kindOf(document);
    const isSound = (data: unknown) => documentSchemas[kind].isValidSync(data, { strict: true });
    let slips = 0;
    const disagreed: unknown[] = [];
    for (const data of spoilt(document, 4)) {
      slips++;
      if (schemas[kind]!(data) !== isSound(data))
        disagreed.push([
          data,
          schemas[kind]!.errors?.slice(0, 2).map((e) => `${e.instancePath} ${e.message}`),
          problems({ ...(data as object), format: (document as { format: string }).format }),
        ]);
    }
    expect(slips).toBeGreaterThan(20);
    expect(disagreed.slice(0, 2)).toEqual([]);
  });
});

describe('a document with a slip of sense', () => {
  const type = read('demo/types/samphire-26.json');
  const pack = read('demo/rules/port-isel.json') as { classes: object[] };
  const withClass = (over: object) => ({ ...pack, classes: [{ ...pack.classes[0], ...over }] });

  const list = read('demo/checks/bike-before-delivery.json') as { checks: object[] };
  const withTorque = (fromNm: number, toNm: number) => ({
    ...list,
    checks: list.checks.map((each, i) => (i === 2 ? { ...each, asks: { kind: 'torque', fromNm, toNm } } : each)),
  });

  it.each([
    [{ ...type, typeLimitA: 40 }, "typeLimitA: Not above the controller's limit."],
    [{ ...type, attainableKmh: -3 }, 'attainableKmh: Above zero.'],
    [{ ...type, attainableKmh: 310 }, 'attainableKmh: At most 130: look at the unit once more.'],
    [{ ...type, displayStandsV: { from: 60, to: 24 } }, 'displayStandsV: "to" lies below "from".'],
    [
      { ...type, pack: { ...(type as { pack: object }).pack, cellsInSeries: undefined } },
      'pack.cellsInSeries: Type a number.',
    ],
    [withClass({ follows: 'class-1' }), 'classes: A class follows one of a parent, and this pack names none.'],
    [withClass({ fittings: ['bell', 'bell'] }), 'classes[0].fittings: Each once.'],
    [withTorque(7, 6), 'checks[2].asks: "toNm" lies below "fromNm".'],
    [withTorque(5, 400), 'checks[2].asks.toNm: At most 200: look at the unit once more.'],
    [withClass({ limit: null }), 'classes[0].limit: A class for public roads names its limit.'],
    [
      withClass({ throttle: 'toSpeed' }),
      'classes[0].throttleTo: Name the speed at which the throttle ends, not above the limit.',
    ],
    [
      withClass({ throttleTo: { value: 30, unit: 'mph' } }),
      'classes[0].throttleTo: Name the speed at which the throttle ends, not above the limit.',
    ],
    [{ ...pack, classes: [pack.classes[0], pack.classes[0]] }, 'classes: Two classes have the same id.'],
    [
      withClass({
        checked: { by: 'Ines M.', authority: 'office', source: 'letter', on: '2026-11-25', expiresOn: '2026-02-30' },
      }),
      'classes[0].checked.expiresOn: There is no such day.',
    ],
  ])('is told what and where (%#)', (document, says) => {
    expect(problems(document)).toContain(says);
  });
});
