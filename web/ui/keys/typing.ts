import { isDialogOpen } from './dialog-open.js';
import { takesText } from './pointed.js';

/** Fields that take digits alone. */
const DIGITS = '[data-scan-guard]:not([data-scan-guard="words"])';

/** Whether letters are words there, and no keys of the page. */
export const takesWords = (element: Element): boolean => takesText(element) && !element.matches(DIGITS);

/**
 * Notices from now on whether words are being typed: the page's keys then bear a sign that they wait, and Escape leaves
 * the field, with what was typed still in it, so that they act again.
 */
export function watchTyping(): void {
  const root = document.documentElement;
  document.addEventListener('focusin', ({ target }) => {
    root.toggleAttribute('data-typing', target instanceof Element && takesWords(target) && !isDialogOpen());
    if (target instanceof HTMLTextAreaElement) goOnAtEnd(target);
  });
  document.addEventListener('focusout', () => root.removeAttribute('data-typing'));
  // After everybody else: what a list or the page itself does with Escape comes first.
  window.addEventListener('keydown', (event) => {
    const { target } = event;
    if (event.key !== 'Escape' || event.defaultPrevented || isDialogOpen()) return;
    if (!(target instanceof HTMLElement) || !takesWords(target) || isListOpen(target)) return;
    target.blur();
  });
}

/** Where words stand already, one goes on behind them; a click puts the caret elsewhere afterwards. */
function goOnAtEnd(field: HTMLTextAreaElement): void {
  if (field.selectionStart === 0 && field.selectionEnd === 0)
    field.setSelectionRange(field.value.length, field.value.length);
}

const isListOpen = (field: Element): boolean => field.getAttribute('aria-expanded') === 'true';
