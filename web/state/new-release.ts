/** The files that a page of this app is made of, as its HTML names them. */
const MAIN = /src="([^"]*\/assets\/[^"]+\.js)"/;

/** The main script that an app's HTML names, or null where it is no page of this app. */
export const mainScriptOf = (html: string): string | null => MAIN.exec(html)?.[1] ?? null;

/**
 * Whether the house runs another release than this page. False where that cannot be told, as without a network: a page
 * that works is not given up for one that may not come.
 */
export async function isNewReleaseThere(): Promise<boolean> {
  const own = document.querySelector<HTMLScriptElement>('script[type="module"][src]')?.getAttribute('src');
  // Under this address the service worker has no copy of its own.
  const answer = await fetch('/index.html?as=now', { cache: 'no-store' }).catch(() => null);
  if (!own || !answer?.ok) return false;
  const there = mainScriptOf(await answer.text().catch(() => ''));
  return there !== null && there !== own;
}

/** Longest wait for the files of another release; what has arrived by then is used again the next time. */
const INSTALL_MS = 30_000;

/** Loads the house's newest release in place of this page: all of its files are here before this page is given up. */
export async function takeRelease(): Promise<void> {
  const next = await nextWorker().catch(() => null);
  if (next) {
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), { once: true });
    next.postMessage({ type: 'SKIP_WAITING' });
  } else window.location.reload();
}

/** The service worker of another release, once it has every file; null where there is none. */
async function nextWorker(): Promise<ServiceWorker | null> {
  if (!('serviceWorker' in navigator)) return null;
  const registration = await navigator.serviceWorker.getRegistration();
  if (!registration) return null;
  await registration.update();
  const { installing } = registration;
  if (!installing) return registration.waiting;
  await new Promise<void>((done) => {
    const late = setTimeout(done, INSTALL_MS);
    installing.addEventListener('statechange', () => {
      if (installing.state === 'installing') return;
      clearTimeout(late);
      done();
    });
  });
  return registration.waiting;
}
