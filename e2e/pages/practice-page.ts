import { findCode, parseTyped, type DisplayMap, type KeyPlan, type PlanStep, type RawValues } from '@decurio/core';
import { Page } from './page.js';

/** The simulated display under a person's fingers: keys of the keyboard, held as long as the glass needs. */
export class PracticePage extends Page {
  async open(address: string, mapId: string): Promise<this> {
    await this.driver.get(`${address}/practice/${mapId}`);
    await this.find('[aria-label="Keys of the display"]');
    return this;
  }

  /** What the task asks for, by label. */
  async targets(map: DisplayMap): Promise<RawValues> {
    await this.find('[aria-label="Targets"] tr');
    const rows = await this.driver.executeScript<[string, string][]>(
      'return [...document.querySelectorAll(\'[aria-label="Targets"] tr\')].map((row) => [row.querySelector("th").innerText.trim(), row.querySelector("td b").innerText.trim()])',
    );
    return Object.fromEntries(
      rows.map(([label, shown]) => {
        const code = findCode(map, label);
        const parsed = code ? parseTyped(code, shown) : null;
        if (!parsed?.ok) throw new Error(`${label} ${shown} is no value`);
        return [label, parsed.value];
      }),
    );
  }

  async pressesSoFar(): Promise<number> {
    return Number(/(\d+) press(?:es)? so far/.exec(await this.text())?.[1] ?? -1);
  }

  /** What is written under the glass, spoken: label and value. */
  async glass(): Promise<string> {
    return (
      await this.driver.executeScript<string[]>(
        'return [...document.querySelectorAll(\'[aria-label="The display shows"] .hidden-words\')].map((e) => e.textContent.trim())',
      )
    ).join(' ');
  }

  async glassShows(words: string): Promise<void> {
    let seen = '';
    await this.driver
      .wait(async () => (seen = await this.glass()) === words, 15_000)
      .catch(() => {
        throw new Error(`the glass never showed "${words}"; it shows "${seen}"`);
      });
  }

  /** Holds keys until the glass is no longer what it was. */
  async holdUntilItChanges(map: DisplayMap, keys: readonly string[]): Promise<void> {
    const before = await this.glass();
    const digits = keys.map((key) => String(map.keys.findIndex((k) => k.id === key) + 1));
    for (const digit of digits) await this.driver.actions().keyDown(digit).perform();
    await this.driver.wait(
      async () => (await this.glass()) !== before,
      15_000,
      `holding ${keys.join(' and ')} changed nothing`,
    );
    for (const digit of digits) await this.driver.actions().keyUp(digit).perform();
  }

  /** Does a whole plan, each press seen on the glass before the next. */
  async follow(map: DisplayMap, plan: KeyPlan): Promise<void> {
    for (const step of plan.steps) await this.followOne(map, step);
  }

  private async followOne(map: DisplayMap, { gesture, after }: PlanStep): Promise<void> {
    if (gesture.kind === 'hold') await this.holdUntilItChanges(map, gesture.keys);
    else if (gesture.kind === 'tap') await this.press(String(map.keys.findIndex((k) => k.id === gesture.key) + 1));
    if (after.kind === 'menu') await this.glassShows(`${after.shows} ${after.text.trim()}`);
  }
}
