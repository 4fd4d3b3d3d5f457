import { writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Page } from './page.js';

export class OrdersPage extends Page {
  async open(address: string): Promise<this> {
    await this.driver.get(`${address}/orders`);
    await this.says('Take in an order');
    return this;
  }

  async drop(path: string): Promise<void> {
    await (await this.find('input[type=file]')).sendKeys(path);
  }

  /** Drops a file made of these bytes under this name. */
  async dropNew(fileName: string, content: string | Buffer): Promise<void> {
    const path = join(mkdtempSync(join(tmpdir(), 'decurio-order-')), fileName);
    writeFileSync(path, content);
    await this.drop(path);
  }

  /** Line, column and words of every problem shown. */
  async problems(): Promise<string[]> {
    await this.find('[aria-label="Problems in the file"]');
    return this.texts('[aria-label="Problems in the file"] tbody tr');
  }
}
