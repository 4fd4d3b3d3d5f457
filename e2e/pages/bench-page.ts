import { Key } from 'selenium-webdriver';
import {
  displayAtRest,
  findCode,
  formatRaw,
  glassOf,
  simulateDisplay,
  type DisplayMap,
  type DisplayState,
  type Gesture,
  type RawValues,
} from '@decurio/core';
import { Page } from './page.js';
import { prove } from './proving.js';

/** Longer than any hold or time-out of a display. */
const LONG_MS = 30_000;

/** The display on the handlebar: a simulated one, which knows nothing of what the screen wants. */
export class HandlebarDisplay {
  state: DisplayState;

  constructor(
    readonly map: DisplayMap,
    stored: RawValues = {},
  ) {
    this.state = displayAtRest(map, stored);
  }

  /** Does what the screen orders, such as `set`, `hold set and +`, `hold + to 12`, `menu twice` or `wait`. */
  obey(order: string): void {
    const keyCalled = (label: string): string => {
      const key = this.map.keys.find((k) => k.label === label);
      if (!key) throw new Error(`the display has no key "${label}"`);
      return key.id;
    };
    if (order === 'wait') return this.wait(this.state.screen.kind === 'message' ? this.state.screen.leftMs : LONG_MS);
    const until = /^hold (.+) to (\S+)$/.exec(order);
    if (until) return this.holdUntil(keyCalled(until[1] ?? ''), until[2] ?? '');
    const gesture: Gesture = order.startsWith('hold ')
      ? { kind: 'hold', keys: order.slice(5).split(' and ').map(keyCalled), ms: LONG_MS }
      : order.endsWith(' twice')
        ? { kind: 'double', key: keyCalled(order.slice(0, -6)) }
        : { kind: 'tap', key: keyCalled(order) };
    this.state = simulateDisplay(this.map, this.state, gesture);
  }

  /** Holds a key that repeats and lets go when the glass shows the value. */
  private holdUntil(key: string, text: string): void {
    const repeat = this.map.menu?.repeat;
    if (!repeat) throw new Error('this display does not repeat');
    for (let steps = 2; steps < 500; steps++) {
      const held = simulateDisplay(this.map, this.state, {
        kind: 'hold',
        keys: [key],
        ms: repeat.delayMs + (steps - 2) * repeat.everyMs + repeat.everyMs / 2,
      });
      const glass = glassOf(this.map, held);
      if (glass.kind !== 'menu' || glass.text !== text) continue;
      this.state = held;
      return;
    }
    throw new Error(`the glass never shows ${text}`);
  }

  restart(): void {
    this.state = simulateDisplay(this.map, this.state, { kind: 'powerCycle' });
  }

  closeByItself(): void {
    this.wait(LONG_MS);
  }

  private wait(ms: number): void {
    this.state = simulateDisplay(this.map, this.state, { kind: 'wait', ms });
  }

  shows(label: string): string {
    const code = findCode(this.map, label);
    return code ? formatRaw(code, this.state.inForce[label] ?? 0) : '';
  }
}

export interface Due {
  readonly order: string;
  /** Such as `3 of 41`. */
  readonly count: string;
  /** The press is a long hold that counts down. */
  readonly holds: boolean;
}

const DUE = `
  const order = document.querySelector('[aria-label="Next presses"] [aria-current=step]')?.innerText.trim() ?? null;
  const work = document.querySelector('section[aria-label=Work]')?.innerText ?? '';
  return order === null ? null : {
    order,
    count: /Press (\\d+ of \\d+)/.exec(work)?.[1] ?? '',
    holds: work.includes('Holding now, count'),
  };
`;

const ASKED = `
  const asked = document.querySelector('[data-code]');
  if (document.querySelector('section[aria-label=Work] [data-busy]') !== null) return undefined;
  return { next: asked === null ? null : asked.dataset.code + ' ' + asked.dataset.reading };
`;

export class BenchPage extends Page {
  /** As a scanner types: the serial and Enter, wherever the focus is. */
  async scan(serial: string): Promise<void> {
    await this.scanned(serial);
    await this.says(serial);
  }

  async begin(): Promise<void> {
    await this.says('has not been begun');
    await this.press(' ');
    await this.says(/checks before delivery|Pack by meter/i);
    await this.makeChecks();
    await this.says('Pack by meter');
  }

  /** What is checked before delivery, one by one, and each as it should be. */
  async makeChecks(): Promise<void> {
    const current = async () => (await this.texts('[aria-label="Checks before delivery"] [aria-current="step"]'))[0];
    for (let now = await current(); now !== undefined; now = await current()) {
      const text = await this.text();
      const range = /Read, \w+: (?:at least )?([\d.]+)/.exec(text)?.[1];
      if (range !== undefined) {
        await this.type('Read, ', range);
        if (text.includes('Tool, its number')) await this.type('Tool, its number', 'wrench 3');
        await this.press(Key.ENTER);
      } else if (now.includes('number')) {
        await this.type(now, `N-${await this.path()}`.slice(0, 60));
        await this.press(Key.ENTER);
      } else {
        await this.press(' ');
      }
      const was = now;
      await this.driver.wait(async () => (await current()) !== was, 15_000, `${was} is still asked`);
    }
  }

