import { useLayoutEffect, useRef, type RefObject } from 'react';

/**
 * For a form that an act opens farther down the page: it comes into sight whole, and keys go on from its heading.
 * @param of what it is opened for: for another one it is come to again
 */
export function useComeTo<E extends HTMLElement>(of: string): RefObject<E | null> {
  const form = useRef<E>(null);
  useLayoutEffect(() => {
    const heading = form.current?.querySelector<HTMLElement>('h2, h3');
    if (heading) {
      heading.tabIndex = -1;
      heading.focus({ preventScroll: true });
    }
    form.current?.scrollIntoView({ block: 'nearest' });
  }, [of]);
  return form;
}
