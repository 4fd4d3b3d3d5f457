import { Key, type WebElement } from 'selenium-webdriver';
import { Page } from './page.js';

const PATIENCE_MS = 20_000;

/** The stand-in unit in its drawer: pressed by its own keys as fingers would, read by what its glass shows. */
export class StandIn extends Page {
  private keys = new Map<string, WebElement>();

  async take(): Promise<void> {
    if ((await this.findAll('[aria-label="Keys of the display"]')).length === 0) await this.click('Stand-in');
    await this.find('[aria-label="Keys of the display"]');
    this.keys.clear();
    for (const key of await this.findAll('[aria-label="Keys of the display"] button'))
      this.keys.set((await key.getText()).trim(), key);
  }

  /** What stands on the glass, one field after another: `L4.1 30`, or `0 1` while riding. */
  async glass(): Promise<string> {
    return (await this.texts('section [aria-label="The display shows"] .hidden-words')).join(' ').trim();
  }

  /** The value of the code that the glass shows. */
  async value(): Promise<string> {
    return (await this.glass()).split(' ')[1] ?? '';
  }

  private key(label: string): WebElement {
    const key = this.keys.get(label);
    if (!key) throw new Error(`the stand-in has no key "${label}"`);
    return key;
  }

  /** Does what the screen orders, such as `set`, `hold set and +` or `hold + to 12`. */
  async obey(order: string): Promise<void> {
    if (order === 'wait') return;
    const until = /^hold (.+) to (\S+)$/.exec(order);
    if (until) return this.holdUntil([until[1] ?? ''], async () => (await this.value()) === until[2]);
    if (order.startsWith('hold ')) return this.hold(order.slice(5).split(' and '));
    await this.key(order).click();
  }

  /** Holds keys until the glass shows something else. */
  async hold(labels: readonly string[]): Promise<void> {
    const before = await this.glass();
    await this.holdUntil(labels, async () => (await this.glass()) !== before);
  }

  private async holdUntil(labels: readonly string[], isThere: () => Promise<boolean>): Promise<void> {
    const keys = labels.map((label) => this.key(label));
    const last = keys.at(-1);
    if (!last) return;
    for (const key of keys.slice(0, -1))
      await this.driver.actions().keyDown(Key.SHIFT).move({ origin: key }).press().release().keyUp(Key.SHIFT).perform();
    await this.driver.actions().move({ origin: last }).press().perform();
    await this.driver.wait(isThere, PATIENCE_MS, `holding ${labels.join(' and ')} did nothing`);
    await this.driver.actions().release().perform();
  }

  /** Brings a code on the glass, opening the menu where it is closed; gives its value. */
  async goTo(label: string): Promise<string> {
    let [shown = '', value = ''] = (await this.glass()).split(' ');
    for (let steps = 0; steps < 30; steps++) {
      if (shown === label) return value;
      if (shown.startsWith('L')) await this.key('set').click();
      else await this.hold(['set', '+']);
      const was = shown;
      await this.driver.wait(
        async () => ([shown = '', value = ''] = (await this.glass()).split(' '))[0] !== was,
        PATIENCE_MS,
        `the glass stays at ${was}`,
      );
    }
    throw new Error(`the glass never shows ${label}`);
  }

  async closeMenu(): Promise<void> {
    // It may close by itself meanwhile.
    if ((await this.glass()).startsWith('L'))
      await this.holdUntil(['set'], async () => !(await this.glass()).startsWith('L'));
  }

  /** Nobody presses: the menu closes by itself. */
  async waitUntilClosed(): Promise<void> {
    await this.driver.wait(async () => !(await this.glass()).startsWith('L'), PATIENCE_MS, 'the menu never closes');
  }

  /** Dark, pack off and on, lit again. */
  async restart(): Promise<void> {
    await this.closeMenu();
    await this.hold(['on/off']);
    await this.click('Pack on');
    await this.click('Pack off');
    await this.hold(['on/off']);
  }

  /** Gives it a fault that is chosen from a list. */
  async give(fault: string, code: string): Promise<void> {
    await this.driver.executeScript('document.querySelector(\'[aria-label="Stand-in unit"] > details\').open = true');
    await this.choose(fault, code);
    await this.says('1 given');
    // Another display lies in the drawer now.
    await this.take();
  }
}
