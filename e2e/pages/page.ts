import { once } from 'node:events';
import { By, error, Key, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import type { Driver as ChromeDriver } from 'selenium-webdriver/chrome.js';
import { WebSocket } from 'ws';

export const PATIENCE_MS = 15_000;
/** The driver's own signs for keys, and a new line, which Enter makes. */
const HAS_KEYS = /[\n\uE000-\uF8FF]/;
/** Of a page that says the same all the time: about as long. */
const STILL_LOOKS = 100;

/** What a person does on any page: look for words, press keys. Everything waits for a state, nothing for a time. */
export class Page {
  constructor(readonly driver: WebDriver) {}

  find(css: string): Promise<WebElement> {
    return this.driver.wait(until.elementLocated(By.css(css)), PATIENCE_MS, `no ${css} on the page`);
  }

  findAll(css: string): Promise<WebElement[]> {
    return this.driver.findElements(By.css(css));
  }

  /** Texts of all elements, read at one moment. */
  texts(css: string): Promise<string[]> {
    return this.driver.executeScript(
      'return [...document.querySelectorAll(arguments[0])].map((e) => e.innerText.trim())',
      css,
    );
  }

  async text(): Promise<string> {
    return (await this.texts('body'))[0] ?? '';
  }

  /** An attribute of the first such element, or null. */
  attribute(css: string, name: string): Promise<string | null> {
    return this.driver.executeScript(
      'return document.querySelector(arguments[0])?.getAttribute(arguments[1]) ?? null',
      css,
      name,
    );
  }

  /** Waits until the page says this: as long as it still changes, and then a while. */
  async says(words: string | RegExp): Promise<void> {
    let seen = '';
    let stillLooks = 0;
    const isSaid = (): boolean => (typeof words === 'string' ? seen.includes(words) : words.test(seen));
    const settles = async (): Promise<boolean> => {
      const text = await this.text();
      stillLooks = text === seen ? stillLooks + 1 : 0;
      seen = text;
      return isSaid() || stillLooks > STILL_LOOKS;
    };
    await this.driver.wait(settles, 5 * PATIENCE_MS).catch((problem: unknown) => {
      if (!(problem instanceof error.TimeoutError)) throw problem;
    });
    if (!isSaid()) throw new Error(`the page never said ${String(words)}; it says:\n${seen}`);
  }

  async saysNot(words: string): Promise<void> {
    await this.driver.wait(
      async () => !(await this.text()).includes(words),
      PATIENCE_MS,
      `the page still says ${words}`,
    );
  }

  /** A button or link by its words; while a dialog is open one of its own, as for a person. */
  button(words: string): Promise<WebElement> {
    return this.driver.wait(until.elementLocated(By.xpath(buttonPath(words))), PATIENCE_MS, `no button "${words}"`);
  }

  async click(words: string): Promise<void> {
    await this.keysRested();
    await this.hit(buttonPath(words), `no button "${words}" that can be clicked`);
  }

  /** Clicks into the middle of the first of these that is in sight, as soon as nothing lies over it. */
  private async hit(path: string, otherwise: string): Promise<void> {
    let before: Place | null = null;
    // What is still moving to its place would be missed: it stands where it stood a look before.
    const stands = async (): Promise<Place | null> => {
      const was = before;
      before = await this.driver.executeScript<Place | null>(PLACE, path);
      return before !== null && was?.x === before.x && was.y === before.y ? before : null;
    };
    const place = await this.driver.wait(stands, PATIENCE_MS, otherwise);
    const mouse = { ...place, button: 'left', clickCount: 1 };
    for (const type of ['mousePressed', 'mouseReleased'])
      await devTools(this.driver, 'Input.dispatchMouseEvent', { type, ...mouse });
  }

  /** The field under a label. */
  field(label: string): Promise<WebElement> {
    return this.driver.wait(until.elementLocated(By.xpath(fieldPath(label))), PATIENCE_MS, `no field "${label}"`);
  }

  /** Puts this in place of what the field says, in one go, as what is pasted comes; keys one by one are for `press`. */
  async type(label: string, text: string): Promise<void> {
    const asText = text === '' || HAS_KEYS.test(text) ? null : text;
    const into = () => this.driver.executeScript<'text' | 'keys' | null>(INTO, fieldPath(label), asText);
    const took = await this.driver.wait(into, PATIENCE_MS, `no field "${label}"`);
    if (took === 'keys') await (await this.field(label)).sendKeys(Key.chord(Key.CONTROL, 'a'), text);
  }

  /** Opens the list under a label and takes the option that begins with these words. */
  async choose(label: string, option: string): Promise<void> {
    await this.hit(fieldPath(label), `no field "${label}" that can be clicked`);
    const path = `//*[@role="option"][starts-with(normalize-space(.), ${quoted(option)})]`;
    await this.hit(path, `no option "${option}" under "${label}"`);
  }

  /** Takes the choice of this value in a list of the system's own. */
  async pick(label: string, value: string): Promise<void> {
    const path = `${labelPath(label)}/following::select[1]`;
    const list = await this.driver.wait(until.elementLocated(By.xpath(path)), PATIENCE_MS, `no list "${label}"`);
    await (await list.findElement(By.css(`option[value="${value}"]`))).click();
  }

  async tick(label: string): Promise<void> {
    await this.hit(labelPath(label), `no box "${label}"`);
  }

  /** Keys wherever the focus is, each once the keys of the page have rested. */
  async press(...keys: string[]): Promise<void> {
    for (const key of keys) {
      await this.keysRested();
      await this.driver.actions().sendKeys(key).perform();
    }
  }

  /** Until a key would act: the page rests for a moment after each act, so that none counts twice. */
  async keysRested(): Promise<void> {
    await this.driver.wait(
      () => this.driver.executeScript<boolean>("return document.querySelector('[data-keys-rest]') === null"),
      PATIENCE_MS,
      'the keys never rested',
    );
  }

  /**
   * As a scanner types into whatever has the focus: the letters 5 ms apart by its own clock, then Enter. How busy the
   * machine is does not stretch it.
   */
  async scanned(text: string): Promise<void> {
    const startsAt = Date.now() / 1000;
    const letters = [...text].flatMap((letter, i) => [
      typed(startsAt, i, { type: 'keyDown', key: letter, text: letter, unmodifiedText: letter }),
      typed(startsAt, i, { type: 'keyUp', key: letter }),
    ]);
    const enter = { key: 'Enter', code: 'Enter', windowsVirtualKeyCode: 13 };
    await allAtOnce(this.driver, [
      ...letters,
      typed(startsAt, text.length, { type: 'keyDown', text: '\r', ...enter }),
      typed(startsAt, text.length, { type: 'keyUp', ...enter }),
    ]);
  }

  /** Until the server has every entry that was made on this device: what the shelf holds, whatever the page says of it yet. */
  async nothingWaits(): Promise<void> {
    const waiting = () =>
      this.driver.executeAsyncScript<number>(`
        const done = arguments[arguments.length - 1];
        const open = indexedDB.open('decurio-outbox');
        open.onerror = () => done(-1);
        open.onsuccess = () => {
          const count = open.result.transaction('entries').objectStore('entries').count();
          count.onsuccess = () => {
            open.result.close();
            done(count.result);
          };
        };`);
    await this.driver.wait(async () => (await waiting()) === 0, PATIENCE_MS, 'entries still wait on this device');
  }

  async path(): Promise<string> {
    return new URL(await this.driver.getCurrentUrl()).pathname;
  }
}

const DIALOG = '*[@role="dialog" and @aria-modal="true"]';
const UNCOVERED = `not(//${DIALOG}) or ancestor::${DIALOG}`;

const typed = (startsAt: number, i: number, params: object): object => ({
  method: 'Input.dispatchKeyEvent',
  params: { ...params, timestamp: startsAt + i * 0.005 },
});

/** Sends commands down one line without waiting for an answer between them; done once all are answered. */
async function allAtOnce(driver: WebDriver, commands: readonly object[]): Promise<void> {
  const chromium = (await driver.getCapabilities()).get('goog:chromeOptions') as { readonly debuggerAddress: string };
  const line = new WebSocket(`ws://${chromium.debuggerAddress}/devtools/page/${await driver.getWindowHandle()}`);
  await once(line, 'open');
  try {
    const answered = new Set<number>();
    const all = new Promise<void>((done, failed) => {
      line.on('error', failed);
      line.on('message', (data: Buffer) => {
        const { id, error: refused } = JSON.parse(data.toString()) as { id: number; error?: { message: string } };
        if (refused) failed(new Error(refused.message));
        if (answered.add(id).size === commands.length) done();
      });
    });
    for (const [id, command] of commands.entries()) line.send(JSON.stringify({ id, ...command }));
    await all;
  } finally {
    line.close();
  }
}

/** Any command of the browser's own: a click or a text is one where the driver makes ten of it. */
const devTools = (driver: WebDriver, command: string, params: object): Promise<unknown> =>
  (driver as ChromeDriver).sendDevToolsCommand(command, params);

interface Place {
  readonly x: number;
  readonly y: number;
}

/** Where the first of these in sight can be hit, scrolled to where that is needed; null where none can. */
const PLACE = `
  const found = document.evaluate(arguments[0], document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE, null);
  for (let i = 0; i < found.snapshotLength; i++) {
    const each = found.snapshotItem(i);
    if (!each.checkVisibility({ visibilityProperty: true })) continue;
    for (const block of ['nearest', 'center']) {
      each.scrollIntoView({ block, inline: 'nearest', behavior: 'instant' });
      const box = each.getBoundingClientRect();
      const place = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
      if (each.contains(document.elementFromPoint(place.x, place.y))) return place;
    }
  }
  return null;
`;

/**
 * Goes into a field, all it says chosen, and puts the words in its place in the same breath, so that nothing that takes
 * the focus comes between. Which of text and keys the field takes; null where it is not there, or lies in a dialog that
 * has not drawn the focus into itself yet.
 */
const INTO = `
  const [path, text] = arguments;
  const field = document.evaluate(path, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE, null).singleNodeValue;
  if (field === null || field.disabled) return null;
  const dialog = field.closest('[role=dialog]');
  if (dialog !== null && !dialog.contains(document.activeElement)) return null;
  field.focus();
  if (document.activeElement !== field) return null;
  if (text === null || !field.matches('textarea, input:is([type=text], [type=search], [type=password], [type=email], [type=tel], :not([type]))')) return 'keys';
  field.select();
  document.execCommand('insertText', false, text);
  return 'text';
`;

const buttonPath = (words: string): string =>
  `//*[self::button or self::a][contains(normalize-space(.), ${quoted(words)}) and not(@disabled)][${UNCOVERED}]`;
const labelPath = (label: string): string => `//label[starts-with(normalize-space(.), ${quoted(label)})]`;
const fieldPath = (label: string): string => `${labelPath(label)}/following::*[self::input or self::textarea][1]`;

const quoted = (words: string): string => `"${words}"`;
