import { describe, expect, it } from 'vitest';
import {
  CHAIN_START,
  classLabel,
  draftOf,
  LABEL_SIZES,
  LANGUAGE_CODES,
  labelLayout,
  labelSheet,
  makeRecord,
  provingInputsOf,
  riderCard,
  riderFacts,
  sealEvidence,
  type Evidence,
  type LabelSize,
  type Language,
  type VehicleClass,
} from '@decurio/core';
import { demoMap } from '../../core/testing/demo-maps.js';
import { demoTypes, shippedClasses } from '../../core/testing/demo-types.js';
import { fourKey, inputs, pedelec, stepThrough } from '../../core/testing/samples.js';
import { deedsOf, upToSignOff, type Act } from '../../core/testing/visit-script.js';
import { overflowOf, saidBy, seenPdf } from '../testing/seen-pdf.js';
import { labelSheetPaper, unitPapers, type UnitPaper, type UnitPapers } from './draw.js';
import { makeDeliveryNote } from './delivery-note.js';

const MM = 72 / 25.4;
const signed: readonly Act[] = [...upToSignOff, ['signedOff', { words: '' }]];

function recordOf(acts: readonly Act[]) {
  const entries: Evidence[] = [];
  for (const deed of deedsOf(acts)) entries.push(sealEvidence(deed, entries.at(-1)?.hash ?? CHAIN_START));
  return makeRecord(entries);
}

const label = (over: Partial<Parameters<typeof classLabel>[0]> = {}, vehicleClass: VehicleClass = pedelec) =>
  classLabel({
    type: stepThrough,
    vehicleClass,
    limitWords: '25 km/h',
    serial: 'S26-0001',
    customer: 'Causeway Holiday Park',
    month: 'Nov 2026',
    privateLand: null,
    ...over,
  });
/** One that fits on every size. */
const shortLabel = (over: Partial<Parameters<typeof classLabel>[0]> = {}) =>
  label(
    { customer: 'Causeway', ...over },
    { ...pedelec, title: 'pedal assist', greatestMassKg: null, labelLetterMm: null },
  );
const card = (language: Language = 'en') => riderCard(riderFacts(provingInputsOf(draftOf(inputs())), false), language);

const papersOf = (over: Partial<UnitPapers> = {}): UnitPapers => ({
  odometer: null,
  record: recordOf(signed),
  map: fourKey,
  zone: 'UTC',
  isSealed: true,
  isPrivateLand: false,
  typeName: 'Sample 26',
  label: label(),
  card: card(),
  tag: { serial: 'S26-0001', typeName: 'Sample 26', orderNumber: '2611', customer: 'Causeway', square: 'S26-0001' },
  ...over,
});
const drawn = async (which: readonly UnitPaper[], over: Partial<UnitPapers> = {}, labelSize: LabelSize = 'usual') =>
  seenPdf(Buffer.from(await unitPapers({ papers: papersOf(over), which, labelSize })));

describe('a sheet of labels', () => {
  it.each(Object.keys(LABEL_SIZES) as LabelSize[])(
    'takes as many of size %s as fit, each whole and clear of the next',
    async (labelSize) => {
      const { perSheet, at } = labelSheet(labelSize);
      const labels = Array.from({ length: perSheet }, (_, i) => shortLabel({ serial: `S26-${1000 + i}` }));
      const pages = await seenPdf(
        Buffer.from(await labelSheetPaper({ title: 'Labels', madeAt: '2026-11-01T00:00:00Z', labels, labelSize })),
      );
      expect(pages).toHaveLength(1);
      expect(overflowOf(pages, 5 * MM)).toEqual([]);
      const { widthMm, heightMm } = LABEL_SIZES[labelSize];
      const words = pages[0]!.words;
      for (const [place, { lines }] of labels.entries()) {
        const serial = lines.find(({ name }) => name === 'Serial')!.value;
        const word = words.find(({ says }) => says === serial)!;
        const { xMm, yMm } = at(place);
        expect(word.left / MM).toBeGreaterThan(xMm);
        expect(word.right / MM).toBeLessThan(xMm + widthMm);
        expect(word.bottom / MM).toBeGreaterThan(yMm);
        expect(word.bottom / MM).toBeLessThan(yMm + heightMm);
      }
      const last = at(perSheet - 1);
      expect(last.xMm + widthMm).toBeLessThanOrEqual(205);
      expect(last.yMm + heightMm).toBeLessThanOrEqual(292);
    },
  );
});

