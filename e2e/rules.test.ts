import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RulePack } from '@decurio/core';
import { signIn as signInTo } from '../scripts/lib/api-client.mjs';
import { playVisit } from '../scripts/lib/load-demo.mjs';
import { ROOT } from '../scripts/lib/paths.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { Page } from './pages/page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { startStage, type Stage } from './support/start.js';

const folder = mkdtempSync(join(tmpdir(), 'decurio-rules-'));
const fileOf = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await startStage({ demo: true, downloads: folder });
  page = new Page(stage.browser.driver);
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('ines');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const go = (path: string) => page.driver.get(stage.address + path);

describe('a lead with a starter rule pack', () => {
  it('brings it in unchecked, and confirms a class with authority and source', async () => {
    await go('/library/rulePack/new');
    await page.says('checked by nobody');
    await (await page.find('section[aria-label="Starter rule packs"] li:first-child button')).click();
    await page.says('Legal values not checked');
    await page.click('Confirm this class');
    await page.click('Confirm in writing');
    await page.says('This cannot be empty.');
    await page.type('Authority that was asked', 'Roads office');
    await page.type('Paper that says so', 'Letter 9');
    await page.click('Confirm in writing');
    await page.says('Legal values checked by Ines M.');
    await page.says('Roads office; Letter 9.');
  });

  it('edits a class: what is wrong is told at its field, and a changed class is unchecked again', async () => {
    await page.click('Edit');
    await page.type('Assist ends at', '0');
    await page.click('Keep as a new version');
    await page.says('A speed above zero.');
    await page.says('nothing you typed is lost');
    await page.type('Assist ends at', '24');
    await page.click('Keep as a new version');
    await page.says('24 km/h');
    await page.saysNot('Legal values checked by Ines M.');
  });
});

describe('a type', () => {
  it('of 52 V with 13 cells is questioned as it is typed', async () => {
    await go('/library/vehicleType/samphire-26/edit');
    await page.says('A meter reads 30.0 V when empty and 42.0 V right after a full charge.');
    await page.type('Label, V', '52');
    await page.type('Cells in series', '13');
    await page.says('A 52 V pack usually has 14 cells in series, not 13');
    await page.type('Tyre marking', '50-622');
    await page.says('By its marking a turn is about 2268 mm');
    await page.type('Cells in series', Key.BACK_SPACE);
    await page.click('Keep as a new version');
    await page.says('field needs another look');
    await page.says('Type a number.');
    await page.type('Label, V', '36');
    await page.type('Cells in series', '10');
    await page.type('Tyre marking', '47-559');
    await page.type('Rolled out, mm a turn', '2041');
    await page.click('Keep as a new version');
    await page.says('rolled out 2041 mm a turn');
    await page.says('TYPE · VERSION 2');
  });

  it('that nobody has written says what it needs', async () => {
    await go('/library/vehicleType/new');
    await page.says('New type');
    await page.click('Keep');
    await page.says('fields need another look');
    await page.says('How to cut power');
  });
});

describe('house rules', () => {
  it('show every question with its default and why, and mark own ways', async () => {
    await go('/library/houseRules/lantern-couriers');
    await page.says('For Lantern Street Couriers. 3 answers differ from the defaults');
    await page.click('Edit');
    await page.says('Lantern Street riders, edited');
    const questions = await page.texts('form h2');
    expect(questions).toHaveLength(33);
    // Tab goes from question to question.
    const groups = await page.findAll('form [role="radiogroup"]');
    expect(await page.findAll('form [role="radio"][tabindex="0"]')).toHaveLength(groups.length);
    const live = await page.driver.findElement({
      xpath: '//button[@role="radio"][contains(., "only once pedalling")]',
    });
    await live.click();
    await page.click('Keep as a new version');
    await page.says('4 answers differ from the defaults');
  });
});

describe('a document from a file', () => {
  it('is told where it is wrong, and taken once it is right', async () => {
    const rules = JSON.parse(readFileSync(join(ROOT, 'demo/rules/hire-default.json'), 'utf8')) as { choices: object };
    await go('/library/houseRules/new');
    await page.says('Bring in a file');
    const input = await page.find('input[aria-label="Bring in a file"]');
    await input.sendKeys(fileOf('broken.json', '{ not json'));
    await page.says('broken.json is no JSON.');
    await input.sendKeys(
      fileOf('wrong.json', JSON.stringify({ ...rules, id: 'quay', choices: { ...rules.choices, walk: 'sometimes' } })),
    );
    await page.says('choices.walk: One of: onForCargo, off, on.');
    await input.sendKeys(fileOf('right.json', JSON.stringify({ ...rules, id: 'quay', name: 'Quay hire' })));
    await page.says('Quay hire');
    await page.says('HOUSE RULES · VERSION 1');
  });
});

describe('a unit under a class that nobody has checked', () => {
  it('is prepared, and not signed off until a lead has confirmed the class', async () => {
    const ines = await signInTo(stage.address, 'ines', DEMO_PASSWORD, 'bay 2');
    // Values that changed were checked by nobody.
    const packs = (await ines.get('/api/library/rulePack')) as { readonly id: string; readonly document: RulePack }[];
    const { document } = packs.find(({ id }) => id === 'port-isel')!;
    await ines.post('/api/library', {
      kind: 'rulePack',
      document: {
        ...document,
        classes: document.classes.map((each) =>
          each.id === 'scooter-20' ? { ...each, note: 'Asked anew in winter.', checked: null } : each,
        ),
      },
    });
    await playVisit(
      ines,
      'P10-0201',
      { serials: [], by: 'ines', station: 'bay 2', until: 'signOff', packV: 62 },
      { at: Date.now() - 3_600_000 },
    );
    await go('/bench');
    await page.says('Scan a unit');
    await page.scanned('P10-0201');
    await page.says('Nobody here has checked this class');
    const sign = await page.driver.findElement({ xpath: '//button[contains(., "Sign off and seal")]' });
    expect(await sign.isEnabled()).toBe(false);

    await go('/library/rulePack/port-isel');
    await page.says('e-scooter to 20 km/h');
    await (await page.find('section[aria-label="e-scooter to 20 km/h"] button')).click();
    await page.type('Authority that was asked', 'Port Isel harbour office');
    await page.type('Paper that says so', 'Letter HO-119');
    await page.click('Confirm in writing');
    await page.saysNot('Confirm in writing');

    await go('/bench');
    await page.says('Scan a unit');
    await page.scanned('P10-0201');
    await page.says('Legal values: checked by Ines M.');
    await page.click('Sign off and seal');
    await page.says('P10-0201: its papers, as they will print');
  });
});
