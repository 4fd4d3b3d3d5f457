import { dueTests, findCode, foldVisit, formatRaw, fullPackV, shownInOrder } from '@decurio/core';
import { By, Key, until } from 'selenium-webdriver';
import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { signIn } from '../lib/api-client.mjs';
import { openBrowser } from '../lib/browser.mjs';
import { playVisit } from '../lib/load-demo.mjs';

const PATIENCE_MS = 15_000;
const MOST_STEPS = 200;
/** The eighth unit of its family closes it: the next is keyed by what was learnt. */
const [LAST_RUN, FIRST_OF_SHIFT, CLEAN] = ['S26-0422', 'S26-0424', 'S26-0423'];

/**
 * How many keys a technician presses for one clean unit of a learnt batch, from its scan to its seal, by the real page;
 * digits and words that are typed are counted apart. The second unit of a type in a shift.
 * @param {string} address
 */
export async function pressesOfCleanUnit(address) {
  const clock = { at: Date.now() - 3_600_000 };
  const teo = await signIn(address, 'teo', DEMO_PASSWORD, 'bay 7');
  await playVisit(teo, LAST_RUN, { serials: [], by: 'teo', station: 'bay 7', until: 'sealed', wheelMm: 2142 }, clock);
  const browser = await openBrowser();
  try {
    const { driver } = browser;
    await driver.get(address);
    await driver.wait(until.elementLocated(By.css('form')), PATIENCE_MS);
    const [name, ...value] = teo.cookie.split('=');
    await driver.manage().addCookie({ name: name ?? '', value: value.join('=') });
    // As whoever knows the display keys.
    await driver.executeScript("localStorage.setItem('decurio.way', 'code')");
    await new Worker(driver, address, teo).work(FIRST_OF_SHIFT, isSealed);
    const worker = new Worker(driver, address, teo);
    await worker.work(CLEAN, isSealed);
    return { presses: worker.presses, typed: worker.typed, by: worker.by };
  } finally {
    await browser.close();
  }
}

/** The seal leads to handing over. @param {string} text */
const isSealed = (text) => /^hand over · sealed/i.test(text);

/** Somebody at the bench who reads the page and presses what it asks for. */
class Worker {
  presses = 0;
  typed = 0;
  /** @type {Record<string, number>} presses by step */
  by = {};

  /** @param {import('selenium-webdriver').WebDriver} driver @param {string} address @param {import('../lib/api-client.mjs').Client} client */
  constructor(driver, address, client) {
    this.driver = driver;
    this.address = address;
    this.client = client;
  }

  /** @param {string} serial @param {(text: string) => boolean} isDone */
  async work(serial, isDone) {
    const { id } = await this.client.get(`/api/units?serial=${serial}`);
    this.unitId = id;
    await this.driver.get(`${this.address}/bench/${id}`);
    await this.driver.wait(async () => (await this.read()).includes(serial), PATIENCE_MS);
    let before = '';
    for (let steps = 0; steps < MOST_STEPS; steps++) {
      await this.driver.wait(
        async () => {
          const now = await this.read();
          return now !== before && !now.startsWith('One moment');
        },
        PATIENCE_MS,
        `nothing follows on: ${before}`,
      );
      await this.rested();
      const text = await this.read();
      if (isDone(text)) return;
      const [now] = await this.driver.findElements(By.css('[aria-label="Steps of this visit"] [aria-current=step]'));
      this.step = ((await now?.getText()) ?? '').split('\n').find((words) => /[a-z]/.test(words)) ?? 'begin';
      await this.act(text);
      before = text;
    }
    throw new Error(`${serial} is not done after ${MOST_STEPS} acts: ${before}`);
  }

  /** @param {string} text */
  async act(text) {
    const field = (
      await this.driver.findElements(By.css('section[aria-label=Work] input, section[aria-label=Work] textarea'))
    )[0];
    if (text.includes('What does the glass show?')) return this.answer(await this.shownNow());
    const test = await this.testDue();
    if (test !== null) return this.prove(test);
    if (text.includes('Pack by meter')) return this.checkIn();
    if (/Read, \w+/.test(text)) {
      const least = /Read, \w+: (?:at least )?([\d.]+)/.exec(text)?.[1] ?? '3';
      await this.type(least);
      if (text.includes('Tool, its number') && (await this.valueOf('Tool, its number')) === '') {
        await this.press(Key.TAB);
        await this.type('wrench 3');
      }
      return this.press(Key.ENTER);
    }
    if (field && /number/i.test(text) && !text.includes('Sign off')) return this.scan(`N-${this.unitId?.slice(0, 8)}`);
    if (text.includes('Sign off and seal')) return this.signOff();
    // It ends by itself.
    if (text.includes('Waiting')) return this.settled('Waiting');
    if (text.includes('Holding now, count')) {
      await this.press(' ');
      return this.settled('Keep holding');
    }
    return this.press(' ');
  }

