import type { Driver } from 'selenium-webdriver/chrome.js';
import { PATIENCE_MS, type Page } from '../pages/page.js';

/** Lets this device's receiver go along at one speed, until the page takes it for steady. */
export async function rideSteadily(page: Page, metresPerSecond: number): Promise<void> {
  const driver = page.driver as Driver;
  await driver.sendDevToolsCommand('Browser.grantPermissions', { permissions: ['geolocation'] });
  let metres = 0;
  await driver.wait(
    async () => {
      await driver.sendDevToolsCommand('Emulation.setGeolocationOverride', {
        latitude: 48.5,
        longitude: -12 + ++metres * 1e-5,
        accuracy: 3,
        speed: metresPerSecond,
      });
      return (await page.text()).includes('steady, ±');
    },
    PATIENCE_MS,
    'the receiver never was steady',
  );
}

export const standStill = (page: Page): Promise<unknown> =>
  (page.driver as Driver).sendDevToolsCommand('Emulation.clearGeolocationOverride', {});
