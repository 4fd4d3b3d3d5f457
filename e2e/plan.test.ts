import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadDay } from '../scripts/lib/demo-day.mjs';
import { BenchPage } from './pages/bench-page.js';
import { SignInPage } from './pages/sign-in-page.js';
import { misfitsAtSizes, violationsOn } from './support/measures.js';
import { startStage, type Stage } from './support/start.js';

let stage: Stage;
let page: BenchPage;
beforeAll(async () => {
  stage = await startStage({ demo: true });
  await loadDay(stage.address);
  page = new BenchPage(stage.browser.driver);
  await (await new SignInPage(page.driver).open(stage.address)).signIn('ines');
  await page.says('NEXT FOR YOU');
});
afterAll(() => stage.close());

const key = (name: string) => page.press(name);

describe('the plan of the day', () => {
  it('stands with people, places and orders, and fits at every size', async () => {
    await page.driver.get(`${stage.address}/plan`);
    await page.says('Teo R.');
    await page.says('Yard');
    await page.says('of 100');
    expect(await violationsOn(page.driver)).toEqual([]);
    expect(await misfitsAtSizes(stage.browser)).toEqual([]);
  });

  it('is looked at more closely, and day by day, by keys', async () => {
    await key('c');
    await page.says('Whole day');
    await key('c');
    await page.says('Closer');
    await key('n');
    await key('b');
    await page.says('Teo R.');
  });

  it('gives a unit to somebody by keys, tells what that would cost, and keeps it', async () => {
    await page.driver.executeScript(`document.querySelector('[role=grid]').focus()`);
    await key(Key.ARROW_RIGHT);
    await key(Key.ENTER);
    await page.says('GIVE IT TO');
    await page.click('Teo R.');
    await page.says('IF SO');
    await page.says('to Teo R.');
    await page.says('Keep it');
    await page.driver.wait(
      async () =>
        (await page.driver.executeScript(
          `return [...document.querySelectorAll('button')].some((b) => b.innerText.includes('Keep it') && !b.disabled)`,
        )) === true,
    );
    await key('k');
    await page.says('was given to Teo R.');
    await page.saysNot('IF SO');
  });

  it('puts back what was only tried', async () => {
    await page.driver.executeScript(`document.querySelector('[role=grid]').focus()`);
    await key(Key.ARROW_RIGHT);
    await key(Key.ARROW_DOWN);
    await key(Key.ENTER);
    await page.says('GIVE IT TO');
    await page.click('Asta V.');
    await page.says('IF SO');
    await key(Key.ESCAPE);
    await page.saysNot('IF SO');
  });
});

describe('a plan that is looked at longer', () => {
  it('says how far it came, and can be stopped', async () => {
    await page.click('Look longer');
    await page.says('Looking:');
    await page.click('Stop looking');
    await page.says('Look longer');
    await page.saysNot('Looking:');
  });
});

describe('a bar', () => {
  it('is dragged to somebody else, and the plan says what that would cost', async () => {
    const { driver } = page;
    await driver.get(`${stage.address}/plan`);
    await page.says('Teo R.');
    const hold = async (): Promise<Held | null> => {
      const places = await driver.executeScript<readonly [number, number] | null>(WIDEST_BAR);
      if (places === null) return null;
      const [x, y] = places;
      await driver
        .actions()
        .move({ x, y })
        .press()
        .move({ x, y: y + 20, duration: 100 })
        .perform();
      const held = await driver.executeScript<Held | null>(HELD_BAR);
      // What was laid out anew meanwhile is not in the hand.
      if (held === null) await driver.actions().release().perform();
      return held;
    };
    const held = await driver.wait(hold, 15_000, 'nobody has work that can be given away');
    if (held === null) throw new Error('no bar');
    const [toX, toY] = held.to;
    await driver.actions().move({ x: toX, y: toY, duration: 200 }).release().perform();
    await page.says(`${held.serial} to ${held.other}`);
    await page.says('Put back');
    await key(Key.ESCAPE);
    await page.saysNot('IF SO');
  });
});

interface Held {
  readonly serial: string;
  readonly other: string;
  /** Where it would be the other's. */
  readonly to: readonly [x: number, y: number];
}

const ROWS = `
  const rows = [...document.querySelectorAll('[role=row]')].filter((row) => /^(Ines M|Teo R|Asta V)/.test(row.innerText));
  const nameOf = (row) => row.querySelector('[role=rowheader] b').innerText;
`;

/** Where the widest bar stands that can be given away, null where there is none in what is shown. */
const WIDEST_BAR = `${ROWS}
  const bars = rows.flatMap((row) => [...row.querySelectorAll('[data-unit]:not([data-tone=sign]):not([data-tone=wait])')]);
  const widest = bars.sort((a, b) => b.offsetWidth - a.offsetWidth)[0];
  if (!widest) return null;
  const { left, width, top } = widest.getBoundingClientRect();
  return [left + width / 2, top + 8].map(Math.round);
`;

/** What is in the hand, null where nothing is. */
const HELD_BAR = `${ROWS}
  const bar = document.querySelector('[data-dragging]');
  const other = rows.find((row) => !row.contains(bar));
  if (!bar || !other) return null;
  const { left, top } = other.getBoundingClientRect();
  const to = [left + 400, top + 20].map(Math.round);
  return { serial: bar.getAttribute('aria-label').split(',')[0], other: nameOf(other), to };
`;

describe('people and places', () => {
  it('take hours as one writes them, refuse what is none, and lose nothing', async () => {
    await page.driver.get(`${stage.address}/plan`);
    await page.says('Teo R.');
    await key('p');
    await page.says('Another person');
    const hours = await page.field('Hours of every week');
    await hours.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Mon-Fri 8-16');
    await page.says('is no stretch of a day');
    await hours.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Mon-Sun 07:00-12:00 12:30-17:00');
    await page.saysNot('is no stretch of a day');
    await page.driver.navigate().refresh();
    await page.says('You had begun this');
    await page.click('Keep it');
    await page.says('Who is there, and when, was changed.');
    expect(await violationsOn(page.driver)).toEqual([]);
  });
});

describe('what if', () => {
  it('holds ways against each other, and against how it stands', async () => {
    await key('w');
    await page.says('Way A');
    await page.choose('What', 'Somebody goes home at');
    await page.choose('Which', 'Teo R.');
    await page.click('Add');
    await page.says('Teo R. goes home at');
    await page.says('Keep way A');
    expect(await violationsOn(page.driver)).toEqual([]);
  });
});

describe('elsewhere', () => {
  it('Line and Orders say when an order will be ready, and Line what is next and why', async () => {
    await page.driver.get(`${stage.address}/line`);
    await page.says('as likely as not');
    await page.says('is late');
    await page.driver.get(`${stage.address}/orders`);
    await page.says('with 95 of 100');
  });
});
