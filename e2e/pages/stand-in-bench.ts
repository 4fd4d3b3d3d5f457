import { Key } from 'selenium-webdriver';
import { BenchPage } from './bench-page.js';
import { StandIn } from './stand-in.js';

interface Look {
  /** The press that is due; null once the plan is through. */
  readonly order: string | null;
  readonly count: string;
  /** The press is a long hold that counts down. */
  readonly holds: boolean;
  readonly expected: string;
  readonly glass: string;
}

/** Screen and glass may be drawn a moment apart. */
const SETTLES_MS = 1_000;

const LOOK = `
  const words = (css) => [...document.querySelectorAll(css + ' .hidden-words')].map((e) => e.innerText.trim()).join(' ').trim();
  const work = document.querySelector('section[aria-label=Work]').innerText;
  return {
    order: document.querySelector('[aria-label="Next presses"] [aria-current=step]')?.innerText.trim() ?? null,
    count: /Press (\\d+ of \\d+)/.exec(work)?.[1] ?? '',
    holds: work.includes('Holding now, count'),
    expected: words('[aria-label="Display should show"]'),
    glass: words('section [aria-label="The display shows"]'),
  };
`;

/** A technician at the bench with a stand-in unit before them: reads the screen, presses the unit's own keys. */
export class StandInBench {
  readonly bench: BenchPage;
  readonly unit: StandIn;

  constructor(
    driver: BenchPage['driver'],
    private readonly address: string,
  ) {
    this.bench = new BenchPage(driver);
    this.unit = new StandIn(driver);
  }

  /** Puts a unit on the bench, gives it what `before` gives, and works it up to its first press. */
  async toKeyIn(serial: string, before?: () => Promise<void>): Promise<void> {
    const { bench, unit } = this;
    await bench.driver.get(`${this.address}/bench`);
    await bench.says('Scan a unit');
    await bench.scan(serial);
    await bench.begin();
    await bench.checkIn('41.2');
    await bench.makeSafe();
    await unit.take();
    await before?.();
    await this.asFound();
  }

  async asFound(): Promise<void> {
    await this.read('AS FOUND');
    await this.bench.says('Shows something else');
    await this.unit.closeMenu();
  }

  /** Reads code after code from the glass and types what it shows; `misread` is typed instead, once. */
  async read(where: string, misread: Readonly<Record<string, string>> = {}): Promise<void> {
    const { bench, unit } = this;
    await bench.says(where);
    await bench.find('[data-code]');
    await (await bench.field('What does the glass show?')).click();
    for (let asked = await bench.asked(); asked !== null;) {
      const [, label = '', reading] = /^(.*) (\d+)$/.exec(asked) ?? [];
      const value = await unit.goTo(label);
      await bench.press((reading === '1' ? misread[label] : undefined) ?? value, Key.ENTER);
      const was = asked;
      await bench.driver.wait(async () => (asked = await bench.asked()) !== was, 10_000, `${was} was not taken`);
    }
  }

  /** What the screen orders and expects, and what the glass shows, at one moment. */
  private look(): Promise<Look> {
    return this.bench.driver.executeScript(LOOK);
  }

  /**
   * Presses on the unit what the screen orders, until the menu is left, `stop` says so, or the glass shows a value other
   * than the screen expects; gives that value.
   */
  async keyIn(stop: (pressed: number) => boolean = () => false): Promise<string | null> {
    const { bench, unit } = this;
    await bench.find('[aria-label="Next presses"]');
    let now = await this.look();
    for (let pressed = 0; now.order !== null && !stop(pressed); pressed++) {
      if (now.expected.startsWith('L') && !now.glass.startsWith('L')) {
        // The menu closed meanwhile, as menus do: said so, and planned anew from there.
        await bench.press('t');
        await bench.driver.wait(
          async () => !(now = await this.look()).expected.startsWith('L'),
          10_000,
          'the closed menu was not planned anew',
        );
      }
      await unit.obey(now.order);
      await bench.press(' ', ...(now.holds ? [' '] : []));
      const was = now.count;
      await bench.driver.wait(async () => (now = await this.look()).count !== was, 10_000, `press ${was} did not pass`);
      const differs = (): boolean =>
        now.expected.startsWith('L') && now.glass.startsWith('L') && now.expected !== now.glass;
      if (differs())
        await bench.driver.wait(async () => ((now = await this.look()), !differs()), SETTLES_MS).catch(() => undefined);
      if (differs()) return now.glass.split(' ')[1] ?? '';
    }
    return null;
  }

  /** From the end of key-in to the first code that is read back. */
  async restart(): Promise<void> {
    const { bench, unit } = this;
    await bench.says(/RESTART|would not change/);
    if ((await bench.text()).includes('would not change')) await bench.press(' ');
    await bench.says('RESTART');
    await unit.restart();
    await bench.throughRestart();
  }
}
