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
  const answer = await fetch('/index.html', { cache: 'no-store' }).catch(() => null);
  if (!own || !answer?.ok) return false;
  const there = mainScriptOf(await answer.text().catch(() => ''));
  return there !== null && there !== own;
}