  async checkIn(volts = '39.8'): Promise<void> {
    await this.tick('The display is a');
    await this.type('Pack by meter', volts);
    await this.type('Odometer', '3');
    await this.tick('No cable pinched');
    await this.tick('Display clamp');
    await this.tick('dry, cool');
    await this.type('Came with', 'charger, 2 keys');
    await this.press(Key.ENTER);
  }

  /** Acknowledges every caution, one key each; those gone through on the unit before with one key together. */
  async makeSafe(): Promise<void> {
    await this.says(/Before hands go on|Once more before hands go on|All of this holds here too/);
    const isTogether = (await this.text()).includes('All of this holds here too');
    const cautions = await this.texts('[aria-label="Cautions"] li');
    for (let i = isTogether ? cautions.length : 0; i <= cautions.length; i++) await this.press(' ');
    await this.driver.wait(
      async () => (await this.findAll('[aria-label="Cautions"]')).length === 0,
      10_000,
      'the cautions are still asked',
    );
  }

  /** Reads what the display shows before anything is touched. */
  async asFound(display: HandlebarDisplay): Promise<void> {
    await this.says('AS FOUND');
    await this.readBack(display);
    if (/not as expected/.test(await this.text())) await this.press(' ');
    await this.saysNot('codes read');
  }

  /** From the form of check in to the first press. */
  async toKeyIn(display: HandlebarDisplay, volts?: string): Promise<void> {
    await this.checkIn(volts);
    await this.makeSafe();
    await this.asFound(display);
  }

  /** Calibrate left out, and what has to be shown on the vehicle said to be shown. */
  async leaveOut(): Promise<void> {
    await this.says('Done otherwise, or left out');
    await this.press('q');
    await this.says('Left out, to prove');
    await this.press(Key.ENTER);
    await this.proved();
  }

  /** Checked, and every test made as a vehicle in order shows it. */
  async proved(): Promise<void> {
    await this.says(/checks before delivery|of \d+ · wheel up/i);
    await this.makeChecks();
    await prove(this);
  }

  /** The press that is due, as the screen puts it, and which one of how many; null where none is. */
  due(): Promise<Due | null> {
    return this.driver.executeScript(DUE);
  }

  /** Presses what the screen orders until the menu is left, or until `stop` says so. */
  async keyIn(
    display: HandlebarDisplay,
    stop: (order: string, pressed: number) => boolean = () => false,
  ): Promise<void> {
    await this.find('[aria-label="Next presses"]');
    let due = await this.due();
    for (let pressed = 0; due !== null && !stop(due.order, pressed); pressed++) {
      display.obey(due.order);
      // A long hold counts down; the second press says that the glass is there already.
      await this.press(' ', ...(due.holds ? [' '] : []));
      const was = due.count;
      await this.driver.wait(async () => (due = await this.due())?.count !== was, 10_000, `press ${was} did not pass`);
    }
  }

  async restart(display: HandlebarDisplay): Promise<void> {
    await this.says('RESTART');
    display.restart();
    await this.throughRestart();
  }

  /** Says each act of the power cycle done, and waits where it wants a wait, until it is through. */
  async throughRestart(): Promise<void> {
    const current = async () => (await this.texts('[aria-label="Power cycle"] [aria-current="step"]')).join('');
    for (let now = await current(); now !== ''; now = await current()) {
      await this.press(' ');
      const was = now;
      await this.driver.wait(
        async () => (now = await current()) !== was && !now.includes('Waiting'),
        15_000,
        `"${was}" did not pass`,
      );
    }
  }

  /** The code that is asked for and whether for the first or second time, such as `L4.1 1`, once the way to it is planned; null where none is. */
  async asked(): Promise<string | null> {
    let asked: { readonly next: string | null } | null = null;
    const isPlanned = async () => (asked = await this.driver.executeScript(ASKED)) !== null;
    await this.driver.wait(isPlanned, 15_000, 'no way to the codes was planned');
    return (asked as { readonly next: string | null } | null)?.next ?? null;
  }

  /** Types what the display shows, code after code, until all are read; `misread` is typed at a first reading instead. */
  async readBack(display: HandlebarDisplay, misread: Readonly<Record<string, string>> = {}): Promise<void> {
    await this.find('[data-code]');
    for (let asked = await this.asked(); asked !== null;) {
      const [, label = '', reading] = /^(.*) (\d+)$/.exec(asked) ?? [];
      await this.press((reading === '1' ? misread[label] : undefined) ?? display.shows(label), Key.ENTER);
      const was: string = asked;
      await this.driver.wait(async () => (asked = await this.asked()) !== was, 10_000, `${was} was not taken`);
    }
  }

  /** Keys through the two fields of a spot reading, as hands would. */
  async spot(trueKmh: string, shown: string): Promise<void> {
    const readings = async () => (await this.findAll('[aria-label="Readings"] tbody tr')).length;
    const count = await readings();
    await this.press(trueKmh, Key.ENTER);
    await this.press(shown, Key.ENTER);
    await this.driver.wait(async () => (await readings()) > count, 10_000, `${shown} at ${trueKmh} was not kept`);
  }

  async signOff(): Promise<void> {
    await this.says('Sign off and seal');
    await this.click('Sign off and seal');
    await this.says('its papers, as they will print');
  }
}
