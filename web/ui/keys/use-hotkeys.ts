import { useEffect, useLayoutEffect, useRef } from 'react';
import { mayAct, shownAnew } from './bounce.js';
import { isDialogOpen } from './dialog-open.js';
import { ownsItsKeys, takesText } from './pointed.js';
import { takesWords } from './typing.js';

/** Keys by what they do: a letter, `Space`, `Escape`, `F9`. Letters count in any case. */
export type Hotkeys = Readonly<Record<string, (() => void) | undefined>>;

export interface HotkeyOptions {
  /** What the keys act upon, such as the press that is due: when it changes, keys rest for a moment. */
  readonly shown?: string | number;
  /** They act at any moment, also right after another act: what stops, and what shows how to cut power. */
  readonly neverRest?: boolean;
}

/** A letter or digit waits this long for a next key: what a scanner types is no row of commands. */
const SCANNER_GUARD_MS = 45;

/** Keys that a foot switch types for "done, next". */
const FOOT_SWITCH = 'PageDown';

/** Typed by nobody into a field: what hangs on them works wherever the focus is. */
const FUNCTION_KEY = /^F\d{1,2}$/;

/**
 * One key per act, anywhere on the page but where text is typed. Space, Enter and the foot switch are one, also on a
 * control that was clicked or touched. Where text is typed only the foot switch, Escape, function keys, what the field
 * itself handles, letters where only digits belong, and Space while none is typed count. A key acts once per press.
 */
export function useHotkeys(hotkeys: Hotkeys, { shown, neverRest = false }: HotkeyOptions = {}): void {
  const latest = useRef(hotkeys);
  useEffect(() => {
    latest.current = hotkeys;
  });
  // Where there is a "done, next", or something that is named, it is what the whole page waits for.
  const isAsked = shown !== undefined || hotkeys['Space'] !== undefined;
  useLayoutEffect(() => {
    if (isAsked && !neverRest) shownAnew();
  }, [shown, isAsked, neverRest]);
  useEffect(() => {
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.altKey || event.metaKey || event.repeat || event.defaultPrevented) return;
      const target = event.target instanceof HTMLElement ? event.target : null;
      if (isDialogOpen() || target?.closest('[role="dialog"], [role="menu"]')) return;
      const name = nameOf(event.key);
      if (target && !reaches(event.key, name, target)) return;
      const act = latest.current[name];
      if (!act) return;
      event.preventDefault();
      const acts = () => {
        if (neverRest || mayAct(name)) act();
      };
      if (/^[a-z0-9]$/i.test(event.key)) waiting = setTimeout(unlessMore, SCANNER_GUARD_MS);
      else acts();
      // On a busy machine the time may be over before a key that was typed long ago is heard.
      function unlessMore() {
        if (isKeyOnItsWay()) waiting = setTimeout(unlessMore, 0);
        else acts();
      }
    };
    // Before anybody takes the key: the Enter of a scan goes no further than whoever hears scans.
    const onAnyKey = () => clearTimeout(waiting);
    document.addEventListener('keydown', onAnyKey, { capture: true });
    document.addEventListener('keydown', onKey);
    return () => {
      clearTimeout(waiting);
      document.removeEventListener('keydown', onAnyKey, { capture: true });
      document.removeEventListener('keydown', onKey);
    };
  }, [neverRest]);
}

/** Whether the browser holds input that no handler has seen yet; false where it does not tell. */
function isKeyOnItsWay(): boolean {
  const { scheduling } = navigator as Navigator & { readonly scheduling?: { isInputPending?: () => boolean } };
  return scheduling?.isInputPending?.() ?? false;
}

function nameOf(key: string): string {
  if (key === ' ' || key === 'Enter' || key === FOOT_SWITCH) return 'Space';
  return key.length === 1 ? key.toUpperCase() : key;
}

/** Whether a key typed there is the page's, and not its own. */
function reaches(key: string, name: string, target: HTMLElement): boolean {
  if (key === FOOT_SWITCH || key === 'Escape' || FUNCTION_KEY.test(key)) return true;
  if (takesText(target)) {
    // Where only digits are typed a letter is a command: how to cut power is one key away from everywhere.
    if (takesWords(target)) return false;
    return /^[a-z]$/i.test(key) || (key === ' ' && target instanceof HTMLInputElement && target.value === '');
  }
  return name !== 'Space' || !ownsItsKeys(target);
}