describe('a certificate', () => {
  it('has every proof with what was seen, in sight and within its margins', async () => {
    const pages = await drawn(['certificate']);
    const says = saidBy(pages);
    expect(says).toContain('shown on the vehicle'.toUpperCase());
    for (const words of ['Hands off, switched on', 'Where drive ends', 'km/h, at most', 'shows it', 'SEAL OVER'])
      expect(says).toContain(words);
    expect(overflowOf(pages, 30)).toEqual([]);
    for (const page of pages) expect(page.ink({ x: 0, y: 0 }, { x: 0.05, y: 1 })).toBe(0);
  });

  it('says of a unit that came back from private land that it did', async () => {
    const land = { label: 'Harbour yard only', endsOn: '2026-12-31' };
    const back = signed.map((act): Act =>
      act[0] === 'opened'
        ? ['opened', { ...act[1], follows: { visitId: 'v-before', why: 'amended', fromPrivateLand: land } }]
        : act,
    );
    const says = 'from private land (Harbour yard only, until 2026-12-31): read and proved in full';
    expect(saidBy(await drawn(['certificate'], { record: recordOf(back) }))).toContain(says);
    expect(saidBy(await drawn(['certificate']))).not.toContain('from private land');
  });

  it('says what was left out, by whom and why', async () => {
    const acts = upToSignOff.map((act): Act =>
      act[0] === 'opened'
        ? [
            'opened',
            { ...act[1], bench: { ...act[1].bench!, proving: { ...act[1].bench!.proving!, unproved: 'inWriting' } } },
          ]
        : act,
    );
    const at = acts.findIndex(([kind, data]) => kind === 'proofSeen' && data.test === 'gauge');
    const left: readonly Act[] = [
      ...acts.slice(0, at),
      [
        'proofLeft',
        { test: 'gauge', words: 'Meter out for repair.' },
        { userId: 'u-ines', name: 'Ines M.', role: 'lead' },
      ],
      ...acts.slice(at + 1),
      ['signedOff', { words: '' }],
    ];
    expect(saidBy(await drawn(['certificate'], { record: recordOf(left) }))).toContain(
      'Left out by Ines M.: Meter out for repair.',
    );
  });

  it('that is not signed off says DRAFT across every page, and has no seal', async () => {
    const pages = await drawn(['certificate', 'riderCard', 'label', 'tag'], {
      record: recordOf(upToSignOff),
      isSealed: false,
    });
    for (const { text } of pages) expect(text).toContain('DRAFT');
    expect(saidBy(pages)).not.toContain('SEAL OVER');
    expect(saidBy(await drawn(['certificate']))).not.toContain('DRAFT');
  });
});

describe('a class label', () => {
  it.each(Object.keys(LABEL_SIZES) as LabelSize[])(
    'is as large as it says at size %s, and nothing runs over its edge',
    async (size) => {
      const [page] = await drawn(['label'], { label: shortLabel() }, size);
      expect(page!.widthPt).toBeCloseTo(LABEL_SIZES[size].widthMm * MM, 0);
      expect(page!.heightPt).toBeCloseTo(LABEL_SIZES[size].heightMm * MM, 0);
      expect(overflowOf([page!], 4)).toEqual([]);
      expect(page!.text).toContain('Pedal assist');
      expect(page!.text).toContain('25 km/h');
      expect(page!.text).toContain('250 W');
    },
  );

  it('never has letters lower than the class asks, of any class and serial; too small a size is refused', async () => {
    let [fits, refused] = [0, 0];
    for (const vehicleClass of shippedClasses().slice(0, 40)) {
      const own = label(
        { serial: 'LONG-SERIAL-0000001' },
        { ...vehicleClass, labelLetterMm: vehicleClass.labelLetterMm ?? 3 },
      );
      for (const size of Object.keys(LABEL_SIZES) as LabelSize[]) {
        const layout = labelLayout(own, size);
        if (!layout.ok) {
          refused++;
          expect(layout.problem.message).toContain(`letters of ${own.letterMm} mm`);
          continue;
        }
        fits++;
        // Capitals are seven tenths of the size.
        expect(layout.value.linePt * 0.7).toBeGreaterThanOrEqual(own.letterMm * MM - 1e-6);
      }
    }
    expect(fits).toBeGreaterThan(20);
    expect(refused).toBeGreaterThan(5);
    const dense = shippedClasses().find(({ title }) => title.length > 24)!;
    const [page] = await drawn(['label'], { label: label({ serial: 'X'.repeat(24) }, dense) }, 'large');
    expect(overflowOf([page!], 4)).toEqual([]);
  });

  it('of private land cannot be mistaken', async () => {
    const land = { label: 'Harbour yard only', endsOn: '2027-03-01' };
    const [page] = await drawn(['label'], { label: label({ privateLand: land }) }, 'large');
    expect(page!.text).toContain('NOT FOR PUBLIC ROADS');
    expect(page!.text).toContain('Until 2027-03-01');
    const warning = page!.words.find(({ says }) => says.includes('NOT FOR'))!;
    expect(warning.sizePt).toBeGreaterThanOrEqual(Math.max(...page!.words.map(({ sizePt }) => sizePt)) - 0.1);
  });
});