  async checkIn() {
    for (const key of ['d', 'c', 'k', 'l']) await this.tick(key);
    await this.type('39.8');
    await this.press(Key.TAB);
    await this.type('3');
    await this.press(Key.ENTER);
  }

  /** Says what is so by its letter; a letter waits a moment for a next key, as of a scanner.
   * @param {string} key */
  async tick(key) {
    const said = () =>
      this.driver.findElements(By.css('section[aria-label=Work] input:is([type=checkbox], [type=radio]):checked'));
    const before = (await said()).length;
    await this.press(key);
    await this.driver.wait(async () => (await said()).length > before, PATIENCE_MS, `${key} ticks nothing`);
  }

  /** The test that is due at Prove, or null. */
  async testDue() {
    const [due] = await this.driver.findElements(By.css('[data-test]'));
    return due ? due.getAttribute('data-test') : null;
  }

  /** Says what one in order shows. @param {string} id */
  async prove(id) {
    const [due] = await this.driver.findElements(By.css('[data-test]'));
    if ((await due?.getAttribute('data-verdict')) === 'shows') return this.press(' ');
    const { evidence } = await this.client.get(`/api/units/${this.unitId}/bench`);
    const fold = foldVisit(evidence);
    if (!fold.ok) throw new Error(fold.problem.message);
    const { opened } = fold.value;
    if (id === 'full') {
      await this.tick('c');
      await this.type((fullPackV(opened) + 0.3).toFixed(1));
      return this.press(Key.ENTER);
    }
    const test = dueTests({ opened }).find((each) => each.id === id);
    if (!test) throw new Error(`no such test: ${id}`);
    const seen = shownInOrder(test, opened.pack);
    if (seen.kind === 'outcome' && test.watch.kind === 'outcome')
      return this.press(String(test.watch.outcomes.findIndex((each) => each.id === seen.outcome) + 1));
    if (seen.kind === 'errors') return this.press('1');
    const figures =
      seen.kind === 'speed'
        ? [seen.trueKmh.toFixed(1)]
        : seen.kind === 'gauge'
          ? [String(seen.meterV), String(seen.shown)]
          : seen.kind === 'metres'
            ? [String(seen.metres), String(seen.besideMetres)]
            : 'figure' in seen
              ? [String(seen.figure)]
              : [];
    for (const [i, figure] of figures.entries()) {
      if (i > 0) await this.press(Key.TAB);
      await this.type(figure);
    }
    return this.press(Key.ENTER);
  }

  async signOff() {
    await this.press(Key.ENTER);
  }

  /** What the vehicle's display shows for the code that is asked for. */
  async shownNow() {
    const label = (await this.driver.findElement(By.css('[data-code]')).getAttribute('data-code')) ?? '';
    const { map, evidence } = await this.client.get(`/api/units/${this.unitId}/bench`);
    const fold = foldVisit(evidence);
    if (!fold.ok) throw new Error(fold.problem.message);
    const { step, values, opened } = fold.value;
    const target = opened.setup.targets.find((each) => each.label === label);
    const raw = step === 'readBack' ? (target?.raw ?? values[label]) : values[label];
    const code = findCode(map, label);
    return code && raw !== undefined && raw !== null ? formatRaw(code, raw) : '0';
  }

  /** A scanner ends what it reads by itself.
   * @param {string} number */
  async scan(number) {
    await this.type(number);
    await this.driver.actions().sendKeys(Key.ENTER).perform();
  }

  /** @param {string} words */
  async answer(words) {
    await this.type(words);
    await this.press(Key.ENTER);
  }

  /** @param {string} text */
  async type(text) {
    this.typed += text.length;
    await this.driver.actions().sendKeys(text).perform();
  }

  /** @param {string} key */
  async press(key) {
    this.presses++;
    this.by[this.step ?? ''] = (this.by[this.step ?? ''] ?? 0) + 1;
    await this.rested();
    await this.driver.actions().sendKeys(key).perform();
  }

  /** @param {string} label */
  async valueOf(label) {
    const field = this.driver.findElement(
      By.xpath(`//label[starts-with(normalize-space(.), "${label}")]/following::input[1]`),
    );
    return (await field.getAttribute('value')) ?? '';
  }

  /** @param {string} words */
  async settled(words) {
    await this.driver.wait(async () => !(await this.read()).includes(words), PATIENCE_MS);
  }

  async rested() {
    await this.driver.wait(
      async () => (await this.driver.findElements(By.css('[data-keys-rest]'))).length === 0,
      PATIENCE_MS,
    );
  }

  /** @returns {Promise<string>} */
  read() {
    return this.driver.executeScript("return document.querySelector('section[aria-label=Work]')?.innerText ?? ''");
  }
}
