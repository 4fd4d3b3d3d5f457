import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { findCode, formatRaw, fullMap, type DisplayMap } from '@decurio/core';
import type { LibraryEntry, OrderPageView } from '@decurio/contract';
import { signIn } from '../scripts/lib/api-client.mjs';
import { demoText } from '../scripts/lib/demo-files.mjs';
import { playVisit } from '../scripts/lib/load-demo.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { viewOf } from './support/other-stand.js';
import { startStage, type Stage } from './support/start.js';

const SERIAL = 'C24-0101';
const marram = fullMap(JSON.parse(demoText('maps/marram-word.json'))) as DisplayMap;
const delivered = (label: string): string => {
  const code = findCode(marram, label);
  return code ? formatRaw(code, code.factory) : '';
};

let stage: Stage;
let bench: BenchPage;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  bench = new BenchPage(stage.browser.driver);
  const ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office');
  const orders = (await ines.get('/api/orders')) as { items: { id: string; number: string }[] };
  const like = (await ines.get(
    `/api/orders/${orders.items.find(({ number }) => number === '2611')?.id}`,
  )) as OrderPageView;
  const types = (await ines.get('/api/library/vehicleType')) as LibraryEntry[];
  expect(types.map(({ id }) => id)).toContain('campion-24');
  await ines.post('/api/orders', {
    id: crypto.randomUUID(),
    number: '2691',
    customer: 'Causeway Holiday Park',
    rulePackId: like.rulePackId,
    classId: like.classId,
    houseRulesId: like.houseRulesId,
    dueAt: like.order.dueAt,
    notes: '',
    expected: [],
    terms: { siteLimit: null, orderLimit: null, throttle: like.terms.throttle, privateLand: null },
    units: [{ serial: SERIAL, typeId: 'campion-24', mapId: marram.id }],
  });
  await playVisit(
    ines,
    SERIAL,
    { serials: [SERIAL], by: 'ines', station: 'bay 1', until: 'checkedIn' },
    { at: Date.now() - 3_600_000 },
  );
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo');
  await bench.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const asked = async (): Promise<string | null> => bench.attribute('[data-code]', 'data-code');

it('a display that shows words is read by them, typed or touched; what it does not list is no surprise', async () => {
  await bench.scan(SERIAL);
  await bench.says('Take it over');
  await bench.press('o');
  await bench.makeSafe();
  await bench.says('AS FOUND · 1 OF 13');
  expect(await bench.texts('[aria-label="Words it may show"] button')).toEqual(['METRIC', 'MILES']);
  expect(await bench.findAll('[aria-label="Number pad"]')).toEqual([]);

  await bench.type('What does the glass show?', 'imperial');
  await bench.press(Key.ENTER);
  await bench.says('Type what Un shows, such as METRIC.');
  await bench.click('METRIC');
  await bench.says('km/h');
  await bench.press(Key.ENTER);

  const hidden = new Set(['G1', 'G2']);
  for (let n = 2; n <= marram.codes.length; n++) {
    await bench.says(`AS FOUND · ${n} OF 13`);
    const label = (await asked()) ?? '';
    if (hidden.has(label)) await bench.click('Not shown');
    else {
      await bench.type('What does the glass show?', delivered(label).toLowerCase());
      await bench.press(Key.ENTER);
    }
  }
  await bench.says('DISPLAY SHOULD SHOW');
  const { evidence } = await viewOf(await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office'), SERIAL);
  const found = Object.fromEntries(
    evidence.flatMap((entry) => (entry.kind === 'asFoundRead' ? [[entry.data.label, entry.data.raw]] : [])),
  );
  expect(found).toEqual(
    Object.fromEntries(marram.codes.map(({ label, factory }) => [label, hidden.has(label) ? null : factory])),
  );
});
