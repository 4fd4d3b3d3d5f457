import { useEffect, useRef } from 'react';
import { isDialogOpen } from './dialog-open.js';

/** Keys by what they do: a letter, `Space`, `Enter`, `Escape`. Letters count in any case. */
export type Hotkeys = Readonly<Record<string, (() => void) | undefined>>;

/** A letter waits this long for a next one: a scanner's first letter is not a command. */
const SCANNER_GUARD_MS = 45;

/** Keys that a foot switch types for "done, next". */
const FOOT_SWITCH = 'PageDown';

/** Typed by nobody into a field: what hangs on them works wherever the focus is. */
const FUNCTION_KEY = /^F\d{1,2}$/;

/** Fields that take digits alone. */
const DIGITS = '[data-scan-guard]:not([data-scan-guard="words"])';

/**
 * One key per act, anywhere on the page but in a text field. Space and the foot switch are one. In a field only the
 * foot switch, Escape, function keys, what the field itself handles, letters where only digits belong, and Space while none is typed count.
 */
export function useHotkeys(hotkeys: Hotkeys): void {
  const latest = useRef(hotkeys);
  useEffect(() => {
    latest.current = hotkeys;
  });
  useEffect(() => {
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.altKey || event.metaKey || event.repeat || event.defaultPrevented) return;
      clearTimeout(waiting);
      const target = event.target instanceof HTMLElement ? event.target : null;
      if (isDialogOpen() || target?.closest('[role="dialog"], [role="menu"]')) return;
      const inField = target?.matches('input, textarea, select') ?? false;
      const onButton = target?.matches('button, a, summary') ?? false;
      const name =
        event.key === ' ' || event.key === FOOT_SWITCH
          ? 'Space'
          : event.key.length === 1
            ? event.key.toUpperCase()
            : event.key;
      // Where only digits are typed a letter is a command: how to cut power is one key away from everywhere.
      const isEmptyDigits = target instanceof HTMLInputElement && target.matches(DIGITS) && target.value === '';
      const isCommand =
        event.key === FOOT_SWITCH ||
        event.key === 'Escape' ||
        FUNCTION_KEY.test(event.key) ||
        (event.key === ' ' && isEmptyDigits) ||
        (/^[a-z]$/i.test(event.key) && target?.matches(DIGITS) === true);
      if (inField && !isCommand) return;
      if (onButton && (event.key === ' ' || event.key === 'Enter')) return;
      const act = latest.current[name];
      if (!act) return;
      event.preventDefault();
      if (event.key.length === 1 && event.key !== ' ') waiting = setTimeout(act, SCANNER_GUARD_MS);
      else act();
    };
    document.addEventListener('keydown', onKey);
    return () => {
      clearTimeout(waiting);
      document.removeEventListener('keydown', onKey);
    };
  }, []);
}
