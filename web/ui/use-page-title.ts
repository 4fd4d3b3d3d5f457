import { useEffect, type RefObject } from 'react';

/** Calls the tab, and with it the page for a screen reader, by its first heading and its place: `S26-0417, Bench · Decurio`. */
export function usePageTitle(page: RefObject<HTMLElement | null>, place: string | null): void {
  useEffect(() => {
    const main = page.current;
    if (!main) return;
    const name = () => {
      const heading = main.querySelector('h1')?.textContent?.trim() ?? '';
      const words = [heading, place === heading ? null : place]
        .filter((part) => part !== null && part !== '')
        .join(', ');
      document.title = words === '' ? 'Decurio' : `${words} · Decurio`;
    };
    const watch = new MutationObserver(name);
    watch.observe(main, { childList: true, subtree: true, characterData: true });
    name();
    return () => watch.disconnect();
  }, [page, place]);
}
