import { useEffect, useRef } from 'react';
import { isDialogOpen } from './dialog-open.js';
import { hearKey, isByHand, NOTHING_HEARD, type Into } from './scan-hearing.js';

export interface ScannerHandlers {
  readonly onScan: (text: string) => void;
  /** The slash key, outside any field. */
  readonly onSlash: () => void;
}

/**
 * Hears a scanner anywhere on the page. In a field that is not guarded the scan stays there; in a guarded one it is
 * taken out again and the field keeps what it held.
 */
export function useScanner(handlers: ScannerHandlers): void {
  const latest = useRef(handlers);
  useEffect(() => {
    latest.current = handlers;
  });
  useEffect(() => {
    let heard = NOTHING_HEARD;
    /** What the field said before the text that is heard began in it. */
    let fieldBefore = '';
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.altKey || event.metaKey) return;
      const target = event.target instanceof HTMLElement ? event.target : null;
      // Behind a dialog nothing is scanned: what is typed there would be lost.
      if (isDialogOpen() && target?.closest('[role="dialog"]') === null) {
        heard = NOTHING_HEARD;
        return;
      }
      const into = intoOf(target);
      const field = into === 'page' ? null : target;
      if (event.key === '/' && into === 'page' && isByHand(heard, event.timeStamp)) {
        heard = NOTHING_HEARD;
        event.preventDefault();
        latest.current.onSlash();
        return;
      }
      const before = heard;
      const now = hearKey(before, { key: event.key, atMs: event.timeStamp, into, field });
      heard = now.heard;
      const begins = heard.text.length === 1 || (heard.text !== '' && heard.field !== before.field);
      if (begins) fieldBefore = isTextField(field) ? field.value : '';
      if (now.scan === null) return;
      event.preventDefault();
      event.stopPropagation();
      if (isTextField(field) && before.field === field) restore(field, fieldBefore);
      latest.current.onScan(now.scan);
    };
    document.addEventListener('keydown', onKey, { capture: true });
    return () => document.removeEventListener('keydown', onKey, { capture: true });
  }, []);
}

/** A field of digits or words says so (`data-scan-guard`); any other keeps what is scanned into it. */
function intoOf(target: HTMLElement | null): Into {
  if (target?.matches('input, textarea, select, [contenteditable="true"]') !== true) return 'page';
  if (target.matches(MOMENT)) return 'words';
  const guard = target.dataset['scanGuard'];
  return guard === undefined ? 'keeps' : guard === 'words' ? 'words' : 'digits';
}

/** Dates and times: no serial is kept in one, and a scan would set it to some day long ago. */
const MOMENT = 'input:is([type="date"], [type="time"], [type="datetime-local"])';

type TextField = HTMLInputElement | HTMLTextAreaElement;
const isTextField = (field: HTMLElement | null): field is TextField =>
  field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement;

function restore(field: TextField, value: string): void {
  // What was typed into a part of a date counts once the field is left.
  if (field.matches(MOMENT)) field.blur();
  const kind = field instanceof HTMLInputElement ? HTMLInputElement : HTMLTextAreaElement;
  const set = Object.getOwnPropertyDescriptor(kind.prototype, 'value')?.set;
  set?.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}
