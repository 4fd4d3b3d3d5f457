import { DEMO_PASSWORD } from '../../server/demo-password.js';
import { Page } from './page.js';

export class SignInPage extends Page {
  async open(address: string): Promise<this> {
    await this.driver.get(address);
    await this.says('Sign in to your bay');
    return this;
  }

  async signIn(name: string, password = DEMO_PASSWORD, bay = 'bay 3'): Promise<void> {
    await this.type('Name', name);
    await this.type('Password', password);
    await this.type('Where you work', bay);
    await this.press('\uE007');
  }
}
