/** A box that is to be ticked is marked by its library alone. */
const SLIP = ':is([aria-invalid="true"], input[data-error])';

/** An answer that comes later than this finds the person elsewhere. */
const SOON_MS = 5_000;

/**
 * A form that was not taken: the focus goes to the first field that needs another look, wherever the act was, unless the
 * person has gone on meanwhile.
 */
export function watchSlips(): void {
  document.addEventListener('submit', ({ target }) => {
    if (!(target instanceof HTMLFormElement)) return;
    const before = document.activeElement;
    const over = new AbortController();
    const look = () => {
      const isElsewhere = document.activeElement !== before && document.activeElement !== document.body;
      const slip = isElsewhere || over.signal.aborted ? null : target.querySelector<HTMLElement>(SLIP);
      slip?.focus();
      if (slip || isElsewhere) over.abort();
    };
    const watch = new MutationObserver(look);
    over.signal.addEventListener('abort', () => watch.disconnect());
    setTimeout(() => over.abort(), SOON_MS);
    for (const hand of ['keydown', 'pointerdown'])
      document.addEventListener(hand, () => over.abort(), { capture: true, signal: over.signal });
    watch.observe(target, { subtree: true, childList: true, attributeFilter: ['aria-invalid', 'data-error'] });
    // What was amiss before and still is brings no change with it.
    requestAnimationFrame(look);
  });
}
