import { useEffect, useRef } from 'react';
import { isDialogOpen } from './dialog-open.js';

/** Digits this fast, ended by Enter, are a scanner's; letters where only digits belong are one's at any speed. */
const SCANNER_MEAN_MS = 45;
/** Between a key pressed by hand and a scan. */
const HAND_PAUSE_MS = 150;
/** After this long a new text begins. */
const PAUSE_MS = 1_000;
const SHORTEST_SCAN = 6;
/** Fields in which a scan is not meant as their content: digits from a display or a meter, and words for the record. */
const GUARDED = '[data-scan-guard]';
const WORDS = '[data-scan-guard="words"]';
/** Typed into words, only what looks like a serial and comes like a scan is one. */
const WORDS_MEAN_MS = 100;
const SERIAL = /^(?=.*\d)[A-Za-z0-9./:-]+$/;

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
    let burst = '';
    let times: number[] = [];
    let lastAt = 0;
    let fieldBefore: string | null = null;
    let typedInto: EventTarget | null = null;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.altKey || event.metaKey) return;
      const field = event.target instanceof HTMLElement ? event.target : null;
      // Behind a dialog nothing is scanned: what is typed there would be lost.
      if (isDialogOpen() && field?.closest('[role="dialog"]') === null) {
        burst = '';
        return;
      }
      const inField = field?.matches('input, textarea, select, [contenteditable="true"]') ?? false;
      const guarded = field?.matches(GUARDED) ?? false;
      if (event.key === 'Enter') {
        const meanMs = (event.timeStamp - (times[0] ?? 0)) / burst.length;
        const isFast = meanMs <= SCANNER_MEAN_MS;
        const isSerial =
          field?.matches(WORDS) === true
            ? meanMs <= WORDS_MEAN_MS && SERIAL.test(burst)
            : /[A-Za-z]/.test(burst) || isFast;
        const scanned = scannedPart(burst, times);
        const isScan = burst.length >= SHORTEST_SCAN && isSerial && (!inField || guarded);
        if (isScan) {
          event.preventDefault();
          event.stopPropagation();
          if (guarded && isTextField(field)) restore(field, fieldBefore ?? '');
          latest.current.onScan(scanned);
        }
        burst = '';
        return;
      }
      if (event.key === '/' && !inField && burst === '') {
        event.preventDefault();
        latest.current.onSlash();
        return;
      }
      if (event.key === 'Shift') return;
      if (event.key.length !== 1) {
        burst = '';
        return;
      }
      // Outside any field it is one text wherever the focus goes meanwhile: a page may just be coming up under it.
      const into = inField ? event.target : null;
      if (burst === '' || into !== typedInto || event.timeStamp - lastAt > PAUSE_MS) {
        burst = '';
        times = [];
        typedInto = into;
        fieldBefore = isTextField(field) ? field.value : null;
      }
      burst += event.key;
      times.push(event.timeStamp);
      lastAt = event.timeStamp;
    };
    document.addEventListener('keydown', onKey, { capture: true });
    return () => document.removeEventListener('keydown', onKey, { capture: true });
  }, []);
}

/** A key of the bench pressed right before a scan is not part of it: a hand pauses before a scanner begins. */
export function scannedPart(burst: string, times: readonly number[]): string {
  const gap = (i: number): number => (times[i] ?? 0) - (times[i - 1] ?? 0);
  const from = Math.max(
    0,
    [...burst].findLastIndex((_, i) => i > 0 && gap(i) >= HAND_PAUSE_MS),
  );
  const length = burst.length - from;
  const meanMs = ((times.at(-1) ?? 0) - (times[from] ?? 0)) / Math.max(1, length - 1);
  return length >= SHORTEST_SCAN && meanMs <= SCANNER_MEAN_MS ? burst.slice(from) : burst;
}

type TextField = HTMLInputElement | HTMLTextAreaElement;
const isTextField = (field: HTMLElement | null): field is TextField =>
  field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement;

function restore(field: TextField, value: string): void {
  const kind = field instanceof HTMLInputElement ? HTMLInputElement : HTMLTextAreaElement;
  const set = Object.getOwnPropertyDescriptor(kind.prototype, 'value')?.set;
  set?.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}
