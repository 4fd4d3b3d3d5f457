import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { signIn, type Client } from '../scripts/lib/api-client.mjs';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { viewOf } from './support/other-stand.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let bench: BenchPage;
let ines: Client;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  bench = new BenchPage(stage.browser.driver);
  ines = await signIn(stage.address, 'ines', DEMO_PASSWORD, 'office');
  await (await new SignInPage(stage.browser.driver).open(stage.address)).signIn('teo');
  await bench.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const begun = async (serial: string): Promise<void> => {
  await bench.scan(serial);
  await bench.says('has not been begun');
  await bench.press(' ');
  await bench.says('Scan the number of the pack');
};

describe('checks before delivery', () => {
  it('take the number of a pack from the scanner, and go on', async () => {
    await begun('S26-0421');
    await bench.scanned('PK-77120');
    await bench.says('Each lever bites before half way');
    const made = (await viewOf(ines, 'S26-0421')).evidence.at(-1);
    expect(made).toMatchObject({ kind: 'checkMade', data: { check: 'number-pack', text: 'PK-77120' } });
    // The field is gone, and no key waits for it.
    expect(await bench.attribute(':root', 'data-typing')).toBeNull();
  });

  it('that are not good hold the unit, with what was said', async () => {
    await bench.press('n');
    await bench.type('What is not good', 'front lever comes to the bar');
    await bench.press(Key.ENTER);
    await bench.says('Brake feel: front lever comes to the bar');
    await bench.says('A lead decides');
    expect(await bench.attribute(':root', 'data-typing')).toBeNull();
  });

  it('are made again once a lead has decided', async () => {
    const { unit, evidence } = await viewOf(ines, 'S26-0421');
    await ines.post(`/api/units/${unit.id}/visits/${evidence[0]?.visitId}/evidence`, {
      id: crypto.randomUUID(),
      seq: evidence.length + 1,
      kind: 'released',
      at: new Date().toISOString(),
      data: { words: 'cable shortened', decision: { way: 'goOn' } },
    });
    await bench.says('Each lever bites before half way');
    await bench.press(' ');
    await bench.says('Both wheels are fixed and run true');
  });

  it('hold a unit whose pack is noted at another one', async () => {
    await begun('S26-0422');
    await bench.scanned('PK-77120');
    await bench.says('The number PK-77120 is noted at S26-0421 too');
  });

  it('hold what lies outside its range, and refuse what cannot be', async () => {
    await begun('S26-0423');
    await bench.scanned('PK-77123');
    await bench.says('Each lever bites');
    for (const sign of ['Both wheels', 'Neither turns', 'Front and rear light', 'Its label says', 'Cold, before']) {
      await bench.press(' ');
      await bench.says(sign);
    }
    await bench.type('Read, ', '28');
    await bench.press(Key.ENTER);
    await bench.says('28 bar is far beyond');
    await bench.type('Read, ', '1.2');
    await bench.says('This holds the unit until a lead has decided.');
    await bench.press(Key.ENTER);
    await bench.says('1.2 bar, and');
  });
});
