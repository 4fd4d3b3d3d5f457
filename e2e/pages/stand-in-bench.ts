import { Key } from 'selenium-webdriver';
import { BenchPage } from './bench-page.js';
import { StandIn } from './stand-in.js';

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
    await this.bench.says('codes read');
    await this.bench.press(' ');
    await this.bench.says('Shows something else');
    await this.unit.closeMenu();
  }

  /** Reads code after code from the glass and types what it shows; `misread` is typed instead, once. */
  async read(where: string, misread: Readonly<Record<string, string>> = {}): Promise<void> {
    const { bench, unit } = this;
    await bench.says(where);
    await bench.find('[data-code]');
    for (let asked = await bench.asked(); asked !== null; asked = await bench.asked()) {
      const [, label = '', reading] = /^(.*) (\d+)$/.exec(asked) ?? [];
      await unit.goTo(label);
      await (await bench.field('What does the glass show?')).sendKeys((reading === '1' ? misread[label] : undefined) ?? (await unit.value()), Key.ENTER);
      const was = asked;
      await bench.driver.wait(async () => (await bench.asked()) !== was, 10_000, `${was} was not taken`);
    }
  }

  /** What the screen says that the glass should show. */
  private async expected(): Promise<string> {
    return (await this.bench.texts('[aria-label="Display should show"] .hidden-words')).join(' ').trim();
  }

  /**
   * Presses on the unit what the screen orders, until the menu is left, `stop` says so, or the glass shows a value other
   * than the screen expects; gives that value.
   */
  async keyIn(stop: (pressed: number) => boolean = () => false): Promise<string | null> {
    const { bench, unit } = this;
    await bench.find('[aria-label="Next presses"]');
    for (let pressed = 0; ; pressed++) {
      const due = await bench.due();
      if (due === null || stop(pressed)) return null;
      await unit.obey(due.order);
      await bench.press(' ', ...((await bench.text()).includes('Holding now, count') ? [' '] : []));
      await bench.driver.wait(async () => (await bench.due())?.count !== due.count, 10_000, `press ${due.count} did not pass`);
      const [should, shows] = [await this.expected(), await unit.glass()];
      if (should.startsWith('L') && shows.startsWith('L') && should !== shows) return unit.value();
    }
  }

  /** From the end of key-in to the first code that is read back. */
  async restart(): Promise<void> {
    const { bench, unit } = this;
    await bench.press(' ');
    await bench.says('RESTART');
    await unit.restart();
    await bench.press(' ', ' ', ' ');
    await bench.says('Waiting');
    await bench.says('Done, next');
    await bench.press(' ');
    await bench.says('Restarted, to read back');
    await bench.press(' ');
  }
}
