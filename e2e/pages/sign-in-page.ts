import { DEMO_PASSWORD } from '../../server/demo-password.js';
import { Page, PATIENCE_MS } from './page.js';

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
    // Until the answer is there a page that is left takes the session with it.
    await this.driver.wait(
      async () =>
        !(await this.text()).includes('Sign in to your bay') || (await this.findAll('[role="alert"]')).length > 0,
      PATIENCE_MS,
      'signing in has no answer',
    );
  }
}
