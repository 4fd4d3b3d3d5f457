import { useEffect, type RefObject } from 'react';
import { isDialogOpen } from './dialog-open.js';

/**
 * What had the focus is drawn away when an act leads on: then the next heading of that part of the page takes it, so
 * that Tab and a screen reader go on from there and not from the top. The same on the way to another place.
 */
export function useKeptFocus(page: RefObject<HTMLElement | null>, place: string): void {
  useEffect(() => {
    const main = page.current;
    if (!main) return;
    /** Parts that the focus lay in, innermost first. */
    let around: readonly Element[] = [main];
    let isLost = document.activeElement === document.body;
    const onFocus = ({ target }: FocusEvent) => {
      if (target instanceof Element && main.contains(target)) around = partsAround(target, main);
      isLost = false;
    };
    const look = () => {
      const at = document.activeElement;
      if (at !== document.body && at !== null) return;
      if (!isLost && around.every((part) => part.isConnected) && !wasDrawnAway(around)) return;
      if (isDialogOpen()) return;
      const heading = headingIn(around.filter((part) => part.isConnected));
      if (!heading) return;
      heading.tabIndex = -1;
      heading.focus({ preventScroll: true });
    };
    main.addEventListener('focusin', onFocus);
    const watch = new MutationObserver(look);
    watch.observe(main, { childList: true, subtree: true });
    look();
    return () => {
      main.removeEventListener('focusin', onFocus);
      watch.disconnect();
    };
  }, [page, place]);
}

const PART = 'form, section, [role="region"], article';

function partsAround(target: Element, main: Element): readonly Element[] {
  const parts: Element[] = [target];
  let part = target.parentElement?.closest(PART) ?? null;
  while (part && main.contains(part)) {
    parts.push(part);
    part = part.parentElement?.closest(PART) ?? null;
  }
  return [...parts, main];
}

/** A click on what takes no focus leaves it on the page on purpose; only what is gone was drawn away. */
const wasDrawnAway = ([target]: readonly Element[]): boolean => target !== undefined && !target.isConnected;

function headingIn(parts: readonly Element[]): HTMLElement | null {
  for (const part of parts) {
    const heading = part.querySelector<HTMLElement>('h1, h2, h3, [role="alert"]');
    if (heading) return heading;
  }
  return null;
}