describe('a rider card', () => {
  it.each(LANGUAGE_CODES)('in %s stands on one page, with no key into the menu and no PIN', async (language) => {
    const pages = await drawn(['riderCard'], { card: card(language) });
    expect(pages).toHaveLength(1);
    expect(overflowOf(pages, 30)).toEqual([]);
    expect(pages[0]!.text).toContain('25 km/h');
    expect(pages[0]!.text).not.toMatch(/menu|menü|menú|pin\b/i);
    expect(pages[0]!.text).not.toContain('?');
  });

  it('says of every type and class that ships what it does here, in every language, with nothing unfilled', () => {
    for (const type of demoTypes())
      for (const vehicleClass of shippedClasses().filter(({ kind }) => kind === 'any' || kind === type.kind)) {
        const facts = riderFacts(
          provingInputsOf(draftOf(inputs({ type, map: demoMap(type.maps[0]!), vehicleClass }))),
          false,
        );
        const cards = LANGUAGE_CODES.map((language) => riderCard(facts, language));
        for (const { rows } of cards) {
          expect(rows).toHaveLength(cards[0]!.rows.length);
          for (const { name, says } of rows) expect(`${name}${says}`).not.toMatch(/[{}]|undefined|NaN|Infinity/);
        }
      }
  });

  it('tells a dead throttle, walk assist and modes as they are', () => {
    const says = (over: Parameters<typeof inputs>[0]) =>
      Object.fromEntries(
        riderCard(riderFacts(provingInputsOf(draftOf(inputs(over))), false), 'en').rows.map(({ name, says: words }) => [
          name,
          words,
        ]),
      );
    expect(says({ type: { ...stepThrough, throttleFitted: true } })['Throttle']).toBe('Switched off. It does nothing.');
    expect(says({})['Throttle']).toBe('There is none.');
    const petrel = demoTypes().find(({ id }) => id === 'petrel-10')!;
    const scooter = shippedClasses().find(({ id }) => id === 'scooter-20')!;
    expect(says({ type: petrel, map: demoMap('limpet-modes'), vehicleClass: scooter })['Modes']).toMatch(
      /^eco to \d+ km\/h, city to \d+ km\/h, fast to \d+ km\/h\. Change: press M\.$/,
    );
  });
});

describe('a unit tag', () => {
  it('has the serial in words, and both codes beside it', async () => {
    const [page] = await drawn(['tag']);
    expect(page!.text).toContain('S26-0001');
    expect(overflowOf([page!], 4)).toEqual([]);
    // Bars along the foot, the square at the upper right.
    expect(page!.ink({ x: 0.1, y: 0.72 }, { x: 0.9, y: 0.9 })).toBeGreaterThan(0.15);
    expect(page!.ink({ x: 0.72, y: 0.1 }, { x: 0.94, y: 0.45 })).toBeGreaterThan(0.3);
  });

  it('prints a serial with letters that no bars have', async () => {
    const tag = { ...papersOf().tag, serial: 'Ж-26-0001', customer: 'Жанна Петрова' };
    expect((await drawn(['tag'], { tag }))[0]!.text).toContain('Жанна');
  });
});

describe('a delivery note', () => {
  const note = {
    orderNumber: '2611',
    customer: 'Causeway Holiday Park',
    place: 'Port Isel',
    className: 'pedal assist to 25 km/h',
    classChecked: 'checked by Ines M.',
    due: '2026-12-04 12:00',
    madeAt: '2026-11-28T10:00:00.000Z',
    pinPolicy: 'Menu: one for each unit, told separately. No digits stand on any paper.',
    papers: ['For each unit: its papers.'],
    isDraft: false,
  };
  const units = Array.from({ length: 300 }, (_, i) => ({
    serial: `S26-${String(i).padStart(4, '0')}`,
    typeName: 'Samphire 26',
    stands: 'signed off',
    seal: 'a'.repeat(16),
  }));

  it('lists 300 units over as many pages as it takes, with its head on each', async () => {
    const pages = await seenPdf(await makeDeliveryNote({ ...note, units }));
    expect(pages.length).toBeGreaterThan(4);
    for (const { serial } of units) expect(saidBy(pages)).toContain(serial);
    expect(overflowOf(pages, 30)).toEqual([]);
    expect(pages.at(-1)!.text).toContain(`page ${pages.length} of ${pages.length}`);
  });

  it('of an order that is not done is a draft', async () => {
    const pages = await seenPdf(await makeDeliveryNote({ ...note, units: units.slice(0, 3), isDraft: true }));
    expect(pages[0]!.text).toContain('DRAFT');
  });
});
