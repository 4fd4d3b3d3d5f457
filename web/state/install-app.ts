/**
 * Puts the app's files on this device, so that it opens without a network, and asks that what it keeps is not cleared away
 * when room gets short. Only a page that came by https or from this machine may.
 */
export async function installApp(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  await navigator.serviceWorker.register('/sw.js').catch(() => undefined);
  await navigator.storage?.persist?.().catch(() => false);
}
